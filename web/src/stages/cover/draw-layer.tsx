import { MM_PER_INCH, type Polygon, type Proposal, type UnitSystem, type Vec2 } from '@plate-fold/core';
import { type PointerEvent, useState } from 'react';
import { flatsFromBase, pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';

const LEAST = 40;

/** Draws a rectangular plate: press, drag, lift. */
export function DrawLayer(props: {
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
  readonly onDrawn: (outline: Polygon) => void;
}) {
  const { scale, height, units, onDrawn } = props;
  const [from, setFrom] = useState<Vec2>();
  const [to, setTo] = useState<Vec2>();
  const grid = units === 'inch' ? MM_PER_INCH / 16 : 1;
  const place = (e: PointerEvent<SVGElement>): Vec2 => {
    const box = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect();
    const round = (v: number): number => Math.round(v / grid) * grid;
    return [round(scale.xAt(e.clientX - box.left)), round(scale.yAt(e.clientY - box.top, height))];
  };
  const outline = (a: Vec2, b: Vec2): Polygon => {
    const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
    const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
    return [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ];
  };
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
          if (from) {
            const end = place(e);
            if (Math.abs(end[0] - from[0]) > LEAST && Math.abs(end[1] - from[1]) > LEAST)
              onDrawn(outline(from, end));
          }
          setFrom(undefined);
          setTo(undefined);
        }}
      />
      {from && to && (
        <path
          d={pathOf([outline(from, to)], p => [scale.X(p[0]), scale.Y(p[1], height)])}
          fill="var(--fluid)"
          fillOpacity="0.15"
          stroke="var(--fluid)"
          strokeWidth="2"
          pointerEvents="none"
        />
      )}
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
