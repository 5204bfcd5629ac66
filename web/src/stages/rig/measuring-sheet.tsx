import { fitted, type PlanDocument } from '@plate-fold/core/plan';
import {
  type Measure,
  type MeasureEffect,
  type MeasureId,
  type Measures,
  measureEffect,
  measureFaults,
  measuresOf,
  type Remeasuring,
  remeasured,
  typicalMeasures,
} from '@plate-fold/core/rig';
import { formatLength, formatMass, type Result } from '@plate-fold/core/units';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useFacts } from '../../state/derived';
import { useApp } from '../../state/store';
import { useEdit } from '../../state/use-edit';
import { MeasureInput } from '../../ui/measure-input';
import { MeasureEffectDialog, wantsWord } from './measure-effect';
import { Tape } from './tape';

/** The plan with one measure changed; refused with a sentence when it cannot be right. */
function measured(
  doc: PlanDocument,
  id: MeasureId,
  value: number,
  how: Remeasuring = 'keep-mine',
): Result<PlanDocument> {
  const rig = doc.rig;
  const before = (rig.measures ?? typicalMeasures(rig.body)) as Measures;
  const next = { ...before, [id]: value };
  // only what this number brings about is its fault: a pair may be out of order while both ends are being typed
  const old = new Set(measureFaults(rig.body, before).map(f => f.fault));
  const fault = measureFaults(rig.body, next).find(f => f.id === id && !old.has(f.fault));
  if (fault) return { ok: false, fault: `${fault.fault}.` };
  const used = new Set(doc.plan.joints.flatMap(j => j.mount ?? []));
  return { ok: true, value: fitted({ ...doc, rig: remeasured(rig, next, how, used) }) };
}

/** The measuring sheet: some twenty numbers that reshape the underside, each with a drawing of where the tape goes. */
export function MeasuringSheet() {
  const facts = useFacts();
  const units = useApp(s => s.view.units);
  const edit = useEdit();
  const { rig } = facts.document;
  const list = measuresOf(rig.body);
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
    const can = measured(facts.document, m.id, value);
    if (can.ok && wantsWord(effect)) {
      setAsked({ m, value, effect });
      return true;
    }
    return edit(`${m.name} measured`, doc => measured(doc, m.id, value));
  };
  const range = (v: number): string => (now.unit === 'kg' ? formatMass(v, units) : formatLength(v, units));
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-desk:flex-col">
      <ol
        className="min-h-0 overflow-y-auto border-scribe bg-sheet max-desk:border-b desk:w-[25rem] desk:border-r"
        aria-label="Measures"
      >
        {list.map((m, i) => (
          <li
            key={m.id}
            className={`grid grid-cols-[1.6rem_1fr_7.2rem] items-center gap-2 border-b border-scribe/70 px-3 py-1 ${m === now ? 'bg-paper' : ''}`}
          >
            <span className="fig text-[12px] text-ink2">{i + 1}</span>
            <button type="button" className="min-h-11 text-left leading-tight" onClick={() => setNow(m)}>
              {m.name}
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
        <h2 className="text-[19px] font-bold">{now.name}</h2>
        <p className="text-[15px]">{now.how}</p>
        <div className="my-3 overflow-hidden border border-scribe bg-ground">
          <Tape measure={now} measures={measures} rig={rig} width={420} height={190} strong />
        </div>
        {now.view === 'side' && (
          <p className="-mt-2 mb-2 text-[12px] text-ink2">Heights are drawn larger than lengths.</p>
        )}
        <dl className="grid grid-cols-[7rem_1fr] gap-y-1.5">
          <dt className="text-ink2">Plausible</dt>
          <dd>
            {spread
              ? `${range(spread[1])} to ${range(spread[2])}, about ${range(spread[0])}`
              : 'not on this body'}{' '}
            <span className="text-[12.5px] text-ink2">(common practice)</span>
          </dd>
          <dt className="text-ink2">Changes</dt>
          <dd>{now.drives}</dd>
        </dl>
        {!rig.measures && (
          <p className="mt-3 border-l-[6px] border-ink2 bg-sheet px-3 py-2 text-[13px]">
            This rig was not begun from the measuring sheet: a number here changes the outer measures, its
            parts and holes stay as they were entered.
          </p>
        )}
        <Link
          to={`/sheet/${rig.body}`}
          className="mt-4 inline-flex min-h-11 items-center gap-2 rounded-[4px] border border-scribe px-3 font-semibold hover:border-ink2"
        >
          <Printer size={17} aria-hidden="true" /> The empty sheet, to print
        </Link>
      </section>
      <MeasureEffectDialog
        effect={asked?.effect}
        name={asked?.m.name ?? ''}
        facts={facts}
        units={units}
        onClose={() => setAsked(undefined)}
        onDo={how => {
          if (asked) edit(`${asked.m.name} measured`, doc => measured(doc, asked.m.id, asked.value, how));
          setAsked(undefined);
        }}
      />
    </div>
  );
}
