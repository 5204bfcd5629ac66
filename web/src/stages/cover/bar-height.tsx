import { barFace, type Crossbar, crossbarSet } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { useRef } from 'react';
import type { SheetScale } from '../../picture/sheet-scale';
import { newStroke } from '../../picture/use-grip';
import { useEdit } from '../../state/use-edit';

/** The chosen crossbar in the side view: dragged up and down it sets the height that it hangs at; its bolts get spacers. */
export function BarHeight(props: {
  readonly bar: Crossbar;
  readonly scale: SheetScale;
  readonly units: UnitSystem;
  readonly Z: (z: number) => number;
  readonly zAt: (px: number) => number;
}) {
  const { bar, scale, units, Z, zAt } = props;
  const edit = useEdit();
  const held = useRef<{ stroke: string; off: number } | undefined>(undefined);
  const keys = useRef({ stroke: '', at: 0 });
  const z = (bar.from[2] + bar.to[2]) / 2;
  const x = (bar.from[0] + bar.to[0]) / 2;
  const set = (to: number, stroke: string): void => {
    const by = Math.round(to) - Math.round(z);
    if (by === 0) return;
    edit(
      'crossbar raised',
      doc => {
        const now = doc.plan.crossbars.find(c => c.id === bar.id);
        return now
          ? crossbarSet(doc, bar.id, {
              from: [now.from[0], now.from[1], now.from[2] + by],
              to: [now.to[0], now.to[1], now.to[2] + by],
            })
          : doc;
      },
      stroke,
    );
  };
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
      onPointerDown={e => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        const top = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect().top;
        held.current = { stroke: newStroke(), off: zAt(e.clientY - top) - z };
      }}
      onPointerMove={e => {
        if (!held.current) return;
        e.stopPropagation();
        const top = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect().top;
        set(zAt(e.clientY - top) - held.current.off, held.current.stroke);
      }}
      onPointerUp={() => {
        held.current = undefined;
      }}
      onClick={e => e.stopPropagation()}
      onKeyDown={e => {
        const step = (e.shiftKey ? 10 : 1) * (e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0);
        if (step === 0) return;
        e.preventDefault();
        e.stopPropagation();
        if (Date.now() - keys.current.at > 1200) keys.current.stroke = newStroke();
        keys.current.at = Date.now();
        set(z + step, keys.current.stroke);
      }}
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
