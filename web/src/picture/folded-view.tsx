import type { Triangle } from '@plate-fold/core/fold';
import type { Vec3 } from '@plate-fold/core/geometry';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import type { Eye, Solid } from './space/contents';
import { EYES, frontLies } from './space/eyes';

interface Face {
  readonly id: string;
  readonly d: string;
  readonly depth: number;
  readonly light: number;
  readonly tone: string;
}

/** Faces turned towards the eye, far ones first (painter's order), with how much light each catches. */
function drawn(solids: readonly Solid[], eye: Eye, width: number, height: number): readonly Face[] {
  const [t, l] = [(eye.turn * Math.PI) / 180, (eye.lift * Math.PI) / 180];
  const [ct, st, cl, sl] = [Math.cos(t), Math.sin(t), Math.cos(l), Math.sin(l)];
  // right, up and towards the eye in the picture; the eye stands off the vehicle's front, turned to its left
  const seen = ([x, y, z]: Vec3): Vec3 => {
    const [right, near] = [x * st - y * ct, -x * ct - y * st];
    return [right, z * cl - near * sl, near * cl + z * sl];
  };
  const turned = solids.map(s => ({
    ...s,
    triangles: s.triangles.map(tri => tri.map(seen) as unknown as Triangle),
  }));
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const s of turned)
    if (s.chosen)
      for (const tri of s.triangles)
        for (const p of tri) {
          x0 = Math.min(x0, p[0]);
          x1 = Math.max(x1, p[0]);
          y0 = Math.min(y0, p[1]);
          y1 = Math.max(y1, p[1]);
        }
  const k = Math.min((width - 40) / (x1 - x0), (height - 60) / (y1 - y0));
  const put = (p: Vec3): string =>
    `${(width / 2 + (p[0] - (x0 + x1) / 2) * k).toFixed(1)} ${(height / 2 - (p[1] - (y0 + y1) / 2) * k).toFixed(1)}`;
  return turned
    .flatMap(s =>
      s.triangles.flatMap(([a, b, c], i): Face[] => {
        const [u, v] = [
          [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
          [c[0] - a[0], c[1] - a[1], c[2] - a[2]],
        ] as [Vec3, Vec3];
        const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
        const size = Math.hypot(...n);
        if (size < 1e-9 || n[2] <= 0) return [];
        const light = Math.max(0, (0.25 * n[0] + 0.55 * n[1] + 0.8 * n[2]) / size);
        const tone = s.chosen ? `var(${s.tone})` : 'var(--ghost)';
        const d = `M${put(a)}L${put(b)}L${put(c)}Z`;
        return [{ id: `${s.id} ${i}`, d, depth: (a[2] + b[2] + c[2]) / 3, light, tone }];
      }),
    )
    .sort((p, q) => p.depth - q.depth);
}

/** Plates drawn in projection, for browsers that do not draw in space: turned by dragging or by arrow keys. */
export function FoldedView(props: {
  label: string;
  solids: readonly Solid[];
  eye: keyof typeof EYES;
  /** the eye goes back to its place whenever this changes */
  about: string;
  width: number;
  height: number;
}) {
  const { label, solids, width, height } = props;
  const [eye, setEye] = useState<Eye>(EYES[props.eye]);
  const held = useRef<{ x: number; y: number } | undefined>(undefined);
  const [from, setFrom] = useState(props.about);
  if (from !== props.about) {
    setFrom(props.about);
    setEye(EYES[props.eye]);
  }
  const faces = useMemo(() => drawn(solids, eye, width, height), [solids, eye, width, height]);
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
    if (move) turn(move[0], move[1]);
    else if (e.key === 'Home') setEye(EYES.below);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const words = `seen from ${eye.lift < 0 ? 'below' : 'above'}, ${frontLies(eye)}`;
  return (
    <div
      role="slider"
      aria-label={`${label}: arrow keys turn it, Home looks from below`}
      aria-valuenow={Math.round(eye.turn)}
      aria-valuetext={words}
      tabIndex={0}
      className="relative cursor-grab"
      style={{ touchAction: 'none' }}
      onKeyDown={key}
      onPointerDown={(e: PointerEvent<HTMLDivElement>) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        held.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerMove={e => {
        if (!held.current) return;
        turn((held.current.x - e.clientX) * 0.5, (e.clientY - held.current.y) * 0.5);
        held.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerUp={() => {
        held.current = undefined;
      }}
    >
      <svg width={width} height={height} aria-hidden="true" className="block">
        <rect width={width} height={height} fill="var(--ground)" />
        {faces.map(f => {
          const tone = `color-mix(in oklab, ${f.tone} ${Math.round(25 + 75 * f.light)}%, var(--hatch))`;
          return (
            <path key={f.id} d={f.d} fill={tone} stroke={tone} strokeWidth="0.7" strokeLinejoin="round" />
          );
        })}
      </svg>
      <p className="pointer-events-none absolute bottom-1.5 left-3 text-note text-ink2">{words}</p>
    </div>
  );
}
