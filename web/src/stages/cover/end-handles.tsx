import { baseFrame, toSpace } from '@plate-fold/core/geometry';
import { endsSet, type Panel } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { useRef, useState } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import { newStroke } from '../../picture/use-grip';
import { useEdit } from '../../state/use-edit';

/** The two ends of the chosen plate on the keel: dragged up and down they set its height and pitch. */
export function EndHandles(props: {
  readonly panel: Panel;
  readonly scale: SheetScale;
  readonly units: UnitSystem;
  readonly Z: (z: number) => number;
  readonly zAt: (px: number) => number;
}) {
  const { panel, scale, units, Z, zAt } = props;
  const edit = useEdit();
  const held = useRef<{ stroke: string; off: number } | undefined>(undefined);
  const [shown, setShown] = useState<number>();
  const keys = useRef({ stroke: '', at: 0 });
  const frame = baseFrame(panel.base.origin, panel.base.pitch, panel.base.roll);
  const us = panel.base.outline.map(q => q[0]);
  const ends = [Math.min(...us), Math.max(...us)].map(u => toSpace(frame, [u, 0]));
  const [front, rear] = [ends[0]?.[2] ?? 0, ends[1]?.[2] ?? 0];
  const set = (i: number, z: number, stroke: string): void => {
    const next = Math.max(60, Math.round(z));
    edit(
      i === 0 ? 'front end set' : 'rear end set',
      doc => endsSet(doc, panel.id, i === 0 ? next : front, i === 0 ? rear : next),
      stroke,
    );
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
            onPointerDown={e => {
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              const top = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect().top;
              held.current = { stroke: newStroke(), off: zAt(e.clientY - top) - s[2] };
              setShown(i);
            }}
            onPointerMove={e => {
              if (!held.current) return;
              e.stopPropagation();
              const top = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect().top;
              set(i, zAt(e.clientY - top) - held.current.off, held.current.stroke);
            }}
            onPointerUp={() => {
              held.current = undefined;
              setShown(undefined);
            }}
            onClick={e => e.stopPropagation()}
            onKeyDown={e => {
              const step = (e.shiftKey ? 10 : 1) * (e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0);
              if (step === 0) return;
              e.preventDefault();
              e.stopPropagation();
              if (Date.now() - keys.current.at > 1200) keys.current.stroke = newStroke();
              keys.current.at = Date.now();
              set(i, s[2] + step, keys.current.stroke);
            }}
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
