import { frameOf, toSpace, underGround, type Vec2 } from '@plate-fold/core/geometry';
import { freshId, OPENING_KINDS, type Opening, removeOpening, setOpening } from '@plate-fold/core/plan';
import { Trash2 } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { OPENING_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import { type Of, SMALL } from './shape-parts';

function OpeningRow({ facts, panel, units, opening: o }: Of & { opening: Opening }) {
  const run = useRun();
  const frame = frameOf(panel.base);
  const s = toSpace(frame, o.at);
  const set = (part: Partial<Opening>) => run(setOpening, { panel: panel.id, opening: { ...o, ...part } });
  const at = (x: number, y: number) => set({ at: underGround(frame, x, y) });
  return (
    <li className="border-t border-scribe pt-2">
      <div className="grid grid-cols-[1fr_auto] gap-1.5">
        <Select
          label="Kind of opening"
          value={o.kind}
          choices={OPENING_KINDS.map(k => ({ value: k, name: OPENING_NAMES[k] }))}
          onChoose={kind => set({ kind })}
        />
        <button
          type="button"
          className={SMALL}
          aria-label={`Delete the ${OPENING_NAMES[o.kind]}`}
          onClick={() => run(removeOpening, { panel: panel.id, opening: o.id })}
        >
          <Trash2 size={16} aria-hidden="true" />
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        {'circle' in o.shape && (
          <MeasureInput
            label="Diameter"
            value={o.shape.circle}
            units={units}
            least={3}
            onEnter={v => set({ shape: { circle: v } })}
          />
        )}
        {'rect' in o.shape && (
          <>
            <MeasureInput
              label="Along"
              value={o.shape.rect[0]}
              units={units}
              least={3}
              onEnter={v => set({ shape: { rect: [v, 'rect' in o.shape ? o.shape.rect[1] : v] } })}
            />
            <MeasureInput
              label="Across"
              value={o.shape.rect[1]}
              units={units}
              least={3}
              onEnter={v => set({ shape: { rect: ['rect' in o.shape ? o.shape.rect[0] : v, v] } })}
            />
          </>
        )}
        <Select
          label="For access to"
          value={o.serves ?? 'none'}
          choices={[
            { value: 'none', name: 'for access to nothing' },
            ...facts.rig.servicePoints.map(p => ({ value: p.id, name: p.name })),
          ]}
          onChoose={v => {
            const point = facts.rig.servicePoints.find(p => p.id === v);
            set(
              point ? { serves: v, at: underGround(frame, point.at[0], point.at[1]) } : { serves: undefined },
            );
          }}
        />
        <MeasureInput label="Middle behind the axle" value={s[0]} units={units} onEnter={v => at(v, s[1])} />
        <MeasureInput label="Right of the centerline" value={s[1]} units={units} onEnter={v => at(s[0], v)} />
      </div>
    </li>
  );
}

/** Openings of the chosen plate: under service points, for stones and heat, each placed and sized. */
export function Openings(of: Of) {
  const { facts, panel } = of;
  const run = useRun();
  const frame = frameOf(panel.base);
  const us = panel.base.outline.map(q => q[0]);
  const vs = panel.base.outline.map(q => q[1]);
  const middle: Vec2 = [(Math.min(...us) + Math.max(...us)) / 2, (Math.min(...vs) + Math.max(...vs)) / 2];
  const served = new Set(panel.openings.map(o => o.serves));
  const inside = facts.rig.servicePoints.filter(p => {
    const [u, v] = underGround(frame, p.at[0], p.at[1]);
    return (
      !served.has(p.id) &&
      u > Math.min(...us) &&
      u < Math.max(...us) &&
      v > Math.min(...vs) &&
      v < Math.max(...vs)
    );
  });
  const add = (o: Omit<Opening, 'id'>) =>
    run(setOpening, { panel: panel.id, opening: { id: freshId(o.kind, panel.openings), ...o } });
  return (
    <section aria-label="Openings" className="mt-4">
      <h3 className="mb-1 font-bold">Openings</h3>
      <div className="grid gap-1.5">
        {inside.map(p => (
          <Button
            key={p.id}
            onClick={() =>
              add({
                kind: p.kind === 'oil-filter' ? 'door' : p.kind === 'converter-view' ? 'view' : 'drain',
                at: underGround(frame, p.at[0], p.at[1]),
                shape: { circle: p.opening },
                serves: p.id,
              })
            }
          >
            Open under {p.name}
          </Button>
        ))}
        <div className="grid grid-cols-2 gap-1.5">
          <Button onClick={() => add({ kind: 'stones', at: middle, shape: { circle: 25 } })}>
            Round hole
          </Button>
          <Button
            onClick={() =>
              add({ kind: 'louvers', at: middle, shape: { rect: [100, 60] }, openFraction: 0.3 })
            }
          >
            Louvers
          </Button>
        </div>
      </div>
      <ul className="mt-2 grid gap-2">
        {panel.openings.map(o => (
          <OpeningRow key={o.id} {...of} opening={o} />
        ))}
      </ul>
    </section>
  );
}
