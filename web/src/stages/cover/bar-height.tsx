import { barFace, type Crossbar, callOf, raiseCrossbar } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import type { SheetScale } from '../../picture/sheet-scale';
import { sidePlane, useGrip } from '../../picture/use-grip';
import { useHand, useRun } from '../../state/commands/run';

/** The chosen crossbar in the side view: dragged up and down it sets the height that it hangs at; its bolts get spacers. */
export function BarHeight(props: {
  readonly bar: Crossbar;
  readonly scale: SheetScale;
  readonly units: UnitSystem;
  readonly Z: (z: number) => number;
  readonly zAt: (px: number) => number;
}) {
  const { bar, scale, units, Z, zAt } = props;
  const run = useRun();
  const grip = useGrip(sidePlane(zAt), useHand());
  const z = (bar.from[2] + bar.to[2]) / 2;
  const x = (bar.from[0] + bar.to[0]) / 2;
  const [cx, cy] = [scale.X(x), Z(z)];
  const half = (bar.section.height / 2) * scale.k;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={`Height of ${bar.name} above ground`}
      aria-valuenow={Math.round(z)}
      aria-valuetext={formatLength(barFace(bar, bar.from, 1), units)}
      className="cursor-ns-resize"
      style={{ touchAction: 'none' }}
      {...grip(
        bar.id,
        {
          to: (_, to, from) =>
            callOf(raiseCrossbar, { bar: bar.id, by: Math.round(to) - Math.round(from[1]) }),
          by: (_, dz, group) => run(raiseCrossbar, { bar: bar.id, by: dz }, group),
        },
        [0, z],
      )}
    >
      <path
        d={`M${scale.X(bar.from[0])} ${cy}H${scale.X(bar.to[0])}`}
        stroke="var(--fluid)"
        strokeWidth={Math.max(3, 2 * half)}
        opacity="0.5"
      />
      <circle cx={cx} cy={cy} r="20" fill="transparent" />
      <rect
        x={cx - 5}
        y={cy - 9}
        width="10"
        height="18"
        rx="5"
        fill="var(--paper)"
        stroke="var(--fluid)"
        strokeWidth="2.2"
      />
    </g>
  );
}
