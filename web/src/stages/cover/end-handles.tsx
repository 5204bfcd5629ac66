import { frameOf, toSpace } from '@plate-fold/core/geometry';
import { callOf, type Panel, setEnds } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { useState } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import { sidePlane, useGrip } from '../../picture/use-grip';
import { useHand, useRun } from '../../state/commands/run';

/** No end is dragged lower than this, mm: it would lie on the ground. */
const LOWEST = 60;

/** The two ends of the chosen plate in the side view: dragged up and down they set its height and pitch. */
export function EndHandles(props: {
  readonly panel: Panel;
  readonly scale: SheetScale;
  readonly units: UnitSystem;
  readonly Z: (z: number) => number;
  readonly zAt: (px: number) => number;
}) {
  const { panel, scale, units, Z, zAt } = props;
  const run = useRun();
  const grip = useGrip(sidePlane(zAt), useHand());
  const [shown, setShown] = useState<number>();
  const frame = frameOf(panel.base);
  const us = panel.base.outline.map(q => q[0]);
  const ends = [Math.min(...us), Math.max(...us)].map(u => toSpace(frame, [u, 0]));
  const [front, rear] = [ends[0]?.[2] ?? 0, ends[1]?.[2] ?? 0];
  /** the plate with one end at a height, the other where it is */
  const withEnd = (i: number, z: number) => {
    const next = Math.max(LOWEST, Math.round(z));
    return { panel: panel.id, front: i === 0 ? next : front, rear: i === 0 ? rear : next };
  };
  return (
    <g>
      {ends.map((s, i) => {
        const [cx, cy] = [scale.X(s[0]), Z(s[2])];
        return (
          <g
            key={i === 0 ? 'front' : 'rear'}
            role="slider"
            tabIndex={0}
            aria-orientation="vertical"
            aria-label={`${i === 0 ? 'Front' : 'Rear'} end of plate ${panel.mark}, height above ground`}
            aria-valuenow={Math.round(s[2])}
            aria-valuetext={formatLength(s[2], units)}
            className="cursor-ns-resize"
            style={{ touchAction: 'none' }}
            {...grip(
              `end ${i}`,
              {
                to: (_, z) => {
                  setShown(i);
                  return callOf(setEnds, withEnd(i, z));
                },
                by: (_, dz, group) => run(setEnds, withEnd(i, s[2] + dz), group),
                onLetGo: () => setShown(undefined),
              },
              [0, s[2]],
            )}
          >
            <circle cx={cx} cy={cy} r="19" fill="transparent" />
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
            {shown === i && (
              <text
                x={cx + 12}
                y={cy - 10}
                fontSize="14"
                className="fig"
                fontWeight="600"
                stroke="var(--ground)"
                strokeWidth="4"
                paintOrder="stroke"
                style={{ fill: 'var(--fluid)' }}
              >
                {formatLength(s[2], units)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
