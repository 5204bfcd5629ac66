import type { SurveyPhoto } from '@plate-fold/core/rig';
import {
  type Adjustment,
  addPhoto,
  focalFromFilm,
  holdFocal,
  looseWords,
  removePhoto,
  unmarkPhoto,
} from '@plate-fold/core/survey';
import { fixed } from '@plate-fold/core/units';
import { Camera, Trash2, X } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { useSendSurveyPhotoMutation } from '../../state/api';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { smallPhoto } from '../../ui/small-photo';
import { PointSelect } from './reading-form';
import { photoAt } from './use-ground-photo';

/** A picture to measure on is kept sharper than one to look at, px. */
const SIDE = 2600;
/** So many marks at known points set a picture up. */
const ENOUGH = 4;
const TYPES = 'image/jpeg,image/png,image/webp';

/** Focal length that a file tells, as if on 35 mm film; undefined where it tells none. */
async function filmOf(file: Blob): Promise<number | undefined> {
  try {
    const { parse } = await import('exifr');
    const told = (await parse(file, ['FocalLengthIn35mmFormat'])) as
      | { readonly FocalLengthIn35mmFormat?: number }
      | undefined;
    return told?.FocalLengthIn35mmFormat;
  } catch {
    return undefined;
  }
}

const nameOf = (file: File): string => file.name.replace(/\.[a-z]+$/i, '').slice(0, 60) || 'photo';

/** Photos of the underside: taken in, opened to be marked, laid under the map. */
export function PhotosPart(props: {
  readonly plan: string;
  readonly photos: readonly SurveyPhoto[];
  readonly adjustment: Adjustment;
  readonly names: ReadonlyMap<string, string>;
  readonly points: readonly (readonly [string, string])[];
  readonly open: string | undefined;
  readonly onOpen: (photo: string | undefined) => void;
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
}) {
  const { plan, photos, adjustment, names, points, open, point } = props;
  const run = useRun();
  const [send, sending] = useSendSurveyPhotoMutation();
  const [fault, setFault] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const opened = photos.find(p => p.id === open);
  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    setFault(undefined);
    const film = await filmOf(chosen);
    const made = await smallPhoto(chosen, SIDE, 'Nothing was added.');
    if ('fault' in made) return setFault(made.fault);
    const id = nanoid(10);
    const { error } = await send({ document: plan, id, photo: made.photo });
    if (error)
      return setFault(
        (error as { data?: { fault?: string } }).data?.fault ??
          'The server does not answer: the photo was not added. Add it again when it does.',
      );
    const { width, height } = made;
    const focalPx = film === undefined ? undefined : focalFromFilm(film, width, height);
    const photo = { id, name: nameOf(chosen), width, height, ...(focalPx ? { focalPx } : {}) };
    if (run(addPhoto, photo) === false) return;
    props.onOpen(id);
    props.onPoint(undefined);
  };
  const stateOf = (p: SurveyPhoto): string => {
    const known = adjustment.photos.find(a => a.id === p.id);
    const marks = `${p.marks.length} ${p.marks.length === 1 ? 'mark' : 'marks'}`;
    if (known) return `${marks}, off ${fixed(known.rmsPx, 1)} px`;
    return p.marks.length < ENOUGH ? `${marks}, at least ${ENOUGH} wanted` : `${marks}, not set up yet`;
  };
  const chosen = opened && adjustment.photos.find(a => a.id === opened.id);
  const marked = new Set(opened?.marks.map(m => m.point));
  const next = points.filter(([id]) => !marked.has(id));
  const loose = opened ? adjustment.loose.filter(l => l.photo === opened.id && l.point === undefined) : [];
  return (
    <section className="border-b border-scribe p-3" aria-label="Photos">
      <h2 className="mb-1 font-semibold">Photos</h2>
      {photos.length === 0 && (
        <p className="mb-2 text-small text-ink2">
          A photo of the underside with four or more points marked on it measures them all at once: from
          below, not too near, all of it sharp. A point that is on two photos needs no tape.
        </p>
      )}
      <ul className="grid gap-1">
        {photos.map(p => (
          <li key={p.id}>
            <button
              type="button"
              aria-pressed={p.id === open}
              className={`flex min-h-14 w-full items-center gap-3 rounded-edge border p-1 text-left hover:border-ink2 ${p.id === open ? 'border-fluid bg-paper ring-1 ring-fluid' : 'border-scribe bg-paper'}`}
              onClick={() => {
                props.onOpen(p.id === open ? undefined : p.id);
                props.onPoint(undefined);
              }}
            >
              <img
                src={photoAt(plan, p.id)}
                alt=""
                className="h-12 w-16 shrink-0 bg-ghost object-cover"
                loading="lazy"
              />
              <span className="min-w-0">
                <span className="block truncate font-semibold">{p.name}</span>
                <span className="fig block text-note text-ink2">{stateOf(p)}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {opened && (
        <div className="mt-2 grid gap-2 border-l-4 border-fluid pl-3">
          <PointSelect
            label="Mark on it"
            value={point ?? ''}
            points={[...next, ...points.filter(([id]) => marked.has(id))]}
            onChoose={id => props.onPoint(id || undefined)}
          />
          <p className="text-small">
            {point === undefined
              ? 'Choose a point, then put your finger on it and let go where the cross is on it. Two fingers bring the picture nearer.'
              : `Set ${names.get(point) ?? point}: hold, look through the magnifier, let go. With a mouse, Shift moves the picture.`}
          </p>
          {looseWords(loose, names).map(words => (
            <p key={words} className="text-small text-oxide">
              {words}
            </p>
          ))}
          <p className="fig text-small text-ink2">
            {opened.focalPx === undefined
              ? chosen
                ? `Focal length found: ${fixed(chosen.focalPx, 0)} px.`
                : 'The focal length is found from the marks.'
              : `Focal length held at ${fixed(opened.focalPx, 0)} px${chosen ? '' : ', as its file tells'}.`}
          </p>
          <div className="flex flex-wrap gap-2">
            {opened.focalPx === undefined ? (
              chosen && (
                <Button
                  onClick={() => run(holdFocal, { photo: opened.id, focalPx: Math.round(chosen.focalPx) })}
                >
                  Hold the focal length
                </Button>
              )
            ) : (
              <Button onClick={() => run(holdFocal, { photo: opened.id, focalPx: null })}>
                Find the focal length
              </Button>
            )}
            {point !== undefined && marked.has(point) && (
              <Button onClick={() => run(unmarkPhoto, { photo: opened.id, point })}>
                <X size={16} aria-hidden="true" /> Remove this mark
              </Button>
            )}
            <Button
              onClick={() => {
                run(removePhoto, { photo: opened.id });
                props.onOpen(undefined);
              }}
            >
              <Trash2 size={16} aria-hidden="true" /> Remove the photo
            </Button>
            <Button onClick={() => props.onOpen(undefined)}>Back to the map</Button>
          </div>
        </div>
      )}
      <Button
        className="mt-2 min-h-12 w-full"
        disabled={sending.isLoading}
        onClick={() => file.current?.click()}
      >
        <Camera size={18} aria-hidden="true" /> {sending.isLoading ? 'Adding the photo' : 'Add a photo'}
      </Button>
      <input
        ref={file}
        type="file"
        accept={TYPES}
        aria-label="Photo of the underside"
        className="sr-only"
        tabIndex={-1}
        onChange={e => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {fault && (
        <p role="alert" className="mt-1 text-oxide">
          {fault}
        </p>
      )}
    </section>
  );
}
