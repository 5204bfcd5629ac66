import type { Facts } from '@plate-fold/core/derive';
import { LOST_MUCH, type LogEntry, preloadHistories } from '@plate-fold/core/log';
import { lengthFigure, type UnitSystem } from '@plate-fold/core/units';
import { lazy, Suspense } from 'react';
import { useAppSelector } from '../../state/store';
import { dayName } from '../../ui/dates';

const TimeChart = lazy(() => import('./time-chart'));

/** How heights and bolts held over time: the picture, and its figures below. */
export function TimeTab({
  facts,
  log,
  units,
}: {
  facts: Facts;
  log: readonly LogEntry[];
  units: UnitSystem;
}) {
  const theme = useAppSelector(s => s.view.theme);
  const heights = log
    .filter(e => e.kind === 'ride-height' && e.corners)
    .sort((a, b) => a.at - b.at)
    .map(e => {
      const [fl = 0, fr = 0, rl = 0, rr = 0] = e.corners ?? [];
      return { at: e.at, front: (fl + fr) / 2, rear: (rl + rr) / 2 };
    });
  const bolts = preloadHistories(log);
  const unit = lengthFigure(0, units).unit;
  const figure = (mm: number): string => lengthFigure(mm, units).value;
  return (
    <div className="p-4">
      <h2 className="text-title font-bold">Ride height</h2>
      {heights.length === 0 ? (
        <p className="text-ink2">
          No fender heights yet. Log a ride height before and after the plates go on.
        </p>
      ) : (
        <>
          <Suspense fallback={<p>Drawing …</p>}>
            <TimeChart heights={heights} units={units} theme={theme} />
          </Suspense>
          <table className="w-full max-w-xl text-body">
            <thead className="text-left text-ink2">
              <tr className="border-b border-ink2">
                <th scope="col" className="py-1 font-normal">
                  Day
                </th>
                <th scope="col" className="py-1 text-right font-normal">
                  Front, {unit}
                </th>
                <th scope="col" className="py-1 text-right font-normal">
                  Rear, {unit}
                </th>
              </tr>
            </thead>
            <tbody>
              {heights.map(h => (
                <tr key={h.at} className="border-b border-scribe/70">
                  <th scope="row" className="fig py-1 text-left font-normal">
                    {dayName(h.at)}
                  </th>
                  <td className="fig py-1 text-right">{figure(h.front)}</td>
                  <td className="fig py-1 text-right">{figure(h.rear)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <h2 className="mt-5 text-title font-bold">Preload lost since tightening</h2>
      <p className="max-w-2xl text-small text-ink2">
        Torque lost as a share, with K unchanged (T = K·d·F). Estimate, probably low. Above{' '}
        {Math.round(100 * LOST_MUCH)} % find out why; do not just retighten.
      </p>
      {bolts.length === 0 ? (
        <p className="text-ink2">No bolt has been re-torqued yet.</p>
      ) : (
        <ul className="mt-1 max-w-2xl">
          {bolts.map(b => (
            <li
              key={b.joint}
              className="grid grid-cols-[4.5rem_1fr_3.5rem] items-center gap-2 border-b border-scribe/70 py-1"
            >
              <span className="fig font-semibold">{b.joint}</span>
              <span className="grid gap-1">
                {b.times.map(t => (
                  <span key={t.at} className="relative block h-4 bg-scribe/50" title={dayName(t.at)}>
                    <span
                      className={`absolute inset-y-0 left-0 ${t.lost > LOST_MUCH ? 'bg-oxide' : 'bg-fluid'}`}
                      style={{ width: `${Math.min(100, t.lost * 200)}%` }}
                    />
                  </span>
                ))}
              </span>
              <span className="fig text-right">{Math.round(100 * b.worst)} %</span>
            </li>
          ))}
        </ul>
      )}
      {facts.weight.rideHeight && (
        <p className="mt-4 text-small text-ink2">
          Predicted for this build: front{' '}
          {lengthFigure(facts.weight.rideHeight.frontMm, units, true, true).value} {unit}, rear{' '}
          {lengthFigure(facts.weight.rideHeight.rearMm, units, true, true).value} {unit}.
        </p>
      )}
    </div>
  );
}
