import type { Facts } from '@plate-fold/core/derive';
import { offersFrom } from '@plate-fold/core/sequence';
import { skipToken } from '@reduxjs/toolkit/query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { api, useRunQuery, useRunsQuery } from '../../state/api';
import { runCall } from '../../state/commands/run';
import { useAppDispatch } from '../../state/store';
import { Button } from '../../ui/button';
import { deviceName, freshTickId } from './tick-store';

/** What the newest run tells the plan: taken in with a press, or dismissed for good. */
export function PlanOffers({ facts }: { facts: Facts }) {
  const { document } = facts;
  const dispatch = useAppDispatch();
  const { data: runs } = useRunsQuery(document.plan.id);
  const newest = runs?.find(r => r.setAsideAt === null);
  const { data: run, refetch } = useRunQuery(newest?.id ?? skipToken, { refetchOnMountOrArgChange: true });
  const [fault, setFault] = useState<string>();
  if (!run) return null;
  const day = new Date(run.startedAt).toISOString().slice(0, 10);
  const offers = offersFrom(document, run.ticks, day);
  if (offers.length === 0) return null;
  const dismiss = async (tick: string): Promise<void> => {
    const sent = await dispatch(
      api.endpoints.sendTicks.initiate({
        run: run.id,
        ticks: [
          {
            id: freshTickId(),
            stepId: 'offers',
            jointId: null,
            kind: 'dismissed',
            note: tick,
            at: Date.now(),
            device: deviceName(),
          },
        ],
      }),
    );
    setFault(sent.error ? 'The server did not answer: try again.' : undefined);
    void refetch();
  };
  return (
    <section aria-label="From the last run" className="mt-4">
      <h3 className="font-bold">From the last run</h3>
      {fault && (
        <p role="alert" className="text-oxide">
          {fault}
        </p>
      )}
      <ul className="mt-1 grid gap-2">
        {offers.map(o => (
          <li key={o.tick} className="border-l-[6px] border-marker bg-markersoft px-3 py-2">
            <p className="text-body leading-snug">{o.off}</p>
            <div className="mt-1.5 flex gap-2">
              <Button className="flex-1 text-left leading-tight" onClick={() => dispatch(runCall(o.change))}>
                {o.said}
              </Button>
              <Button aria-label={`Dismiss: ${o.off}`} onClick={() => void dismiss(o.tick)}>
                <X size={17} aria-hidden="true" />
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
