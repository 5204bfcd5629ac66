import type { Rig } from '@plate-fold/core/rig';
import { formatMass, lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import type { BuildWeight } from '@plate-fold/core/weigh';

/** Ride height changes are a few millimeters on meters of wheelbase: drawn larger, and said so. */
const EXAGGERATED = 12;

/** How the vehicle stands: frame line before (dashed) and with the plan, load and height change at each axle. */
export function Stance({
  rig,
  weight,
  units,
  width,
}: {
  rig: Rig;
  weight: BuildWeight;
  units: UnitSystem;
  width: number;
}) {
  const pad = 58;
  const k = (width - 2 * pad) / rig.wheelbase;
  const r = Math.min(34, rig.tyreRadius * k * 1.1);
  const ground = 122;
  const [fx, rx] = [pad, width - pad];
  const frame = ground - r - 16;
  const drop = (mm: number): number => Math.max(-24, Math.min(24, -mm * EXAGGERATED * k));
  const [df, dr] = [drop(weight.rideHeight.frontMm), drop(weight.rideHeight.rearMm)];
  const axles = [
    {
      name: 'front',
      x: fx,
      kg: weight.axles.frontKg,
      mm: weight.rideHeight.frontMm,
      was: rig.axles.front.massKg,
    },
    {
      name: 'rear',
      x: rx,
      kg: weight.axles.rearKg,
      mm: weight.rideHeight.rearMm,
      was: rig.axles.rear.massKg,
    },
  ];
  const beyond = 34;
  const slope = (dr - df) / (rx - fx);
  return (
    <svg
      width={width}
      height={ground + 62}
      role="img"
      aria-label={axles
        .map(a => {
          const [m, l] = [massFigure(a.kg, units, true), lengthFigure(a.mm, units, true, true)];
          return `${a.name} axle ${m.value} ${m.unit}, height ${l.value} ${l.unit}`;
        })
        .join('; ')}
      className="block"
    >
      {axles.map(a => (
        <g key={a.name}>
          <circle
            cx={a.x}
            cy={ground - r}
            r={r}
            fill="var(--ghost)"
            stroke="var(--ghostline)"
            strokeWidth="1.5"
          />
          <circle cx={a.x} cy={ground - r} r={r * 0.5} fill="none" stroke="var(--ghostline)" />
        </g>
      ))}
      <path d={`M0 ${ground}H${width}`} stroke="var(--ink)" strokeWidth="1.8" />
      <path
        d={`M${fx - beyond} ${frame}H${rx + beyond}`}
        stroke="var(--ink2)"
        strokeWidth="1.5"
        strokeDasharray="6 5"
      />
      <path
        d={`M${fx - beyond} ${frame + df - slope * beyond}L${rx + beyond} ${frame + dr + slope * beyond}`}
        stroke="var(--fluid)"
        strokeWidth="5"
        strokeLinecap="round"
      />
      {axles.map(a => {
        const [m, l] = [massFigure(a.kg, units, true), lengthFigure(a.mm, units, true, true)];
        return (
          <g key={a.name} textAnchor="middle">
            <text x={a.x} y={frame - 26} fontSize="16" className="fig" fontWeight="600">
              {l.value}
              <tspan fontSize="11.5" dx="3" className="font-sans">
                {l.unit}
              </tspan>
            </text>
            <text x={a.x} y={ground + 21} fontSize="16" className="fig">
              {m.value}
              <tspan fontSize="11.5" dx="3">
                {m.unit}
              </tspan>
            </text>
            <text x={a.x} y={ground + 37} fontSize="12" style={{ fill: 'var(--ink2)' }}>
              on {formatMass(a.was, units)}
            </text>
          </g>
        );
      })}
      <text x={width / 2} y={ground + 56} fontSize="11.5" textAnchor="middle" style={{ fill: 'var(--ink2)' }}>
        frame before (dashed) and after, its change drawn ×{EXAGGERATED}
      </text>
    </svg>
  );
}
