import type { Facts } from '@plate-fold/core/derive';
import { boxOf, type Vec2 } from '@plate-fold/core/geometry';
import { type Call, callOf, moveEntry } from '@plate-fold/core/plan';
import { presentRig, type RigList } from '@plate-fold/core/rig';
import { MM_PER_INCH, type UnitSystem } from '@plate-fold/core/units';
import type { ReactNode } from 'react';
import { pathOf } from '../../picture/paths';
import type { SheetScale } from '../../picture/sheet-scale';
import { type Grip, mapPlane, useGrip } from '../../picture/use-grip';
import { SideNotes, Tires } from '../../picture/vehicle';
import { useHand, useRun } from '../../state/commands/run';

export interface Chosen {
  readonly list: RigList;
  readonly id: string;
}

const LABEL_PX = 46;

/** The underside without plates: parts, members, holes and service points, each to be chosen and dragged. */
export function RigMap(props: {
  readonly facts: Facts;
  readonly scale: SheetScale;
  readonly height: number;
  readonly units: UnitSystem;
  readonly chosen?: Chosen;
  readonly onChoose: (c: Chosen) => void;
  /** drawn over everything: what is being added */
  readonly children?: ReactNode;
}) {
  const { facts, scale, height, units, chosen, onChoose } = props;
  const run = useRun();
  const grip = useGrip(mapPlane(scale, height), useHand());
  // the vehicle as it is: what a plan adds to it is moved on Cover
  const { rig, components, members, mounts, servicePoints } = presentRig(facts.document.rig);
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  const grid = units === 'inch' ? MM_PER_INCH / 16 : 1;
  const is = (list: RigList, id: string): boolean => chosen?.list === list && chosen.id === id;
  const hold = (list: RigList, id: string, at: Vec2) => {
    const step = (v: number): number => Math.round(v / grid) * grid;
    const g: Grip<Call> = {
      onHold: () => onChoose({ list, id }),
      by: (dx, dy, group) => run(moveEntry, { list, id, by: [dx, dy] }, group),
      to: (x, y, from) => callOf(moveEntry, { list, id, by: [step(x - from[0]), step(y - from[1])] }),
    };
    return {
      role: 'button',
      tabIndex: 0,
      'aria-pressed': is(list, id),
      className: 'cursor-move',
      style: { touchAction: 'none' as const },
      ...grip(`${list} ${id}`, g, at),
    };
  };
  const tone = (list: RigList, id: string): { stroke: string; strokeWidth: number } =>
    is(list, id)
      ? { stroke: 'var(--fluid)', strokeWidth: 3 }
      : { stroke: 'var(--ghostline)', strokeWidth: 1.1 };
  return (
    <svg
      width={scale.width}
      height={height}
      role="group"
      aria-label="Map of the vehicle from below"
      className="block"
    >
      <rect width={scale.width} height={height} fill="var(--paper)" />
      <g aria-hidden="true">
        <Tires rig={rig} put={put} />
      </g>
      {members.map(m => (
        <path
          key={m.id}
          d={pathOf([m.footprint], put)}
          fill="var(--ghost)"
          aria-label={`Member ${m.id}`}
          {...hold('members', m.id, boxOf(m.footprint).min)}
          {...tone('members', m.id)}
        />
      ))}
      {components.map(c => {
        const { min, max } = boxOf(c.footprint);
        const [a, b] = [put(min), put(max)];
        const [x, y] = [Math.min(a[0], b[0]) + 5, Math.min(a[1], b[1]) + 14];
        return (
          <g key={c.id}>
            <path
              d={pathOf([c.footprint], put)}
              fill={c.protect ? 'var(--steel)' : 'var(--sheet)'}
              fillOpacity={c.moves ? 0.15 : 0.7}
              strokeDasharray={c.moves ? '5 4' : undefined}
              aria-label={`Part ${c.name}`}
              {...hold('components', c.id, min)}
              {...tone('components', c.id)}
            />
            {(max[0] - min[0]) * scale.k > LABEL_PX && (
              <text
                x={x}
                y={y}
                fontSize="12"
                pointerEvents="none"
                fontWeight={is('components', c.id) ? 700 : 400}
                aria-hidden="true"
              >
                {c.name.length * 6.2 > (max[0] - min[0]) * scale.k
                  ? `${c.name.slice(0, Math.max(3, Math.floor(((max[0] - min[0]) * scale.k) / 6.6) - 1))}…`
                  : c.name}
              </text>
            )}
          </g>
        );
      })}
      {servicePoints.map(s => {
        const [x, y] = put([s.at[0], s.at[1]]);
        return (
          <g
            key={s.id}
            aria-label={`Service point ${s.name}`}
            {...hold('servicePoints', s.id, [s.at[0], s.at[1]])}
          >
            <circle cx={x} cy={y} r="15" fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r={Math.max(5, (s.opening / 2) * scale.k)}
              fill="var(--paper)"
              fillOpacity="0.8"
              strokeDasharray="3 2"
              {...tone('servicePoints', s.id)}
            />
            <path d={`M${x - 3} ${y}h6M${x} ${y - 3}v6`} stroke="var(--ink)" strokeWidth="1.4" />
          </g>
        );
      })}
      {mounts.map(m => {
        const [x, y] = put([m.at[0], m.at[1]]);
        const bad = m.condition !== 'good';
        return (
          <g
            key={m.id}
            aria-label={`Hole ${m.id}, ${m.condition}`}
            {...hold('mounts', m.id, [m.at[0], m.at[1]])}
          >
            <circle cx={x} cy={y} r="13" fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r="5"
              fill={bad ? 'var(--marker)' : 'var(--paper)'}
              stroke={is('mounts', m.id) ? 'var(--fluid)' : 'var(--ink)'}
              strokeWidth={is('mounts', m.id) ? 3 : 1.4}
            />
          </g>
        );
      })}
      <SideNotes rig={rig} scale={scale} height={height} />
      {props.children}
    </svg>
  );
}
