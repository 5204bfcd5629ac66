import { fixed, lengthFigure, loadFigure, type StrikeCase, type Vec2, type Vec3 } from '@plate-fold/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Bench } from '../../app/bench';
import { useFacts } from '../../app/derived';
import { useApp } from '../../app/store';
import type { ColouredSurface } from '../../picture/space/scene';
import { hasWebGl } from '../../picture/space/webgl';
import { useSize } from '../../picture/use-size';
import { Button } from '../../ui/button';
import { css, rampColour } from './ramp';
import { StruckPlate } from './struck-plate';
import { type Struck, useStrikes } from './use-strikes';

const SpaceView = lazy(() => import('../../picture/space/space-view'));

type Shown = 'deflection' | 'gap';
/** A gap this wide or more is shown as plenty, mm. */
const PLENTY = 60;

/** The belly as it stands under the rock, every node coloured. */
function surfacesOf(
  struck: readonly Struck[],
  shown: Shown,
  most: number,
  exaggerated: number,
  theme: 'light' | 'dark',
): readonly ColouredSurface[] {
  return struck.flatMap(({ folded, answer }): readonly ColouredSurface[] => {
    if (!answer?.ok) return [];
    const { coordinates, moves, triangles, gaps } = answer.value.picture;
    const at = coordinates.map((v, i) => v + exaggerated * (moves[i] as number));
    const colours = new Float32Array(coordinates.length);
    for (let n = 0; n < coordinates.length / 3; n++) {
      const gap = gaps[n] as number;
      const share =
        shown === 'deflection'
          ? Math.max(0, moves[3 * n + 2] as number) / most
          : Number.isNaN(gap)
            ? 0
            : gap < 0
              ? -1
              : 1 - Math.min(1, gap / PLENTY);
      colours.set(rampColour(share, theme), 3 * n);
    }
    return [{ id: folded.panel.id, coordinates: at, triangles, colours }];
  });
}

/** Strike: what the plates do under a rock, by mechanics. */
export function StrikeStage() {
  const facts = useFacts();
  const { units, theme } = useApp(s => s.view);
  const [kind, setKind] = useState<StrikeCase>('set-down');
  const [places, setPlaces] = useState<Readonly<Record<string, Vec2>>>({});
  const [shown, setShown] = useState<Shown>('deflection');
  const [exaggerated, setExaggerated] = useState(1);
  const [box, size] = useSize<HTMLDivElement>();
  const { struck, waiting, stop, stopped, goOn } = useStrikes(kind, places);
  const most = Math.max(5, ...struck.map(s => (s.answer?.ok ? s.answer.value.deflectionMm : 0)));
  const surfaces = useMemo(
    () => surfacesOf(struck, shown, most, exaggerated, theme),
    [struck, shown, most, exaggerated, theme],
  );
  const rocks = useMemo(
    () => struck.flatMap((s): readonly Vec3[] => (s.answer?.ok ? [s.answer.value.at] : [])),
    [struck],
  );
  const force = struck.find(s => s.answer?.ok)?.answer;
  const forceN = force?.ok ? force.value.forceN : 0;
  const legend = shown === 'deflection' ? [0, most / 2, most] : [PLENTY, PLENTY / 2, 0];
  const chip = (on: boolean): string =>
    `min-h-11 rounded-[4px] border px-3 ${on ? 'border-fluid bg-paper font-bold ring-1 ring-fluid' : 'border-transparent hover:bg-paper'}`;
  return (
    <Bench
      asideName="Under the rock"
      work={(_, height) => (
        <div className="flex flex-col max-desk:h-auto!" style={{ height }}>
          <div className="flex shrink-0 flex-wrap items-center gap-1 border-b border-scribe bg-sheet px-2 py-1">
            <div role="radiogroup" aria-label="How it is struck" className="flex gap-1">
              {(
                [
                  ['set-down', 'set down'],
                  ['ledge-drop', 'dropped off a ledge'],
                ] as const
              ).map(([value, name]) => (
                <button
                  key={value}
                  type="button"
                  role="radio"
                  aria-checked={kind === value}
                  className={chip(kind === value)}
                  onClick={() => setKind(value)}
                >
                  {name}
                </button>
              ))}
            </div>
            <span className="flex-1" />
            <div role="radiogroup" aria-label="Coloured by" className="flex gap-1">
              {(
                [
                  ['deflection', 'how far it gives'],
                  ['gap', 'gap left'],
                ] as const
              ).map(([value, name]) => (
                <button
                  key={value}
                  type="button"
                  role="radio"
                  aria-checked={shown === value}
                  className={chip(shown === value)}
                  onClick={() => setShown(value)}
                >
                  {name}
                </button>
              ))}
            </div>
          </div>
          <div ref={box} className="relative min-h-72 flex-1 overflow-hidden bg-ground">
            {hasWebGl() && size.width > 0 && surfaces.length > 0 && (
              <Suspense fallback={null}>
                <SpaceView
                  label="The belly under the rock"
                  solids={NOTHING}
                  ghosts={NOTHING}
                  field={surfaces}
                  rocks={rocks}
                  eye="belly"
                  about={`${facts.build.id} ${surfaces.length}`}
                  theme={theme}
                  width={size.width}
                  height={Math.max(288, size.height)}
                  onLost={() => undefined}
                />
              </Suspense>
            )}
            {!hasWebGl() && (
              <p className="p-4 text-ink2">This browser draws nothing in space: the figures are beside.</p>
            )}
            <div className="pointer-events-none absolute top-2 left-3 text-[13px]">
              <p className="text-ink2">
                {shown === 'deflection' ? 'gives' : 'gap left to the part above'},{' '}
                {units === 'inch' ? 'in' : 'mm'}
              </p>
              <div className="mt-1 flex">
                {SWATCHES.map(share => (
                  <span
                    key={share}
                    className="h-3.5 w-2"
                    style={{ background: css(rampColour(share, theme)) }}
                  />
                ))}
                {shown === 'gap' && (
                  <span className="ml-2 h-3.5 w-5" style={{ background: css(rampColour(-1, theme)) }} />
                )}
              </div>
              <div className="fig flex w-48 justify-between text-[12px]">
                {legend.map(v => (
                  <span key={v}>{lengthFigure(v, units).value}</span>
                ))}
                {shown === 'gap' && <span className="-mr-11 font-sans">touches</span>}
              </div>
            </div>
            {waiting > 0 && (
              <div role="status" className="absolute right-3 flex items-center gap-3 text-[14px] max-desk:bottom-9 desk:top-2">
                {stopped
                  ? `${waiting} plates not struck`
                  : `striking ${waiting} of ${struck.length} plates …`}
                <Button onClick={stopped ? goOn : stop}>{stopped ? 'Go on' : 'Stop'}</Button>
              </div>
            )}
          </div>
          <label className="flex min-h-13 items-center gap-3 border-t border-scribe bg-sheet px-4">
            <span>as it is</span>
            <input
              type="range"
              min="1"
              max="10"
              step="0.5"
              value={exaggerated}
              aria-label="Exaggeration"
              onChange={e => setExaggerated(Number(e.target.value))}
              className="h-11 min-w-0 flex-1 accent-[var(--fluid)]"
            />
            <span className="fig w-24 text-right">× {fixed(exaggerated, 1)}</span>
          </label>
        </div>
      )}
      aside={
        <div className="p-4">
          <h2 className="text-[19px] font-bold">Under the rock</h2>
          <p className="text-[13px] text-ink2">
            {forceN > 0 && (
              <>
                <span className="fig">{loadFigure(forceN, units).value}</span>{' '}
                {loadFigure(forceN, units).unit} on a square of {lengthFigure(80, units).value}{' '}
                {lengthFigure(80, units).unit}, at each plate’s worst place unless you move it.{' '}
              </>
            )}
            An estimate, no certificate: welds, fatigue, loosening bolts and the frame’s own give are not in
            it.
          </p>
          <ul className="mt-3 grid gap-3">
            {struck.map(s => (
              <StruckPlate
                key={s.folded.panel.id}
                struck={s}
                moved={places[s.folded.panel.id] !== undefined}
                onPlace={at =>
                  setPlaces(p => {
                    const { [s.folded.panel.id]: _gone, ...rest } = p;
                    return at ? { ...rest, [s.folded.panel.id]: at } : rest;
                  })
                }
              />
            ))}
          </ul>
        </div>
      }
    />
  );
}
const NOTHING: readonly never[] = [];
const SWATCHES: readonly number[] = Array.from({ length: 24 }, (_, i) => i / 23);
