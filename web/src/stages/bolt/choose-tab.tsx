import { chooseHardware, threadsOnShelf } from '@plate-fold/core/bolt';
import { type Environment, type Joint, lockJoint, setEnvironment, takeHardware } from '@plate-fold/core/plan';
import { useMemo } from 'react';
import { useShelfQuery } from '../../state/api';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch } from '../../state/store';
import { jointSelected } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { headName, NUT_NAMES, WASHER_NAMES } from '../../ui/names';
import { type Choice, Select } from '../../ui/select';
import { useShares } from './use-shares';

/** How far apart two metals may be goes by where the vehicle is driven. */
const PLACES: readonly Choice<Environment>[] = [
  { value: 'salt', name: 'driven in salt' },
  { value: 'normal', name: 'driven, no salt' },
  { value: 'controlled', name: 'garaged, dry' },
];

/** A joint's hardware in a line. */
function inWords({ fastener, nut, washers, lube }: Joint): string {
  return [
    `${headName(fastener.head)} ${fastener.thread}, ${fastener.class.replace('-', ' ')}`,
    ...washers.map(w => WASHER_NAMES[w]),
    ...(nut === 'none' ? [] : [NUT_NAMES[nut]]),
    ...(lube === 'dry' ? [] : [lube]),
  ].join(', ');
}

/** Hardware for all joints at once, each choice with its reason; a lock keeps the owner's own. */
export function ChooseTab() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const run = useRun();
  const asked = useShares(facts);
  const { data: shelf } = useShelfQuery();
  const choices = useMemo(
    () =>
      chooseHardware(facts.joints, {
        rig: facts.rig,
        panels: facts.panels,
        shelf: threadsOnShelf(
          Object.fromEntries((shelf ?? []).filter(e => e.kind === 'part').map(e => [e.name, e.count])),
        ),
        shares: Object.fromEntries(Object.entries(asked).map(([id, a]) => [id, a.share])),
      }),
    [facts, asked, shelf],
  );
  const changed = choices.filter(c => c.changed);
  const lock = (id: string, on: boolean): void => {
    run(lockJoint, { joint: id, on });
  };
  return (
    <div className="p-4">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-title font-bold">Hardware for all bolts</h2>
        <span className="flex-1" />
        <Select<Environment>
          label="Where it is driven"
          value={facts.document.plan.environment ?? 'salt'}
          choices={PLACES}
          onChoose={environment => run(setEnvironment, { environment })}
        />
        {changed.length > 0 ? (
          <Button
            look="strong"
            onClick={() => run(takeHardware, { joints: choices.filter(c => c.changed).map(c => c.joint) })}
          >
            Apply all {changed.length} changes
          </Button>
        ) : (
          <span role="status" className="font-semibold">
            Every bolt already has the hardware suggested.
          </span>
        )}
      </div>
      <p className="mt-1 max-w-3xl text-small text-ink2">
        Picked from the hole, the sheet, whether a hand reaches the nut and the load of a strike, with as few
        different parts and tools as possible. The vehicle maker’s values come first; lock a bolt to keep your
        own choice.
        {Object.keys(asked).length === 0 && ' Strike has not been run: bolts are assumed lightly loaded.'}
      </p>
      <ul className="mt-3 grid gap-1.5" aria-label="Choices">
        {choices.map(c => {
          const now = facts.joints.find(j => j.id === c.id)?.joint;
          return (
            <li
              key={c.id}
              className={`grid grid-cols-[auto_1fr_auto] items-start gap-x-3 border-b border-scribe/70 py-2 ${c.changed ? '' : 'text-ink2'}`}
            >
              <button
                type="button"
                className="fig min-h-11 min-w-14 text-left font-semibold underline"
                onClick={() => dispatch(jointSelected(c.id))}
              >
                {c.id}
              </button>
              <div className="min-w-0">
                <p className="font-semibold">{inWords(c.joint)}</p>
                {c.changed && now && <p className="text-small text-ink2 line-through">{inWords(now)}</p>}
                <p className="text-small leading-snug">{c.why}</p>
              </div>
              <div className="flex flex-wrap justify-end gap-1.5">
                {c.changed && (
                  <Button onClick={() => run(takeHardware, { joints: [c.joint] })}>Use it</Button>
                )}
                <Button
                  aria-pressed={c.kept}
                  look={c.kept ? 'strong' : 'plain'}
                  aria-label={`Lock ${c.id}`}
                  onClick={() => lock(c.id, !c.kept)}
                >
                  Lock
                </Button>
              </div>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
