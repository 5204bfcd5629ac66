import { checkStruck } from '@plate-fold/core/checks';
import { assemble } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { buildNameIn, buildOf, isBracket } from '@plate-fold/core/plan';
import { type Hold, MOST_FALL, PATCH, SLIDES, type StrikeCase } from '@plate-fold/core/strike';
import { fixed, lengthFigure, loadFigure, N_PER_LBF } from '@plate-fold/core/units';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import type { Eye } from '../../picture/space/contents';
import { hasWebGl } from '../../picture/space/webgl';
import { Bench } from '../../shared/bench';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { type Belly, type Blow, FIRST_FALL, forceOf, useStrikes } from '../../state/strikes/use-strikes';
import { bellyStruck } from '../../state/struck-slice';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { Slider } from '../../ui/slider';
import { BellyPicture } from './belly-picture';
import { css, rampColor } from './ramp';
import { legendOf, mostGiven, SHOWN, SHOWN_NAMES, type Shown } from './shown';
import { StrikeTable } from './strike-table';
import { StruckPlate } from './struck-plate';

const CASES: readonly (readonly [StrikeCase, string])[] = [
  ['set-down', 'resting'],
  ['drop', 'dropped'],
  ['slide', 'sliding over'],
  ['jack', 'jacked'],
  ['own', 'custom load'],
];
const HOLD_NAMES: Readonly<Record<Hold, string>> = {
  joints: 'as built',
  held: 'fully',
  free: 'not at all',
};
type View = 'space' | 'map' | 'table';
const VIEWS: readonly View[] = hasWebGl() ? ['space', 'map', 'table'] : ['map', 'table'];
const VIEW_NAMES: Readonly<Record<View, string>> = {
  space: 'in space',
  map: 'as a map',
  table: 'as a table',
};
const SWATCHES: readonly number[] = Array.from({ length: 24 }, (_, i) => i / 23);
const NO_BUILD = 'none';
/** A force of the reader's own starts here, N. */
const OWN = 10_000;

/** Strike: what the plates do under a rock, by mechanics. */
export function StrikeStage() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { units, theme, panel } = useAppSelector(s => s.view);
  const [blow, setBlow] = useState<Blow>({
    kind: 'set-down',
    own: OWN,
    fallMm: FIRST_FALL,
    rests: false,
    hold: 'joints',
    places: {},
  });
  const [shown, setShown] = useState<Shown>('deflection');
  const [view, setView] = useState<View>(VIEWS[0] as View);
  const [exaggerated, setExaggerated] = useState(1);
  const [beside, setBeside] = useState(NO_BUILD);
  const [eye, setEye] = useState<Eye>();
  const { document } = facts;
  const brackets = useMemo(() => facts.panels.filter(p => isBracket(p.panel)), [facts.panels]);
  const bellies = useMemo((): readonly Belly[] => {
    const own: Belly = {
      build: facts.build.id,
      document,
      rig: facts.rig,
      panels: facts.panels,
      joints: facts.joints,
      seats: facts.seats,
    };
    const other = document.plan.builds.find(b => b.id === beside && b.id !== facts.build.id);
    if (!other) return [own];
    return [own, { ...assemble(document, other.id), build: other.id }];
  }, [facts, document, beside]);
  const { struck, waiting, stop, stopped, goOn } = useStrikes(bellies, blow);
  const mine = struck[0] ?? [];
  const most = mostGiven(struck.flat());
  const onRock = useCallback(
    (id: string, at: Vec2 | undefined) =>
      setBlow(b => {
        const { [id]: _gone, ...rest } = b.places;
        return { ...b, places: at ? { ...rest, [id]: at } : rest };
      }),
    [],
  );
  // the summary and the stages' marks follow what an axle set down does at the worst places
  const told = blow.kind === 'set-down' && Object.keys(blow.places).length === 0 && mine.every(s => !s.stale);
  useEffect(() => {
    if (!told) return;
    const answers = mine.flatMap(s => (s.answer?.ok ? [s.answer.value] : []));
    const least = answers
      .flatMap(a => a.gaps.map(g => ({ gapMm: g.gapMm, panel: a.panel, component: g.component })))
      .sort((a, b) => a.gapMm - b.gapMm)[0];
    // the answer is drawn first
    const later = setTimeout(() =>
      dispatch(
        bellyStruck({
          of: document,
          findings: checkStruck(facts, answers, units),
          ...(least ? { least } : {}),
        }),
      ),
    );
    return () => clearTimeout(later);
  }, [told, mine, facts, document, units, dispatch]);
  const forces = mine.map(s => forceOf(facts.rig, s.folded, blow)).sort((a, b) => a - b);
  const [least = 0, greatest = least] = [forces[0], forces.at(-1)];
  const patch = lengthFigure(PATCH, units);
  const total = struck.flat().length;
  const picture = (i: number, scale: SheetScale) => (
    <BellyPicture
      key={bellies[i]?.build}
      build={buildNameIn(document.plan, bellies[i]?.build ?? '')}
      rig={facts.rig}
      brackets={brackets}
      struck={struck[i] ?? []}
      places={blow.places}
      shown={shown}
      most={most}
      exaggerated={exaggerated}
      theme={theme}
      units={units}
      flat={view === 'map'}
      scale={scale}
      {...(bellies.length > 1 && eye ? { follow: eye } : {})}
      {...(bellies.length > 1 ? { onEye: setEye } : {})}
      onRock={onRock}
    />
  );
  return (
    <Bench
      asideName="Under the rock"
      work={(sheet, height) => (
        <div className="flex flex-col max-desk:h-auto!" style={{ height }}>
          <div className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-scribe bg-sheet px-2 py-1">
            <Chips
              label="Load"
              value={blow.kind}
              choices={CASES}
              onChoose={kind => setBlow(b => ({ ...b, kind }))}
            />
            <span className="flex-1" />
            <Chips
              label="Shown"
              value={view}
              choices={VIEWS.map(v => [v, VIEW_NAMES[v]] as const)}
              onChoose={setView}
            />
          </div>
          {view === 'table' ? (
            <div className="min-h-0 flex-1">
              <StrikeTable bellies={bellies} struck={struck} facts={facts} units={units} />
            </div>
          ) : (
            <div className="relative flex min-h-80 flex-1 flex-col">
              {bellies.map((b, i) => (
                <div
                  key={b.build}
                  className="relative flex min-h-40 min-w-0 flex-1 flex-col border-scribe not-first:border-t max-desk:min-h-72"
                >
                  {picture(i, sheet.scale)}
                  {bellies.length > 1 && (
                    <p className="pointer-events-none absolute top-2 right-3 font-bold">
                      {buildOf(document.plan, b.build).name}
                    </p>
                  )}
                </div>
              ))}
              <Legend shown={shown} most={most} units={units} theme={theme} />
              {waiting > 0 && (
                <div
                  role="status"
                  className="absolute right-3 bottom-8 flex items-center gap-3 rounded-edge bg-sheet/90 pl-3 text-body"
                >
                  {stopped ? `${waiting} plates not struck` : `striking ${waiting} of ${total} plates …`}
                  <Button onClick={stopped ? goOn : stop}>{stopped ? 'Go on' : 'Stop'}</Button>
                </div>
              )}
            </div>
          )}
          <div className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-t border-scribe bg-sheet px-2 py-1">
            <Chips
              label="Colored by"
              value={shown}
              choices={SHOWN.map(s => [s, SHOWN_NAMES[s]] as const)}
              onChoose={setShown}
            />
            <div className="flex min-h-11 min-w-44 flex-1 items-center gap-3">
              <span className="text-small text-ink2">moves</span>
              <Slider
                label="Exaggeration"
                value={exaggerated}
                least={1}
                most={10}
                step={0.5}
                disabled={view !== 'space'}
                onChange={setExaggerated}
              />
              <span className="fig w-12 text-right">× {fixed(exaggerated, 1)}</span>
            </div>
            {document.plan.builds.length > 1 && (
              <Select
                label="Compare with build"
                value={bellies.length > 1 ? beside : NO_BUILD}
                choices={[
                  { value: NO_BUILD, name: 'no second build' },
                  ...document.plan.builds
                    .filter(b => b.id !== facts.build.id)
                    .map(b => ({ value: b.id, name: `with ${b.name}` })),
                ]}
                onChoose={setBeside}
                className="max-w-56"
              />
            )}
          </div>
        </div>
      )}
      aside={
        <div className="p-4">
          <h2 className="text-head font-bold">Under the rock</h2>
          <p className="text-small text-ink2">
            {least > 0 && (
              <>
                <span className="fig">{loadFigure(least, units).value}</span>
                {greatest > least + 1 && (
                  <>
                    {' to '}
                    <span className="fig">{loadFigure(greatest, units).value}</span>
                  </>
                )}{' '}
                {loadFigure(least, units).unit}
                {blow.kind === 'drop' && ' dropped'} on a square of {patch.value} {patch.unit}, at each
                plate’s worst spot unless you move the rock
                {blow.kind === 'slide' && `, dragging it rearward with ${fixed(SLIDES, 1)} times that`}.{' '}
              </>
            )}
            Estimate, not a certificate: welds, fatigue, loose bolts and frame flex are not included.
            {facts.panels.length > facts.plates.length &&
              ' Plates give with the brackets they hang on; a bracket that bends for good gives more than is told.'}
            {blow.kind === 'drop' &&
              ' The plate alone is taken to stop the fall; tires and springs would soften it.'}
            {blow.kind === 'jack' && (
              <b className="mt-1 block text-ink">
                Never get under a vehicle that stands on a jack alone: jack where its maker says, then set it
                on stands. A plate is loaded this way only if it is entered on Cover, under Shape, as a
                jacking point.
              </b>
            )}
          </p>
          {blow.kind === 'drop' && (
            <MeasureInput
              label="Drop height"
              className="mt-2"
              value={blow.fallMm}
              units={units}
              least={0}
              most={MOST_FALL}
              onEnter={fallMm => setBlow(b => ({ ...b, fallMm }))}
            />
          )}
          {blow.kind === 'own' && (
            <MeasureInput
              label={units === 'inch' ? 'Force, lbf' : 'Force, kN'}
              className="mt-2"
              value={units === 'inch' ? blow.own / N_PER_LBF : blow.own / 1000}
              units={units}
              plain={units === 'inch' ? 'lbf' : 'kN'}
              least={0.1}
              most={units === 'inch' ? 100_000 : 500}
              onEnter={v => setBlow(b => ({ ...b, own: v * (units === 'inch' ? N_PER_LBF : 1000) }))}
            />
          )}
          <details className="mt-2">
            <summary className="min-h-11 py-2.5 text-body">How the plates are held</summary>
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 accent-[var(--fluid)]"
                checked={blow.rests}
                onChange={e => setBlow(b => ({ ...b, rests: e.target.checked }))}
              />
              <span>Count contact with the frame and crossmembers above</span>
            </label>
            <p className="mt-1 mb-1 text-note text-ink2">Bolts hold sideways</p>
            <Select
              label="Bolts hold sideways"
              value={blow.hold}
              choices={(Object.keys(HOLD_NAMES) as Hold[]).map(h => ({ value: h, name: HOLD_NAMES[h] }))}
              onChoose={hold => setBlow(b => ({ ...b, hold }))}
              className="w-full"
            />
          </details>
          <ul className="mt-3 grid gap-3">
            {mine.map((s, i) => (
              <StruckPlate
                key={s.folded.panel.id}
                struck={s}
                other={struck[1]?.[i]}
                builds={bellies.map(b => buildNameIn(document.plan, b.build))}
                blow={blow}
                ready={waiting === 0}
                selected={panel === s.folded.panel.id}
                onPlace={at => onRock(s.folded.panel.id, at)}
              />
            ))}
          </ul>
        </div>
      }
    />
  );
}

function Legend({
  shown,
  most,
  units,
  theme,
}: {
  shown: Shown;
  most: number;
  units: 'inch' | 'metric';
  theme: 'light' | 'dark';
}) {
  const length = units === 'inch' ? 'in' : 'mm';
  const title = {
    deflection: `deflection, ${length}`,
    gap: `clearance to the part above, ${length}`,
    stress: 'stress, % of yield',
  }[shown];
  return (
    <div className="pointer-events-none absolute bottom-7 left-3 text-small">
      <p className="text-ink2">{title}</p>
      <div className="mt-1 flex">
        {SWATCHES.map(share => (
          <span key={share} className="h-3.5 w-2" style={{ background: css(rampColor(share, theme)) }} />
        ))}
        {shown === 'gap' && (
          <span className="ml-2 h-3.5 w-5" style={{ background: css(rampColor(-1, theme)) }} />
        )}
      </div>
      <div className="fig flex w-48 justify-between text-note">
        {legendOf(shown, most, units).map(f => (
          <span key={f.value}>{f.value}</span>
        ))}
        {shown === 'gap' && <span className="-mr-11 font-sans">touches</span>}
      </div>
    </div>
  );
}
