import { type Polygon, rectangle, type Vec2 } from '@plate-fold/core/geometry';
import type { Proposal } from '@plate-fold/core/propose';
import { MM_PER_INCH, type UnitSystem } from '@plate-fold/core/units';
import { type PointerEvent, useState } from 'react';
import { flatsFromBase, pathOf } from './paths';
import type { SheetScale } from './sheet-scale';

const LEAST = 40;

/** A tap this near to the first corner closes the outline, px. */
const CLOSES = 22;

/** Draws a plate: drag for a rectangle, or tap corner by corner and tap the first one again to close. */
export function DrawLayer(props: {
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
  readonly onDrawn: (outline: Polygon) => void;
}) {
  const { scale, height, units, onDrawn } = props;
  const [from, setFrom] = useState<Vec2>();
  const [to, setTo] = useState<Vec2>();
  const [corners, setCorners] = useState<readonly Vec2[]>([]);
  const grid = units === 'inch' ? MM_PER_INCH / 16 : 1;
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  const place = (e: PointerEvent<SVGElement>): Vec2 => {
    const box = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect();
    const round = (v: number): number => Math.round(v / grid) * grid;
    return [round(scale.xAt(e.clientX - box.left)), round(scale.yAt(e.clientY - box.top, height))];
  };
  const dragged = (a: Vec2, b: Vec2): Polygon =>
    rectangle(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  const big = (a: Vec2, b: Vec2): boolean => Math.abs(a[0] - b[0]) > LEAST && Math.abs(a[1] - b[1]) > LEAST;
  const tapped = (at: Vec2): void => {
    const first = corners[0];
    const near = first && Math.hypot(first[0] - at[0], first[1] - at[1]) * scale.k < CLOSES;
    if (near && corners.length > 2) onDrawn(corners);
    else setCorners([...corners, at]);
  };
  const shown = corners.length === 0 && from && to && big(from, to) ? dragged(from, to) : corners;
  return (
    <g>
      <rect
        width={scale.width}
        height={height}
        fill="transparent"
        className="cursor-crosshair"
        style={{ touchAction: 'none' }}
        onPointerDown={e => {
          e.stopPropagation();
          e.currentTarget.setPointerCapture(e.pointerId);
          setFrom(place(e));
          setTo(undefined);
        }}
        onPointerMove={e => {
          e.stopPropagation();
          if (from) setTo(place(e));
        }}
        onPointerUp={e => {
          const end = place(e);
          if (from && corners.length === 0 && big(from, end)) onDrawn(dragged(from, end));
          else if (from) tapped(end);
          setFrom(undefined);
          setTo(undefined);
        }}
      />
      {shown.length > 1 && (
        <path
          d={pathOf([shown], put)}
          fill="var(--fluid)"
          fillOpacity="0.15"
          stroke="var(--fluid)"
          strokeWidth="2"
          pointerEvents="none"
        />
      )}
      {corners.map((c, i) => {
        const [x, y] = put(c);
        return (
          <circle
            key={`${c[0]} ${c[1]}`}
            cx={x}
            cy={y}
            r={i === 0 ? 8 : 4}
            fill="var(--paper)"
            stroke="var(--fluid)"
            strokeWidth="2"
            pointerEvents="none"
          />
        );
      })}
    </g>
  );
}

/** A proposal drawn dashed over what is there. */
export function ProposalLayer({
  proposal,
  scale,
  height,
}: {
  proposal: Proposal;
  scale: SheetScale;
  height: number;
}) {
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  return (
    <g pointerEvents="none" aria-hidden="true">
      {proposal.plates.map(p => {
        const flats = flatsFromBase(p.panel);
        const at = put((flats[0]?.[0] ?? [0, 0]) as Vec2);
        return (
          <g key={p.panel.id}>
            <path
              d={pathOf(flats, put)}
              fill="var(--fluid)"
              fillOpacity="0.12"
              stroke="var(--fluid)"
              strokeWidth="2"
              strokeDasharray="7 5"
            />
            <text
              x={at[0] + 8}
              y={at[1] + (scale.rightAtTop ? -8 : 18)}
              fontSize="12.5"
              fontWeight="700"
              stroke="var(--paper)"
              strokeWidth="4"
              paintOrder="stroke"
              style={{ fill: 'var(--fluid)' }}
            >
              {p.panel.name}
            </text>
          </g>
        );
      })}
    </g>
  );
}
