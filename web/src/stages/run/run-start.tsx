import { aboutPhase, movesOf, screensOf, type Tick } from '@plate-fold/core/sequence';
import { Play, Smartphone } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useRunsQuery, useStartRunMutation } from '../../state/api';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { useKit } from '../../state/use-kit';
import { Button } from '../../ui/button';
import { when } from '../../ui/dates';
import { Select } from '../../ui/select';
import { fittedAfter, sequenceOf } from './sequence-of';
import { atTheDesk } from './share-button';
import { deviceName, freshTickId, keepTick } from './tick-store';

const kitTick = (note: string): Tick => ({
  id: freshTickId(),
  stepId: 'kit',
  jointId: null,
  kind: 'deviation',
  note: `Started with parts or tools missing: ${note}`,
  torqueNm: null,
  at: Date.now(),
  device: deviceName(),
});

const ALL = 'all';

/** Goes on with the run that is open, or starts one; on a phone it is what the stage opens on. */
export function RunStart({
  about,
  onAbout,
}: {
  /** the phase that is fitted, as a run keeps it; null for all plates */
  about: string | null;
  onAbout: (about: string | null) => void;
}) {
  const facts = useFacts();
  const navigate = useNavigate();
  const { plan } = facts.document;
  const { save } = useAppSelector(s => s.sync);
  const { data: runs } = useRunsQuery(plan.id, { refetchOnMountOrArgChange: true });
  const [start, starting] = useStartRunMutation();
  const [fault, setFault] = useState<string>();
  const screens = useMemo(
    () => screensOf(movesOf(sequenceOf(facts, about, 'metric'))).length,
    [facts, about],
  );
  const open = runs?.find(r => r.endedAt === null && r.setAsideAt === null && r.service === about);
  // parts are counted for the whole plan: a phase takes what all up to it take, and is not held up by those after it
  const after = useMemo(() => fittedAfter(facts, about), [facts, about]);
  const { gaps, complete, known } = useKit(after);
  const [without, setWithout] = useState('');
  const counted = !complete;
  const blocked = counted && without.trim() === '';
  const begin = async (phone = false): Promise<void> => {
    const answer = await start({
      documentId: plan.id,
      buildId: facts.build.id,
      ...(about === null ? {} : { service: about }),
    });
    if (answer.data) {
      // why it was begun without a whole kit stands in the record
      if (counted) keepTick(answer.data.id, kitTick(without.trim()));
      navigate(`/run/${answer.data.id}${phone ? '?phone' : ''}`);
    } else {
      const { data } = answer.error as { data?: { fault?: string } };
      setFault(data?.fault ?? 'The server does not answer: a run begins with it. Try again.');
    }
  };
  return (
    <div>
      <h2 className="text-head font-bold max-desk:text-title">Install “{facts.build.name}”</h2>
      {plan.phases && plan.phases.length > 0 && (
        <div className="mt-1 mb-2">
          <Select
            label="What is fitted"
            value={about ?? ALL}
            choices={[
              { value: ALL, name: 'all plates at once' },
              ...plan.phases.map(f => ({ value: aboutPhase(f.id), name: `phase “${f.name}”` })),
            ]}
            onChoose={v => onAbout(v === ALL ? null : v)}
            className="w-full"
          />
        </div>
      )}
      <p className="mb-3 text-small text-ink2">
        {screens} screens. The run keeps the plan as it is now and continues where you left off.
      </p>
      {known && counted && (
        <div className="mb-2 border-l-[6px] border-marker bg-markersoft px-3 py-2 text-body">
          <p>
            {gaps.parts.reduce((s, p) => s + p.missing, 0)} parts missing, {gaps.tools.length} tools not
            checked.{' '}
            <Link to={`/plan/${plan.id}/bolt`} className="underline">
              Check the kit in Bolt
            </Link>
            , or say why you start without them.
          </p>
          <input
            aria-label="Why the run starts with parts missing"
            value={without}
            maxLength={300}
            placeholder="reason"
            onChange={e => setWithout(e.target.value)}
            className="mt-1.5 min-h-11 w-full rounded-edge border border-scribe bg-paper px-2 placeholder:text-ink2"
          />
        </div>
      )}
      {facts.panels.length === 0 ? (
        <p className="border-l-[6px] border-marker bg-markersoft px-3 py-2">
          There are no plates yet:{' '}
          <Link to={`/plan/${plan.id}/cover`} className="underline">
            draw or suggest them on Cover
          </Link>
          .
        </p>
      ) : (
        <>
          {open && (
            <Link
              to={`/run/${open.id}`}
              className="mb-2 flex min-h-14 w-full items-center justify-center gap-2 rounded-edge border border-ink bg-ink px-3 text-title font-semibold text-paper"
            >
              <Play size={20} aria-hidden="true" /> Continue the run of {when(open.startedAt)}
            </Link>
          )}
          <Button
            look={open ? 'plain' : 'strong'}
            className="min-h-14 w-full text-title"
            disabled={starting.isLoading || save !== 'saved' || blocked}
            onClick={() => void begin()}
          >
            <Play size={20} aria-hidden="true" />{' '}
            {save === 'saved' ? 'Start a run' : 'Saving the plan first …'}
          </Button>
          {atTheDesk() && (
            <Button
              className="mt-2 w-full max-desk:hidden"
              disabled={starting.isLoading || save !== 'saved' || blocked}
              onClick={() => void begin(true)}
            >
              <Smartphone size={18} aria-hidden="true" /> Start on a phone
            </Button>
          )}
        </>
      )}
      {fault && (
        <p role="alert" className="mt-1 text-oxide">
          {fault}
        </p>
      )}
      <p className="mt-2 border-l-[6px] border-marker bg-markersoft px-3 py-2 text-small leading-snug">
        Never work under a vehicle on a jack alone. The vehicle maker’s torque values and local rules come
        first.
      </p>
    </div>
  );
}
