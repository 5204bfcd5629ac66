import type { Measure, MeasureId, Measures, Rig } from '@plate-fold/core/rig';

/** Where the two ends of the tape are for a measure, in the view it is taken in: (x, z) from the side, (x, y) from below. */
function ends(id: MeasureId, m: Measures): readonly [number, number, number, number] | undefined {
  const up = (x: number, z: number): readonly [number, number, number, number] => [x, 0, x, z];
  const along = (x: number, z: number): readonly [number, number, number, number] => [0, z, x, z];
  switch (id) {
    case 'wheelbase':
      return [0, m.tyreRadius, m.wheelbase, m.tyreRadius];
    case 'tyreRadius':
      return up(0, m.tyreRadius);
    case 'frontOverhang':
      return [0, m.tyreRadius * 0.6, -m.frontOverhang, m.tyreRadius * 0.6];
    case 'rearOverhang':
      return [m.wheelbase, m.tyreRadius * 0.6, m.wheelbase + m.rearOverhang, m.tyreRadius * 0.6];
    case 'trackWidth':
      return [0, -m.trackWidth / 2, 0, m.trackWidth / 2];
    case 'railOutside':
      return [m.wheelbase / 2, -m.railOutside / 2, m.wheelbase / 2, m.railOutside / 2];
    case 'railHeight':
      return up(m.wheelbase * 0.55, m.railHeight);
    case 'crossHeight':
      return up(m.panRear + 30, m.crossHeight);
    case 'crossFrontX':
      return along(m.crossFrontX, m.crossHeight + 75);
    case 'panFront':
      return along(m.panFront, m.panHeight);
    case 'panRear':
      return along(m.panRear, m.panHeight);
    case 'panHeight':
      return up((m.panFront + m.panRear) / 2, m.panHeight);
    case 'gearboxRear':
      return along(m.gearboxRear, m.gearboxHeight);
    case 'gearboxHeight':
      return up((m.panRear + m.gearboxRear) / 2, m.gearboxHeight);
    case 'transferRear':
      return along(m.transferRear, m.transferHeight);
    case 'transferHeight':
      return up((m.gearboxRear + m.transferRear) / 2, m.transferHeight);
    case 'tankFront':
      return along(m.tankFront, m.tankHeight);
    case 'tankRear':
      return along(m.tankRear, m.tankHeight);
    case 'tankHeight':
      return up((m.tankFront + m.tankRear) / 2, m.tankHeight);
    case 'converterFront':
      return along(m.converterFront, m.converterHeight);
    case 'converterRear':
      return along(m.converterRear, m.converterHeight);
    case 'converterHeight':
      return up((m.converterFront + m.converterRear) / 2, m.converterHeight);
    case 'exhaustHeight':
      return up(m.converterRear + 250, m.exhaustHeight);
    default:
      return undefined;
  }
}

/** A small drawing of where the tape goes for one measure, on the rig as it stands. */
export function Tape(props: {
  measure: Measure;
  measures: Measures;
  rig: Rig;
  width: number;
  height: number;
  strong?: boolean;
}) {
  const { measure, measures: m, rig, width, height } = props;
  const [x0, x1] = [-m.frontOverhang - 80, m.wheelbase + m.rearOverhang + 80];
  const k = width / (x1 - x0);
  const X = (x: number): number => (x - x0) * k;
  const tape = ends(measure.id, m);
  const line = props.strong ? 3 : 2;
  const stroke = { stroke: 'var(--ghostline)', strokeWidth: 0.8 } as const;
  const label = `Where the tape goes: ${measure.how}`;
  if (measure.view === 'scales')
    return (
      <svg width={width} height={height} role="img" aria-label={label} className="block">
        {[0, m.wheelbase].map((x, i) => {
          const on = (i === 0) === (measure.id === 'frontAxleKg');
          return (
            <g key={x}>
              <circle
                cx={X(x)}
                cy={height - 8 - m.tyreRadius * k}
                r={m.tyreRadius * k}
                fill="var(--ghost)"
                {...stroke}
              />
              <rect
                x={X(x) - 16}
                y={height - 8}
                width="32"
                height="6"
                fill={on ? 'var(--fluid)' : 'var(--scribe)'}
              />
            </g>
          );
        })}
      </svg>
    );
  if (measure.view === 'below') {
    const Y = (y: number): number => height / 2 + y * Math.min(k, (height - 8) / (m.trackWidth + 300));
    return (
      <svg width={width} height={height} role="img" aria-label={label} className="block">
        {rig.members.map(b => (
          <path
            key={b.id}
            d={`M${b.footprint.map(p => `${X(p[0])} ${Y(p[1])}`).join('L')}Z`}
            fill="var(--ghost)"
            {...stroke}
          />
        ))}
        {[0, m.wheelbase].flatMap(x =>
          [-1, 1].map(s => (
            <rect
              key={`${x}${s}`}
              x={X(x - m.tyreRadius)}
              y={Y((s * m.trackWidth) / 2) - 4}
              width={2 * m.tyreRadius * k}
              height="8"
              rx="2"
              fill="var(--ghost)"
              {...stroke}
            />
          )),
        )}
        {tape && (
          <path d={`M${X(tape[0])} ${Y(tape[1])}V${Y(tape[3])}`} stroke="var(--fluid)" strokeWidth={line} />
        )}
      </svg>
    );
  }
  const ground = height - 5;
  const kz = Math.min(k * 2, (height - 8) / 640);
  const Z = (z: number): number => ground - z * kz;
  return (
    <svg width={width} height={height} role="img" aria-label={label} className="block">
      {rig.components.map(c => {
        const xs = c.footprint.map(p => p[0]);
        return (
          <rect
            key={c.id}
            x={X(Math.min(...xs))}
            y={Z(Math.min(c.zTop, 600))}
            width={(Math.max(...xs) - Math.min(...xs)) * k}
            height={Math.max(1, (Math.min(c.zTop, 600) - c.zBottom) * kz)}
            fill={c.moves ? 'none' : 'var(--ghost)'}
            {...stroke}
          />
        );
      })}
      {rig.members.map(b => {
        const xs = b.footprint.map(p => p[0]);
        return (
          <rect
            key={b.id}
            x={X(Math.min(...xs))}
            y={Z(b.zTop)}
            width={(Math.max(...xs) - Math.min(...xs)) * k}
            height={(b.zTop - b.zBottom) * kz}
            fill="var(--ghostline)"
            fillOpacity="0.35"
          />
        );
      })}
      {[0, m.wheelbase].map(x => (
        <ellipse
          key={x}
          cx={X(x)}
          cy={Z(m.tyreRadius)}
          rx={m.tyreRadius * k}
          ry={m.tyreRadius * kz}
          fill="none"
          {...stroke}
        />
      ))}
      <path d={`M0 ${ground}H${width}`} stroke="var(--ink)" strokeWidth="1.2" />
      {tape && (
        <>
          <path
            d={`M${X(tape[0])} ${Z(tape[1])}L${X(tape[2])} ${Z(tape[3])}`}
            stroke="var(--fluid)"
            strokeWidth={line}
          />
          {[0, 2].map(i => (
            <circle
              key={i}
              cx={X(tape[i] as number)}
              cy={Z(tape[i + 1] as number)}
              r={props.strong ? 4 : 2.5}
              fill="var(--fluid)"
            />
          ))}
        </>
      )}
    </svg>
  );
}
