import type { ResolvedJoint } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import type { Step } from '@plate-fold/core/sequence';
import type { StepLayout } from './step-layout';

/** A bolt of a step as it stands. */
export type BoltLook = 'open' | 'done' | 'now' | 'fault';

const HALO = { stroke: 'var(--paper)', strokeWidth: 5, paintOrder: 'stroke' } as const;

/** Bolts of a step, numbered in the order of the hands; pressed where `onTap` is told. */
export function BoltMarks(props: {
  readonly bolts: readonly ResolvedJoint[];
  readonly layout: StepLayout;
  readonly look: (id: string) => BoltLook;
  readonly onTap?: (id: string) => void;
}) {
  const { bolts, layout, look, onTap } = props;
  const places = bolts.map(b => layout.put([b.at[0], b.at[1]]));
  const tight = Math.min(
    ...places.flatMap((a, i) => places.slice(i + 1).map(b => Math.hypot(a[0] - b[0], a[1] - b[1]))),
    90,
  );
  const r = Math.max(11, Math.min(22, tight / 2 - 1));
  const now = bolts.findIndex(b => look(b.id) === 'now');
  const route = places.slice(Math.max(0, now), now < 0 ? 0 : now + 3);
  return (
    <>
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
        const is = look(b.id);
        const size = is === 'now' ? r + 3 : r;
        const fill = {
          now: 'var(--fluid)',
          done: 'var(--ink2)',
          fault: 'var(--oxidesoft)',
          open: 'var(--paper)',
        }[is];
        const ink = {
          now: 'var(--onfluid)',
          done: 'var(--paper)',
          fault: 'var(--oxide)',
          open: 'var(--ink)',
        }[is];
        const said = { now: 'next', done: 'done', fault: 'not sound', open: 'not done' }[is];
        return (
          <g
            key={b.id}
            {...(onTap
              ? {
                  role: 'button',
                  tabIndex: 0,
                  'aria-label': `Bolt ${i + 1}, ${b.id}, ${said}`,
                  onClick: () => onTap(b.id),
                  onKeyDown: e => {
                    if (e.key !== 'Enter' && e.key !== ' ') return;
                    e.preventDefault();
                    e.stopPropagation();
                    onTap(b.id);
                  },
                }
              : {})}
            data-bolt={b.id}
            data-look={is}
            className={onTap ? 'cursor-pointer' : ''}
          >
            {onTap && <circle cx={x} cy={y} r={Math.max(22, size)} fill="transparent" />}
            <circle
              cx={x}
              cy={y}
              r={size}
              fill={fill}
              stroke={
                is === 'fault'
                  ? 'var(--oxide)'
                  : is === 'now' || i === now + 1
                    ? 'var(--fluid)'
                    : 'var(--ink)'
              }
              strokeWidth={is === 'now' || is === 'fault' || i === now + 1 ? 3 : 1.6}
            />
            <text
              x={x}
              y={y + 0.5}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={r + 2}
              fontWeight="700"
              style={{ fill: ink }}
            >
              {is === 'fault' ? '\u00d7' : i + 1}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** Where the jack stands under a plate. */
export function JackMark({ at: [x, y] }: { at: Vec2 }) {
  return (
    <g>
      <path d={`M${x - 17} ${y}h34M${x} ${y - 17}v34`} stroke="var(--paper)" strokeWidth="8" />
      <path d={`M${x - 17} ${y}h34M${x} ${y - 17}v34`} stroke="var(--fluid)" strokeWidth="3.5" />
      <circle cx={x} cy={y} r="11" fill="none" stroke="var(--fluid)" strokeWidth="3.5" />
      <text
        x={x}
        y={y + 32}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        {...HALO}
        style={{ fill: 'var(--fluid)' }}
      >
        jack here
      </text>
    </g>
  );
}

/** A place without a bolt: cross hairs. */
export function SpotMark({ at: [x, y] }: { at: Vec2 }) {
  return (
    <g fill="none">
      {(['var(--paper)', 'var(--fluid)'] as const).map((stroke, i) => (
        <g key={stroke} stroke={stroke} strokeWidth={i === 0 ? 8 : 4}>
          <circle cx={x} cy={y} r="16" />
          <path d={`M${x} ${y - 28}v18M${x} ${y + 28}v-18M${x - 28} ${y}h18M${x + 28} ${y}h-18`} />
        </g>
      ))}
    </g>
  );
}

/** How far in from the wheels stands are drawn, as a share of the wheelbase: about; where they go the vehicle's maker says. */
const STAND_AT = 0.2;
const CORNERS = [
  ['front left', 0, -1],
  ['front right', 0, 1],
  ['rear left', 1, -1],
  ['rear right', 1, 1],
] as const;

/** The vehicle on its wheels, with what holds it up. */
export function VehicleMarks({ facts, step, layout }: { facts: Facts; step: Step; layout: StepLayout }) {
  const { rig } = facts.rig;
  const put = layout.put;
  const tire = (axle: number, side: number): readonly Vec2[] => {
    const [x, y, r] = [axle * rig.wheelbase, (side * rig.trackWidth) / 2, rig.tyreRadius * 0.85];
    return [
      [x - r, y - 110],
      [x + r, y - 110],
      [x + r, y + 110],
      [x - r, y + 110],
    ];
  };
  const path = (points: readonly Vec2[]): string =>
    `M${points
      .map(p =>
        put(p)
          .map(v => v.toFixed(1))
          .join(' '),
      )
      .join('L')}Z`;
  const { lift } = facts.document.plan.method;
  const heights = step.asks?.includes('fenders') ?? false;
  const stands =
    lift === 'side' || heights || lift === 'ramps'
      ? []
      : CORNERS.map(([name, a, s]) => ({
          name,
          at: put([(a === 0 ? STAND_AT : 1 - STAND_AT) * rig.wheelbase, s * rig.trackWidth * 0.28]),
        }));
  return (
    <g>
      {CORNERS.map(([name, a, s]) => {
        const off =
          step.id.includes(`wheel-off-${name.replace(' ', '-')}`) ||
          step.id.includes(`wheel-on-${name.replace(' ', '-')}`);
        const [x, y] = put([a * rig.wheelbase, (s * rig.trackWidth) / 2]);
        return (
          <g key={name}>
            <path
              d={path(tire(a, s))}
              fill={off ? 'var(--fluid)' : 'var(--ink2)'}
              stroke={off ? 'var(--ink)' : 'none'}
              strokeWidth="2"
              opacity={off ? 1 : 0.75}
            />
            {heights && (
              <text
                x={x}
                y={y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize="13"
                fontWeight="700"
                {...HALO}
              >
                {name}
              </text>
            )}
            {lift === 'ramps' && a === 0 && (
              <path
                d={path(tire(a, s).map(([px, py]) => [px * 1.25, py] as Vec2))}
                fill="none"
                stroke="var(--fluid)"
                strokeWidth="3"
              />
            )}
          </g>
        );
      })}
      {stands.map(({ name, at: [x, y] }) => (
        <path
          key={name}
          d={`M${x - 12} ${y + 11}L${x} ${y - 13}L${x + 12} ${y + 11}Z`}
          fill="var(--fluid)"
          stroke="var(--paper)"
          strokeWidth="2"
        />
      ))}
    </g>
  );
}
