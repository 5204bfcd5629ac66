import { CUTTERS, cutterOf, TOOLS } from '@plate-fold/core/fold';
import { CUTTER_IDS, type Shop } from '@plate-fold/core/plan';
import { KN_PER_TON } from '@plate-fold/core/units';
import { Trash2 } from 'lucide-react';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { useDraftField } from '../../ui/use-draft-field';

/** The profile of a shop, every figure of it editable: brake, dies, tools, stock sheets. */
export function ShopSheet(props: {
  readonly open: boolean;
  readonly shop: Shop;
  readonly onClose: () => void;
  readonly onChange: (shop: Shop) => void;
}) {
  const { open, shop, onClose, onChange } = props;
  const units = useAppSelector(s => s.view.units);
  const inch = units === 'inch';
  const tools = shop.tools ?? TOOLS;
  const name = useDraftField({
    value: shop.name,
    onEnter: text => void (text.trim() && onChange({ ...shop, name: text.trim() })),
  });
  const ton = inch ? KN_PER_TON : 1;
  const without = <T,>(list: readonly T[], at: number): readonly T[] => list.filter((_, i) => i !== at);
  const drop = (label: string, onDrop: () => void) => (
    <Button look="quiet" aria-label={label} onClick={onDrop}>
      <Trash2 size={18} aria-hidden="true" />
    </Button>
  );
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title={shop.name}
      about="Ask your shop for these. The two shops that come with the program are invented."
    >
      <label className="block text-note text-ink2">
        Name
        <input
          {...name.field}
          className="block min-h-11 w-full rounded-edge border border-scribe bg-paper px-2 text-sub text-ink"
        />
      </label>
      <h3 className="mt-3 font-bold">Cutting</h3>
      <Select
        label="How it cuts blanks"
        value={cutterOf(shop)}
        choices={CUTTER_IDS.map(c => ({ value: c, name: CUTTERS[c].name }))}
        onChoose={cutter => onChange({ ...shop, cutter })}
        className="w-full"
      />
      <p className="text-note text-ink2">Sets the smallest hole that comes out round (common practice).</p>
      <h3 className="mt-3 font-bold">Brake and its tools</h3>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <MeasureInput
          label="Brake, longest"
          value={shop.brake.length}
          units={units}
          least={200}
          onEnter={v => onChange({ ...shop, brake: { ...shop.brake, length: v } })}
        />
        <MeasureInput
          label="Brake, force"
          value={shop.brake.force / ton}
          units={units}
          plain={inch ? 'ton' : 'kN'}
          least={inch ? 2 : 20}
          onEnter={v => onChange({ ...shop, brake: { ...shop.brake, force: v * ton } })}
        />
        {(
          [
            ['punchHeight', 'Punch, tip to beam'],
            ['punchWidth', 'Punch, thickness'],
            ['dieHeight', 'Die, height'],
            ['beam', 'Beam and bed, thickness'],
          ] as const
        ).map(([key, label]) => (
          <MeasureInput
            key={key}
            label={label}
            value={tools[key]}
            units={units}
            least={4}
            most={1500}
            onEnter={v => onChange({ ...shop, tools: { ...tools, [key]: v } })}
          />
        ))}
      </div>
      <h3 className="mt-3 font-bold">Dies at hand, opening of the V</h3>
      <ul className="mt-1 grid grid-cols-2 gap-x-3 gap-y-1">
        {shop.dies.map((d, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: dies are told apart by their place only
          <li key={i} className="flex items-center gap-1">
            <MeasureInput
              className="flex-1"
              label={`Die ${i + 1}`}
              hideLabel
              value={d}
              units={units}
              least={3}
              most={400}
              onEnter={v => onChange({ ...shop, dies: shop.dies.map((x, j) => (j === i ? v : x)) })}
            />
            {drop(`Delete die ${i + 1}`, () => onChange({ ...shop, dies: without(shop.dies, i) }))}
          </li>
        ))}
      </ul>
      <Button
        className="mt-1"
        onClick={() => onChange({ ...shop, dies: [...shop.dies, (shop.dies.at(-1) ?? 16) * 2] })}
      >
        Add a die
      </Button>
      <h3 className="mt-3 font-bold">Stock sheets, long side first</h3>
      <ul className="mt-1 grid gap-1">
        {shop.sheets.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told apart by their place only
          <li key={i} className="flex items-center gap-2">
            {([0, 1] as const).map(side => (
              <MeasureInput
                key={side}
                className="flex-1"
                label={`Sheet ${i + 1}, ${side === 0 ? 'long' : 'short'} side`}
                hideLabel
                value={s[side]}
                units={units}
                least={100}
                most={20000}
                onEnter={v =>
                  onChange({
                    ...shop,
                    sheets: shop.sheets.map((x, j) => {
                      if (j !== i) return x;
                      const [a, b] = side === 0 ? [v, x[1]] : [x[0], v];
                      return [Math.max(a, b), Math.min(a, b)] as const;
                    }),
                  })
                }
              />
            ))}
            {drop(`Delete sheet ${i + 1}`, () => onChange({ ...shop, sheets: without(shop.sheets, i) }))}
          </li>
        ))}
      </ul>
      <Button
        className="mt-1"
        onClick={() => onChange({ ...shop, sheets: [...shop.sheets, [2438.4, 1219.2]] })}
      >
        Add a sheet
      </Button>
    </Dialog>
  );
}
