import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { wingsOf } from '@plate-fold/core/plan';
import type { Step } from '@plate-fold/core/sequence';
import { memo } from 'react';
import { useUpright } from '../ui/use-narrow';
import { HatchDefs, hatch } from './hatch';
import { HiddenOutline } from './hidden-outline';
import { flatsFromAbove, openingsFromAbove, paintOrder, pathOf } from './paths';
import { type LookedFrom, stepLayout } from './step-layout';
import { type BoltLook, BoltMarks, JackMark, SpotMark, VehicleMarks } from './step-marks';

interface StepMapProps {
  readonly facts: Facts;
  readonly step: Step;
  readonly side: LookedFrom;
  readonly width: number;
  readonly height: number;
  /** the bolt under the wrench now */
  readonly joint?: string;
  readonly done?: ReadonlySet<string>;
  /** bolts that are not sound */
  readonly faulty?: ReadonlySet<string>;
  /** a bolt's circle was pressed */
  readonly onTap?: (joint: string) => void;
}

const MARGIN = 30;

/** The place on the vehicle where the hands are: this step's plates fill it, its bolts numbered in the order of the hands. */
export const StepMap = memo(function StepMap(props: StepMapProps) {
  const { facts, step, side, width, height, joint, done, faulty, onTap } = props;
  const upright = useUpright() || height > width * 0.92;
  const layout = stepLayout(facts, step, side, width, height, MARGIN, upright);
  const { put, shown, whole, part } = layout;
  const bolts = step.joints.flatMap(id => facts.joints.find(j => j.id === id) ?? []);
  const look = (id: string): BoltLook =>
    faulty?.has(id) ? 'fault' : id === joint ? 'now' : done?.has(id) ? 'done' : 'open';
  const spot: Vec2 | undefined = step.at && put([step.at[0], step.at[1]]);
  const jack = step.support && put([step.support.jackAt[0], step.support.jackAt[1]]);
  const factory = step.part === undefined ? undefined : facts.rig.factoryParts.find(f => f.id === step.part);
  const tank = step.tank && facts.rig.components.find(c => c.id === step.tank?.component);
  const straps = step.tank?.by === 'straps';
  const off = step.stage === 'remove' && step.panels.length > 0;
  return (
    <svg
      width={width}
      height={height}
      role={onTap ? 'group' : 'img'}
      aria-label={`Where: ${shown.map(p => `plate ${p.panel.mark}`).join(', ')}${bolts.length > 0 ? `; bolts in order ${bolts.map(b => b.id).join(', ')}` : ''}; driver's side at the ${layout.driver}`}
      className="block"
    >
      <HatchDefs id="step" />
      {facts.rig.members.map(m => (
        <path
          key={m.id}
          d={pathOf([m.footprint], put)}
          fill="var(--ghost)"
          stroke="var(--ghostline)"
          opacity="0.7"
        />
      ))}
      {whole && <VehicleMarks facts={facts} step={step} layout={layout} />}
      {(tank ?? (factory && part)) && (
        <path
          d={pathOf([(tank ?? part)?.footprint ?? []], put)}
          fill="var(--markersoft)"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray={factory ? '9 6' : undefined}
        />
      )}
      {paintOrder(facts, side === 'above')
        .filter(p => shown.includes(p) && (step.stage !== 'remove' || !factory) && !(whole || tank))
        .map(p => (
          <g key={p.panel.id} opacity={off ? 0.75 : 1}>
            {flatsFromAbove(p).map((flat, i) => (
              <path
                key={p.facets[i]?.id}
                d={pathOf([flat], put)}
                fill={hatch('step', p.material.family)}
                stroke="var(--ink)"
                strokeWidth="1.4"
                strokeDasharray={off ? '9 6' : undefined}
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
            {bolts.length === 0 && !jack && (
              <text
                x={put([p.centroid[0], p.centroid[1]])[0]}
                y={put([p.centroid[0], p.centroid[1]])[1]}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize="30"
                fontWeight="800"
                stroke="var(--paper)"
                strokeWidth="6"
                paintOrder="stroke"
              >
                {p.panel.mark}
              </text>
            )}
          </g>
        ))}
      {shown
        .filter(p => wingsOf(facts.document.plan).has(p.panel.id) && !(whole || tank))
        .map(p => (
          <HiddenOutline key={p.panel.id} p={p} put={put} tone="var(--fluid)" wide={2.6} />
        ))}
      {straps && tank && <Straps of={tank.footprint} put={put} />}
      {bolts.length > 0 && <BoltMarks bolts={bolts} layout={layout} look={look} onTap={onTap} />}
      {spot && !tank && <SpotMark at={spot} />}
      {factory && spot && (
        <text
          x={width / 2}
          y={22}
          textAnchor="middle"
          fontSize="15"
          fontWeight="700"
          stroke="var(--paper)"
          strokeWidth="5"
          paintOrder="stroke"
        >
          {factory.name}, about here
        </text>
      )}
      {jack && <JackMark at={jack} />}
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
        front {WHERE[layout.front]} · driver’s side {WHERE[layout.driver]}
      </text>
    </svg>
  );
});

const WHERE = { left: 'left', right: 'right', top: 'up', bottom: 'down' } as const;

/** Two straps across a tank, a third of its length from each end. */
function Straps({ of, put }: { of: readonly Vec2[]; put: (p: Vec2) => Vec2 }) {
  const xs = of.map(q => q[0]);
  const ys = of.map(q => q[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return (
    <g stroke="var(--fluid)" strokeWidth="7" strokeLinecap="round">
      {[1 / 3, 2 / 3].map(k => {
        const x = x0 + k * (x1 - x0);
        const [a, b] = [put([x, y0 - 60]), put([x, y1 + 60])];
        return <path key={k} d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`} />;
      })}
    </g>
  );
}
