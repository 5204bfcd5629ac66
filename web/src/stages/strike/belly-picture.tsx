import type { UnitSystem, Vec2 } from '@plate-fold/core';
import { lazy, Suspense, useMemo } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import type { Eye } from '../../picture/space/scene';
import { hasWebGl } from '../../picture/space/webgl';
import { useSize } from '../../picture/use-size';
import { DrawnBelly, type Rock } from './drawn-belly';
import { type Shown, surfacesOf } from './shown';
import type { Struck } from './use-strikes';

const SpaceView = lazy(() => import('../../picture/space/space-view'));
const NOTHING: readonly never[] = [];

/** One build's belly under its rocks: in space, or drawn flat. */
export function BellyPicture(props: {
  readonly build: string;
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
  const { build, struck, places, shown, most, exaggerated, theme, flat, scale, onRock } = props;
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
  const places3 = useMemo(() => rocks.map(r => r.at), [rocks]);
  return (
    <div ref={box} className="relative min-h-0 min-w-0 flex-1 overflow-hidden bg-ground">
      {flat && size.width > 0 && (
        <DrawnBelly
          surfaces={surfaces}
          rocks={rocks}
          scale={scale.width === size.width ? scale : narrowed(scale, size.width)}
          height={size.height}
          units={props.units}
          onRock={onRock}
        />
      )}
      {!flat && hasWebGl() && size.width > 0 && surfaces.length > 0 && (
        <Suspense fallback={null}>
          <SpaceView
            label={`The belly of build ${build} under the rock`}
            solids={NOTHING}
            ghosts={NOTHING}
            field={surfaces}
            rocks={places3}
            eye="belly"
            about={`${build} ${surfaces.length}`}
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

/** The sheet's scale in a picture that is only part as wide. */
function narrowed(s: SheetScale, width: number): SheetScale {
  const part = width / s.width;
  return {
    ...s,
    width,
    k: s.k * part,
    X: x => s.X(x) * part,
    Y: (y, height) => height / 2 + (s.Y(y, 0) - 0) * part,
    xAt: px => s.xAt(px / part),
    yAt: (px, height) => s.yAt((px - height / 2) / part, 0),
  };
}
