import type { Facts } from '@plate-fold/core/derive';
import { openingOutline } from '@plate-fold/core/fold';
import { baseFrame, signedArea, toSpace, underGround, type Vec2 } from '@plate-fold/core/geometry';
import {
  cornerAdded,
  cornerMoved,
  cornerRemoved,
  edgeMoved,
  type Opening,
  openingRemoved,
  openingSet,
  type Panel,
  panelMoved,
  snapLines,
  snapped,
} from '@plate-fold/core/plan';
import { formatLength, MM_PER_INCH, type UnitSystem } from '@plate-fold/core/units';
import { useState } from 'react';
import { pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';
import { useGrip } from '../../picture/use-grip';
import { useEdit } from '../../state/use-edit';

/** Pixels within which a dragged thing snaps to a line. */
const REACH_PX = 7;
const HANDLE = 11;

/** Handles of the chosen plate: its body, corners, edges and openings, each moved by mouse, finger or keys. */
export function ShapeLayer(props: {
  readonly facts: Facts;
  readonly panel: Panel;
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
}) {
  const { facts, panel, scale, height, units } = props;
  const edit = useEdit();
  const grip = useGrip(scale, height);
  const [guide, setGuide] = useState<{ x?: number; y?: number; text: string }>();
  const { outline, origin, pitch, roll } = panel.base;
  const frame = baseFrame(origin, pitch, roll);
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
  const clear = { onPointerUpCapture: () => setGuide(undefined), onBlur: () => setGuide(undefined) };
  const n = outline.length;
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
            to: (x, y, stroke) => {
              const at = snap(x, y);
              edit(
                'plate moved',
                doc => {
                  const now = doc.plan.panels.find(p => p.id === panel.id)?.base.origin ?? origin;
                  return panelMoved(doc, panel.id, [
                    at[0] - first[0] + origin[0] - now[0],
                    at[1] - first[1] + origin[1] - now[1],
                    0,
                  ]);
                },
                stroke,
              );
            },
            by: (dx, dy, stroke) =>
              edit('plate moved', doc => panelMoved(doc, panel.id, [dx, dy, 0]), stroke),
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
        if (Math.hypot(a[0] - b[0], a[1] - b[1]) < 26) return null;
        const along = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
        const out = (x: number, y: number): number => {
          const [u, v] = underGround(frame, x, y);
          const [du, dv] = [r[0] - q[0], r[1] - q[1]];
          const l = Math.hypot(du, dv);
          const turn = signedArea(outline) < 0 ? -1 : 1;
          return (((u - q[0]) * dv - (v - q[1]) * du) / l) * turn;
        };
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its place in the outline
            key={`edge ${i}`}
            role="button"
            tabIndex={0}
            aria-label={`Edge ${i + 1} of plate ${panel.mark}: arrow keys move it, Enter puts a corner on it`}
            className="cursor-grab"
            style={{ touchAction: 'none' }}
            {...grip(
              `edge ${i}`,
              {
                to: (x, y, stroke) => {
                  const s = snap(x, y);
                  edit('edge moved', doc => edgeMoved(doc, panel.id, i, out(s[0], s[1])), stroke);
                },
                by: (dx, dy, stroke) =>
                  edit(
                    'edge moved',
                    doc => edgeMoved(doc, panel.id, i, out(mid[0] + dx, mid[1] + dy)),
                    stroke,
                  ),
                onEnter: () => edit('corner added', doc => cornerAdded(doc, panel.id, i)),
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
        const moveTo = (x: number, y: number, stroke: string): void =>
          void edit('corner moved', doc => cornerMoved(doc, panel.id, i, underGround(frame, x, y)), stroke);
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the outline
            key={`corner ${i}`}
            role="button"
            tabIndex={0}
            aria-label={`Corner ${i + 1} of plate ${panel.mark}, ${length(g[0])} behind the axle, ${length(g[1])} right: arrow keys move it, Delete takes it away`}
            className="cursor-crosshair"
            style={{ touchAction: 'none' }}
            {...grip(
              `corner ${i}`,
              {
                to: (x, y, stroke) => moveTo(...(snap(x, y) as [number, number]), stroke),
                by: (dx, dy, stroke) => moveTo(g[0] + dx, g[1] + dy, stroke),
                onRemove: () => edit('corner removed', doc => cornerRemoved(doc, panel.id, i)),
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
          </g>
        );
      })}
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
    const moveTo = (x: number, y: number, stroke: string): void =>
      void edit(
        'opening moved',
        doc => openingSet(doc, panel.id, { ...o, at: underGround(frame, x, y) }),
        stroke,
      );
    return (
      <g
        key={o.id}
        role="button"
        tabIndex={0}
        aria-label={`${o.kind} opening of plate ${panel.mark}: arrow keys move it, Delete takes it out`}
        className="cursor-move"
        style={{ touchAction: 'none' }}
        {...grip(
          `opening ${o.id}`,
          {
            to: (x, y, stroke) => moveTo(...(snap(x, y) as [number, number]), stroke),
            by: (dx, dy, stroke) => moveTo(g[0] + dx, g[1] + dy, stroke),
            onRemove: () => edit('opening removed', doc => openingRemoved(doc, panel.id, o.id)),
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
