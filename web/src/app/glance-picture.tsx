import type { Glance } from '@plate-fold/core/checks';
import type { Polygon } from '@plate-fold/core/geometry';

/** Around what is drawn, mm. */
const MARGIN = 120;
const TIRE = { long: 700, wide: 230 } as const;
/** Height of a plate's letter, mm. */
const LETTER = 260;
const HOT = new Set(['exhaust', 'catalytic-converter', 'muffler']);

const path = (p: Polygon): string => `M${p.map(([x, y]) => `${x} ${y}`).join('L')}Z`;
const middle = (all: readonly Polygon[]): readonly [number, number] => {
  const pts = all.flat();
  const mid = (k: 0 | 1): number => (Math.min(...pts.map(p => p[k])) + Math.max(...pts.map(p => p[k]))) / 2;
  return [mid(0), mid(1)];
};

/** The underside of a plan from below, front at the left, as small as a thumb: wheels, frame, parts and plates. */
export function GlancePicture({ glance, name }: { glance: Glance; name: string }) {
  const { wheels, members, components, plates } = glance;
  const tires = [wheels.front, wheels.rear].flatMap(x => [-1, 1].map(s => [x, s * wheels.half] as const));
  const xs = [
    ...members.flat().map(p => p[0]),
    ...plates.flatMap(p => p.outlines.flat()).map(p => p[0]),
    wheels.front - TIRE.long / 2,
    wheels.rear + TIRE.long / 2,
  ];
  const [x0, x1] = [Math.min(...xs) - MARGIN, Math.max(...xs) + MARGIN];
  const half = wheels.half + TIRE.wide / 2 + MARGIN;
  return (
    <svg
      role="img"
      aria-label={`Underside of ${name}: ${plates.length} plate${plates.length === 1 ? '' : 's'}`}
      viewBox={`${x0} ${-half} ${x1 - x0} ${2 * half}`}
      className="block h-full w-full"
    >
      {tires.map(([x, y]) => (
        <rect
          key={`${x} ${y}`}
          x={x - TIRE.long / 2}
          y={y - TIRE.wide / 2}
          width={TIRE.long}
          height={TIRE.wide}
          rx={70}
          fill="var(--scribe)"
        />
      ))}
      {members.map(m => (
        <path key={path(m)} d={path(m)} fill="var(--scribe)" opacity={0.75} />
      ))}
      {components.map(c => (
        <path
          key={`${c.kind} ${path(c.outline)}`}
          d={path(c.outline)}
          fill="none"
          stroke={HOT.has(c.kind) ? 'var(--oxide)' : 'var(--ink2)'}
          strokeWidth={14}
        />
      ))}
      {plates.map(p => {
        const [x, y] = middle(p.outlines);
        return (
          <g key={p.mark}>
            <path
              d={p.outlines.map(path).join('')}
              fill="var(--fluid)"
              fillOpacity={0.22}
              stroke="var(--fluid)"
              strokeWidth={18}
            />
            <text
              x={x}
              y={y + LETTER * 0.36}
              fontSize={LETTER}
              fontWeight={700}
              textAnchor="middle"
              fill="var(--ink)"
            >
              {p.mark}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
