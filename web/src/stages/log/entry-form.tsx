import { LOG_KINDS, type LogKind, lacking } from '@plate-fold/core/log';
import { KM_PER_MILE, parseNumber } from '@plate-fold/core/units';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { dayValue } from '../../ui/dates';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { Checks } from './check-fields';
import { Corners } from './corner-fields';
import { FIELD, type FormProps } from './form-props';
import { Hit } from './hit-fields';
import { KIND_NAMES } from './kinds';
import { Readings } from './readings-fields';

function Plate({ facts, draft, onChange }: Pick<FormProps, 'facts' | 'draft' | 'onChange'>) {
  return (
    <Select
      label="Which plate"
      value={draft.panel ?? 'none'}
      choices={[
        { value: 'none', name: 'which plate' },
        ...facts.panels.map(({ panel: p }) => ({ value: p.id, name: `${p.mark}, ${p.name}` })),
      ]}
      onChoose={v => onChange({ ...draft, panel: v === 'none' ? undefined : v })}
      className="w-full"
    />
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
      <h2 className="text-head font-bold">Log entry</h2>
      <Select<LogKind>
        label="What happened"
        value={draft.kind}
        choices={LOG_KINDS.map(k => ({ value: k, name: KIND_NAMES[k] }))}
        onChoose={kind => onChange({ id: draft.id, kind, at: draft.at, km: draft.km, note: draft.note })}
        className="w-full"
      />
      <div className="grid grid-cols-2 gap-2">
        <label className="text-note text-ink2">
          Day
          <input
            type="date"
            value={dayValue(draft.at)}
            max={dayValue(Date.now())}
            onChange={e => {
              const at = new Date(`${e.target.value}T12:00`).getTime();
              if (Number.isFinite(at)) onChange({ ...draft, at });
            }}
            className={`text-body text-ink ${FIELD}`}
          />
        </label>
        <label className="text-note text-ink2">
          Odometer, {inch ? 'miles' : 'km'}
          <input
            inputMode="numeric"
            value={km}
            placeholder="if known"
            aria-invalid={read !== undefined && !read.ok}
            onChange={e => {
              setKm(e.target.value);
              const n = e.target.value.trim() === '' ? undefined : parseNumber(e.target.value);
              onChange({ ...draft, km: n?.ok ? n.value * (inch ? KM_PER_MILE : 1) : undefined });
            }}
            className={`fig text-lead text-ink placeholder:text-ink2 ${FIELD}`}
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
          label="Dent after it"
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
      <label className="text-note text-ink2">
        Note
        <textarea
          value={draft.note ?? ''}
          maxLength={4000}
          rows={3}
          onChange={e => onChange({ ...draft, note: e.target.value || undefined })}
          className={`py-1.5 text-lead text-ink ${FIELD}`}
        />
      </label>
      {fault && (
        <p role="alert" className="text-oxide">
          {fault}
        </p>
      )}
      {missing.length > 0 && <p className="text-small text-ink2">Still needed: {missing.join(', ')}.</p>}
      <div className="flex gap-2">
        <Button
          type="submit"
          look="strong"
          className="flex-1"
          disabled={busy || missing.length > 0 || (read !== undefined && !read.ok)}
        >
          Save
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
      </div>
    </form>
  );
}
