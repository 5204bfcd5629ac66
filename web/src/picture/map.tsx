import type { ResolvedJoint } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { isBracket, wingsOf } from '@plate-fold/core/plan';
import { fixed, MM_PER_INCH, spoken, type UnitSystem } from '@plate-fold/core/units';
import { memo, type ReactNode } from 'react';
import { BracketMark } from './bracket-mark';
import { HatchDefs, hatch } from './hatch';
import { type GroundPhoto, LaidOut } from './laid-out';
import { flatsFromAbove, holesFromAbove, markPlace, openingsFromAbove, paintOrder, pathOf } from './paths';
import { press } from './press';
import type { SheetScale } from './sheet-scale';
import { SideNotes, Tires } from './vehicle';

export interface MapProps {
  readonly facts: Facts;
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
  readonly panel?: string;
  readonly joint?: string;
  readonly onPanel?: (id: string) => void;
  readonly onJoint?: (id: string) => void;
  /** a scan of the underside, laid under all that is drawn: plates are seen through */
  readonly under?: GroundPhoto;
  /** drawn over everything: handles, what is being drawn, a proposal */
  readonly children?: ReactNode;
}

/** A bolt head as it is seen from where the owner lies; a hollow one means the head is on the far side. */
function BoltMark({ at, r, chosen }: { at: Vec2; r: number; chosen: boolean }) {
  return (
    <>
      <circle
        cx={at[0]}
        cy={at[1]}
        r={r}
        fill={chosen ? 'var(--fluid)' : 'var(--paper)'}
        stroke={chosen ? 'var(--fluid)' : 'var(--ink)'}
        strokeWidth="1.6"
      />
      <path
        d={`M${at[0] - r * 0.5} ${at[1]}h${r}`}
        stroke={chosen ? 'var(--onfluid)' : 'var(--ink)'}
        strokeWidth="1.6"
      />
    </>
  );
}

const gridLines = (scale: SheetScale, units: UnitSystem): readonly number[] => {
  const step = units === 'inch' ? 20 * MM_PER_INCH : 500;
  const first = Math.ceil(scale.stretch.from / step);
  const last = Math.floor(scale.stretch.to / step);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step);
};

function Grid({ scale, height, units }: Pick<MapProps, 'scale' | 'height' | 'units'>) {
  return (
    <g aria-hidden="true" fill="none">
      <path
        d={gridLines(scale, units)
          .map(x => `M${scale.X(x).toFixed(1)} 0V${height}`)
          .join('')}
        stroke="var(--scribe)"
        opacity="0.55"
      />
      <path
        d={`M0 ${scale.Y(0, height)}H${scale.width}`}
        stroke="var(--ghostline)"
        strokeDasharray="14 4 3 4"
        opacity="0.8"
      />
    </g>
  );
}

/** Distances from the front axle along the foot of the map, drawn last so that nothing hides them. */
function Ruler({ scale, height, units }: Pick<MapProps, 'scale' | 'height' | 'units'>) {
  const halo = { stroke: 'var(--paper)', strokeWidth: 4, paintOrder: 'stroke', fontSize: 11 } as const;
  return (
    <g aria-hidden="true">
      {gridLines(scale, units)
        .filter(x => scale.X(x) > 8 && scale.X(x) < scale.width - 30)
        .map(x => (
          <text
            key={x}
            x={scale.X(x) + 3}
            y={height - 5}
            className="fig"
            style={{ fill: 'var(--ink2)' }}
            {...halo}
          >
            {fixed(units === 'inch' ? x / MM_PER_INCH : x, 0)}
          </text>
        ))}
      <text x={10} y={height - 20} style={{ fill: 'var(--ink2)' }} {...halo}>
        {units === 'inch' ? 'inches' : 'mm'} behind the front axle
      </text>
    </g>
  );
}

function Vehicle({ facts, scale, height }: Pick<MapProps, 'facts' | 'scale' | 'height'>) {
  const { rig, members } = facts.rig;
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  return (
    <g aria-hidden="true">
      <Tires rig={rig} put={put} />
      {members.map(m => (
        <path
          key={m.id}
          d={pathOf([m.footprint], put)}
          fill="var(--ghost)"
          stroke="var(--ghostline)"
          strokeWidth="1"
        />
      ))}
    </g>
  );
}

/** The underside as a map: vehicle, components, plates by hatch, what is bare, holes and bolts; what is held or drawn lies over it. */
export function UndersideMap({ children, ...drawn }: MapProps) {
  return (
    <svg
      width={drawn.scale.width}
      height={drawn.height}
      role="group"
      aria-label="Map of the underside"
      className="block select-none"
    >
      <Drawing {...drawn} />
      {children}
    </svg>
  );
}

/** The map itself: it stays as it is while only what lies over it changes. */
const Drawing = memo(function Drawing(props: Omit<MapProps, 'children'>) {
  const { facts, scale, height, units, onPanel, onJoint } = props;
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  const fromAbove = scale.side === 'above';
  const r = Math.max(4, Math.min(9, 26 * scale.k));
  const label = Math.max(10, Math.min(13, 62 * scale.k));
  const plates = paintOrder(facts, fromAbove).filter(p => !isBracket(p.panel));
  const wings = wingsOf(facts.document.plan);
  // a wing that its plate hides is seen through it
  const hidden = ({ panel: { id } }: FoldedPanel): boolean =>
    wings.has(id) &&
    facts.joints.some(j => j.joint.panels.includes(id) && (j.joint.panels[0] !== id) === !fromAbove);
  return (
    <>
      <HatchDefs id="map" />
      <rect width={scale.width} height={height} fill="var(--paper)" />
      <LaidOut ground={props.under} put={put} />
      <Grid scale={scale} height={height} units={units} />
      <Vehicle facts={facts} scale={scale} height={height} />
      <g aria-hidden="true">
        {facts.rig.components.map(c => (
          <path
            key={c.id}
            d={pathOf([c.footprint], put)}
            fill={c.moves || props.under ? 'none' : 'var(--ghost)'}
            fillOpacity="0.55"
            stroke="var(--ghostline)"
            strokeDasharray={c.moves ? '5 4' : undefined}
          />
        ))}
        {facts.coverage.components.map(c => (
          <path
            key={c.id}
            d={pathOf(c.bare, put)}
            fill="url(#map-bare)"
            fillRule="evenodd"
            stroke="var(--oxide)"
            strokeWidth="1.2"
          />
        ))}
      </g>
      {[...plates.filter(p => !hidden(p)), ...plates.filter(hidden)].map(p => {
        const { id, mark, name } = p.panel;
        const chosen = props.panel === id;
        const behind = hidden(p);
        const at = put(markPlace(p));
        const holes = openingsFromAbove(p);
        const cut = holes.filter(h => h.opening.kind !== 'louvers').map(h => h.outline);
        const bolted = holesFromAbove(p);
        return (
          <g
            key={id}
            role="button"
            tabIndex={0}
            aria-pressed={chosen}
            aria-label={`Plate ${mark}, ${name}`}
            onClick={() => onPanel?.(id)}
            onKeyDown={press(() => onPanel?.(id))}
          >
            {/* a tap on an opening is a tap on its plate */}
            <path d={pathOf([flatsFromAbove(p)[0] ?? []], put)} fill="transparent" />
            {flatsFromAbove(p).map((flat, i) => (
              <path
                key={p.facets[i]?.id}
                d={pathOf([flat, ...(i === 0 ? cut : []), ...(bolted.get(p.facets[i]?.id ?? '') ?? [])], put)}
                fillRule="evenodd"
                fill={hatch('map', p.material.family)}
                fillOpacity={behind ? 0.25 : props.under ? 0.35 : 0.92}
                stroke={chosen ? 'var(--fluid)' : 'var(--ink)'}
                strokeWidth={chosen ? 2.6 : 1.3}
                strokeDasharray={behind ? '4 2.5' : undefined}
              />
            ))}
            {holes
              .filter(h => h.opening.kind === 'louvers')
              .map(h => (
                <path
                  key={h.opening.id}
                  d={pathOf([h.outline], put)}
                  fill="url(#map-louvers)"
                  stroke="var(--ink)"
                  strokeWidth="0.8"
                />
              ))}
            <circle
              cx={at[0]}
              cy={at[1]}
              r={Math.max(10, label)}
              fill={chosen ? 'var(--fluid)' : 'var(--ink)'}
            />
            <text
              x={at[0]}
              y={at[1]}
              fontSize={Math.max(11, label + 1)}
              fontWeight="700"
              textAnchor="middle"
              dominantBaseline="central"
              style={{ fill: chosen ? 'var(--onfluid)' : 'var(--paper)' }}
            >
              {mark}
            </text>
          </g>
        );
      })}
      {facts.panels
        .filter(p => isBracket(p.panel))
        .map(p => (
          <BracketMark
            key={p.panel.id}
            p={p}
            put={put}
            bolts={facts.joints.flatMap(j =>
              j.joint.panels.includes(p.panel.id) ? [put([j.at[0], j.at[1]])] : [],
            )}
            chosen={props.panel === p.panel.id}
            onPanel={onPanel}
          />
        ))}
      <g aria-hidden="true">
        {facts.rig.components
          .filter(c => c.moves)
          .map(c => (
            <path
              key={c.id}
              d={pathOf([c.footprint], put)}
              fill="none"
              stroke="var(--ink2)"
              strokeWidth="1"
              strokeDasharray="5 4"
              opacity="0.7"
            />
          ))}
        {facts.coverage.components
          .filter(c => c.fraction < 0.5)
          .map(c => {
            const part = facts.rig.components.find(x => x.id === c.id);
            const xs = part?.footprint.map(q => q[0]) ?? [0];
            const ys = part?.footprint.map(q => q[1]) ?? [0];
            const [x, y] = put([
              (Math.min(...xs) + Math.max(...xs)) / 2,
              (Math.min(...ys) + Math.max(...ys)) / 2,
            ]);
            const words = `${part?.name}: bare`;
            if ((Math.max(...xs) - Math.min(...xs)) * scale.k < words.length * 6.4) return null;
            return (
              <text
                key={c.id}
                x={x}
                y={y}
                fontSize="12"
                fontWeight="700"
                textAnchor="middle"
                stroke="var(--paper)"
                strokeWidth="4"
                paintOrder="stroke"
                style={{ fill: 'var(--oxide)' }}
              >
                {words}
              </text>
            );
          })}
      </g>
      {facts.joints.map((j: ResolvedJoint) => {
        const at = put([j.at[0], j.at[1]]);
        const chosen = props.joint === j.id;
        const bad = j.mount && j.mount.condition !== 'good';
        return (
          <g
            key={j.id}
            role="button"
            tabIndex={onJoint ? 0 : -1}
            aria-label={`Bolt ${j.id}${bad ? `, hole ${spoken(j.mount?.condition ?? '')}` : ''}`}
            aria-pressed={chosen}
            onClick={e => {
              e.stopPropagation();
              onJoint?.(j.id);
            }}
            onKeyDown={press(() => onJoint?.(j.id))}
          >
            <circle cx={at[0]} cy={at[1]} r={Math.max(r + 4, 12)} fill="transparent" />
            {bad && (
              <circle
                cx={at[0]}
                cy={at[1]}
                r={r + 3.5}
                fill="var(--marker)"
                stroke="var(--ink)"
                strokeWidth="0.8"
              />
            )}
            <BoltMark at={at} r={r} chosen={chosen} />
          </g>
        );
      })}
      <Ruler scale={scale} height={height} units={units} />
      <SideNotes rig={facts.rig.rig} scale={scale} height={height} />
    </>
  );
});
