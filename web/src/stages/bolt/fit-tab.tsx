import { fitHelps, SURE_TO_BOLT } from '@plate-fold/core/checks';
import {
  assumedWords,
  type FitRemedy,
  type FitReport,
  fitRemedyWords,
  measuredWords,
} from '@plate-fold/core/fitup';
import { isBracket } from '@plate-fold/core/plan';
import { fixed, formatLength, formatPercent } from '@plate-fold/core/units';
import { TemplateButton } from '../../shared/template-button';
import { runCall } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { useTriedFit } from '../../state/use-fit';
import { jointSelected } from '../../state/view-slice';
import { Button } from '../../ui/button';
import { BoltUpCard } from './bolt-up-card';
import { HeldUp } from './held-up';

/** Bolts listed. */
const LISTED = 8;
const remedyKey = (r: FitRemedy): string => `${r.joint} ${r.what}`;

/** The room of a bolt's holes, and where they may lie beside one another. */
function HoleDrawing(props: { readonly report: FitReport; readonly joint: string; readonly label: string }) {
  const room = props.report.rooms.get(props.joint);
  const cloud = props.report.clouds.get(props.joint) ?? [];
  if (!room) return null;
  const far = Math.max(
    1.2 * (room.radius + room.half),
    ...cloud.map(([x, y]) => Math.max(Math.abs(x), Math.abs(y))),
    0.5,
  );
  const size = 200;
  const k = (size / 2 - 6) / far;
  const [ax, ay] = [room.along[0] * room.half * k, room.along[1] * room.half * k];
  return (
    <svg
      viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
      className="aspect-square w-full max-w-64 bg-sheet"
      role="img"
      aria-label={props.label}
    >
      <path
        d={`M${-ax} ${-ay}L${ax} ${ay}`}
        stroke="var(--steel)"
        strokeWidth={Math.max(2, 2 * room.radius * k)}
        strokeLinecap="round"
      />
      {cloud.map(([x, y], i) => {
        const s = Math.max(-room.half, Math.min(room.half, x * room.along[0] + y * room.along[1]));
        const out = Math.hypot(x - s * room.along[0], y - s * room.along[1]) > room.radius;
        return (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: one dot a trial, in their order
            key={i}
            cx={x * k}
            cy={y * k}
            r="2"
            fill={out ? 'var(--oxide)' : 'var(--fluid)'}
            fillOpacity="0.7"
          />
        );
      })}
      <path d="M-6 0H6M0 -6V6" stroke="var(--ink)" strokeWidth="1" />
    </svg>
  );
}

/** Will it bolt up: the chance that all bolts start by hand, which refuse, where their holes may lie, and what would help. */
export function FitTab() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const chosen = useAppSelector(s => s.view.joint);
  const dispatch = useAppDispatch();
  const { document } = facts;
  const told = useTriedFit();
  const report = told?.report;
  const mark = (id: string): string => facts.panels.find(p => p.panel.id === id)?.panel.mark ?? id;
  if (facts.joints.length === 0) return <p className="p-4">No bolts yet: nothing holds the plates.</p>;
  if (told?.fault) return <p className="p-4 text-oxide">It could not be tried: {told.fault}</p>;
  if (!report)
    return (
      <p className="p-4" role="status">
        Trying 2,000 times with holes where they may well be …
      </p>
    );
  const refusing = [...report.joints].filter(j => j.refuses > 0).sort((a, b) => b.refuses - a.refuses);
  const shown = refusing.find(j => j.id === chosen) ?? refusing[0];
  const helps = fitHelps(report).slice(0, 4);
  const sure = report.all.chance >= SURE_TO_BOLT;
  return (
    <div className={`grid gap-5 p-4 ${told.of === document ? '' : 'opacity-50'}`}>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <p className="text-figure font-extrabold" role="status">
          <span className={sure ? '' : 'text-oxide'}>{formatPercent(report.all.chance)}</span>
        </p>
        <p className="max-w-xl">
          is the chance that every bolt starts by hand, with plates pushed and turned as they need (give or
          take {fixed(100 * report.all.error, 1)} %). An estimate from how well each hole is known, how true
          the shop cuts and bends.
        </p>
      </div>
      {assumedWords(facts, units).map(w => (
        <p key={w} className="border-l-[6px] border-marker bg-sheet p-2.5 text-small">
          {w}
        </p>
      ))}
      {!sure && report.measured !== undefined && <p>{measuredWords(report.measured, units)}</p>}
      {!sure && told.of === document && <BoltUpCard key={facts.build.id} facts={facts} />}
      <section aria-label="By plate">
        <h2 className="mb-1 font-semibold">By plate</h2>
        <ul className="grid gap-1.5">
          {report.panels.map(p => (
            <li key={p.id} className="flex items-center gap-3">
              <span className="w-10 shrink-0 font-semibold">{mark(p.id)}</span>
              <span className="h-4 min-w-0 flex-1 bg-sheet">
                <span
                  className={`block h-full ${p.chance >= SURE_TO_BOLT ? 'bg-fluid' : 'bg-oxide'}`}
                  style={{ width: `${100 * p.chance}%` }}
                />
              </span>
              <span className="fig w-14 shrink-0 text-right">{formatPercent(p.chance)}</span>
              <TemplateButton facts={facts} panels={[p.id]} name={mark(p.id)} />
            </li>
          ))}
          {report.groups
            .filter(g => g.panels.length > 1)
            .map(g => (
              <li key={g.panels.join()} className="flex items-center gap-3 text-small text-ink2">
                <span className="min-w-0 flex-1">
                  {g.panels.map(mark).join(', ')} together, on the bolts they share
                </span>
                <span className="fig w-14 shrink-0 text-right">{formatPercent(g.chance)}</span>
                <TemplateButton
                  facts={facts}
                  panels={g.panels.filter(id =>
                    facts.panels.some(p => p.panel.id === id && !isBracket(p.panel)),
                  )}
                  name={g.panels.map(mark).join(', ')}
                />
              </li>
            ))}
        </ul>
      </section>
      {helps.length > 0 && (
        <section aria-label="What would help">
          <h2 className="mb-1 font-semibold">What would help, tried out</h2>
          <ul className="grid gap-2">
            {helps.map(r => (
              <li
                key={remedyKey(r)}
                className="flex flex-wrap items-center justify-between gap-2 border border-scribe p-2.5"
              >
                <span className="min-w-0 flex-1">
                  {fitRemedyWords(r, units)}{' '}
                  <span className="text-ink2">Then {formatPercent(r.chance)}.</span>
                </span>
                {r.mend && (
                  <Button
                    onClick={() => {
                      if (r.mend) dispatch(runCall(r.mend));
                    }}
                  >
                    Do it
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <HeldUp facts={facts} />
      {refusing.length > 0 && (
        <section aria-label="Bolts that refuse" className="grid gap-3 sm:grid-cols-[1fr_16rem]">
          <div>
            <h2 className="mb-1 font-semibold">Bolts that refuse most</h2>
            <ul className="divide-y divide-scribe/60">
              {refusing.slice(0, LISTED).map(j => (
                <li key={j.id}>
                  <button
                    type="button"
                    aria-pressed={shown?.id === j.id}
                    className={`flex min-h-11 w-full items-center gap-3 px-2 text-left hover:bg-sheet ${shown?.id === j.id ? 'bg-sheet font-semibold' : ''}`}
                    onClick={() => dispatch(jointSelected(j.id))}
                  >
                    <span className="fig w-16">{j.id}</span>
                    <span className="fig w-14 text-right">{formatPercent(j.refuses)}</span>
                    <span className="min-w-0 flex-1 text-small text-ink2">
                      room {formatLength(j.clearanceMm, units, true)}, doubt{' '}
                      {formatLength(j.sigmaMm, units, true)}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </div>
          {shown && (
            <figure>
              <HoleDrawing
                report={report}
                joint={shown.id}
                label={`Where the holes of ${shown.id} may lie beside one another`}
              />
              <figcaption className="mt-1 text-note text-ink2">
                {shown.id}: gray is the room that its holes leave; each dot is where its thread may lie,
                before the plate is pushed.
              </figcaption>
            </figure>
          )}
        </section>
      )}
    </div>
  );
}
