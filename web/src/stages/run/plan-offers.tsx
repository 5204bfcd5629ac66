import type { Facts } from '@plate-fold/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { useRunQuery, useRunsQuery } from '../../app/api';
import { useEdit } from '../../app/use-edit';
import { Button } from '../../ui/button';
import { offersFrom } from './usual';

/** What was off in the newest run, offered to the plan. */
export function PlanOffers({ facts }: { facts: Facts }) {
  const { document } = facts;
  const { data: runs } = useRunsQuery(document.plan.id);
  const newest = runs?.[0];
  const { data: run } = useRunQuery(newest?.id ?? skipToken, { refetchOnMountOrArgChange: true });
  const edit = useEdit();
  if (!run) return null;
  const day = new Date(run.startedAt).toISOString().slice(0, 10);
  const offers = offersFrom(document, run.ticks, day);
  if (offers.length === 0) return null;
  return (
    <section aria-label="From the last run" className="mt-4">
      <h3 className="font-bold">From the last run</h3>
      <ul className="mt-1 grid gap-2">
        {offers.map(o => (
          <li key={o.tick} className="border-l-[6px] border-marker bg-markersoft px-3 py-2">
            <p className="text-[14px] leading-snug">{o.off}</p>
            <Button
              className="mt-1.5 w-full text-left leading-tight"
              onClick={() => edit('runTakenIn', o.change)}
            >
              {o.said}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
