import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { flatsFromAbove, pathOf } from './paths';
import { press } from './press';

/** A bracket's mark is not read under a bolt: it keeps so far off, px. */
const OFF_BOLT = 13;

/** Where a bracket's mark is drawn: on its middle, or beside it where a bolt is there: behind it, before it, then towards the middle of the vehicle. */
function besideBolts(p: FoldedPanel, put: (q: Vec2) => Vec2, bolts: readonly Vec2[]): Vec2 {
  const all = flatsFromAbove(p).flat();
  const [xs, ys] = [all.map(q => q[0]), all.map(q => q[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const middle = put([cx, cy]);
  const past = ([x, y]: Vec2): Vec2 => {
    const far = Math.hypot(x - middle[0], y - middle[1]) || 1;
    return [x + ((x - middle[0]) / far) * OFF_BOLT, y + ((y - middle[1]) / far) * OFF_BOLT];
  };
  const [inner, outer] = cy < 0 ? [y1, y0] : [y0, y1];
  const places = [
    put([p.centroid[0], p.centroid[1]]),
    past(put([x1, cy])),
    past(put([x0, cy])),
    past(put([cx, inner])),
    past(put([cx, outer])),
  ];
  const clear = (q: Vec2): number => Math.min(...bolts.map(b => Math.hypot(b[0] - q[0], b[1] - q[1])));
  return places.find(q => clear(q) >= OFF_BOLT) ?? (places[1] as Vec2);
}

/** A bracket between plate and vehicle: seen through the plate that hides it, as a drawing shows what is hidden. */
export function BracketMark({
  p,
  put,
  bolts,
  chosen,
  onPanel,
}: {
  p: FoldedPanel;
  put: (q: Vec2) => Vec2;
  /** where its bolts are drawn */
  bolts: readonly Vec2[];
  chosen: boolean;
  onPanel: ((id: string) => void) | undefined;
}) {
  const { id, mark, name } = p.panel;
  const [x, y] = besideBolts(p, put, bolts);
  const tone = chosen ? 'var(--fluid)' : 'var(--ink)';
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`Bracket ${mark}, ${name}`}
      onClick={() => onPanel?.(id)}
      onKeyDown={press(() => onPanel?.(id))}
    >
      {flatsFromAbove(p).map((flat, i) => (
        <path
          key={p.facets[i]?.id}
          d={pathOf([flat], put)}
          fill={chosen ? 'var(--fluid)' : 'var(--paper)'}
          fillOpacity="0.25"
          stroke={tone}
          strokeWidth={chosen ? 2 : 1.2}
          strokeDasharray="4 2.5"
        />
      ))}
      <text
        x={x}
        y={y}
        fontSize="11"
        fontWeight="700"
        textAnchor="middle"
        dominantBaseline="central"
        stroke="var(--paper)"
        strokeWidth="3.5"
        paintOrder="stroke"
        style={{ fill: tone }}
      >
        {mark}
      </text>
    </g>
  );
}
