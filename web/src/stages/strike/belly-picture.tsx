import { type FoldedPanel, foldedSolid } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import type { PresentRig } from '@plate-fold/core/rig';
import type { UnitSystem } from '@plate-fold/core/units';
import { lazy, Suspense, useMemo } from 'react';
import { type SheetScale, sheetScale } from '../../picture/sheet-scale';
import type { ColoredSurface, Eye, Ghost, Solid, Stand } from '../../picture/space/contents';
import { hasWebGl } from '../../picture/space/webgl';
import { useSize } from '../../picture/use-size';
import { tireWidth } from '../../picture/vehicle';
import type { Struck } from '../../state/strikes/use-strikes';
import { DrawnBelly, type Rock } from './drawn-belly';
import { type Shown, surfacesOf } from './shown';

const SpaceView = lazy(() => import('../../picture/space/space-view'));

/** One build's belly under its rocks: in space, or drawn flat. */
export function BellyPicture(props: {
  readonly build: string;
  readonly rig: PresentRig;
  /** what plates hang on, drawn as it stands at rest */
  readonly brackets: readonly FoldedPanel[];
  readonly struck: readonly Struck[];
  readonly places: Readonly<Record<string, Vec2>>;
  readonly shown: Shown;
  readonly most: number;
  readonly exaggerated: number;
  readonly theme: 'light' | 'dark';
  readonly units: UnitSystem;
  readonly flat: boolean;
  readonly scale: SheetScale;
  readonly follow?: Eye;
  readonly onEye?: (eye: Eye) => void;
  readonly onRock: (panel: string, at: Vec2) => void;
}) {
  const { build, rig, brackets, struck, places, shown, most, exaggerated, theme, flat, scale, onRock } =
    props;
  const [box, size] = useSize<HTMLDivElement>();
  const surfaces = useMemo(
    () => surfacesOf(struck, shown, most, flat ? 0 : exaggerated, theme),
    [struck, shown, most, flat, exaggerated, theme],
  );
  const rocks = useMemo(
    () =>
      struck.flatMap((s): readonly Rock[] => {
        if (!s.answer?.ok) return [];
        const { at } = s.answer.value;
        const own = places[s.folded.panel.id];
        return [
          {
            panel: s.folded.panel.id,
            mark: s.folded.panel.mark,
            at: own ? [own[0], own[1], at[2]] : at,
          },
        ];
      }),
    [struck, places],
  );
  const ghosts = useMemo(() => ghostsOf(rig), [rig]);
  const stand = useMemo(() => standOf(rig), [rig]);
  const solids = useMemo(() => brackets.map(solidOf), [brackets]);
  const places3 = useMemo(() => rocks.map(r => r.at), [rocks]);
  return (
    <div ref={box} className="relative min-h-0 min-w-0 flex-1 overflow-hidden bg-ground">
      {flat && size.width > 0 && (
        <DrawnBelly
          surfaces={surfaces}
          rocks={rocks}
          scale={
            size.width < NARROW || scale.width !== size.width
              ? fitted(surfaces, size.width, size.height, scale.side)
              : scale
          }
          height={size.height}
          units={props.units}
          onRock={onRock}
        />
      )}
      {!flat && hasWebGl() && size.width > 0 && surfaces.length > 0 && (
        <Suspense fallback={null}>
          <SpaceView
            label={`Underside of ${build} under load`}
            solids={solids}
            ghosts={ghosts}
            stand={stand}
            field={surfaces}
            rocks={places3}
            eye="belly"
            about={`${build} ${surfaces.length} ${Math.round(size.height / 60)}`}
            theme={theme}
            width={size.width}
            height={size.height}
            {...(props.follow ? { follow: props.follow } : {})}
            {...(props.onEye ? { onEye: props.onEye } : {})}
            onRock={(id, at) => onRock(id, [at[0], at[1]])}
            onLost={() => undefined}
          />
        </Suspense>
      )}
    </div>
  );
}

const solidOf = (p: FoldedPanel): Solid => ({
  id: p.panel.id,
  triangles: foldedSolid(p),
  tone: `--${p.material.family}`,
  chosen: false,
});

/** Parts and members of the vehicle over its belly; what moves has no place of its own. */
const ghostsOf = ({ components, members }: PresentRig): readonly Ghost[] =>
  [...components.filter(c => !c.moves), ...members].map(({ id, footprint, zBottom, zTop }) => ({
    id,
    footprint,
    zBottom,
    zTop,
  }));

/** A tire as wide as the map draws it, and ground as far as the vehicle reaches. */
function standOf({ rig }: PresentRig): Stand {
  const width = tireWidth(rig);
  const out = rig.trackWidth / 2;
  return {
    tires: [0, rig.wheelbase].flatMap(x =>
      [-out, out].map(y => ({ at: [x, y, rig.tyreRadius] as const, radius: rig.tyreRadius, width })),
    ),
    ground: [
      [-rig.frontOverhang, -out - width],
      [rig.wheelbase + rig.rearOverhang, out + width],
    ],
  };
}

/** In a picture narrower than this the belly is drawn as large as fits, not on the side view's scale, px. */
const NARROW = 640;
/** Room round it, mm. */
const ROUND = 60;

/** A scale that shows all surfaces as large as they fit. */
function fitted(
  surfaces: readonly ColoredSurface[],
  width: number,
  height: number,
  side: SheetScale['side'],
): SheetScale {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { coordinates: c } of surfaces)
    for (let i = 0; i < c.length; i += 3) {
      [x0, x1] = [Math.min(x0, c[i] as number), Math.max(x1, c[i] as number)];
      [y0, y1] = [Math.min(y0, c[i + 1] as number), Math.max(y1, c[i + 1] as number)];
    }
  if (!(x1 > x0)) [x0, x1, y0, y1] = [0, 1, 0, 1];
  const along = Math.max(x1 - x0 + 2 * ROUND, ((y1 - y0 + 2 * ROUND) * width) / Math.max(1, height - 60));
  const middle = (x0 + x1) / 2;
  return sheetScale({ from: middle - along / 2, to: middle + along / 2, yMid: (y0 + y1) / 2 }, width, side);
}
