import {
  type Flange,
  fold,
  foldedSolid,
  type Panel,
  type SheetChoice,
  type Triangle,
  type Vec3,
} from '@plate-fold/core';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';

interface Eye {
  /** degrees about the upright axis, and above (below: negative) the plate */
  readonly turn: number;
  readonly lift: number;
}

/** From below and ahead, as a rock sees it. */
const FROM_BELOW: Eye = { turn: 32, lift: -38 };

const part = (flanges: readonly Flange[], share: number): readonly Flange[] =>
  flanges.map(f => ({
    ...f,
    // an angle of exactly nought would be no bend: the radius is kept and the strip stays
    angle: f.angle * Math.max(share, 0.004),
    flanges: f.flanges && part(f.flanges, share),
  }));

/** The plate with every bend made to a share of its angle. */
const partlyFolded = (panel: Panel, share: number): Panel => ({
  ...panel,
  flanges: part(panel.flanges, share),
});

const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

interface Face {
  readonly d: string;
  readonly depth: number;
  readonly light: number;
}

/** Faces turned towards the eye, far ones first (painter's order), with how much light each catches. */
function drawn(triangles: readonly Triangle[], eye: Eye, width: number, height: number): readonly Face[] {
  const [t, l] = [(eye.turn * Math.PI) / 180, (eye.lift * Math.PI) / 180];
  const [ct, st, cl, sl] = [Math.cos(t), Math.sin(t), Math.cos(l), Math.sin(l)];
  // right, up and towards the eye in the picture
  const seen = ([x, y, z]: Vec3): Vec3 => {
    const [a, b] = [x * ct - y * st, x * st + y * ct];
    return [a, z * cl + b * sl, -b * cl + z * sl];
  };
  const all = triangles.map(tri => tri.map(seen) as unknown as Triangle);
  const pts = all.flat();
  const [x0, x1] = [Math.min(...pts.map(p => p[0])), Math.max(...pts.map(p => p[0]))];
  const [y0, y1] = [Math.min(...pts.map(p => p[1])), Math.max(...pts.map(p => p[1]))];
  const k = Math.min((width - 40) / (x1 - x0), (height - 40) / (y1 - y0));
  const put = (p: Vec3): string =>
    `${(width / 2 + (p[0] - (x0 + x1) / 2) * k).toFixed(1)} ${(height / 2 - (p[1] - (y0 + y1) / 2) * k).toFixed(1)}`;
  return all
    .flatMap(([a, b, c]): Face[] => {
      const n = cross(minus(b, a), minus(c, a));
      const size = Math.hypot(...n);
      if (size < 1e-9 || n[2] <= 0) return [];
      const light = Math.max(0, (0.25 * n[0] + 0.55 * n[1] + 0.8 * n[2]) / size);
      return [{ d: `M${put(a)}L${put(b)}L${put(c)}Z`, depth: (a[2] + b[2] + c[2]) / 3, light }];
    })
    .sort((p, q) => p.depth - q.depth);
}

/** The folded plate drawn in space: turned by dragging or by arrow keys, folded by a share from flat to finished. */
export function FoldedView(props: {
  panel: Panel;
  sheet: SheetChoice;
  share: number;
  width: number;
  height: number;
}) {
  const { panel, sheet, share, width, height } = props;
  const [eye, setEye] = useState(FROM_BELOW);
  const held = useRef<{ x: number; y: number } | undefined>(undefined);
  const triangles = useMemo(
    () => foldedSolid(fold(partlyFolded(panel, share), sheet)),
    [panel, sheet, share],
  );
  const faces = useMemo(() => drawn(triangles, eye, width, height), [triangles, eye, width, height]);
  const turn = (dt: number, dl: number): void =>
    setEye(e => ({ turn: e.turn + dt, lift: Math.max(-89, Math.min(89, e.lift + dl)) }));
  const key = (e: KeyboardEvent): void => {
    const by: Record<string, readonly [number, number]> = {
      ArrowLeft: [-8, 0],
      ArrowRight: [8, 0],
      ArrowUp: [0, 8],
      ArrowDown: [0, -8],
    };
    const move = by[e.key];
    if (!move) return;
    e.preventDefault();
    turn(move[0], move[1]);
  };
  return (
    <div
      role="slider"
      aria-label={`Plate ${panel.mark} folded: arrow keys turn it`}
      aria-valuenow={Math.round(eye.turn)}
      aria-valuetext={`turned ${Math.round(eye.turn)} degrees, seen from ${eye.lift < 0 ? 'below' : 'above'}`}
      tabIndex={0}
      className="cursor-grab"
      style={{ touchAction: 'none' }}
      onKeyDown={key}
      onPointerDown={(e: PointerEvent<HTMLDivElement>) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        held.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerMove={e => {
        if (!held.current) return;
        turn((e.clientX - held.current.x) * 0.5, (e.clientY - held.current.y) * 0.5);
        held.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerUp={() => {
        held.current = undefined;
      }}
    >
      <svg width={width} height={height} aria-hidden="true" className="block">
        <rect width={width} height={height} fill="var(--ground)" />
        {faces.map(f => {
          const tone = `color-mix(in oklab, var(--steel) ${Math.round(25 + 75 * f.light)}%, var(--hatch))`;
          return (
            <path key={f.d} d={f.d} fill={tone} stroke={tone} strokeWidth="0.7" strokeLinejoin="round" />
          );
        })}
        <text x="12" y="20" fontSize="12" style={{ fill: 'var(--ink2)' }}>
          seen from {eye.lift < 0 ? 'below' : 'above'}
        </text>
      </svg>
    </div>
  );
}
