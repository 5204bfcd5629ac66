import { boxOf, type Vec3 } from '@plate-fold/core/geometry';
import { changeEntry, moveEntry, removeEntry, setHeights, stretchEntry } from '@plate-fold/core/plan';
import { HOLE_CONDITIONS, REPAIR, type Rig } from '@plate-fold/core/rig';
import { X } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { CONDITION_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import type { Chosen } from './rig-map';

/** What was chosen on the map, in exact figures. */
export function EntryCard({ chosen, onClose }: { chosen: Chosen; onClose: () => void }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const { rig } = facts.document;
  const { list, id } = chosen;
  const part = list === 'components' ? rig.components.find(c => c.id === id) : undefined;
  const member = list === 'members' ? rig.members.find(m => m.id === id) : undefined;
  const mount = list === 'mounts' ? rig.mounts.find(m => m.id === id) : undefined;
  const point = list === 'servicePoints' ? rig.servicePoints.find(s => s.id === id) : undefined;
  const body = part ?? member;
  const spot = mount ?? point;
  if (!body && !spot) return null;
  const title = part?.name ?? point?.name ?? `${member ? member.kind : 'hole'} ${id}`;
  const bodyList = part ? 'components' : 'members';
  return (
    <div className="p-4">
      <header className="mb-2 flex items-start justify-between gap-2">
        <h2 className="text-head leading-tight font-bold first-letter:uppercase">{title}</h2>
        <button
          type="button"
          className="-mt-1.5 -mr-2 grid size-11 place-items-center"
          aria-label="Back to the vehicle"
          onClick={onClose}
        >
          <X size={19} aria-hidden="true" />
        </button>
      </header>
      {body && <BoxFields rig={rig} list={bodyList} id={id} footprint={body.footprint} />}
      {body && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <MeasureInput
            label="Underside"
            value={body.zBottom}
            units={units}
            least={20}
            most={body.zTop - 1}
            onEnter={v => run(setHeights, { list: bodyList, id, zBottom: v })}
          />
          <MeasureInput
            label="Top"
            value={body.zTop}
            units={units}
            least={body.zBottom + 1}
            onEnter={v => run(setHeights, { list: bodyList, id, zTop: v })}
          />
          {part && (
            <MeasureInput
              label="Clearance to keep"
              value={part.keepOut}
              units={units}
              least={0}
              onEnter={v => run(changeEntry, { list, id, part: { keepOut: v } })}
            />
          )}
          {member && (
            <MeasureInput
              label="Wall"
              value={member.wall}
              units={units}
              least={0.3}
              onEnter={v => run(changeEntry, { list, id, part: { wall: v } })}
            />
          )}
        </div>
      )}
      {part && (
        <label className="mt-2 flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5 accent-[var(--fluid)]"
            checked={part.protect}
            onChange={e => run(changeEntry, { list, id, part: { protect: e.target.checked } })}
          />
          Protect it
        </label>
      )}
      {spot && (
        <div className="grid grid-cols-2 gap-2">
          {(['Behind the axle', 'Right of center', 'Above ground'] as const).map((label, k) => (
            <MeasureInput
              key={label}
              label={label}
              value={spot.at[k] as number}
              units={units}
              onEnter={v =>
                run(changeEntry, {
                  list,
                  id,
                  part: { at: spot.at.map((o, i) => (i === k ? v : o)) as unknown as Vec3 },
                })
              }
            />
          ))}
          {point && (
            <MeasureInput
              label="Hand and tool need"
              value={point.opening}
              units={units}
              least={0}
              onEnter={v => run(changeEntry, { list, id, part: { opening: v } })}
            />
          )}
        </div>
      )}
      {mount && (
        <section className="mt-3" aria-label="Condition">
          <p className="text-small text-ink2">
            {mount.hole.kind} {mount.hole.thread ?? ''} in {mount.member}
          </p>
          <Select
            label="Condition of the hole"
            value={mount.condition}
            choices={HOLE_CONDITIONS.map(c => ({ value: c, name: CONDITION_NAMES[c] }))}
            onChoose={c => run(changeEntry, { list, id, part: { condition: c } })}
            className="mt-1 w-full"
          />
          <p className="mt-2 text-body">
            <b>Repair:</b> {REPAIR[mount.condition]}.
          </p>
        </section>
      )}
      <Button
        className="mt-4 w-full"
        onClick={() => {
          if (run(removeEntry, { list, id })) onClose();
        }}
      >
        Delete
      </Button>
    </div>
  );
}

function BoxFields(props: {
  rig: Rig;
  list: 'components' | 'members';
  id: string;
  footprint: Rig['members'][number]['footprint'];
}) {
  const { list, id, footprint } = props;
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const { min, max } = boxOf(footprint);
  const stretch = (axis: 0 | 1, from: number, to: number) => run(stretchEntry, { list, id, axis, from, to });
  return (
    <div className="grid grid-cols-2 gap-2">
      <MeasureInput
        label="Front edge, behind the axle"
        value={min[0]}
        units={units}
        onEnter={v => run(moveEntry, { list, id, by: [v - min[0], 0] })}
      />
      <MeasureInput
        label="Ends"
        value={max[0]}
        units={units}
        least={min[0] + 1}
        onEnter={v => stretch(0, min[0], v)}
      />
      <MeasureInput
        label="Left edge (right is +)"
        value={min[1]}
        units={units}
        most={max[1] - 1}
        onEnter={v => stretch(1, v, max[1])}
      />
      <MeasureInput
        label="Right edge"
        value={max[1]}
        units={units}
        least={min[1] + 1}
        onEnter={v => stretch(1, min[1], v)}
      />
    </div>
  );
}
