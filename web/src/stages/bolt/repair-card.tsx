import { type ResolvedJoint, repairOptions, toolName } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import { takeHardware } from '@plate-fold/core/plan';
import { fixed } from '@plate-fold/core/units';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { CONDITION_NAMES } from '../../ui/names';

/** What can be done with a bad hole, the strongest first, against what the sound hole would bear. */
export function RepairCard({ joint, facts }: { joint: ResolvedJoint; facts: Facts }) {
  const run = useRun();
  const units = useAppSelector(s => s.view.units);
  const options = repairOptions(joint, facts.rig, facts.panels);
  if (options.length === 0) return null;
  return (
    <section className="mt-4" aria-label="Repair of the hole">
      <h3 className="font-bold">
        Hole {joint.mount?.id}, {joint.mount ? CONDITION_NAMES[joint.mount.condition] : ''}: repair options
      </h3>
      <ul className="mt-1 grid gap-2">
        {options.map(o => {
          const taken =
            o.joint.nut === joint.joint.nut &&
            o.joint.fastener.head === joint.joint.fastener.head &&
            (o.id !== 'chase' || joint.joint.lube === 'anti-seize');
          return (
            <li
              key={o.id}
              className={`rounded-edge border p-2.5 ${taken ? 'border-fluid ring-1 ring-fluid' : 'border-scribe'}`}
            >
              <p className="flex items-baseline justify-between gap-2">
                <b>{o.name}</b>
                <span className="whitespace-nowrap">
                  <span className="fig text-title">{fixed(100 * o.ofOriginal, 0)}</span> % of sound
                </span>
              </p>
              <p className="text-small leading-snug">{o.how}</p>
              {o.adds.length > 0 && (
                <p className="mt-0.5 text-small leading-snug text-ink2">
                  Adds: {o.adds.map(t => toolName(t, units)).join(', ')}.
                </p>
              )}
              {o.caution && (
                <p className="mt-1 border-l-[6px] border-oxide bg-oxidesoft px-2 py-1 text-small leading-snug">
                  {o.caution}
                </p>
              )}
              {taken ? (
                <p className="mt-1 text-small font-semibold">planned</p>
              ) : (
                <Button
                  className="mt-1.5 w-full"
                  onClick={() => run(takeHardware, { joints: [{ ...o.joint, id: joint.id, lock: true }] })}
                >
                  Plan this repair
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-note text-ink2">
        Common practice, no source; strengths are estimates. Eye protection when drilling and driving out
        nuts.
      </p>
    </section>
  );
}
