import type { Facts } from '@plate-fold/core/derive';
import {
  FAULTS,
  type FaultKind,
  faultName,
  holdsOpen,
  type Step,
  type Tick,
} from '@plate-fold/core/sequence';
import { parseLength, tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { PhotoButton } from '../../ui/photo-button';

const WAYS = [
  'to the front',
  'to the rear',
  'to the driver\u2019s side',
  'to the passenger\u2019s side',
] as const;

export interface Report extends Partial<Pick<Tick, 'fault' | 'note'>> {
  readonly joint?: string;
  readonly photo?: Blob;
}

/** Reports what went wrong: two taps for the usual, a note and a photo for the rest; a bolt that is not sound stays open. */
export function ProblemSheet(props: {
  readonly open: boolean;
  readonly facts: Facts;
  readonly units: UnitSystem;
  readonly step: Step;
  /** bolts it may be about */
  readonly joints: readonly string[];
  /** the one under the wrench */
  readonly joint?: string;
  readonly onClose: () => void;
  readonly onReport: (r: Report) => void;
}) {
  const { open, step, joints, units } = props;
  const [picked, setPicked] = useState<string>();
  const [note, setNote] = useState('');
  const [photo, setPhoto] = useState<Blob>();
  const [fault, setFault] = useState<string>();
  const [off, setOff] = useState<{ way?: (typeof WAYS)[number]; by: string }>();
  const joint = picked ?? props.joint ?? (joints.length === 1 ? joints[0] : undefined);
  const reset = (): void => {
    setPicked(undefined);
    setNote('');
    setPhoto(undefined);
    setFault(undefined);
    setOff(undefined);
  };
  const tell = (kind: FaultKind, text: string): void => {
    if (holdsOpen(kind) && joints.length > 0 && joint === undefined) {
      setFault('Which bolt is it? Press its number first.');
      return;
    }
    props.onReport({ fault: kind, note: text, ...(joint ? { joint } : {}), ...(photo ? { photo } : {}) });
    reset();
  };
  const by = off && off.by.trim() !== '' ? parseLength(off.by, units) : undefined;
  return (
    <Dialog
      open={open}
      onClose={() => {
        reset();
        props.onClose();
      }}
      title="Report a problem"
      about={joint ? `Kept with ${joint}.` : `Kept with: ${step.title}.`}
    >
      {joints.length > 1 && (
        <RadioGroup.Root
          aria-label="Which bolt"
          value={joint ?? ''}
          onValueChange={id => {
            setPicked(id);
            setFault(undefined);
          }}
          className="mb-2 flex flex-wrap gap-1.5"
        >
          {joints.map((id, i) => (
            <RadioGroup.Item
              key={id}
              value={id}
              aria-label={`Bolt ${i + 1}, ${id}`}
              className={`min-h-11 min-w-11 rounded-edge border px-2 font-semibold ${id === joint ? 'border-fluid bg-fluid text-onfluid' : 'border-scribe bg-paper'}`}
            >
              {i + 1}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      )}
      <PhotoButton
        className="relative mb-2"
        photo={photo}
        onPhoto={setPhoto}
        ask="Photo first, if it helps"
      />
      {fault && (
        <p role="alert" className="mb-2 font-semibold text-oxide">
          {fault}
        </p>
      )}
      {off ? (
        <form
          className="grid gap-2"
          onSubmit={e => {
            e.preventDefault();
            if (!off.way || (by && !by.ok)) return;
            tell(
              'misaligned',
              `${faultName('misaligned')}: off ${off.way}${by?.ok ? ` by ${tapeLength(by.value, units)}` : ''}`,
            );
          }}
        >
          <p className="font-semibold">Which way is the vehicle’s hole from the plate’s?</p>
          <RadioGroup.Root
            aria-label="Which way"
            value={off.way ?? ''}
            onValueChange={w => setOff({ ...off, way: w as (typeof WAYS)[number] })}
            className="grid grid-cols-2 gap-2"
          >
            {WAYS.map(w => (
              <RadioGroup.Item
                key={w}
                value={w}
                className={`min-h-12 rounded-edge border px-2 font-semibold ${off.way === w ? 'border-fluid bg-fluid text-onfluid' : 'border-scribe bg-paper'}`}
              >
                {w}
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
          <label className="flex items-center gap-2">
            How far
            <input
              aria-label="How far"
              inputMode={units === 'inch' ? 'text' : 'decimal'}
              autoComplete="off"
              value={off.by}
              onChange={e => setOff({ ...off, by: e.target.value })}
              aria-invalid={by !== undefined && !by.ok}
              className="fig h-12 w-28 rounded-edge border border-scribe bg-paper px-3 text-title"
            />
            {units === 'inch' ? 'in' : 'mm'}
          </label>
          {by && !by.ok && (
            <p role="alert" className="text-oxide">
              {by.fault}
            </p>
          )}
          <Button
            type="submit"
            look="strong"
            className="min-h-14"
            disabled={!off.way || (by !== undefined && !by.ok)}
          >
            Report
          </Button>
        </form>
      ) : (
        <>
          <div className="grid grid-cols-2 gap-2">
            {FAULTS.filter(f => f.id !== 'other' && (!f.holds || joints.length > 0)).map(f => (
              <Button
                key={f.id}
                className={`min-h-12 text-left leading-tight ${f.holds ? 'border-oxide' : ''}`}
                onClick={() => (f.id === 'misaligned' ? setOff({ by: '' }) : tell(f.id, f.name))}
              >
                {f.name}
              </Button>
            ))}
          </div>
          <form
            className="mt-3 flex gap-2"
            onSubmit={e => {
              e.preventDefault();
              if (note.trim()) tell('other', note.trim());
            }}
          >
            <input
              aria-label="In your own words"
              placeholder="in your own words"
              maxLength={2000}
              value={note}
              onChange={e => setNote(e.target.value)}
              className="min-h-12 w-full min-w-0 rounded-edge border border-scribe bg-paper px-3 text-sub placeholder:text-ink2"
            />
            <Button
              type="submit"
              look="strong"
              className="shrink-0 whitespace-nowrap"
              disabled={note.trim() === ''}
            >
              Report
            </Button>
          </form>
          {joints.length > 0 && (
            <p className="mt-2 text-small text-ink2">
              Red edge: the bolt is not sound. It stays open until repaired or left with a reason.
            </p>
          )}
        </>
      )}
    </Dialog>
  );
}
