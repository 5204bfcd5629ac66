import { boltToHoles } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import { type FoldedPanel, facetInSpace } from '@plate-fold/core/fold';
import { boxOf, contains, type Vec2 } from '@plate-fold/core/geometry';
import { removeJoint, setSeam } from '@plate-fold/core/plan';
import type { UnitSystem } from '@plate-fold/core/units';
import { Trash2 } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { CONDITION_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';
import { BarList } from './bar-list';

const onGround = (p: FoldedPanel): readonly (readonly Vec2[])[] =>
  p.facets.map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]));

/** How the chosen plate is held: its bolts, the holes that lie over it, and its seams with the neighbors. */
export function HoldCard({
  facts,
  folded,
  units,
  onBar,
}: {
  facts: Facts;
  folded: FoldedPanel;
  units: UnitSystem;
  onBar: (id: string) => void;
}) {
  const run = useRun();
  const { panel } = folded;
  const { plan } = facts.document;
  const flats = onGround(folded);
  const mine = facts.joints.filter(j => j.joint.panels.includes(panel.id));
  const used = new Set(mine.map(j => j.mount?.id));
  const free = facts.rig.mounts.filter(
    m => !used.has(m.id) && m.condition !== 'blocked' && flats.some(f => contains(f, [m.at[0], m.at[1]])),
  );
  const box = boxOf(flats.flat());
  const neighbors = facts.panels.filter(p => {
    if (p === folded) return false;
    const b = boxOf(onGround(p).flat());
    return (
      b.min[0] <= box.max[0] + 20 &&
      b.max[0] >= box.min[0] - 20 &&
      b.min[1] < box.max[1] &&
      b.max[1] > box.min[1]
    );
  });
  return (
    <div>
      <BarList facts={facts} units={units} panel={panel.id} onChoose={onBar} />
      <section aria-label="Bolts">
        <h3 className="mb-1 font-bold">Bolts {mine.length} bolts</h3>
        <ul>
          {mine.map(j => (
            <li
              key={j.id}
              className="flex min-h-11 items-center justify-between gap-2 border-b border-scribe/70"
            >
              <span>
                <span className="fig font-semibold">{j.id}</span> {j.thread.designation}
                <span className="text-small text-ink2">
                  {' '}
                  in {j.mount?.id ?? 'its own place'}
                  {j.mount && j.mount.condition !== 'good' ? `, ${CONDITION_NAMES[j.mount.condition]}` : ''}
                </span>
              </span>
              <button
                type="button"
                className="grid size-11 place-items-center"
                aria-label={`Delete bolt ${j.id}`}
                onClick={() => run(removeJoint, { joint: j.id })}
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        {free.length > 0 && (
          <>
            <p className="mt-2 text-small text-ink2">Holes over this plate without a bolt of its own:</p>
            <div className="mt-1 grid grid-cols-2 gap-1.5">
              {free.slice(0, 12).map(m => (
                <Button
                  key={m.id}
                  className="fig text-small"
                  onClick={() => run(boltToHoles, { panel: panel.id, holes: [m.id] })}
                >
                  {m.id} {m.hole.thread ?? m.hole.kind}
                </Button>
              ))}
            </div>
          </>
        )}
      </section>
      <section aria-label="Seams" className="mt-4">
        <h3 className="mb-1 font-bold">Seams</h3>
        {neighbors.length === 0 && <p className="text-small text-ink2">No plate lies next to this one.</p>}
        <ul className="grid gap-3">
          {neighbors.map(n => {
            const ahead = boxOf(onGround(n).flat()).min[0] < box.min[0];
            const [front, rear] = ahead ? [n.panel, panel] : [panel, n.panel];
            const seam = plan.seams.find(s => s.front === front.id && s.rear === rear.id);
            return (
              <li key={n.panel.id} className="grid grid-cols-2 gap-1.5">
                <Select
                  label={`Seam of ${front.mark} and ${rear.mark}`}
                  value={seam ? (seam.outside === front.id ? 'front' : 'rear') : 'none'}
                  choices={[
                    { value: 'front', name: `${front.mark} outside ${rear.mark}` },
                    { value: 'rear', name: `${rear.mark} outside ${front.mark}` },
                    { value: 'none', name: `${front.mark} and ${rear.mark}: no seam` },
                  ]}
                  onChoose={v =>
                    run(setSeam, {
                      front: front.id,
                      rear: rear.id,
                      ...(v === 'none'
                        ? {}
                        : {
                            seam: {
                              front: front.id,
                              rear: rear.id,
                              overlap: seam?.overlap ?? 60,
                              outside: v === 'front' ? front.id : rear.id,
                            },
                          }),
                    })
                  }
                />
                {seam && (
                  <MeasureInput
                    label="Overlap"
                    hideLabel
                    value={seam.overlap}
                    units={units}
                    least={0}
                    most={300}
                    onEnter={v =>
                      run(setSeam, { front: front.id, rear: rear.id, seam: { ...seam, overlap: v } })
                    }
                  />
                )}
              </li>
            );
          })}
        </ul>
      </section>
    </div>
  );
}
