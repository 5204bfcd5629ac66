import { RULES } from '@plate-fold/core/checks';
import {
  type Bend,
  baseCorners,
  bendDeduction,
  brakeOrder,
  canMitre,
  type FoldedPanel,
  grainOf,
  leastRadius,
  MOST_ANGLE,
  runsAlongGrain,
  shopOf,
} from '@plate-fold/core/fold';
import { changeFlanges, turnGrain } from '@plate-fold/core/plan';
import { fixed, formatLength, lengthFigure, spoken } from '@plate-fold/core/units';
import { RadioGroup } from 'radix-ui';
import { FindingCard } from '../../shared/finding-card';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Row } from '../../ui/figure';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { BrakeFigures } from './brake-figures';
import { HoleTable } from './hole-table';
import { QuoteCard } from './quote-card';
import { ShopCard } from './shop-card';
import { ShopFiles } from './shop-files';

/** The bends of a plate in the order of the brake, what the shop's brake makes of them, and the files for the shop. */
export function BendCard({
  folded,
  bend,
  onBend,
}: {
  folded: FoldedPanel;
  bend?: string;
  onBend: (id: string) => void;
}) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const findings = useAppSelector(selectFindings).filter(
    f => f.where === 'fold' && f.about.includes(folded.panel.id),
  );
  const { panel } = folded;
  const shop = shopOf(facts.document.plan);
  const { order, blocked, gaveUp } = brakeOrder(folded, shop);
  const chosen = folded.bends.find(b => b.id === bend) ?? folded.bends.find(b => b.id === order[0]);
  return (
    <div className="p-4">
      <h2 className="text-head font-bold">
        <span className="sr-only">Plate {panel.mark}: </span>
        {order.length === 0
          ? 'No bends'
          : `${order.length} ${order.length === 1 ? 'bend' : 'bends'}${blocked.length > 0 ? '' : ' in the order for the brake'}`}
      </h2>
      {order.length > 0 && (
        <p className="text-small text-ink2">
          {blocked.length === 0
            ? 'Checked against punch, beam, die and bed at every bend. Estimate, tools as entered.'
            : gaveUp
              ? 'No bend order found for this brake (not every order was tried). What is in the way is below.'
              : 'No bend order works on this brake. What is in the way is below.'}
        </p>
      )}
      <ol className="mt-2">
        {order.map((id, i) => {
          const b = folded.bends.find(x => x.id === id);
          if (!b) return null;
          const on = b === chosen;
          const stuck = blocked.some(x => x.bend === id);
          return (
            <li key={id}>
              <button
                type="button"
                aria-pressed={on}
                onClick={() => onBend(id)}
                className={`grid min-h-11 w-full grid-cols-[1.4rem_1fr_auto_auto] items-center gap-2 border-b border-scribe/70 px-1.5 text-left ${on ? 'bg-fluid text-onfluid [&_*]:text-onfluid' : 'hover:bg-paper'}`}
              >
                <span className="fig text-note text-ink2">{stuck ? '✕' : i + 1}</span>
                <span className="truncate">{spoken(id)}</span>
                <span className="fig">
                  {b.angle > 0 ? '↑' : '↓'} {fixed(Math.abs(b.angle), 1)}°
                </span>
                <span className="fig text-small text-ink2">
                  R {formatLength(b.insideRadius, units, true)}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      {chosen && <ChosenBend key={chosen.id} folded={folded} bend={chosen} />}
      {order.length > 0 && <Grain folded={folded} />}
      <HoleTable folded={folded} />
      <ShopCard folded={folded} />
      <ShopFiles folded={folded} />
      <QuoteCard />
      {findings.length > 0 && (
        <ul className="mt-4 grid gap-2" aria-label="Findings on the bends">
          {findings.map(f => (
            <FindingCard key={f.text} finding={f} why={RULES.find(r => r.id === f.rule)?.why} />
          ))}
        </ul>
      )}
    </div>
  );
}

/** One bend: which way, how far, how round, its ends, and its figures. */
function ChosenBend({ folded, bend }: { folded: FoldedPanel; bend: Bend }) {
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const { panel, sheet } = folded;
  const flange = folded.facets.find(f => f.id === bend.id)?.flange;
  if (!flange) return null;
  const t = sheet.thickness;
  const least = leastRadius(folded, bend.id);
  const figure = (mm: number) => lengthFigure(mm, units, true);
  const set = (part: Parameters<typeof changeFlanges.run>[1]['part']): void =>
    void run(changeFlanges, { panel: panel.id, flanges: [flange.id], part });
  const corners = baseCorners(panel).filter(c => c.ends.some(e => e?.flange.id === bend.id));
  const mitrable = corners.some(canMitre);
  const mitred = corners.some(c => canMitre(c) && c.ends.some(e => e?.flange.mitre));
  const reliefs = folded.blank.reliefs.filter(r => r.bends.includes(bend.id));
  return (
    <section aria-label={`Bend ${bend.id}`} className="mt-4">
      <h3 className="font-bold first-letter:uppercase">{spoken(bend.id)}</h3>
      <div className="mt-1 grid grid-cols-[auto_1fr_1fr] items-end gap-2">
        <RadioGroup.Root
          aria-label="Folds"
          value={String(Math.sign(flange.angle || 1))}
          onValueChange={way => set({ angle: Number(way) * Math.abs(flange.angle) })}
          className="flex flex-wrap"
        >
          <span className="w-full text-note text-ink2">Folds</span>
          {([1, -1] as const).map(way => (
            <RadioGroup.Item
              key={way}
              value={String(way)}
              className={`min-h-11 border px-2.5 first-of-type:rounded-l-edge last-of-type:rounded-r-edge ${Math.sign(flange.angle || 1) === way ? 'border-fluid bg-fluid font-semibold text-onfluid' : 'border-scribe bg-paper'}`}
            >
              {way > 0 ? 'up' : 'down'}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
        <MeasureInput
          label="Angle"
          value={Math.abs(flange.angle)}
          units={units}
          plain="°"
          least={0}
          most={MOST_ANGLE}
          onEnter={v => set({ angle: v * (flange.angle < 0 ? -1 : 1) })}
        />
        <MeasureInput
          label="Inside radius"
          value={flange.insideRadius ?? bend.insideRadius}
          units={units}
          least={0.2}
          onEnter={v => set({ insideRadius: v })}
        />
      </div>
      <div className="mt-2 grid grid-cols-[1.35fr_1fr_1fr] gap-2">
        <MeasureInput
          label="Flange"
          value={flange.length}
          units={units}
          least={5}
          onEnter={v => set({ length: v })}
        />
        {(['Inset, start', 'Inset, end'] as const).map((label, i) => (
          <MeasureInput
            key={label}
            label={label}
            value={flange.inset?.[i] ?? 0}
            units={units}
            least={0}
            onEnter={v => {
              const [a, b] = flange.inset ?? [0, 0];
              set({ inset: i === 0 ? [v, b] : [a, v] });
            }}
          />
        ))}
      </div>
      {mitrable && (
        <label className="mt-1 flex min-h-11 items-center gap-2.5">
          <input
            type="checkbox"
            className="size-5 accent-[var(--fluid)]"
            checked={mitred}
            onChange={e =>
              run(changeFlanges, {
                panel: panel.id,
                flanges: corners
                  .filter(canMitre)
                  .flatMap(c => c.ends)
                  .flatMap(end => end?.flange.id ?? []),
                part: { mitre: e.target.checked },
              })
            }
          />
          mitered with the flange beside it
        </label>
      )}
      <dl className="mt-2">
        <Row
          name="Least radius"
          how="least-radius"
          of={Number.isFinite(least) ? figure(least) : { value: '–', unit: '' }}
          meaning={
            Number.isFinite(least)
              ? runsAlongGrain(folded, bend.id)
                ? 'this bend runs along the grain; estimate'
                : 'this bend runs across the grain'
              : 'this sheet cannot be bent cold'
          }
        />
        <BrakeFigures folded={folded} bend={bend} />
        <Row
          name="Allowance"
          how="allowance"
          of={figure(bend.allowanceMm)}
          meaning="neutral fiber in the bend"
        />
        <Row
          name="Deduction"
          how="deduction"
          of={figure(bendDeduction(Math.abs(bend.angle), bend.insideRadius, t, bend.kFactor))}
          meaning="from both legs, measured outside"
        />
        {reliefs.length > 0 && (
          <Row
            name="Reliefs"
            how="reliefs"
            of={{ value: String(reliefs.length), unit: '' }}
            meaning={
              reliefs.some(r => r.kind === 'corner')
                ? 'cut where two bends meet and at free ends'
                : `beside its ends, ${formatLength(t, units, true)} wide, R + t deep`
            }
          />
        )}
      </dl>
    </section>
  );
}

/** Which way the blank lies to the grain of its sheet. */
function Grain({ folded }: { folded: FoldedPanel }) {
  const run = useRun();
  return (
    <div className="mt-3">
      <span className="block text-note text-ink2">Grain of the sheet</span>
      <Select
        label="Grain of the sheet"
        value={grainOf(folded)[0] !== 0 ? 'u' : 'v'}
        choices={[
          { value: 'u', name: 'along the vehicle' },
          { value: 'v', name: 'across the vehicle' },
        ]}
        onChoose={g => run(turnGrain, { panel: folded.panel.id, grain: g })}
        className="w-full"
      />
    </div>
  );
}
