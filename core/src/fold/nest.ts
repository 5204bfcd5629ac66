import {
  boxOf,
  difference,
  grown,
  intersection,
  noFit,
  type Polygon,
  type Region,
  rectangle,
  regionOf,
  signedArea,
  simplified,
  toRadians,
  union,
  type Vec2,
} from '../geometry';
import type { MaterialId } from '../sheet';
import { roundTo } from '../units';
import type { FoldedPanel } from './folded-panel';
import { type FlatPattern, flatPattern, patternArea } from './pattern';

export interface NestWish {
  /** stock sheets to choose from, long side first, mm */
  readonly sheets: readonly (readonly [number, number])[];
  /** width of the cut, kept between blanks, mm */
  readonly kerf: number;
  /** kept clear along the sheet's edges, mm */
  readonly margin: number;
  /** blanks keep their grain along the sheet's long side */
  readonly keepGrain: boolean;
  /** where the grain is free, blanks are tried turned by multiples of this, degrees; 90 unless told */
  readonly step?: number;
}

/** How blanks are laid unless somebody says otherwise: cuts and margins as lasers commonly leave them, no source. */
export const NEST_DEFAULTS = { kerf: 2, margin: 10, keepGrain: true, step: 90 } as const;

export interface PlacedBlank {
  readonly panel: string;
  readonly mark: string;
  /** degrees the blank is turned by, counter-clockwise, and how far it is then shifted, mm */
  readonly turn: number;
  readonly shift: Vec2;
  /** as it lies on the sheet: outer contour counter-clockwise, holes clockwise */
  readonly outlines: readonly Polygon[];
}

export interface NestedSheet {
  readonly material: MaterialId;
  readonly thickness: number;
  readonly size: readonly [number, number];
  readonly blanks: readonly PlacedBlank[];
  /** share of the sheet that becomes plates */
  readonly yield: number;
  /** the largest upright rectangle left over: corner and size, mm */
  readonly left?: { readonly at: Vec2; readonly size: readonly [number, number] };
}

export interface Nest {
  readonly sheets: readonly NestedSheet[];
  /** blanks that no stock sheet holds */
  readonly tooLarge: readonly string[];
}

/** A point of a blank where it lies on its sheet. */
export const onSheet = ({ turn, shift }: Pick<PlacedBlank, 'turn' | 'shift'>, [x, y]: Vec2): Vec2 => {
  const a = toRadians(turn);
  const [c, s] = [Math.round(Math.cos(a) * 1e12) / 1e12, Math.round(Math.sin(a) * 1e12) / 1e12];
  return [x * c - y * s + shift[0], x * s + y * c + shift[1]];
};

/** Slots narrower than twice this are closed and corners this small left out before blanks are laid together, mm. */
const CLOSE = 6;
const ROUGH = 0.25;
/** Sheets are this much larger than they say where a blank just fits, mm: below what a shop squares them to. */
const SLACK = 0.02;

/** A blank turned one way, with the simple outline round it that keeps it apart from the others. */
interface Turned {
  readonly turn: number;
  readonly round: Polygon;
  /** the same, grown by the cut */
  readonly apart: Polygon;
  readonly box: { readonly min: Vec2; readonly max: Vec2 };
}
interface Item {
  readonly pattern: FlatPattern;
  readonly area: number;
  readonly ways: readonly Turned[];
}
interface Laid {
  readonly item: Item;
  readonly way: Turned;
  readonly shift: Vec2;
}

const largest = (r: Region): Polygon =>
  [...r].sort((a, b) => Math.abs(signedArea(b)) - Math.abs(signedArea(a)))[0] ?? [];

function itemOf(p: FoldedPanel, wish: NestWish): Item {
  const pattern = flatPattern(p);
  const turns = wish.keepGrain
    ? // the grain lies along the sheet, and the sheet has no up or down
      [0, 180].map(t => t - (pattern.etch.grain[1] !== 0 ? 90 : 0))
    : Array.from(
        { length: Math.max(1, Math.floor(360 / (wish.step ?? 90))) },
        (_, i) => i * (wish.step ?? 90),
      );
  const outer = largest(pattern.outline.filter(o => signedArea(o) > 0));
  // a simple outline that holds the blank: never inside it
  const round = largest(simplified(grown(grown([outer], CLOSE), ROUGH - CLOSE), ROUGH));
  const ways = turns.map((turn): Turned => {
    const put = (q: Vec2): Vec2 => onSheet({ turn, shift: [0, 0] }, q);
    const turned = round.map(put);
    const apart = largest(simplified(grown([turned], Math.max(wish.kerf, 1e-3)), 0.05));
    return { turn, round: turned, apart, box: boxOf(outer.map(put)) };
  });
  return { pattern, area: patternArea(pattern), ways };
}

type NoFit = (a: Turned, b: Turned) => Region;
/** No-fit outlines are found once for each pair of turned blanks. */
const remembered = (): NoFit => {
  const known = new Map<Turned, Map<Turned, Region>>();
  return (a, b) => {
    const mine = known.get(a) ?? new Map<Turned, Region>();
    known.set(a, mine);
    const hit = mine.get(b) ?? noFit(a.apart, b.round);
    mine.set(b, hit);
    return hit;
  };
};

/** The place on a sheet for one more blank that leaves the longest strip behind it free; undefined when there is none. */
function placed(
  item: Item,
  there: readonly Laid[],
  size: readonly [number, number],
  margin: number,
  apart: NoFit,
): Laid | undefined {
  let best: { readonly laid: Laid; readonly score: readonly [number, number, number] } | undefined;
  for (const way of item.ways) {
    const { min, max } = way.box;
    const room = rectangle(
      margin - min[0] - SLACK,
      margin - min[1] - SLACK,
      size[0] - margin - max[0] + SLACK,
      size[1] - margin - max[1] + SLACK,
    );
    if ((room[0] as Vec2)[0] > (room[2] as Vec2)[0] || (room[0] as Vec2)[1] > (room[2] as Vec2)[1]) continue;
    const taken = there.flatMap(l =>
      apart(l.way, way).map(o => o.map(([x, y]): Vec2 => [x + l.shift[0], y + l.shift[1]])),
    );
    const free = taken.length > 0 ? difference(regionOf(room), union(taken)) : regionOf(room);
    for (const ring of free)
      for (const shift of ring) {
        const score = [shift[0] + max[0], shift[1] + max[1], shift[0] + min[0]] as const;
        const less = best?.score.map((s, i) => (score[i] as number) - s).find(d => Math.abs(d) > 1e-3);
        if (!best || (less ?? 0) < 0) best = { laid: { item, way, shift }, score };
      }
  }
  return best?.laid;
}

/** Fills sheets of one size in the order given; undefined when a blank does not fit on an empty one. */
function filled(
  items: readonly Item[],
  size: readonly [number, number],
  margin: number,
  apart: NoFit,
): Laid[][] | undefined {
  const sheets: Laid[][] = [];
  for (const item of items) {
    let laid: Laid | undefined;
    for (const sheet of sheets) {
      laid = placed(item, sheet, size, margin, apart);
      if (laid) {
        sheet.push(laid);
        break;
      }
    }
    if (laid) continue;
    const first = placed(item, [], size, margin, apart);
    if (!first) return undefined;
    sheets.push([first]);
  }
  return sheets;
}

/** The largest upright rectangle that holds no metal of the blanks, between columns at their corners. */
function leftOver(
  laid: readonly Laid[],
  size: readonly [number, number],
  wish: NestWish,
): NestedSheet['left'] {
  const [x0, y0, x1, y1] = [wish.margin, wish.margin, size[0] - wish.margin, size[1] - wish.margin];
  const shapes = laid.map(({ way, shift }) => way.apart.map(([x, y]): Vec2 => [x + shift[0], y + shift[1]]));
  const xs = [...new Set([x0, x1, ...shapes.flat().map(q => q[0])])]
    .filter(x => x >= x0 && x <= x1)
    .sort((a, b) => a - b)
    .filter((x, i, all) => i === 0 || x - (all[i - 1] as number) > 1);
  // what each column between two corners has taken, from and to
  const taken = xs.slice(1).map((to, i) => {
    const column = regionOf(rectangle(xs[i] as number, y0 - 1, to, y1 + 1));
    return shapes.flatMap(s =>
      intersection(regionOf(s), column).map(part => {
        const { min, max } = boxOf(part);
        return [min[1], max[1]] as const;
      }),
    );
  });
  let best: { at: Vec2; size: [number, number] } | undefined;
  for (let i = 0; i < taken.length; i++) {
    let used: (readonly [number, number])[] = [];
    for (let j = i; j < taken.length; j++) {
      used = [...used, ...(taken[j] ?? [])].sort((a, b) => a[0] - b[0]);
      const width = (xs[j + 1] as number) - (xs[i] as number);
      let from = y0;
      for (const [a, b] of [...used, [y1, y1] as const]) {
        const height = Math.min(a, y1) - from;
        if (height > 0 && width * height > (best ? best.size[0] * best.size[1] : 0))
          best = { at: [xs[i] as number, from], size: [width, height] };
        from = Math.max(from, b);
      }
    }
  }
  return best;
}

function sheetOfLaid(
  laid: readonly Laid[],
  size: readonly [number, number],
  wish: NestWish,
  of: Pick<NestedSheet, 'material' | 'thickness'>,
): NestedSheet {
  return {
    ...of,
    size,
    blanks: laid.map(({ item, way, shift }): PlacedBlank => {
      const place = { turn: way.turn, shift };
      return {
        panel: item.pattern.panel,
        mark: item.pattern.mark,
        ...place,
        outlines: item.pattern.outline.map(o => o.map(q => onSheet(place, q))),
      };
    }),
    yield: laid.reduce((s, l) => s + l.item.area, 0) / (size[0] * size[1]),
    left: leftOver(laid, size, wish),
  };
}

/** Orders in which blanks are laid: the big ones first, then the long ones, then the wide ones. */
const ORDERS: readonly ((i: Item) => number)[] = [
  i => i.area,
  i => Math.max(...i.pattern.size),
  i => Math.min(...i.pattern.size),
];

/**
 * Nests the blanks of a build on stock sheets by their true shapes, one kind of sheet at a time. Every blank is laid where
 * its corner touches the others' no-fit outlines and the strip behind it stays longest; of the sizes and orders tried the
 * one that takes the least sheet, and then leaves the largest rectangle, is kept. Not proven to be the best there is.
 */
export function nest(panels: readonly FoldedPanel[], wish: NestWish): Nest {
  const kinds = new Map<string, FoldedPanel[]>();
  for (const p of panels) {
    // 3/16 in is 4.7625 mm, and 4.763 as it is often written: one sheet
    const key = `${p.sheet.material} ${roundTo(p.sheet.thickness, 2)}`;
    kinds.set(key, [...(kinds.get(key) ?? []), p]);
  }
  const tooLarge: string[] = [];
  const apart = remembered();
  const sizes = [...wish.sheets].sort((a, b) => a[0] * a[1] - b[0] * b[1]);
  const sheets = [...kinds.values()].flatMap(kind => {
    const [first] = kind as [FoldedPanel];
    const of = { material: first.sheet.material, thickness: first.sheet.thickness };
    const items = kind.map(p => itemOf(p, wish));
    const fits = items.filter(i => {
      const ok = sizes.some(size => placed(i, [], size, wish.margin, apart));
      if (!ok) tooLarge.push(i.pattern.panel);
      return ok;
    });
    const ways = sizes.flatMap((size, at) =>
      ORDERS.flatMap(order => {
        const sorted = [...fits].sort((a, b) => order(b) - order(a));
        // what a size does not hold goes on the next larger one that does
        const here = sorted.filter(i => placed(i, [], size, wish.margin, apart));
        const rest = sorted.filter(i => !here.includes(i));
        const larger =
          rest.length > 0
            ? sizes.slice(at + 1).find(s => rest.every(i => placed(i, [], s, wish.margin, apart)))
            : size;
        const a = filled(here, size, wish.margin, apart);
        const b = rest.length === 0 ? [] : larger && filled(rest, larger, wish.margin, apart);
        if (!a || !b || !larger) return [];
        const all = [...a.map(l => [l, size] as const), ...b.map(l => [l, larger] as const)];
        return [
          all.map(([laid, on]) => {
            // a smaller sheet will do where all of one lies on it
            for (const s of sizes) {
              if (s[0] * s[1] >= on[0] * on[1]) break;
              const one = filled(
                laid.map(l => l.item),
                s,
                wish.margin,
                apart,
              );
              if (one?.length === 1) return sheetOfLaid(one[0] ?? [], s, wish, of);
            }
            return sheetOfLaid(laid, on, wish, of);
          }),
        ];
      }),
    );
    const area = (way: readonly NestedSheet[]): number => way.reduce((s, x) => s + x.size[0] * x.size[1], 0);
    const rest = (way: readonly NestedSheet[]): number =>
      Math.max(0, ...way.map(s => (s.left ? s.left.size[0] * s.left.size[1] : 0)));
    return ways.sort((a, b) => area(a) - area(b) || rest(b) - rest(a))[0] ?? [];
  });
  return { sheets, tooLarge };
}
