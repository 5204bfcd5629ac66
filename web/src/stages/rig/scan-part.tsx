import type { Vec3 } from '@plate-fold/core/geometry';
import type { Rig } from '@plate-fold/core/rig';
import { LEAST_PAIRS, laid, layScan, type Pair, type Placing, VIEWS } from '@plate-fold/core/scan';
import { fixed, roundTo, tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { ScanLine } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { useSendScanMutation } from '../../state/api';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';
import { pictureUrl } from '../../ui/picture-url';
import type { ScanLook, ScanRead } from '../../work/scan.worker';
import { type HeldScan, holdScan } from '../../work/scan-client';
import { LaidScan, type Taking } from './laid-scan';
import { PointSelect } from './reading-form';

/** A larger file is no phone's scan, bytes. */
const MOST = 300_000_000;
/** Points that are off by more than this together are not all where they are said to be, mm: a guess. */
const POOR = 20;
/** Pixels of the small pictures of six sides, and of the one that points are marked on. */
const [SMALL, LARGE] = [150, 1800];
const UNITS = [
  ['1', 'mm'],
  ['10', 'cm'],
  ['1000', 'm'],
  ['25.4', 'in'],
] as const;
type PerUnit = (typeof UNITS)[number][0];
/** The unit that makes the longest side that of an underside: from so many units up. */
const likelyUnit = (longest: number): PerUnit =>
  longest >= 700 ? '1' : longest >= 200 ? '10' : longest >= 20 ? '25.4' : '1000';

/** A mark on a scan: the pixel it was set at, and the place there, in the scan's own axes. */
export interface ScanMark {
  readonly point: string;
  readonly px: readonly [number, number];
  readonly at: Vec3;
}
/** A scan on its way onto the vehicle. */
export interface Laying {
  readonly held: HeldScan;
  readonly name: string;
  readonly read: ScanRead;
  readonly perUnit: PerUnit;
  /** its scale is found from the points */
  readonly scaled: boolean;
  readonly sides: readonly (string | undefined)[];
  readonly view?: string;
  readonly look?: ScanLook & { readonly url: string };
  readonly marks: readonly ScanMark[];
}

const placingOf = (l: { turn: readonly Vec3[]; scale: number; shift: Vec3 }): Placing =>
  l.turn.map((r, i) => [
    l.scale * r[0],
    l.scale * r[1],
    l.scale * r[2],
    l.shift[i] as number,
  ]) as unknown as Placing;

/** A scan of the underside: read, laid on by points, and what is taken from it. */
export function ScanPart(props: {
  readonly plan: string;
  readonly rig: Rig;
  readonly points: readonly (readonly [string, string])[];
  /** where each point is on the vehicle, as far as that is known */
  readonly placeOf: (point: string) => Vec3 | undefined;
  readonly names: ReadonlyMap<string, string>;
  readonly units: UnitSystem;
  readonly laying: Laying | undefined;
  readonly onLaying: (l: Laying | undefined) => void;
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
  readonly taking: Taking | undefined;
  readonly onTaking: (t: Taking | undefined) => void;
  readonly fault: string | undefined;
}) {
  const { plan, rig, points, placeOf, names, units, laying, onLaying, point, taking, onTaking } = props;
  const run = useRun();
  const [send, sending] = useSendScanMutation();
  const [fault, setFault] = useState<string>();
  const [busy, setBusy] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const { scan } = rig;
  // what was begun and is left is let go
  const last = useRef(laying);
  last.current = laying;
  useEffect(() => () => last.current?.held.close(), []);
  const stop = (): void => {
    laying?.held.close();
    onLaying(undefined);
    props.onPoint(undefined);
  };
  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    setFault(undefined);
    if (chosen.size > MOST)
      return setFault(`${chosen.name} is larger than ${MOST / 1e6} MB: save it coarser.`);
    setBusy('Reading the scan');
    const held = holdScan();
    try {
      const read = await held.read(chosen.name, await chosen.arrayBuffer());
      if (!read.ok) {
        held.close();
        setBusy(undefined);
        return setFault(`${read.fault} Nothing was changed.`);
      }
      const sides = await Promise.all((await held.sides(SMALL)).map(pictureUrl));
      const { mmPerUnit, longest } = read.value;
      onLaying({
        held,
        name: chosen.name.replace(/\.[a-z]+$/i, '').slice(0, 60) || 'scan',
        read: read.value,
        perUnit: mmPerUnit === 1000 ? '1000' : likelyUnit(longest),
        scaled: false,
        sides,
        marks: [],
      });
    } catch (e) {
      held.close();
      setFault(`${chosen.name} could not be read (${(e as Error).message}). Nothing was changed.`);
    }
    setBusy(undefined);
  };
  const lookAt = async (l: Laying, view: string): Promise<void> => {
    setBusy('Drawing the scan');
    const look = await l.held.look(view, LARGE);
    const url = look && (await pictureUrl(look.picture));
    setBusy(undefined);
    if (look && url) onLaying({ ...l, view, look: { ...look, url }, marks: [] });
  };
  const pairs = (laying?.marks ?? []).flatMap((m): (Pair & { point: string })[] => {
    const to = placeOf(m.point);
    return to ? [{ point: m.point, from: m.at, to }] : [];
  });
  const on =
    laying && pairs.length >= LEAST_PAIRS
      ? laid(pairs, laying.scaled ? undefined : Number(laying.perUnit))
      : undefined;
  const lay = async (): Promise<void> => {
    if (!laying || !on?.ok) return;
    setBusy('Lining it up');
    const made = await laying.held.grid(placingOf(on.value));
    if (!made) {
      setBusy(undefined);
      return setFault('There is nothing in the scan.');
    }
    const id = nanoid(10);
    const { error } = await send({ document: plan, id, heights: new Blob([made.packed]) });
    setBusy(undefined);
    if (error)
      return setFault(
        (error as { data?: { fault?: string } }).data?.fault ??
          'The server does not answer: the scan was not lined up. Try again when it does.',
      );
    const { from, step, width, height } = made.heights;
    run(layScan, {
      scan: {
        id,
        name: laying.name,
        from: [from[0], from[1]],
        step,
        width,
        height,
        mmPerUnit: roundTo(on.value.scale, 4),
        pairs: pairs.map((p, i) => ({
          point: p.point,
          at: [...p.from] as const as Vec3,
          off: roundTo(on.value.off[i] as number, 2),
        })),
      },
    });
    stop();
  };
  const marked = new Set(laying?.marks.map(m => m.point));
  const known = points.filter(([id]) => placeOf(id) !== undefined);
  return (
    <section className="border-b border-scribe p-3" aria-label="Scan">
      <h2 className="mb-1 font-semibold">Scan</h2>
      {!laying && !scan && (
        <p className="mb-2 text-small text-ink2">
          A phone’s scan of the bare underside, as STL, PLY, OBJ or GLB, lines up with the vehicle on three or
          more points. Then tap holes and parts on it to take their places, and see how near each plate comes.
        </p>
      )}
      {scan && !laying && (
        <LaidScan
          rig={rig}
          scan={scan}
          units={units}
          taking={taking}
          onTaking={onTaking}
          fault={props.fault}
        />
      )}
      {laying && (
        <div className="grid gap-3 border-l-4 border-fluid pl-3">
          <p className="fig text-small">
            {laying.name}: {laying.read.triangles.toLocaleString('en-US')} triangles
          </p>
          <div>
            <p className="text-note text-ink2">Unit</p>
            <Chips
              label="Unit"
              value={laying.perUnit}
              choices={UNITS}
              onChoose={perUnit => onLaying({ ...laying, perUnit })}
            />
            <p className="text-note text-ink2">
              That makes it{' '}
              <span className="fig">{tapeLength(laying.read.longest * Number(laying.perUnit), units)}</span>{' '}
              long.
              {laying.read.mmPerUnit === undefined &&
                ' The file does not say which: check it against a tape.'}
            </p>
          </div>
          {!laying.look && (
            <div>
              <p className="mb-1 text-small">Which of these shows the underside?</p>
              <div className="grid grid-cols-3 gap-1">
                {VIEWS.map((v, i) => (
                  <button
                    key={v.id}
                    type="button"
                    aria-label={`Side ${i + 1}, ${v.id}`}
                    className="grid min-h-20 place-items-center rounded-edge border border-scribe bg-paper p-1 hover:border-ink2"
                    onClick={() => void lookAt(laying, v.id)}
                  >
                    {laying.sides[i] && (
                      <img src={laying.sides[i]} alt="" className="max-h-24 object-contain" />
                    )}
                  </button>
                ))}
              </div>
            </div>
          )}
          {laying.look && (
            <>
              <PointSelect
                label="Mark on the scan"
                value={point ?? ''}
                points={[
                  ...known.filter(([id]) => !marked.has(id)),
                  ...known.filter(([id]) => marked.has(id)),
                ]}
                onChoose={id => props.onPoint(id || undefined)}
              />
              <p className="text-small">
                Choose a point whose place is known, then hold, look through the magnifier, let go.{' '}
                {LEAST_PAIRS} points line it up; five are better.
              </p>
              {laying.marks.length > 0 && (
                <ul className="fig text-small">
                  {laying.marks.map(m => {
                    const i = pairs.findIndex(p => p.point === m.point);
                    return (
                      <li key={m.point} className="flex items-center justify-between gap-2">
                        <span>{names.get(m.point) ?? m.point}</span>
                        <span className="text-ink2">
                          {on?.ok && i >= 0
                            ? `off ${tapeLength(on.value.off[i] as number, units)}`
                            : 'marked'}
                        </span>
                      </li>
                    );
                  })}
                </ul>
              )}
              <label className="flex min-h-11 items-center gap-2 text-small">
                <input
                  type="checkbox"
                  className="size-5"
                  checked={laying.scaled}
                  onChange={e => onLaying({ ...laying, scaled: e.target.checked })}
                />
                Find its scale from the points
                {laying.scaled && on?.ok && (
                  <span className="fig text-ink2">
                    ({fixed((100 * on.value.scale) / Number(laying.perUnit), 1)} % of what its unit says)
                  </span>
                )}
              </label>
              {on && !on.ok && <p className="text-small text-oxide">{on.fault}.</p>}
              {on?.ok && (
                <p className="fig text-small" role="status">
                  The points are off by {tapeLength(on.value.rms, units)}.
                  {on.value.rms > POOR && (
                    <b className="block text-oxide">
                      More than a finger slips: one of them is likely another hole, most likely the one that
                      is off most.
                    </b>
                  )}
                </p>
              )}
            </>
          )}
          <div className="flex flex-wrap gap-2">
            {laying.look && (
              <Button
                disabled={!on?.ok || busy !== undefined || sending.isLoading}
                onClick={() => void lay()}
              >
                Line it up
              </Button>
            )}
            {laying.look && (
              <Button onClick={() => onLaying({ ...laying, look: undefined, view: undefined, marks: [] })}>
                Another side
              </Button>
            )}
            <Button onClick={stop}>Cancel</Button>
          </div>
        </div>
      )}
      {!laying && (
        <Button
          className="mt-2 min-h-12 w-full"
          disabled={busy !== undefined}
          onClick={() => file.current?.click()}
        >
          <ScanLine size={18} aria-hidden="true" /> {busy ?? (scan ? 'Add another scan' : 'Add a scan')}
        </Button>
      )}
      <input
        ref={file}
        type="file"
        accept=".stl,.ply,.obj,.glb"
        aria-label="Scan of the underside"
        className="sr-only"
        tabIndex={-1}
        onChange={e => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {laying && busy && <p className="text-small text-ink2">{busy} …</p>}
      {fault && (
        <p role="alert" className="mt-1 text-oxide">
          {fault}
        </p>
      )}
    </section>
  );
}
