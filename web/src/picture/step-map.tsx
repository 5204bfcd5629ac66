import { boxOf, type Facts, type Step, type Vec2 } from '@plate-fold/core';
import { memo } from 'react';
import type { Side } from '../app/view-slice';
import { HatchDefs, hatch } from './hatch';
import { flatsFromAbove, openingsFromAbove, paintOrder, pathOf } from './paths';

interface StepMapProps {
  readonly facts: Facts;
  readonly step: Step;
  readonly side: Side;
  readonly width: number;
  readonly height: number;
  /** the bolt under the wrench now */
  readonly joint?: string;
  readonly done?: ReadonlySet<string>;
}

const MARGIN = 34;
/** What has a corner this near to a spot is drawn with it, mm. */
const NEARBY = 500;

/** The place on the vehicle where the hands are: this step's plates, its bolts numbered in the order of the hands. */
export const StepMap = memo(function StepMap(props: StepMapProps) {
  const { facts, step, side, width, height, joint, done } = props;
  const bolts = step.joints.flatMap(id => facts.joints.find(j => j.id === id) ?? []);
  const named = facts.panels.filter(p => step.panels.includes(p.panel.id));
  const near =
    named.length > 0 ? named : facts.panels.filter(p => bolts.some(b => b.joint.panels.includes(p.panel.id)));
  const spot: Vec2 | undefined = step.at && [step.at[0], step.at[1]];
  // what lies round the spot: not the whole belly, for a phone
  const round = spot
    ? facts.panels.filter(p =>
        flatsFromAbove(p).some(f => f.some(q => Math.hypot(q[0] - spot[0], q[1] - spot[1]) < NEARBY)),
      )
    : [];
  const shown = near.length > 0 ? near : round.length > 0 ? round : facts.panels;
  const points: Vec2[] = [
    ...shown.flatMap(p => flatsFromAbove(p).flat()),
    ...bolts.map((b): Vec2 => [b.at[0], b.at[1]]),
    ...(spot ? [spot] : []),
  ];
  const box = boxOf(points);
  const frontAtLeft = side !== 'head-rear';
  const rightAtTop = side !== 'head-front';
  const [w, h] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  const k = Math.min((width - 2 * MARGIN) / w, (height - 2 * MARGIN - 8) / h);
  const put = ([x, y]: Vec2): Vec2 => {
    const [dx, dy] = [(x - (box.min[0] + box.max[0]) / 2) * k, (y - (box.min[1] + box.max[1]) / 2) * k];
    return [width / 2 + (frontAtLeft ? dx : -dx), (height - 8) / 2 + (rightAtTop ? -dy : dy)];
  };
  const places = bolts.map(b => put([b.at[0], b.at[1]]));
  const tight = Math.min(
    ...places.flatMap((a, i) => places.slice(i + 1).map(b => Math.hypot(a[0] - b[0], a[1] - b[1]))),
    80,
  );
  const r = Math.max(9, Math.min(19, tight / 2 - 1));
  const now = bolts.findIndex(b => b.id === joint);
  const driverAtTop = (facts.rig.rig.driverSide === 'right') === rightAtTop;
  const jack = step.support && put([step.support.jackAt[0], step.support.jackAt[1]]);
  const route = places.slice(Math.max(0, now), now < 0 ? undefined : now + 3);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Where: ${shown.map(p => `plate ${p.panel.mark}`).join(', ')}${bolts.length > 0 ? `; bolts in order ${bolts.map(b => b.id).join(', ')}` : ''}; driver's side at the ${driverAtTop ? 'top' : 'bottom'}`}
      className="block"
    >
      <HatchDefs id="step" />
      <g>
        {facts.rig.members.map(m => (
          <path
            key={m.id}
            d={pathOf([m.footprint], put)}
            fill="var(--ghost)"
            stroke="var(--ghostline)"
            opacity="0.7"
          />
        ))}
      </g>
      {paintOrder(facts, side === 'above')
        .filter(p => shown.includes(p))
        .map(p => (
          <g key={p.panel.id}>
            {flatsFromAbove(p).map((flat, i) => (
              <path
                key={p.facets[i]?.id}
                d={pathOf([flat], put)}
                fill={hatch('step', p.material.family)}
                stroke="var(--ink)"
                strokeWidth="1.4"
              />
            ))}
            {openingsFromAbove(p).map(({ opening, outline }) => (
              <path
                key={opening.id}
                d={pathOf([outline], put)}
                fill="var(--paper)"
                stroke="var(--ink)"
                strokeDasharray={opening.kind === 'louvers' ? '2 3' : undefined}
              />
            ))}
            {bolts.length === 0 && (
              <text
                x={put([p.centroid[0], p.centroid[1]])[0]}
                y={put([p.centroid[0], p.centroid[1]])[1]}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize="24"
                fontWeight="800"
                stroke="var(--paper)"
                strokeWidth="6"
                paintOrder="stroke"
              >
                {jack ? '' : p.panel.mark}
              </text>
            )}
          </g>
        ))}
      {route.length > 1 && (
        <path
          d={`M${route.map(p => p.map(v => v.toFixed(1)).join(' ')).join('L')}`}
          fill="none"
          stroke="var(--fluid)"
          strokeWidth="2.5"
          strokeDasharray="7 6"
        />
      )}
      {bolts.map((b, i) => {
        const [x, y] = places[i] as Vec2;
        const current = b.id === joint;
        const past = done?.has(b.id) ?? false;
        return (
          <g key={b.id}>
            <circle
              cx={x}
              cy={y}
              r={current ? r + 3 : r}
              fill={current ? 'var(--fluid)' : past ? 'var(--ink2)' : 'var(--paper)'}
              stroke={current || (!past && i === now + 1) ? 'var(--fluid)' : 'var(--ink)'}
              strokeWidth={current || i === now + 1 ? 3 : 1.6}
            />
            <text
              x={x}
              y={y + 0.5}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={r + 2}
              fontWeight="700"
              style={{ fill: current ? 'var(--onfluid)' : past ? 'var(--paper)' : 'var(--ink)' }}
            >
              {i + 1}
            </text>
          </g>
        );
      })}
      {spot && (
        <g fill="none">
          {(['var(--paper)', 'var(--fluid)'] as const).map((stroke, i) => (
            <g key={stroke} stroke={stroke} strokeWidth={i === 0 ? 8 : 4}>
              <circle cx={put(spot)[0]} cy={put(spot)[1]} r="16" />
              <path
                d={`M${put(spot)[0]} ${put(spot)[1] - 28}v18M${put(spot)[0]} ${put(spot)[1] + 28}v-18M${put(spot)[0] - 28} ${put(spot)[1]}h18M${put(spot)[0] + 28} ${put(spot)[1]}h-18`}
              />
            </g>
          ))}
        </g>
      )}
      {jack && (
        <g>
          <path
            d={`M${jack[0] - 15} ${jack[1]}h30M${jack[0]} ${jack[1] - 15}v30`}
            stroke="var(--paper)"
            strokeWidth="7"
          />
          <path
            d={`M${jack[0] - 15} ${jack[1]}h30M${jack[0]} ${jack[1] - 15}v30`}
            stroke="var(--fluid)"
            strokeWidth="3.5"
          />
          <circle cx={jack[0]} cy={jack[1]} r="9" fill="none" stroke="var(--fluid)" strokeWidth="3" />
          <text
            x={jack[0] + 20}
            y={jack[1] - 10}
            fontSize="14"
            fontWeight="700"
            stroke="var(--paper)"
            strokeWidth="5"
            paintOrder="stroke"
            style={{ fill: 'var(--fluid)' }}
          >
            balances here
          </text>
        </g>
      )}
      <text
        x={width / 2}
        y={height - 6}
        textAnchor="middle"
        fontSize="13"
        stroke="var(--paper)"
        strokeWidth="5"
        paintOrder="stroke"
        style={{ fill: 'var(--ink2)' }}
      >
        driver’s side at the {driverAtTop ? 'top' : 'bottom'} · {frontAtLeft ? 'front' : 'rear'} at the left
      </text>
    </svg>
  );
});
