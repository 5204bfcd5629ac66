import {
  type Facts,
  formatLength,
  LOG_KINDS,
  type LogEntry,
  type LogKind,
  lacking,
  lastSet,
  lengthFigure,
  parseNumber,
  parseTorque,
  torqueFigure,
  type UnitSystem,
} from '@plate-fold/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { KM_PER_MILE } from '../../ui/distance';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { WheelScales } from '../../ui/wheel-scales';
import { CHECKLIST, CORNERS, type Draft, KIND_NAMES } from './kinds';
import { plateUnder } from './use-foreseen';

const FIELD = 'min-h-11 w-full min-w-0 rounded-[4px] border border-scribe bg-paper px-2';

interface FormProps {
  readonly facts: Facts;
  readonly units: UnitSystem;
  readonly log: readonly LogEntry[];
  readonly draft: Draft;
  readonly onChange: (draft: Draft) => void;
  /** the dent Strike foresees where the hit was: undefined while it is computed, null where it finds none */
  readonly foreseen: number | null | undefined;
  readonly fault?: string;
  readonly busy: boolean;
  readonly onKeep: () => void;
  readonly onLeave: () => void;
}

/** A day as a date field has it. */
const dayValue = (ms: number): string => {
  const d = new Date(ms);
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;
};

function Plate({ facts, draft, onChange }: Pick<FormProps, 'facts' | 'draft' | 'onChange'>) {
  return (
    <Select
      label="Which plate"
      value={draft.panel ?? 'none'}
      choices={[
        { value: 'none', name: 'which plate' },
        ...facts.document.plan.panels.map(p => ({ value: p.id, name: `${p.mark}, ${p.name}` })),
      ]}
      onChoose={v => onChange({ ...draft, panel: v === 'none' ? undefined : v })}
      className="w-full"
    />
  );
}

/** The torque each bolt stood at and what it was brought back to. */
function Readings({
  facts,
  units,
  log,
  draft,
  onChange,
}: Pick<FormProps, 'facts' | 'units' | 'log' | 'draft' | 'onChange'>) {
  const sets = lastSet(log, new Map(facts.joints.map(j => [j.id, j.torqueNm])));
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const enter = (joint: string, text: string): void => {
    setTyped(t => ({ ...t, [joint]: text }));
    const set = sets.get(joint) ?? 0;
    const read = parseTorque(text, units);
    const rest = (draft.readings ?? []).filter(r => r.joint !== joint);
    onChange({
      ...draft,
      readings:
        text.trim() !== '' && read.ok ? [...rest, { joint, set, found: read.value, after: set }] : rest,
    });
  };
  return (
    <table className="w-full text-[14px]">
      <thead className="text-left text-ink2">
        <tr className="border-b border-ink2">
          <th scope="col" className="py-1 font-normal">
            Bolt
          </th>
          <th scope="col" className="py-1 pr-2 text-right font-normal">
            Set
          </th>
          <th scope="col" className="py-1 font-normal">
            Began to turn at
          </th>
        </tr>
      </thead>
      <tbody>
        {facts.joints.map(j => {
          const text = typed[j.id] ?? '';
          const read = text.trim() === '' ? undefined : parseTorque(text, units);
          return (
            <tr key={j.id} className="border-b border-scribe/70">
              <th scope="row" className="fig py-1 text-left">
                {j.id}
              </th>
              <td className="fig py-1 pr-2 text-right">{torqueFigure(sets.get(j.id) ?? 0, units).value}</td>
              <td className="py-0.5">
                <input
                  aria-label={`${j.id} began to turn at`}
                  inputMode="decimal"
                  value={text}
                  aria-invalid={read !== undefined && !read.ok}
                  onChange={e => enter(j.id, e.target.value)}
                  className={`fig ${FIELD} ${read && !read.ok ? 'border-oxide' : ''}`}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Checks({ draft, onChange }: Pick<FormProps, 'draft' | 'onChange'>) {
  const checks = draft.checks ?? [];
  const put = (item: string, fine: boolean, note?: string): void =>
    onChange({
      ...draft,
      checks: [...checks.filter(c => c.item !== item), { item, fine, ...(note ? { note } : {}) }],
    });
  return (
    <ul className="grid gap-2">
      {CHECKLIST.map(item => {
        const c = checks.find(x => x.item === item);
        return (
          <li key={item} className="border border-scribe bg-paper p-2">
            <p className="text-[14px] leading-tight">{item}</p>
            <div className="mt-1 flex gap-1.5">
              <Button
                className={c?.fine ? 'border-fluid! ring-1 ring-fluid' : ''}
                aria-pressed={c?.fine === true}
                onClick={() => put(item, true)}
              >
                Fine
              </Button>
              <Button
                className={c && !c.fine ? 'border-oxide! ring-1 ring-oxide' : ''}
                aria-pressed={c?.fine === false}
                onClick={() => put(item, false, c?.note)}
              >
                Not fine
              </Button>
            </div>
            {c && !c.fine && (
              <input
                aria-label={`What is not fine: ${item}`}
                placeholder="what, where"
                value={c.note ?? ''}
                maxLength={1000}
                onChange={e => put(item, false, e.target.value)}
                className={`mt-1.5 ${FIELD} placeholder:text-ink2`}
              />
            )}
          </li>
        );
      })}
    </ul>
  );
}

function Corners({
  facts,
  units,
  draft,
  onChange,
}: Pick<FormProps, 'facts' | 'units' | 'draft' | 'onChange'>) {
  const mass = draft.kind === 'weights';
  const corners = draft.corners ?? [0, 0, 0, 0];
  const { weight, rig } = facts;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        {CORNERS.map((name, i) => (
          <MeasureInput
            key={`${name} ${corners[i]}`}
            label={name}
            value={corners[i] ?? 0}
            units={units}
            mass={mass}
            least={0}
            most={mass ? 5000 : 3000}
            onEnter={v => {
              const next = corners.map((c, k) => (k === i ? v : c)) as unknown as [
                number,
                number,
                number,
                number,
              ];
              onChange({ ...draft, corners: next });
            }}
          />
        ))}
      </div>
      {mass && (
        <WheelScales
          frontKg={rig.rig.axles.front.massKg + weight.axles.frontKg}
          rearKg={rig.rig.axles.rear.massKg + weight.axles.rearKg}
          units={units}
          take="Take these wheel loads"
          untaken="Enter what they show by hand."
          onTake={kg =>
            onChange({
              ...draft,
              corners: [kg['front-left'], kg['front-right'], kg['rear-left'], kg['rear-right']],
            })
          }
        />
      )}
    </>
  );
}

function Hit({
  facts,
  units,
  draft,
  onChange,
  foreseen,
}: Omit<FormProps, 'log' | 'busy' | 'onKeep' | 'onLeave'>) {
  return (
    <>
      <p className="border-l-[6px] border-fluid bg-paper px-3 py-2 text-[14px] leading-snug">
        {draft.place
          ? `Marked on the map${draft.panel ? `, plate ${facts.document.plan.panels.find(p => p.id === draft.panel)?.mark}` : ', no plate there'}. Touch again to move it.`
          : 'Touch the map where it hit.'}
      </p>
      <div className="grid grid-cols-2 gap-2">
        {(['Behind the front axle', 'Right of the middle'] as const).map((label, i) => (
          <MeasureInput
            key={label}
            label={label}
            value={draft.place?.[i] ?? 0}
            units={units}
            least={-3000}
            most={9000}
            onEnter={v => {
              const at = [draft.place?.[0] ?? 0, draft.place?.[1] ?? 0] as const;
              const place: readonly [number, number] = i === 0 ? [v, at[1]] : [at[0], v];
              onChange({ ...draft, place, panel: plateUnder(facts, place) });
            }}
          />
        ))}
      </div>
      <MeasureInput
        label="Depth of the dent, straightedge across it"
        value={draft.dentMm ?? 0}
        units={units}
        least={0}
        most={300}
        onEnter={v => onChange({ ...draft, dentMm: v })}
      />
      {draft.place && draft.panel && (
        <p className="text-[13px] leading-snug text-ink2" role="status">
          {foreseen === undefined
            ? 'Striking it there …'
            : foreseen === null
              ? 'Strike finds no dent to tell there.'
              : `Strike foresees ${lengthFigure(foreseen, units, true).value} ${lengthFigure(foreseen, units, true).unit} of dent there, half the heavier axle set down. ${draft.dentMm === undefined ? '' : draft.dentMm > 2 * foreseen + 1 ? 'The hit was harder than that: look at what is above.' : 'The hit was of that order.'} An estimate.`}
        </p>
      )}
    </>
  );
}

/** A new entry of the log: what every one has, and what its kind asks for. */
export function EntryForm(props: FormProps) {
  const { facts, units, draft, onChange, fault, busy, onKeep, onLeave } = props;
  const inch = units === 'inch';
  const [km, setKm] = useState(
    draft.km === undefined ? '' : String(Math.round(draft.km / (inch ? KM_PER_MILE : 1))),
  );
  const read = km.trim() === '' ? undefined : parseNumber(km);
  const missing = lacking(draft);
  return (
    <form
      className="relative grid gap-3 p-4"
      aria-label="New entry"
      onSubmit={e => {
        e.preventDefault();
        onKeep();
      }}
    >
      <h2 className="text-[19px] font-bold">Into the log</h2>
      <Select<LogKind>
        label="What happened"
        value={draft.kind}
        choices={LOG_KINDS.map(k => ({ value: k, name: KIND_NAMES[k] }))}
        onChoose={kind => onChange({ id: draft.id, kind, at: draft.at, km: draft.km, note: draft.note })}
        className="w-full"
      />
      <div className="grid grid-cols-2 gap-2">
        <label className="text-[12.5px] text-ink2">
          Day
          <input
            type="date"
            value={dayValue(draft.at)}
            max={dayValue(Date.now())}
            onChange={e => {
              const at = new Date(`${e.target.value}T12:00`).getTime();
              if (Number.isFinite(at)) onChange({ ...draft, at });
            }}
            className={`text-[14px] text-ink ${FIELD}`}
          />
        </label>
        <label className="text-[12.5px] text-ink2">
          Odometer, {inch ? 'miles' : 'km'}
          <input
            inputMode="numeric"
            value={km}
            placeholder="if at hand"
            aria-invalid={read !== undefined && !read.ok}
            onChange={e => {
              setKm(e.target.value);
              const n = e.target.value.trim() === '' ? undefined : parseNumber(e.target.value);
              onChange({ ...draft, km: n?.ok ? n.value * (inch ? KM_PER_MILE : 1) : undefined });
            }}
            className={`fig text-[15px] text-ink placeholder:text-ink2 ${FIELD}`}
          />
        </label>
      </div>
      {draft.kind === 'hit' && <Hit {...props} />}
      {draft.kind === 're-torque' && <Readings {...props} />}
      {draft.kind === 'inspection' && <Checks {...props} />}
      {(draft.kind === 'ride-height' || draft.kind === 'weights') && <Corners {...props} />}
      {(draft.kind === 'straighten' || draft.kind === 'coating') && <Plate {...props} />}
      {draft.kind === 'straighten' && (
        <MeasureInput
          label="Dent left after it"
          value={draft.dentMm ?? 0}
          units={units}
          least={0}
          most={300}
          onEnter={v => onChange({ ...draft, dentMm: v })}
        />
      )}
      {draft.kind === 'service' && (
        <>
          <Select
            label="Which service"
            value={draft.point ?? 'none'}
            choices={[
              { value: 'none', name: 'which service' },
              ...facts.rig.servicePoints.map(s => ({ value: s.id, name: s.name })),
            ]}
            onChoose={v => onChange({ ...draft, point: v === 'none' ? undefined : v })}
            className="w-full"
          />
          <MeasureInput
            label="Minutes it took"
            plain="min"
            value={draft.minutes ?? 0}
            units={units}
            least={0}
            most={10_000}
            onEnter={minutes => onChange({ ...draft, minutes })}
          />
        </>
      )}
      <label className="text-[12.5px] text-ink2">
        Note
        <textarea
          value={draft.note ?? ''}
          maxLength={4000}
          rows={3}
          onChange={e => onChange({ ...draft, note: e.target.value || undefined })}
          className={`py-1.5 text-[15px] text-ink ${FIELD}`}
        />
      </label>
      {fault && (
        <p role="alert" className="text-oxide">
          {fault}
        </p>
      )}
      {missing.length > 0 && <p className="text-[13px] text-ink2">Still wanted: {missing.join(', ')}.</p>}
      <div className="flex gap-2">
        <Button
          type="submit"
          look="strong"
          className="flex-1"
          disabled={busy || missing.length > 0 || (read !== undefined && !read.ok)}
        >
          Keep it
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </form>
  );
}

/** Ride height and dents in words, for lists. */
export const inWords = (e: LogEntry, facts: Facts, units: UnitSystem): string => {
  const mark = facts.document.plan.panels.find(p => p.id === e.panel)?.mark;
  const worst = Math.max(0, ...(e.readings ?? []).map(r => 1 - r.found / r.set));
  const bad = (e.checks ?? []).filter(c => !c.fine);
  return [
    mark && `plate ${mark}`,
    e.dentMm !== undefined &&
      `dent ${formatLength(e.dentMm, units, true)}${e.foreseenMm === undefined ? '' : `, foreseen ${formatLength(e.foreseenMm, units, true)}`}`,
    e.point && (facts.document.rig.servicePoints.find(s => s.id === e.point)?.name ?? e.point),
    e.minutes !== undefined && `${Math.round(e.minutes)} min`,
    e.readings && `${e.readings.length} bolts, most lost ${Math.round(100 * worst)} %`,
    e.checks &&
      (bad.length === 0
        ? `${e.checks.length} checks, all fine`
        : `${bad.length} not fine: ${bad.map(c => c.note || c.item).join('; ')}`),
    e.corners &&
      e.corners
        .map(c =>
          e.kind === 'weights'
            ? `${Math.round(units === 'inch' ? c / 0.45359237 : c)}`
            : formatLength(c, units),
        )
        .join(' / ') + (e.kind === 'weights' ? (units === 'inch' ? ' lb' : ' kg') : ''),
  ]
    .filter(Boolean)
    .join(', ');
};
