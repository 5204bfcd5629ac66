import type { Facts } from '@plate-fold/core/derive';
import { type MeasureEffect, memberName, type Remeasuring } from '@plate-fold/core/rig';
import { tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';

const MANY = 8;
const some = (words: readonly string[]): string =>
  words.length > MANY
    ? `${words.slice(0, MANY).join(', ')} and ${words.length - MANY} more`
    : words.join(', ');

/** Whether a measure wants a word with the owner first. */
export const wantsWord = (e: MeasureEffect): boolean =>
  e.edited.length + e.dropped.length + e.squashed.length > 0;

/** What a measure would do beside what it is for, before it is done: keep mine, or follow the measure. */
export function MeasureEffectDialog(props: {
  readonly effect?: MeasureEffect;
  readonly name: string;
  readonly facts: Facts;
  readonly units: UnitSystem;
  readonly onDo: (how: Remeasuring) => void;
  readonly onClose: () => void;
}) {
  const { effect, facts, units } = props;
  const { rig, plan } = facts.document;
  const called = (list: string, id: string): string =>
    list === 'members'
      ? `the ${memberName(facts.rig, id)}`
      : list === 'mounts'
        ? `hole ${id}`
        : ((rig[list as 'components'] as readonly { id: string; name?: string }[]).find(x => x.id === id)
            ?.name ?? id);
  const leastHigh = Math.min(...(effect?.squashed.map(s => s.heightMm) ?? []));
  // where nothing of the owner's own is in question there is nothing of it to keep
  const own = (effect?.edited.length ?? 0) + (effect?.dropped.length ?? 0) > 0;
  const lost = new Set(effect?.dropped.flatMap(d => (d.list === 'mounts' ? [d.id] : [])));
  const bolts = plan.joints.filter(j => j.mount !== undefined && lost.has(j.mount));
  return (
    <Dialog open={effect !== undefined} onClose={props.onClose} title={`${props.name}: check this first`}>
      {effect && (
        <>
          <ul className="mb-3 grid gap-2 text-lead leading-snug">
            {effect.edited.length > 0 && (
              <li>
                You changed {some(effect.edited.map(e => called(e.list, e.id)))}. The new measurement would
                move {effect.edited.length === 1 ? 'it' : 'them'} elsewhere.
              </li>
            )}
            {effect.dropped.length > 0 && (
              <li>
                No room left for {some(effect.dropped.map(d => called(d.list, d.id)))}.
                {bolts.length > 0 &&
                  ` ${bolts.length === 1 ? 'A bolt uses it' : `${bolts.length} bolts use them`}: ${some(bolts.map(j => j.id))}.`}
              </li>
            )}
            {effect.squashed.length > 0 && (
              <li>
                With a part just above, this leaves only {tapeLength(leastHigh, units)} of height for{' '}
                {some(effect.squashed.map(s => `the ${memberName(facts.rig, s.id)}`))}. Check the number, or
                measure the parts above them first.
              </li>
            )}
          </ul>
          <div className="grid gap-2">
            <Button look="strong" className="min-h-12" onClick={() => props.onDo('keep-mine')}>
              {own ? 'Keep mine, move the rest' : 'Use it anyway'}
            </Button>
            {own && (
              <Button className="min-h-12" onClick={() => props.onDo('follow')}>
                Use the measurement
              </Button>
            )}
            <Button onClick={props.onClose}>Cancel</Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
