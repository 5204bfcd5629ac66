import type { Vec2, Vec3 } from '@plate-fold/core/geometry';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { useEffect, useRef } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import type { ColoredSurface } from '../../picture/space/contents';
import { mapPlane, useGrip } from '../../picture/use-grip';
import { css } from './ramp';

export interface Rock {
  readonly panel: string;
  readonly mark: string;
  readonly at: Vec3;
}

/** The belly drawn flat on the sheet's scale, colored; its rocks are dragged, or moved by the arrow keys. */
export function DrawnBelly({
  surfaces,
  rocks,
  scale,
  height,
  units,
  onRock,
}: {
  surfaces: readonly ColoredSurface[];
  rocks: readonly Rock[];
  scale: SheetScale;
  height: number;
  units: UnitSystem;
  onRock: (panel: string, at: Vec2) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width } = scale;
  useEffect(() => {
    const el = canvas.current;
    const g = el?.getContext('2d');
    if (!el || !g) return;
    const dense = Math.min(2, window.devicePixelRatio);
    el.width = Math.round(width * dense);
    el.height = Math.round(height * dense);
    g.setTransform(dense, 0, 0, dense, 0, 0);
    g.clearRect(0, 0, width, height);
    for (const s of surfaces) paint(g, s, scale, height);
  }, [surfaces, scale, width, height]);
  const began = useRef<{ readonly panel: string; readonly from: Vec2 }>(undefined);
  const grip = useGrip<{ readonly panel: string; readonly at: Vec2 }>(mapPlane(scale, height), {
    show: ({ panel, at }) => onRock(panel, at),
    letGo: () => undefined,
    forget: () => began.current && onRock(began.current.panel, began.current.from),
  });
  return (
    <div className="relative" style={{ width, height }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The underside from below, colored by the strike"
        className="text-ink"
        style={{ width, height }}
      />
      <svg
        width={width}
        height={height}
        className="absolute inset-0"
        role="group"
        aria-label="Rocks under the plates"
      >
        {rocks.map(r => {
          const [x, y] = [scale.X(r.at[0]), scale.Y(r.at[1], height)];
          return (
            <g
              key={r.panel}
              role="slider"
              tabIndex={0}
              aria-label={`Rock under plate ${r.mark}: drag it, or move it with the arrow keys`}
              aria-valuenow={Math.round(r.at[0])}
              aria-valuetext={`${formatLength(r.at[0], units)} behind the front axle, ${formatLength(r.at[1], units)} right of center`}
              className="cursor-grab outline-offset-4"
              style={{ touchAction: 'none' }}
              {...grip(
                r.panel,
                {
                  to: (px, py, from) => {
                    began.current = { panel: r.panel, from };
                    return { panel: r.panel, at: [px, py] };
                  },
                  by: (dx, dy) => onRock(r.panel, [r.at[0] + dx, r.at[1] + dy]),
                },
                [r.at[0], r.at[1]],
              )}
            >
              <circle cx={x} cy={y} r="24" fill="transparent" />
              <path
                d={`M${x - 11} ${y}L${x} ${y - 11}L${x + 11} ${y}L${x} ${y + 11}Z`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="5"
              />
              <path
                d={`M${x - 11} ${y}L${x} ${y - 11}L${x + 11} ${y}L${x} ${y + 11}Z`}
                fill="none"
                stroke="var(--marker)"
                strokeWidth="2.5"
              />
            </g>
          );
        })}
      </svg>
    </div>
  );
}

/** A corner of a triangle on the screen: its place, px, and its color, 0 to 1. */
type Corner = readonly [x: number, y: number, r: number, g: number, b: number];

/** Triangles larger than this are cut into four, px²: their colors run into one another without facets to be seen. */
const SMALL = 24;

const half = (p: Corner, q: Corner): Corner => [
  (p[0] + q[0]) / 2,
  (p[1] + q[1]) / 2,
  (p[2] + q[2]) / 2,
  (p[3] + q[3]) / 2,
  (p[4] + q[4]) / 2,
];

/** A triangle in the mean color of its corners, with a hairline in the same color so that no gap shows. */
function fill(g: CanvasRenderingContext2D, p: Corner, q: Corner, r: Corner): void {
  const area = Math.abs((q[0] - p[0]) * (r[1] - p[1]) - (r[0] - p[0]) * (q[1] - p[1])) / 2;
  const even = [2, 3, 4].every(
    k =>
      Math.max(p[k] as number, q[k] as number, r[k] as number) -
        Math.min(p[k] as number, q[k] as number, r[k] as number) <
      0.03,
  );
  if (area > SMALL && !even) {
    const [a, b, c] = [half(p, q), half(q, r), half(r, p)];
    fill(g, p, a, c);
    fill(g, a, q, b);
    fill(g, c, b, r);
    fill(g, a, b, c);
    return;
  }
  g.beginPath();
  g.moveTo(p[0], p[1]);
  g.lineTo(q[0], q[1]);
  g.lineTo(r[0], r[1]);
  g.closePath();
  g.fillStyle = g.strokeStyle = css(
    [2, 3, 4].map(k => ((p[k] as number) + (q[k] as number) + (r[k] as number)) / 3),
  );
  g.fill();
  g.stroke();
}

/** One plate: its triangles in their colors, and its outline and openings in ink. */
function paint(
  g: CanvasRenderingContext2D,
  { coordinates: c, triangles: t, colors }: ColoredSurface,
  scale: SheetScale,
  height: number,
): void {
  g.lineWidth = 0.8;
  const at = (n: number): Corner => [
    scale.X(c[3 * n] as number),
    scale.Y(c[3 * n + 1] as number, height),
    colors[3 * n] as number,
    colors[3 * n + 1] as number,
    colors[3 * n + 2] as number,
  ];
  const lone = new Map<string, readonly [number, number]>();
  for (let e = 0; e < t.length; e += 3) {
    const ids = [t[e], t[e + 1], t[e + 2]] as [number, number, number];
    fill(g, at(ids[0]), at(ids[1]), at(ids[2]));
    ids.forEach((a, i) => {
      const b = ids[(i + 1) % 3] as number;
      const side = `${Math.min(a, b)} ${Math.max(a, b)}`;
      if (!lone.delete(side)) lone.set(side, [a, b]);
    });
  }
  g.strokeStyle = getComputedStyle(g.canvas).color;
  g.lineWidth = 1;
  g.beginPath();
  for (const [a, b] of lone.values()) {
    const [p, q] = [at(a), at(b)];
    g.moveTo(p[0], p[1]);
    g.lineTo(q[0], q[1]);
  }
  g.stroke();
}
