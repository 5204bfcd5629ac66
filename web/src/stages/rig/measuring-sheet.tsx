import { measureMatters, OFF_BY } from '@plate-fold/core/compare';
import { done, type PlanDocument, takeMeasure } from '@plate-fold/core/plan';
import {
  FIRST_MEASURES,
  type Measure,
  type MeasureEffect,
  type Measures,
  measureEffect,
  measuresOf,
  takenMeasures,
  typicalMeasures,
} from '@plate-fold/core/rig';
import { fixed, formatLength, formatMass, tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { Printer } from 'lucide-react';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { MeasureInput } from '../../ui/measure-input';
import { MeasureEffectDialog, wantsWord } from './measure-effect';
import { Tape } from './tape';

/** What figures of the plan a measure that is an inch off would move, and by how much: whether it is worth a second look. */
function Matters({
  measure,
  document,
  units,
}: {
  measure: Measure;
  document: PlanDocument;
  units: UnitSystem;
}) {
  // typing comes first
  const [of, id] = useDeferredValue(useMemo(() => [document, measure.id] as const, [document, measure.id]));
  const m = useMemo(() => measureMatters(of, id), [of, id]);
  if (!m) return <>not known: beyond what is plausible, or this vehicle was not begun from measurements</>;
  const length = (mm: number): string => formatLength(mm, units);
  const said = [
    ...(m.bolts > 0 ? [`${m.bolts} bolt${m.bolts === 1 ? '' : 's'} off the hole’s face`] : []),
    ...(m.gap && m.gap.mm > LEAST_MM ? [`clearance to ${m.gap.to} by ${length(m.gap.mm)}`] : []),
    ...(m.groundMm > LEAST_MM ? [`lowest point by ${length(m.groundMm)}`] : []),
    ...(m.breakoverDeg > 0.05 ? [`breakover by ${fixed(m.breakoverDeg, 1)}°`] : []),
    ...(m.covered > 0.005 ? [`coverage by ${fixed(100 * m.covered, 0)} %`] : []),
    ...(m.axleKg > 0.05 ? [`an axle by ${formatMass(m.axleKg, units)}`] : []),
  ];
  const off = measure.unit === 'kg' ? formatMass(OFF_BY.kg, units) : length(OFF_BY.mm);
  return (
    <>
      by {off}: {said.length > 0 ? said.join(', ') : 'no figure of this plan changes'}
    </>
  );
}

/** Less is not worth a word, mm. */
const LEAST_MM = 0.3;

/** The measuring sheet: some twenty numbers that reshape the underside, each with a drawing of where the tape goes. */
export function MeasuringSheet() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const { rig } = facts.document;
  const all = measuresOf(rig.body);
  const taken = takenMeasures(rig);
  // what is enough for a first set comes first
  const list = [...all.filter(m => FIRST_MEASURES.has(m.id)), ...all.filter(m => !FIRST_MEASURES.has(m.id))];
  const firsts = list.filter(m => FIRST_MEASURES.has(m.id));
  const firstTaken = firsts.filter(m => taken?.has(m.id)).length;
  const measures = (rig.measures ?? typicalMeasures(rig.body)) as Measures;
  const [now, setNow] = useState<Measure>(list[0] as Measure);
  const spread = now.of[rig.body];
  const [asked, setAsked] = useState<{
    readonly m: Measure;
    readonly value: number;
    readonly effect: MeasureEffect;
  }>();
  const enter = (m: Measure, value: number): boolean => {
    const effect = measureEffect(rig, { ...measures, [m.id]: value });
    const can = done(takeMeasure, facts.document, { measure: m.id, value, units });
    if (can.ok && wantsWord(effect)) {
      setAsked({ m, value, effect });
      return true;
    }
    return run(takeMeasure, { measure: m.id, value, units }) !== false;
  };
  const range = (v: number): string => (now.unit === 'kg' ? formatMass(v, units) : tapeLength(v, units));
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-desk:flex-col">
      <ol
        className="min-h-0 overflow-y-auto border-scribe bg-sheet max-desk:border-b desk:w-[25rem] desk:border-r"
        aria-label="Measures"
      >
        <li className="border-b border-scribe bg-paper px-3 py-2 text-small leading-snug">
          <b>Safety first:</b> level ground, parking brake on, exhaust cold. Measure from the side; never
          reach or lie under a vehicle on a jack alone.
          {taken && (
            <span className="mt-1 block font-semibold">
              {firstTaken} of {firsts.length} measured for a first set; the other{' '}
              {list.length - firsts.length} may wait.
            </span>
          )}
        </li>
        {list.map((m, i) => (
          <li
            key={m.id}
            className={`grid grid-cols-[1.6rem_1fr_8.6rem] items-center gap-2 border-b border-scribe/70 px-3 py-1 ${m === now ? 'bg-paper' : ''}`}
          >
            <span className="fig text-note text-ink2">{i + 1}</span>
            <button type="button" className="min-h-11 text-left leading-tight" onClick={() => setNow(m)}>
              {m.name}
              {taken && !taken.has(m.id) && (
                <span className="block text-note text-ink2">
                  assumed{FIRST_MEASURES.has(m.id) ? '' : ', may wait'}
                </span>
              )}
            </button>
            <MeasureInput
              label={m.name}
              hideLabel
              value={measures[m.id]}
              units={units}
              mass={m.unit === 'kg'}
              onFocus={() => setNow(m)}
              onEnter={v => enter(m, v)}
            />
          </li>
        ))}
      </ol>
      <section aria-label="Where the tape goes" className="min-w-0 flex-1 overflow-y-auto bg-paper p-4">
        <h2 className="text-head font-bold">{now.name}</h2>
        <p className="text-lead">{now.how}</p>
        <div className="my-3 overflow-hidden border border-scribe bg-ground">
          <Tape measure={now} measures={measures} rig={rig} width={420} height={190} strong />
        </div>
        {now.view === 'side' && (
          <p className="-mt-2 mb-2 text-note text-ink2">Heights are drawn larger than lengths.</p>
        )}
        <dl className="grid grid-cols-[7rem_1fr] gap-y-1.5">
          <dt className="text-ink2">Plausible</dt>
          <dd>
            {spread
              ? `${range(spread[1])} to ${range(spread[2])}, about ${range(spread[0])}`
              : 'not on this body'}{' '}
            <span className="text-note text-ink2">(common practice)</span>
          </dd>
          <dt className="text-ink2">Affects</dt>
          <dd>{now.drives}</dd>
          {facts.panels.length > 0 && (
            <>
              <dt className="text-ink2">If it is off</dt>
              <dd>
                <Matters measure={now} document={facts.document} units={units} />
              </dd>
            </>
          )}
        </dl>
        {!rig.measures && (
          <p className="mt-3 border-l-[6px] border-ink2 bg-sheet px-3 py-2 text-small">
            This vehicle was not started from the measuring sheet. A number here changes the overall
            dimensions; parts and holes stay as entered.
          </p>
        )}
        <Link
          to={`/sheet/${rig.body}`}
          className="mt-4 inline-flex min-h-11 items-center gap-2 rounded-edge border border-scribe px-3 font-semibold hover:border-ink2"
        >
          <Printer size={17} aria-hidden="true" /> Blank sheet to print
        </Link>
      </section>
      <MeasureEffectDialog
        effect={asked?.effect}
        name={asked?.m.name ?? ''}
        facts={facts}
        units={units}
        onClose={() => setAsked(undefined)}
        onDo={how => {
          if (asked) run(takeMeasure, { measure: asked.m.id, value: asked.value, how, units });
          setAsked(undefined);
        }}
      />
    </div>
  );
}
