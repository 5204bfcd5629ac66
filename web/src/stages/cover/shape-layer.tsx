import type { Facts } from '@plate-fold/core/derive';
import { openingOutline } from '@plate-fold/core/fold';
import { frameOf, signedArea, toSpace, underGround, type Vec2 } from '@plate-fold/core/geometry';
import {
  addCorner,
  callOf,
  moveCorner,
  moveEdge,
  moveOpening,
  movePlate,
  type Opening,
  type Panel,
  removeCorner,
  removeOpening,
  snapLines,
  snapped,
} from '@plate-fold/core/plan';
import { formatLength, MM_PER_INCH, tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { useState } from 'react';
import { pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';
import { mapPlane, useGrip } from '../../picture/use-grip';
import { useHand, useRun } from '../../state/commands/run';

/** Pixels within which a dragged thing snaps to a line. */
const REACH_PX = 7;
const HANDLE = 11;
/** An edge shorter than this on the screen has no room for its length, px. */
const LABEL_FROM = 64;
/** How lengths and numbers of corners are written beside what they belong to. */
const LABEL = {
  className: 'fig',
  fontSize: 12,
  fontWeight: 600,
  stroke: 'var(--paper)',
  strokeWidth: 4,
  paintOrder: 'stroke',
  pointerEvents: 'none',
  style: { fill: 'var(--fluid)' },
} as const;

/** The way from one place to another, as long as one. */
function towards(from: Vec2, to: Vec2): Vec2 {
  const l = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
  return [(to[0] - from[0]) / l, (to[1] - from[1]) / l];
}

/** Handles of the chosen plate: its body, corners, edges and openings, each moved by mouse, finger or keys. */
export function ShapeLayer(props: {
  readonly facts: Facts;
  readonly panel: Panel;
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
}) {
  const { facts, panel, scale, height, units } = props;
  const run = useRun();
  const grip = useGrip(mapPlane(scale, height), useHand());
  const [guide, setGuide] = useState<{ x?: number; y?: number; text: string }>();
  const { outline } = panel.base;
  const frame = frameOf(panel.base);
  const ground = (q: Vec2): Vec2 => {
    const s = toSpace(frame, q);
    return [s[0], s[1]];
  };
  const put = (q: Vec2): Vec2 => [scale.X(q[0]), scale.Y(q[1], height)];
  const lines = snapLines(facts.document, facts.rig, panel.id);
  const grid = units === 'inch' ? MM_PER_INCH / 16 : 1;
  const snap = (x: number, y: number): Vec2 => {
    const s = snapped([x, y], lines, REACH_PX / scale.k, grid);
    const what = [s.x, s.y].filter(Boolean).join(', ');
    setGuide(what ? { x: s.x ? s.at[0] : undefined, y: s.y ? s.at[1] : undefined, text: what } : undefined);
    return s.at;
  };
  const length = (mm: number): string => formatLength(mm, units);
  /** the way out of the plate at an edge, on the screen, as long as one pixel */
  const outward = (a: Vec2, b: Vec2): Vec2 => {
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const out: Vec2 = [(b[1] - a[1]) / l, (a[0] - b[0]) / l];
    return turned ? [-out[0], -out[1]] : out;
  };
  const clear = { onPointerUpCapture: () => setGuide(undefined), onBlur: () => setGuide(undefined) };
  const n = outline.length;
  const turned = signedArea(outline.map(q => put(ground(q)))) < 0;
  const first = ground(outline[0] as Vec2);
  const middle: Vec2 = [
    outline.reduce((s, q) => s + ground(q)[0], 0) / n,
    outline.reduce((s, q) => s + ground(q)[1], 0) / n,
  ];

  return (
    <g {...clear}>
      <path
        d={pathOf([outline.map(ground)], put)}
        fill="transparent"
        stroke="var(--fluid)"
        strokeWidth="2"
        strokeDasharray="2 3"
        className="cursor-move"
        style={{ touchAction: 'none' }}
        role="button"
        tabIndex={0}
        aria-label={`Plate ${panel.mark} as a whole: arrow keys move it`}
        {...grip(
          'plate',
          {
            to: (x, y, from) => {
              const at = snap(x, y);
              return callOf(movePlate, {
                panel: panel.id,
                by: [at[0] - from[0], at[1] - from[1], 0],
              });
            },
            by: (dx, dy, group) => run(movePlate, { panel: panel.id, by: [dx, dy, 0] }, group),
          },
          first,
        )}
      />
      {panel.openings.map(openingHandle)}
      {outline.map((q, i) => {
        const r = outline[(i + 1) % n] as Vec2;
        const [a, b] = [put(ground(q)), put(ground(r))];
        const at: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
        const mid = ground([(q[0] + r[0]) / 2, (q[1] + r[1]) / 2]);
        const edgePx = Math.hypot(a[0] - b[0], a[1] - b[1]);
        if (edgePx < 26) return null;
        const along = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
        // how far out of the edge a place lies, from where the edge was when it was taken
        const out = (dx: number, dy: number): number => {
          const [o, d] = [underGround(frame, 0, 0), underGround(frame, dx, dy)];
          const [du, dv] = [r[0] - q[0], r[1] - q[1]];
          const turn = signedArea(outline) < 0 ? -1 : 1;
          return (((d[0] - o[0]) * dv - (d[1] - o[1]) * du) / Math.hypot(du, dv)) * turn;
        };
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its place in the outline
            key={`edge ${i}`}
            role="button"
            tabIndex={0}
            aria-label={`Edge ${i + 1} of plate ${panel.mark}: arrow keys move it, Enter adds a corner`}
            className="cursor-grab"
            style={{ touchAction: 'none' }}
            {...grip(
              `edge ${i}`,
              {
                to: (x, y, from) => {
                  const at = snap(x, y);
                  return callOf(moveEdge, {
                    panel: panel.id,
                    edge: i,
                    by: out(at[0] - from[0], at[1] - from[1]),
                  });
                },
                by: (dx, dy, group) => run(moveEdge, { panel: panel.id, edge: i, by: out(dx, dy) }, group),
                onEnter: () => run(addCorner, { panel: panel.id, edge: i }),
              },
              mid,
            )}
          >
            <circle cx={at[0]} cy={at[1]} r="18" fill="transparent" />
            <rect
              x={at[0] - 11}
              y={at[1] - 3.5}
              width="22"
              height="7"
              rx="3.5"
              transform={`rotate(${along} ${at[0]} ${at[1]})`}
              fill="var(--paper)"
              stroke="var(--fluid)"
              strokeWidth="2"
            />
          </g>
        );
      })}
      {outline.map((q, i) => {
        const g = ground(q);
        const at = put(g);
        const inward = towards(at, put(middle));
        const to = (x: number, y: number) => ({ panel: panel.id, corner: i, to: underGround(frame, x, y) });
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the outline
            key={`corner ${i}`}
            role="button"
            tabIndex={0}
            aria-label={`Corner ${i + 1} of plate ${panel.mark}, ${length(g[0])} behind the axle, ${length(g[1])} right: arrow keys move it, Delete removes it`}
            className="cursor-crosshair"
            style={{ touchAction: 'none' }}
            {...grip(
              `corner ${i}`,
              {
                to: (x, y) => callOf(moveCorner, to(...snap(x, y))),
                by: (dx, dy, group) => run(moveCorner, to(g[0] + dx, g[1] + dy), group),
                onRemove: () => run(removeCorner, { panel: panel.id, corner: i }),
              },
              g,
            )}
          >
            <circle cx={at[0]} cy={at[1]} r="19" fill="transparent" />
            <rect
              x={at[0] - HANDLE / 2}
              y={at[1] - HANDLE / 2}
              width={HANDLE}
              height={HANDLE}
              fill="var(--paper)"
              stroke="var(--fluid)"
              strokeWidth="2.4"
            />
            <text
              x={at[0] + inward[0] * 16}
              y={at[1] + inward[1] * 16 + 4}
              textAnchor="middle"
              aria-hidden="true"
              {...LABEL}
              fontSize="11"
            >
              {i + 1}
            </text>
          </g>
        );
      })}
      <g aria-hidden="true">
        {outline.map((q, i) => {
          const r = outline[(i + 1) % n] as Vec2;
          const [a, b] = [put(ground(q)), put(ground(r))];
          if (Math.hypot(a[0] - b[0], a[1] - b[1]) <= LABEL_FROM) return null;
          const [ox, oy] = outward(a, b);
          return (
            <text
              // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its place in the outline
              key={`length ${i}`}
              x={(a[0] + b[0]) / 2 + ox * 20}
              y={(a[1] + b[1]) / 2 + oy * 15 + 4}
              textAnchor={Math.abs(ox) < 0.5 ? 'middle' : ox > 0 ? 'start' : 'end'}
              {...LABEL}
            >
              {tapeLength(Math.hypot(r[0] - q[0], r[1] - q[1]), units)}
            </text>
          );
        })}
      </g>
      {guide && (
        <g pointerEvents="none" stroke="var(--fluid)" strokeDasharray="3 3">
          {guide.x !== undefined && <path d={`M${scale.X(guide.x)} 0V${height}`} />}
          {guide.y !== undefined && <path d={`M0 ${scale.Y(guide.y, height)}H${scale.width}`} />}
          <text
            x={put(middle)[0]}
            y={Math.min(height - 30, Math.max(18, put(middle)[1] - 24))}
            textAnchor="middle"
            fontSize="13"
            fontWeight="700"
            strokeDasharray="none"
            strokeWidth="4"
            paintOrder="stroke"
            style={{ fill: 'var(--fluid)', stroke: 'var(--paper)' }}
          >
            {guide.text}
          </text>
        </g>
      )}
    </g>
  );

  function openingHandle(o: Opening) {
    const g = ground(o.at);
    const at = put(g);
    const to = (x: number, y: number) => ({
      panel: panel.id,
      opening: o.id,
      at: underGround(frame, x, y),
    });
    return (
      <g
        key={o.id}
        role="button"
        tabIndex={0}
        aria-label={`${o.kind} opening of plate ${panel.mark}: arrow keys move it, Delete removes it`}
        className="cursor-move"
        style={{ touchAction: 'none' }}
        {...grip(
          `opening ${o.id}`,
          {
            to: (x, y) => callOf(moveOpening, to(...snap(x, y))),
            by: (dx, dy, group) => run(moveOpening, to(g[0] + dx, g[1] + dy), group),
            onRemove: () => run(removeOpening, { panel: panel.id, opening: o.id }),
          },
          g,
        )}
      >
        <circle cx={at[0]} cy={at[1]} r="13" fill="transparent" />
        <path
          d={pathOf([openingOutline(o).map(ground)], put)}
          fill="transparent"
          stroke="var(--fluid)"
          strokeWidth="2.4"
        />
      </g>
    );
  }
}
