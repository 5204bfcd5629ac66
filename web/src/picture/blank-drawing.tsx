import { type FlatPattern, holeOutline } from '@plate-fold/core/fold';
import { wayMark } from '@plate-fold/core/formats';
import { boxOf, type Polygon, type Vec2 } from '@plate-fold/core/geometry';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { pathOf } from './paths';
import { press } from './press';

interface Props {
  readonly pattern: FlatPattern;
  readonly units: UnitSystem;
  readonly width: number;
  readonly height: number;
  readonly bend?: string;
  readonly onBend: (id: string) => void;
}

const round = (at: Vec2, d: number): Polygon =>
  Array.from({ length: 36 }, (_, i): Vec2 => {
    const a = (i * Math.PI) / 18;
    return [at[0] + (d / 2) * Math.cos(a), at[1] + (d / 2) * Math.sin(a)];
  });

/** A name of this width, px, would stand over the edge. */
const NEAR_EDGE = 22;

/** What stands beside the holes: countersinks dashed round them, a cross where one is opened or drilled later, and each bolt's name. */
function HoleNames({ pattern, put, k }: { pattern: FlatPattern; put: (p: Vec2) => Vec2; k: number }) {
  const edges = pattern.outline.flat().map(put);
  const [left, right] = [Math.min(...edges.map(e => e[0])), Math.max(...edges.map(e => e[0]))];
  const top = Math.min(...edges.map(e => e[1]));
  // a name stands above its hole or below it, wherever no other name is; in a crowd it is left to the table
  const names: { joint: string; x: number; y: number }[] = [];
  // the grain's own name stands there already
  const [gx, gy] = put(pattern.etch.at);
  const taken = [{ x: gx + 28, y: gy }];
  for (const h of pattern.holes) {
    const [x, y] = put(h.at);
    // clear of the hole itself, however large it is drawn
    const box = boxOf(holeOutline(h.cut ?? h.final, h.at).map(put));
    const r = (box.max[1] - box.min[1]) / 2;
    const [above, below] = [y - Math.max(8, r + 4), y + Math.max(17, r + 13)];
    const ways = y - top < 20 ? [below, above] : [above, below];
    const free = ways.find(at =>
      [...taken, ...names].every(n => Math.abs(n.x - x) > 34 || Math.abs(n.y - at) > 13),
    );
    if (free !== undefined) names.push({ joint: h.joint, x, y: free });
  }
  return (
    <g aria-hidden="true">
      {pattern.holes.map(h => {
        const [x, y] = put(h.at);
        return (
          <g key={`${h.joint} ${x} ${y}`} fill="none">
            {h.sink && (
              <circle cx={x} cy={y} r={(h.sink.diameter / 2) * k} stroke="var(--ink)" strokeDasharray="3 2" />
            )}
            {(!h.cut || h.kind === 'pilot') && (
              <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} stroke="var(--ink2)" strokeWidth="1" />
            )}
          </g>
        );
      })}
      {names.map(({ joint, x, y }) => {
        // beside an edge the name stands on the sheet's side of it
        const anchor = x - left < NEAR_EDGE ? 'start' : right - x < NEAR_EDGE ? 'end' : 'middle';
        return (
          <text
            key={`${joint} ${x} ${y}`}
            x={anchor === 'start' ? x - 4 : anchor === 'end' ? x + 4 : x}
            y={y}
            textAnchor={anchor}
            fontSize="11"
            className="fig"
            stroke="var(--sheet)"
            strokeWidth="3.5"
            paintOrder="stroke"
            style={{ fill: 'var(--ink2)' }}
          >
            {joint}
          </text>
        );
      })}
    </g>
  );
}

/** The flat blank to scale, as the shop cuts it: cut lines, bend lines up and down told apart, its size dimensioned. */
export function BlankDrawing({ pattern: p, units, width, height, bend, onBend }: Props) {
  const { min, max } = boxOf(p.outline.flat());
  const pad = { left: 74, right: 30, top: 34, bottom: 58 };
  const k = Math.min(
    (width - pad.left - pad.right) / (max[0] - min[0]),
    (height - pad.top - pad.bottom) / (max[1] - min[1]),
  );
  const x0 = pad.left + (width - pad.left - pad.right - (max[0] - min[0]) * k) / 2;
  const y0 = pad.top + (height - pad.top - pad.bottom - (max[1] - min[1]) * k) / 2;
  const put = ([x, y]: Vec2): Vec2 => [x0 + (x - min[0]) * k, y0 + (max[1] - y) * k];
  const [left, right, top, bottom] = [put(min)[0], put(max)[0], put(max)[1], put(min)[1]];
  const cuts = [
    ...p.cutouts.map(c => ('circle' in c ? round(c.at, c.circle) : c.polygon)),
    ...p.holes.flatMap(h => (h.cut ? [holeOutline(h.cut, h.at)] : [])),
  ];
  const grain = put(p.etch.at);
  const way = wayMark(p);
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={`Blank of plate ${p.mark}, flat`}
      className="block"
    >
      <path
        d={pathOf([...p.outline, ...cuts], put)}
        fill="var(--sheet)"
        fillRule="evenodd"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path d={pathOf(p.marked, put)} fill="none" stroke="var(--ink2)" strokeDasharray="2 3" />
      {p.bends.map(b => {
        const [a, c] = [put(b.from), put(b.to)];
        const chosen = b.id === bend;
        const mid: Vec2 = [(a[0] + c[0]) / 2, (a[1] + c[1]) / 2];
        const steep = Math.abs(a[1] - c[1]) > Math.abs(a[0] - c[0]);
        return (
          <g
            key={b.id}
            role="button"
            tabIndex={0}
            aria-pressed={chosen}
            aria-label={`Bend ${b.id}, ${Math.abs(b.angle).toFixed(1)} degrees ${b.direction}`}
            onClick={() => onBend(b.id)}
            onKeyDown={press(() => onBend(b.id))}
            className="cursor-pointer"
          >
            <path d={`M${a.join(' ')}L${c.join(' ')}`} stroke="transparent" strokeWidth="26" />
            <path
              d={`M${a.join(' ')}L${c.join(' ')}`}
              stroke={chosen ? 'var(--fluid)' : b.direction === 'up' ? 'var(--ink)' : 'var(--oxide)'}
              strokeWidth={chosen ? 3.4 : 1.8}
              strokeDasharray={b.direction === 'up' ? '14 5' : '3 4'}
            />
            <text
              x={mid[0]}
              y={mid[1]}
              dy={steep ? 0 : -6}
              textAnchor="middle"
              fontSize="12"
              fontWeight="700"
              transform={steep ? `rotate(-90 ${mid[0]} ${mid[1]}) translate(0 -6)` : undefined}
              stroke="var(--sheet)"
              strokeWidth="4"
              paintOrder="stroke"
              style={{ fill: chosen ? 'var(--fluid)' : b.direction === 'up' ? 'var(--ink)' : 'var(--oxide)' }}
            >
              {b.direction === 'up' ? '↑' : '↓'} {Math.abs(b.angle).toFixed(1)}°
            </text>
          </g>
        );
      })}
      {/* over the bend lines, which would strike the names through, and without taking their presses */}
      <g pointerEvents="none">
        <HoleNames pattern={p} put={put} k={k} />
      </g>
      <g aria-hidden="true">
        <text x="12" y="20" fontSize="12" style={{ fill: 'var(--ink2)' }}>
          flat, upper face, front at the left
        </text>
        <path
          d={`M${grain[0]} ${grain[1]}l${p.etch.grain[0] * 46} ${-p.etch.grain[1] * 46}m${-p.etch.grain[0] * 8 - p.etch.grain[1] * 4} ${p.etch.grain[1] * 8 - p.etch.grain[0] * 4}l${p.etch.grain[0] * 8 + p.etch.grain[1] * 4} ${-p.etch.grain[1] * 8 + p.etch.grain[0] * 4}`}
          stroke="var(--ink2)"
          strokeWidth="1.4"
          fill="none"
        />
        <text
          x={grain[0] + (p.etch.grain[1] !== 0 ? 8 : 0)}
          y={grain[1] - (p.etch.grain[1] !== 0 ? 2 : 8)}
          fontSize="12"
          style={{ fill: 'var(--ink2)' }}
        >
          {p.mark} grain
        </text>
        {way && (
          <>
            <path
              d={way.lines.map(([a, b]) => `M${put(a)}L${put(b)}`).join('')}
              stroke="var(--ink)"
              strokeWidth="1.4"
              fill="none"
            />
            <text x={put(way.at)[0]} y={put(way.at)[1]} fontSize="12" fontWeight="700">
              {way.text}
            </text>
          </>
        )}
        <g stroke="var(--fluid)" strokeWidth="1.2" fill="none">
          <path d={`M${left} ${bottom + 8}v20M${right} ${bottom + 8}v20M${left} ${bottom + 22}H${right}`} />
          <path d={`M${left - 8} ${top}h-20M${left - 8} ${bottom}h-20M${left - 22} ${top}V${bottom}`} />
        </g>
        <text
          x={(left + right) / 2}
          y={bottom + 40}
          textAnchor="middle"
          fontSize="15"
          className="fig"
          data-size
          style={{ fill: 'var(--fluid)' }}
        >
          {formatLength(p.size[0], units, true)}
        </text>
        <text
          x={left - 30}
          y={(top + bottom) / 2}
          textAnchor="middle"
          fontSize="15"
          className="fig"
          data-size
          transform={`rotate(-90 ${left - 30} ${(top + bottom) / 2})`}
          style={{ fill: 'var(--fluid)' }}
        >
          {formatLength(p.size[1], units, true)}
        </text>
      </g>
    </svg>
  );
}
