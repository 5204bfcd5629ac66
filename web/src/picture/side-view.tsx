import { sideReading } from '@plate-fold/core/cover';
import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { panelWord } from '@plate-fold/core/plan';
import { lengthFigure, sentence, type UnitSystem } from '@plate-fold/core/units';
import { memo, type ReactNode, useState } from 'react';
import { HatchDefs, hatch } from './hatch';
import { flatsFromSide, paintOrder, pathOf } from './paths';
import { press } from './press';
import type { SheetScale } from './sheet-scale';

export interface SideViewProps {
  readonly facts: Facts;
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
  readonly panel?: string;
  readonly joint?: string;
  readonly onPanel: (id: string) => void;
  /** drawn over everything: the handles of the chosen plate's ends */
  readonly children?: (Z: (z: number) => number, zAt: (px: number) => number) => ReactNode;
}

/** A dimension line with its figure, from height z0 to z1 at one place. */
function Dimension({
  x,
  y0,
  y1,
  text,
  tone,
  flip = false,
}: {
  x: number;
  /** the figure stands to the left of the line */
  flip?: boolean;
  y0: number;
  y1: number;
  text: string;
  tone: string;
}) {
  const tall = Math.abs(y0 - y1) > 16;
  return (
    <g>
      <path d={`M${x} ${y0}V${y1}`} stroke={tone} strokeWidth="1.4" />
      {tall && (
        <path
          d={`M${x - 3.5} ${y1 + 6}L${x} ${y1}L${x + 3.5} ${y1 + 6}M${x - 3.5} ${y0 - 6}L${x} ${y0}L${x + 3.5} ${y0 - 6}`}
          fill="none"
          stroke={tone}
          strokeWidth="1.4"
        />
      )}
      <text
        x={flip ? x - 7 : x + 7}
        textAnchor={flip ? 'end' : 'start'}
        y={(y0 + y1) / 2 + 5}
        fontSize="14"
        className="fig"
        fontWeight="600"
        stroke="var(--ground)"
        strokeWidth="4"
        paintOrder="stroke"
        style={{ fill: tone }}
      >
        {text}
      </text>
    </g>
  );
}

/** Where a part that goes on above the view is broken off, px from its top edge. */
const BREAK = 5;

/** The outline of a part seen from the side, px; of one that goes on above the view a piece, ended by a break line. */
function partPath(x: number, width: number, bottom: number, top: number): string {
  if (top >= 0) return `M${x} ${bottom}V${top}H${x + width}V${bottom}Z`;
  const teeth = Math.max(1, Math.round(width / 26));
  const step = width / teeth / 2;
  const edge = Array.from({ length: teeth }, () => `l${step} -4l${step} 4`).join('');
  return `M${x} ${bottom}V${BREAK}${edge}V${bottom}Z`;
}

/** Side elevation of the whole underside: the constant companion and the way around. */
export const SideView = memo(function SideView(props: SideViewProps) {
  const { facts, scale, height, units, panel, joint, onPanel } = props;
  const [cursor, setCursor] = useState<number>();
  const ground = height - (height < 60 ? 5 : 16);
  const Z = (z: number): number => ground - z * scale.k;
  const put = ([x, z]: Vec2): Vec2 => [scale.X(x), Z(z)];
  const { rig, components, members } = facts.rig;
  const figure = (mm: number): string => {
    const f = lengthFigure(mm, units);
    return `${f.value} ${f.unit}`;
  };
  const here = cursor === undefined ? undefined : sideReading(facts.rig, facts.panels, cursor);
  const { lowest } = facts;
  const lowX = lowest.at[0] + (lowest.panel ? 90 : 0);
  return (
    <svg
      width={scale.width}
      height={height}
      role="group"
      aria-label="Side view of the underside"
      className="block touch-pan-y select-none"
      onPointerMove={e => setCursor(scale.xAt(e.clientX - e.currentTarget.getBoundingClientRect().left))}
      onPointerLeave={() => setCursor(undefined)}
    >
      <HatchDefs id="side" />
      <g aria-hidden="true">
        {[0, rig.wheelbase].map(x => (
          <g key={x}>
            <circle
              cx={scale.X(x)}
              cy={Z(rig.tyreRadius)}
              r={rig.tyreRadius * scale.k}
              fill="var(--ghost)"
              fillOpacity="0.5"
              stroke="var(--ghostline)"
              strokeWidth="1.4"
            />
            <circle
              cx={scale.X(x)}
              cy={Z(rig.tyreRadius)}
              r={rig.tyreRadius * 0.55 * scale.k}
              fill="none"
              stroke="var(--ghostline)"
              strokeWidth="0.8"
            />
          </g>
        ))}
        {components.map(c => {
          const xs = c.footprint.map(q => q[0]);
          const [a, b] = [scale.X(Math.min(...xs)), scale.X(Math.max(...xs))];
          return (
            <path
              key={c.id}
              d={partPath(Math.min(a, b), Math.abs(a - b), Z(c.zBottom), Z(c.zTop))}
              fill={c.moves ? 'none' : 'var(--ghost)'}
              fillOpacity="0.75"
              stroke="var(--ghostline)"
              strokeWidth="1"
              strokeDasharray={c.moves ? '4 3' : undefined}
            />
          );
        })}
        {members.map(m => {
          const xs = m.footprint.map(q => q[0]);
          const [a, b] = [scale.X(Math.min(...xs)), scale.X(Math.max(...xs))];
          return (
            <rect
              key={m.id}
              x={Math.min(a, b)}
              y={Z(m.zTop)}
              width={Math.abs(a - b)}
              height={(m.zTop - m.zBottom) * scale.k}
              fill={m.kind === 'rail' ? 'none' : 'var(--ghostline)'}
              fillOpacity="0.45"
              stroke="var(--ghostline)"
              strokeWidth="0.8"
            />
          );
        })}
        <path d={`M0 ${ground}H${scale.width}`} stroke="var(--ink)" strokeWidth="1.8" />
        <path
          d={Array.from(
            { length: Math.ceil(scale.width / 14) },
            (_, i) => `M${i * 14 + 8} ${ground}l-6 7`,
          ).join('')}
          stroke="var(--ghostline)"
          strokeWidth="1"
        />
      </g>
      {paintOrder(facts, false).map(p => {
        const chosen = p.panel.id === panel;
        return (
          <g
            key={p.panel.id}
            role="button"
            tabIndex={0}
            aria-pressed={chosen}
            aria-label={`${sentence(panelWord(p.panel))}, ${p.panel.name}, in the side view`}
            onClick={() => onPanel(p.panel.id)}
            onKeyDown={press(() => onPanel(p.panel.id))}
          >
            {flatsFromSide(p).map((flat, i) => (
              <g key={p.facets[i]?.id}>
                <path d={pathOf([flat], put)} stroke="transparent" strokeWidth="26" fill="none" />
                <path
                  d={pathOf([flat], put)}
                  fill={hatch('side', p.material.family)}
                  fillOpacity="0.35"
                  stroke={chosen ? 'var(--fluid)' : 'var(--ink)'}
                  strokeWidth={chosen ? 4 : 2.8}
                  strokeLinejoin="round"
                />
              </g>
            ))}
          </g>
        );
      })}
      <g aria-hidden="true">
        {facts.joints.map(j => (
          <path
            key={j.id}
            d={`M${scale.X(j.at[0])} ${Z(j.at[2]) - 5}v12`}
            stroke={j.id === joint ? 'var(--fluid)' : 'var(--ink)'}
            strokeWidth={j.id === joint ? 4 : 1.7}
          />
        ))}
        {facts.catches.map(c => (
          <circle
            key={c.panel}
            cx={scale.X(c.at[0])}
            cy={Z(c.at[2])}
            r="8"
            fill="none"
            stroke="var(--marker)"
            strokeWidth="3"
          />
        ))}
        {cursor !== undefined && here ? (
          <>
            <Dimension
              x={scale.X(cursor)}
              y0={ground}
              y1={Z(here.plate)}
              text={figure(here.plate)}
              flip={scale.X(cursor) > scale.width - 150}
              tone="var(--fluid)"
            />
            {here.gap !== undefined && (
              <text
                x={scale.X(cursor) + (scale.X(cursor) > scale.width - 220 ? -7 : 7)}
                textAnchor={scale.X(cursor) > scale.width - 220 ? 'end' : 'start'}
                y={Math.max(14, Z(here.top) - 26)}
                fontSize="13"
                className="fig"
                stroke="var(--ground)"
                strokeWidth="4"
                paintOrder="stroke"
                style={{ fill: 'var(--fluid)' }}
              >
                {`${figure(here.gap)} to ${here.part}`}
              </text>
            )}
          </>
        ) : (
          <Dimension
            x={scale.X(lowX)}
            y0={ground}
            y1={Z(lowest.z)}
            text={`${figure(lowest.z)} lowest`}
            flip={scale.X(lowX) > scale.width - 150}
            tone="var(--fluid)"
          />
        )}
      </g>
      {props.children?.(Z, px => (ground - px) / scale.k)}
    </svg>
  );
});
