import { outwardOf, type ResolvedJoint, strapOver } from '@plate-fold/core/bolt';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { panelWord } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { sheetName } from '../ui/names';
import { box } from './box';
import { HatchDefs, hatch } from './hatch';
import { spreadLabels } from './stack-layout';

/** A strap over its axle tube, cut across the tube, to scale: up is up, a leg on either side, a nut on each. */
export function StrapSection({
  joint: j,
  panels,
  units,
  width,
  height,
}: {
  readonly joint: ResolvedJoint;
  readonly panels: readonly FoldedPanel[];
  readonly units: UnitSystem;
  readonly width: number;
  readonly height: number;
}) {
  const { member, nut, thread } = j;
  if (!member || !nut) return null;
  const strap = strapOver(member, thread, outwardOf(j.mount));
  const R = strap.overMm / 2;
  const narrow = width < 440;
  const right = narrow ? 142 : 190;
  const half = strap.legMm + 24;
  const deep = j.lengthMm + 6;
  const k = Math.min((height - 40) / (2 * R + thread.d + deep), (width - 24 - right) / (2 * half));
  const cx = 12 + half * k;
  // heights below the tube's underside, mm: the drawing hangs from there
  const face = 20 + (2 * R + thread.d + 2) * k;
  const Y = (mm: number): number => face + mm * k;
  const X = (mm: number): number => cx + mm * k;
  const ink = { stroke: 'var(--ink)', strokeWidth: 1.5, strokeLinejoin: 'round' } as const;
  const rod = thread.d / 2;
  const sheets = [...j.joint.panels].reverse().flatMap(id => panels.find(p => p.panel.id === id) ?? []);
  const washers = j.layers.filter(l => l.kind === 'washer');
  let at = j.joint.spacer;
  const plates = sheets.map(p => {
    const from = at;
    at += p.sheet.thickness;
    return { p, from, to: at };
  });
  const rings = washers.map(w => {
    const from = at;
    at += w.thickness;
    return { w, from, to: at };
  });
  const legs = [-strap.legMm, strap.legMm];
  const labels: readonly (readonly [number, number, string, string])[] = [
    [X(R * 0.7), Y(-1.7 * R), 'strap', `over ${formatLength(strap.overMm, units)}`],
    [X(0), Y(-R), member.kind === 'axle-tube' ? 'axle tube' : 'tube', 'not drilled'],
    ...plates.map(
      ({ p, from, to }) => [X(half), Y((from + to) / 2), panelWord(p.panel), sheetName(p.sheet)] as const,
    ),
    [
      X(strap.legMm + nut.diameter / 2),
      Y(at + nut.height / 2),
      '2 flange nuts',
      `${washers.length > 0 ? 'over washers, ' : ''}${thread.designation}`,
    ],
  ];
  const places = spreadLabels(
    labels.map(l => l[1]),
    38,
    20,
    height - 26,
  );
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Section of joint ${j.id}: ${labels.map(l => `${l[2]} ${l[3]}`).join(', then ')}`}
      className="block"
    >
      <HatchDefs id="section" />
      <circle cx={cx} cy={Y(-R)} r={R * k} fill={hatch('section', 'member')} {...ink} />
      <circle cx={cx} cy={Y(-R)} r={(R - Math.min(member.wall, R / 2)) * k} fill="var(--paper)" {...ink} />
      <path
        d={`M${X(-strap.legMm - rod)} ${Y(j.lengthMm)}V${Y(-R)}A${(strap.legMm + rod) * k} ${(strap.legMm + rod) * k} 0 0 1 ${X(strap.legMm + rod)} ${Y(-R)}V${Y(j.lengthMm)}H${X(strap.legMm - rod)}V${Y(-R)}A${(strap.legMm - rod) * k} ${(strap.legMm - rod) * k} 0 0 0 ${X(-strap.legMm + rod)} ${Y(-R)}V${Y(j.lengthMm)}Z`}
        fill="var(--stainless)"
        {...ink}
      />
      {plates.map(({ p, from, to }) => (
        <g key={p.panel.id} fill={hatch('section', p.material.family)} {...ink}>
          <path d={box(X(-half), X(-strap.legMm - thread.clearance / 2), Y(from), Y(to))} />
          <path
            d={box(
              X(-strap.legMm + thread.clearance / 2),
              X(strap.legMm - thread.clearance / 2),
              Y(from),
              Y(to),
            )}
          />
          <path d={box(X(strap.legMm + thread.clearance / 2), X(half), Y(from), Y(to))} />
        </g>
      ))}
      {legs.map(x => (
        <g key={x} fill="var(--stainless)" {...ink}>
          {rings.map(({ w, from, to }) => (
            <path key={from} d={box(X(x - w.diameter / 2), X(x + w.diameter / 2), Y(from), Y(to))} />
          ))}
          <path
            d={`M${X(x - nut.diameter / 2)} ${Y(at)}H${X(x + nut.diameter / 2)}V${Y(at + 0.28 * nut.height)}H${X(x + 0.4 * nut.diameter)}V${Y(at + nut.height)}H${X(x - 0.4 * nut.diameter)}V${Y(at + 0.28 * nut.height)}H${X(x - nut.diameter / 2)}Z`}
          />
          <path d={box(X(x - rod), X(x + rod), Y(at + nut.height), Y(j.lengthMm))} />
        </g>
      ))}
      {labels.map(([x, y, name, more], i) => {
        const to = places[i] ?? y;
        return (
          <g key={name}>
            <path
              d={`M${x} ${y}L${X(half) + 10} ${to}H${X(half) + 22}`}
              fill="none"
              stroke="var(--ink2)"
              strokeWidth="0.8"
            />
            <text x={X(half) + 28} y={to + 1} fontSize={narrow ? 12.5 : 14} className="font-semibold">
              {name}
            </text>
            <text x={X(half) + 28} y={to + 16} fontSize="12" className="fig" style={{ fill: 'var(--ink2)' }}>
              {more}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
