import { boxOf } from '@plate-fold/core/geometry';
import { fitted, type PlanDocument } from '@plate-fold/core/plan';
import { entryMoved, entryRemoved, HOLE_CONDITIONS, REPAIR, type Rig, withEntry } from '@plate-fold/core/rig';
import { X } from 'lucide-react';
import { useFacts } from '../../state/derived';
import { useApp } from '../../state/store';
import { useEdit } from '../../state/use-edit';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { CONDITION_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import type { Chosen } from './rig-map';

const inRig =
  (change: (rig: Rig) => Rig) =>
  (doc: PlanDocument): PlanDocument => ({ ...doc, rig: change(doc.rig) });

/** What was chosen on the map, in exact figures. */
export function EntryCard({ chosen, onClose }: { chosen: Chosen; onClose: () => void }) {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const edit = useEdit();
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
  const change = (intent: string, to: (rig: Rig) => Rig): boolean => edit(intent, inRig(to));
  return (
    <div className="p-4">
      <header className="mb-2 flex items-start justify-between gap-2">
        <h2 className="text-[19px] leading-tight font-bold first-letter:uppercase">{title}</h2>
        <button
          type="button"
          className="-mt-1.5 -mr-2 grid size-11 place-items-center"
          aria-label="Back to the rig"
          onClick={onClose}
        >
          <X size={19} aria-hidden="true" />
        </button>
      </header>
      {body && (
        <BoxFields rig={rig} list={part ? 'components' : 'members'} id={id} footprint={body.footprint} />
      )}
      {body && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <MeasureInput
            label="Underside"
            value={body.zBottom}
            units={units}
            least={20}
            most={body.zTop - 1}
            onEnter={v =>
              change('underside set', r =>
                part
                  ? withEntry(r, 'components', id, c => ({ ...c, zBottom: v }))
                  : {
                      ...withEntry(r, 'members', id, m => ({ ...m, zBottom: v })),
                      mounts: r.mounts.map(m =>
                        m.member === id ? { ...m, at: [m.at[0], m.at[1], v] as const } : m,
                      ),
                    },
              )
            }
          />
          <MeasureInput
            label="Top"
            value={body.zTop}
            units={units}
            least={body.zBottom + 1}
            onEnter={v =>
              change('top set', r =>
                part
                  ? withEntry(r, 'components', id, c => ({ ...c, zTop: v }))
                  : withEntry(r, 'members', id, m => ({ ...m, zTop: v })),
              )
            }
          />
          {part && (
            <MeasureInput
              label="Gap to keep under it"
              value={part.keepOut}
              units={units}
              least={0}
              onEnter={v =>
                change('gap set', r => withEntry(r, 'components', id, c => ({ ...c, keepOut: v })))
              }
            />
          )}
          {member && (
            <MeasureInput
              label="Wall"
              value={member.wall}
              units={units}
              least={0.3}
              onEnter={v => change('wall set', r => withEntry(r, 'members', id, m => ({ ...m, wall: v })))}
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
            onChange={e =>
              change('protection set', r =>
                withEntry(r, 'components', id, c => ({ ...c, protect: e.target.checked })),
              )
            }
          />
          To be protected
        </label>
      )}
      {spot && (
        <div className="grid grid-cols-2 gap-2">
          {(['Behind the axle', 'Right of the middle', 'Above ground'] as const).map((label, k) => (
            <MeasureInput
              key={label}
              label={label}
              value={spot.at[k] as number}
              units={units}
              onEnter={v =>
                change('place set', r => {
                  const at = spot.at.map((o, i) => (i === k ? v : o)) as unknown as readonly [
                    number,
                    number,
                    number,
                  ];
                  return mount
                    ? withEntry(r, 'mounts', id, m => ({ ...m, at }))
                    : withEntry(r, 'servicePoints', id, s => ({ ...s, at }));
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
              onEnter={v =>
                change('opening set', r => withEntry(r, 'servicePoints', id, s => ({ ...s, opening: v })))
              }
            />
          )}
        </div>
      )}
      {mount && (
        <section className="mt-3" aria-label="Condition">
          <p className="text-[13px] text-ink2">
            {mount.hole.kind} {mount.hole.thread ?? ''} in {mount.member}
          </p>
          <Select
            label="Condition of the hole"
            value={mount.condition}
            choices={HOLE_CONDITIONS.map(c => ({ value: c, name: CONDITION_NAMES[c] }))}
            onChoose={c =>
              change('condition set', r => withEntry(r, 'mounts', id, m => ({ ...m, condition: c })))
            }
            className="mt-1 w-full"
          />
          <p className="mt-2 text-[14px]">
            <b>Repair:</b> {REPAIR[mount.condition]}.
          </p>
        </section>
      )}
      <Button
        className="mt-4 w-full"
        onClick={() => {
          if (edit('taken out', d => fitted(inRig(r => entryRemoved(r, list, id))(d)))) onClose();
        }}
      >
        Take it out of the rig
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
  const units = useApp(s => s.view.units);
  const edit = useEdit();
  const { min, max } = boxOf(footprint);
  const stretch = (axis: 0 | 1, from: number, to: number): boolean =>
    edit('size set', doc => {
      const [lo, hi] = [min[axis], max[axis]];
      const map = (v: number): number => from + ((v - lo) / (hi - lo)) * (to - from);
      const outline = footprint.map(
        p => (axis === 0 ? [map(p[0]), p[1]] : [p[0], map(p[1])]) as readonly [number, number],
      );
      return {
        ...doc,
        rig:
          list === 'components'
            ? withEntry(doc.rig, 'components', id, c => ({ ...c, footprint: outline }))
            : withEntry(doc.rig, 'members', id, m => ({ ...m, footprint: outline })),
      };
    });
  return (
    <div className="grid grid-cols-2 gap-2">
      <MeasureInput
        label="Begins behind the axle"
        value={min[0]}
        units={units}
        onEnter={v => edit('moved', d => ({ ...d, rig: entryMoved(d.rig, list, id, [v - min[0], 0]) }))}
      />
      <MeasureInput
        label="Ends"
        value={max[0]}
        units={units}
        least={min[0] + 1}
        onEnter={v => stretch(0, min[0], v)}
      />
      <MeasureInput
        label="Left edge, right is +"
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
