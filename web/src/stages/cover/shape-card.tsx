import { frameOf, toSpace, underGround } from '@plate-fold/core/geometry';
import {
  addCorner,
  DUTIES,
  type Duty,
  moveCorner,
  movePlate,
  removeCorner,
  renamePlate,
  setBase,
  setDuty,
  setGuard,
} from '@plate-fold/core/plan';
import { Plus, Trash2 } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { MeasureInput } from '../../ui/measure-input';
import { useDraftField } from '../../ui/use-draft-field';
import { Flanges } from './flange-fields';
import { Openings } from './opening-fields';
import { type Of, SMALL } from './shape-parts';

function Place({ panel, units }: Of) {
  const run = useRun();
  const [x, y, z] = panel.base.origin;
  return (
    <section aria-label="Place">
      <h3 className="mb-1 font-bold">Place and tilt</h3>
      <div className="grid grid-cols-2 gap-2">
        <MeasureInput
          label="Front edge, behind the axle"
          value={x}
          units={units}
          onEnter={v => run(movePlate, { panel: panel.id, by: [v - x, 0, 0] })}
        />
        <MeasureInput
          label="Moved right by"
          value={y}
          units={units}
          onEnter={v => run(movePlate, { panel: panel.id, by: [0, v - y, 0] })}
        />
        <MeasureInput
          label="Bottom above ground"
          value={z}
          units={units}
          least={40}
          onEnter={v => run(setBase, { panel: panel.id, z: v })}
        />
        <MeasureInput
          label="Front edge raised by"
          value={panel.base.pitch}
          units={units}
          plain="°"
          least={-60}
          most={60}
          onEnter={v => run(setBase, { panel: panel.id, pitch: v })}
        />
      </div>
    </section>
  );
}

function Corners({ panel, units }: Of) {
  const run = useRun();
  const frame = frameOf(panel.base);
  return (
    <section aria-label="Corners" className="mt-4">
      <h3 className="mb-1 font-bold">
        Corners, from above{' '}
        <span className="text-note font-normal text-ink2">
          {units === 'inch' ? 'in' : 'mm'} behind the axle, right
        </span>
      </h3>
      <ul className="grid gap-1.5">
        {panel.base.outline.map((q, i) => {
          const s = toSpace(frame, q);
          const to = (x: number, y: number) =>
            run(moveCorner, { panel: panel.id, corner: i, to: underGround(frame, x, y) });
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the outline
            <li key={i} className="grid grid-cols-[1.2rem_1fr_1fr_auto_auto] items-center gap-1.5">
              <span className="fig text-small text-ink2">{i + 1}</span>
              <MeasureInput
                label={`Corner ${i + 1} behind the axle`}
                hideLabel
                bare
                value={s[0]}
                units={units}
                onEnter={v => to(v, s[1])}
              />
              <MeasureInput
                label={`Corner ${i + 1} right of center`}
                hideLabel
                bare
                value={s[1]}
                units={units}
                onEnter={v => to(s[0], v)}
              />
              <button
                type="button"
                className={SMALL}
                aria-label={`Add a corner after corner ${i + 1}`}
                onClick={() => run(addCorner, { panel: panel.id, edge: i })}
              >
                <Plus size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={SMALL}
                aria-label={`Delete corner ${i + 1}`}
                onClick={() => run(removeCorner, { panel: panel.id, corner: i })}
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const DUTY_NAMES: Readonly<Record<Duty, string>> = {
  jack: 'May be used as a jacking point',
  recovery: 'May be used as a recovery point',
};

/** What a plate is made to carry: nothing, unless its owner says so. */
function Duties({ panel }: Of) {
  const run = useRun();
  const meant = panel.meantFor ?? [];
  return (
    <fieldset className="mt-4">
      <legend className="mb-1 font-bold">Made for</legend>
      {DUTIES.map(duty => (
        <label key={duty} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5 accent-[var(--fluid)]"
            checked={meant.includes(duty)}
            onChange={e => run(setDuty, { panel: panel.id, duty, on: e.target.checked })}
          />
          {DUTY_NAMES[duty]}
        </label>
      ))}
      <p className="text-small text-ink2">
        A plate is not a jacking or recovery point unless it was built as one. Jack where the vehicle maker
        says; hook to the frame.
      </p>
    </fieldset>
  );
}

/** The chosen plate's shape in exact figures. */
export function ShapeCard(of: Of) {
  const { facts, panel } = of;
  const run = useRun();
  const name = useDraftField({
    value: panel.name,
    onEnter: text => void (text.trim() && run(renamePlate, { panel: panel.id, name: text.trim() })),
  });
  return (
    <div>
      <label className="mb-3 block">
        <span className="block text-note text-ink2">Name</span>
        <input {...name.field} className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-2" />
      </label>
      <Place {...of} />
      <Corners {...of} />
      <Flanges {...of} />
      <Openings {...of} />
      <section aria-label="Protects" className="mt-4">
        <h3 className="mb-1 font-bold">Protects</h3>
        <ul>
          {facts.rig.components
            .filter(c => c.protect || panel.guards.includes(c.id))
            .map(c => (
              <li key={c.id}>
                <label className="flex min-h-11 items-center gap-3">
                  <input
                    type="checkbox"
                    className="size-5 accent-[var(--fluid)]"
                    checked={panel.guards.includes(c.id)}
                    onChange={e => run(setGuard, { panel: panel.id, component: c.id, on: e.target.checked })}
                  />
                  {c.name}
                </label>
              </li>
            ))}
        </ul>
      </section>
      <Duties {...of} />
    </div>
  );
}
