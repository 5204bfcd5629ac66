import type { Vec2 } from '@plate-fold/core/geometry';
import type { Rig } from '@plate-fold/core/rig';
import type { SheetScale } from './sheet-scale';

/** Width of a tire in the pictures, mm; the rig does not know it. */
export const tireWidth = (rig: Rig): number => Math.min(260, rig.tyreRadius * 0.62);

/** The four tires from above or below. */
export function Tires({ rig, put }: { rig: Rig; put: (p: Vec2) => Vec2 }) {
  const half = tireWidth(rig) / 2;
  return [0, rig.wheelbase].flatMap(x =>
    [-1, 1].map(s => {
      const a = put([x - rig.tyreRadius, (s * rig.trackWidth) / 2 - half]);
      const b = put([x + rig.tyreRadius, (s * rig.trackWidth) / 2 + half]);
      return (
        <rect
          key={`${x}${s}`}
          x={Math.min(a[0], b[0])}
          y={Math.min(a[1], b[1])}
          width={Math.abs(a[0] - b[0])}
          height={Math.abs(a[1] - b[1])}
          rx="7"
          fill="var(--ghost)"
          stroke="var(--ghostline)"
        />
      );
    }),
  );
}

/** Which end is at the left and which side is the driver's: written on every map, since they are swapped so easily. */
export function SideNotes({ rig, scale, height }: { rig: Rig; scale: SheetScale; height: number }) {
  const halo = { stroke: 'var(--paper)', strokeWidth: 4, paintOrder: 'stroke' } as const;
  const driverAtTop = (rig.driverSide === 'right') === scale.rightAtTop;
  return (
    <g fontSize="12" aria-hidden="true">
      <text
        x={scale.width - 10}
        y={driverAtTop ? 18 : height - 18}
        textAnchor="end"
        fontWeight="700"
        {...halo}
      >
        driver’s side
      </text>
      <text x="10" y="18" style={{ fill: 'var(--ink2)' }} {...halo}>
        {scale.frontAtLeft ? '\u2190 front' : '\u2190 rear'}
      </text>
    </g>
  );
}
