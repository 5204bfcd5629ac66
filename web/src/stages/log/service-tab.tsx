import type { Facts } from '@plate-fold/core/derive';
import { setUpkeep } from '@plate-fold/core/plan';
import { KM_PER_YEAR, serviceList } from '@plate-fold/core/service';
import { formatDistance, KM_PER_MILE, type UnitSystem } from '@plate-fold/core/units';
import { Play } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useStartRunMutation } from '../../state/api';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';

const min = (m: number): string => (m < 10 ? m.toFixed(1) : m.toFixed(0));

/** Every service: the least that comes off for it, what it costs in a year, and the way onto the floor. */
export function ServiceTab({ facts, units }: { facts: Facts; units: UnitSystem }) {
  const { document, panels, joints, rig, build } = facts;
  const lines = useMemo(
    () => serviceList({ doc: document, panels, joints }, rig),
    [document, panels, joints, rig],
  );
  const run = useRun();
  const navigate = useNavigate();
  const save = useAppSelector(s => s.sync.save);
  const [start, starting] = useStartRunMutation();
  const [fault, setFault] = useState<string>();
  const inch = units === 'inch';
  const perYear = document.plan.upkeep?.kmPerYear ?? KM_PER_YEAR;
  const yearly = lines.reduce((s, l) => s + (l.yearlyMinutes ?? 0), 0);
  const mark = (id: string): string => panels.find(p => p.panel.id === id)?.panel.mark ?? id;
  const begin = async (service: string): Promise<void> => {
    const answer = await start({ documentId: document.plan.id, buildId: build.id, service });
    if (answer.data) navigate(`/run/${answer.data.id}`);
    else
      setFault(
        (answer.error as { data?: { fault?: string } }).data?.fault ??
          'The server does not answer: a run begins with it. Try again.',
      );
  };
  return (
    <div className="p-4">
      <div className="flex flex-wrap items-end gap-4">
        <MeasureInput
          label={`Driven per year, ${inch ? 'miles' : 'km'}${document.plan.upkeep?.kmPerYear === undefined ? ', estimate' : ''}`}
          plain={inch ? 'mi' : 'km'}
          value={Math.round(perYear / (inch ? KM_PER_MILE : 1))}
          units={units}
          least={1}
          most={300_000}
          onEnter={v => run(setUpkeep, { part: { kmPerYear: v * (inch ? KM_PER_MILE : 1) } })}
          className="w-44"
        />
        <p className="text-lead">
          Removing and refitting plates takes <b className="fig">{min(yearly)}</b> minutes a year (estimate).
        </p>
      </div>
      {fault && (
        <p role="alert" className="mt-2 text-oxide">
          {fault}
        </p>
      )}
      <ul className="mt-3 grid gap-2" aria-label="Services">
        {lines.map(l => (
          <li
            key={l.point.id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border border-scribe bg-sheet px-3 py-2"
          >
            <div className="min-w-56 flex-1 leading-snug">
              <p className="font-bold first-letter:uppercase">{l.point.name}</p>
              <p className="text-body">
                {l.through === 'opening'
                  ? l.openingId === undefined
                    ? 'Nothing is in the way.'
                    : `Through the opening ${l.openingId}; nothing comes down.`
                  : `Plate ${l.drop.map(mark).join(', then ')} down: ${l.remove.length} bolts out${l.loosen.length > 0 ? `, ${l.loosen.length} of the neighbor loosened` : ''}.`}
              </p>
              {l.doorSaves > 1 && (
                <p className="text-small text-ink2">
                  A door under it would save {min(l.doorSaves)} minutes a year.
                </p>
              )}
            </div>
            <p className="w-40 text-small leading-tight text-ink2">
              <span className="fig text-title font-semibold text-ink">{min(l.minutes)}</span> min, estimate
              {l.point.everyKm !== undefined && (
                <span className="block">every {formatDistance(l.point.everyKm, units)}</span>
              )}
            </p>
            <Button disabled={starting.isLoading || save !== 'saved'} onClick={() => void begin(l.point.id)}>
              <Play size={17} aria-hidden="true" /> Start
            </Button>
          </li>
        ))}
      </ul>
      {lines.length === 0 && <p className="mt-3">No service points yet. Enter them on Rig.</p>}
    </div>
  );
}
