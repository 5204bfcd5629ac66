import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { presentRig } from '@plate-fold/core/rig';
import { type Adjustment, pointName } from '@plate-fold/core/survey';
import { fixed } from '@plate-fold/core/units';
import type { ReactNode } from 'react';
import { type GroundPhoto, LaidOut } from '../../picture/laid-out';
import { pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';
import { SideNotes, Tires } from '../../picture/vehicle';

/** The largest doubt is drawn about this large, px. */
const DRAWN = 26;
const TIMES = [1, 2, 5, 10, 20, 50, 100, 200] as const;

/** Half axes of a doubt on the ground plane and how the longer lies, radians. */
export function ellipseOf([[xx, xy], [, yy]]: readonly [
  readonly [number, number, ...number[]],
  readonly [number, number, ...number[]],
  ...unknown[],
]): { readonly a: number; readonly b: number; readonly turn: number } {
  const [middle, half] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  return {
    a: Math.sqrt(Math.max(0, middle + half)),
    b: Math.sqrt(Math.max(0, middle - half)),
    turn: 0.5 * Math.atan2(2 * xy, xx - yy),
  };
}

/** The underside with the points of the survey, what was taped between them, and how well each is known. */
export function SurveyMap(props: {
  readonly facts: Facts;
  readonly adjustment: Adjustment;
  readonly scale: SheetScale;
  readonly height: number;
  readonly point?: string;
  readonly onPoint: (id: string) => void;
  /** a picture laid on the ground plane, under all that is drawn */
  readonly ground?: GroundPhoto;
  /** over all that is drawn */
  readonly children?: ReactNode;
}) {
  const { facts, adjustment, scale, height } = props;
  const { rig, components, members } = presentRig(facts.document.rig);
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  const at = new Map(adjustment.points.map(p => [p.id, put([p.at[0], p.at[1]])]));
  const ellipses = adjustment.points.map(p => ({
    id: p.id,
    ...ellipseOf(p.covariance as unknown as Parameters<typeof ellipseOf>[0]),
  }));
  const largest = Math.max(...ellipses.map(e => e.a), 1e-6);
  const times = TIMES.filter(t => largest * t * scale.k <= DRAWN).at(-1) ?? 1;
  const suspects = new Set(adjustment.suspects.slice(0, 1));
  // the way the picture is mirrored turns an ellipse with it
  const [o, ex, ey] = [put([0, 0]), put([1, 0]), put([0, 1])];
  const drawn = (turn: number): number => {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    return (
      (Math.atan2((ex[1] - o[1]) * c + (ey[1] - o[1]) * s, (ex[0] - o[0]) * c + (ey[0] - o[0]) * s) * 180) /
      Math.PI
    );
  };
  const name = (id: string): string => {
    const p = adjustment.solution.net.points.find(q => q.id === id);
    return p ? pointName(p) : id;
  };
  return (
    <svg width={scale.width} height={height} role="group" aria-label="Map of the survey" className="block">
      <rect width={scale.width} height={height} fill="var(--paper)" />
      <LaidOut ground={props.ground} put={put} />
      <g aria-hidden="true">
        <Tires rig={rig} put={put} />
        {[...members, ...components].map(m => (
          <path
            key={m.id}
            d={pathOf([m.footprint], put)}
            fill={props.ground?.url ? 'none' : 'var(--ghost)'}
            stroke="var(--ghostline)"
            strokeWidth="0.8"
            fillOpacity="0.5"
          />
        ))}
        {adjustment.readings.map((r, i) => {
          const [a, b] = [at.get(r.from ?? ''), at.get(r.to ?? '')];
          if (r.kind !== 'distance' || !a || !b) return null;
          const odd = suspects.has(i);
          return (
            <path
              key={`${r.from} ${r.to} ${r.id ?? i}`}
              d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
              stroke={odd ? 'var(--oxide)' : 'var(--ink2)'}
              strokeWidth={odd ? 3.5 : 1}
              strokeDasharray={odd ? '7 4' : undefined}
            />
          );
        })}
        {ellipses.map(e => {
          const p = at.get(e.id);
          return p && e.a > 0 ? (
            <ellipse
              key={e.id}
              rx={Math.max(1.5, e.a * times * scale.k)}
              ry={Math.max(1.5, e.b * times * scale.k)}
              transform={`translate(${p[0]} ${p[1]}) rotate(${drawn(e.turn)})`}
              fill="var(--fluid)"
              fillOpacity="0.25"
              stroke="var(--fluid)"
              strokeWidth="1.4"
            />
          ) : null;
        })}
      </g>
      {adjustment.points.map(p => {
        const [x, y] = at.get(p.id) as Vec2;
        const held = p.sigma.every(s => s === 0);
        const chosen = props.point === p.id;
        return (
          <g
            key={p.id}
            role="button"
            tabIndex={0}
            aria-pressed={chosen}
            aria-label={`Point ${name(p.id)}`}
            className="cursor-pointer"
            onClick={() => props.onPoint(p.id)}
            onKeyDown={e => {
              if (e.key === 'Enter' || e.key === ' ') props.onPoint(p.id);
            }}
          >
            <circle cx={x} cy={y} r="16" fill="transparent" />
            {held ? (
              <rect
                x={x - 5}
                y={y - 5}
                width="10"
                height="10"
                fill="var(--ink)"
                stroke={chosen ? 'var(--fluid)' : 'var(--paper)'}
                strokeWidth={chosen ? 3 : 1}
              />
            ) : (
              <circle
                cx={x}
                cy={y}
                r="4.5"
                fill="var(--paper)"
                stroke={chosen ? 'var(--fluid)' : 'var(--ink)'}
                strokeWidth={chosen ? 3.5 : 1.8}
              />
            )}
            <text
              x={x + 9}
              y={y - 7}
              fontSize="12"
              fontWeight={chosen ? 700 : 400}
              stroke="var(--paper)"
              strokeWidth="3"
              paintOrder="stroke"
              fill="var(--ink)"
            >
              {name(p.id)}
            </text>
          </g>
        );
      })}
      <SideNotes rig={rig} scale={scale} height={height} />
      {adjustment.points.length > 0 && (
        <text x="10" y={height - 10} fontSize="12" fill="var(--ink2)">
          Doubts drawn {times === 1 ? 'as large as they are' : `${fixed(times, 0)} times too large`}; squares
          are held.
        </text>
      )}
      {props.children}
    </svg>
  );
}
