/// <reference path="./maxrects.d.ts" />
import { MaxRectsPacker, Rectangle } from 'maxrects-packer/dist/maxrects-packer.mjs';
import { boxOf, type Polygon, type Vec2 } from '../geometry';
import type { MaterialId } from '../sheet';
import type { FoldedPanel } from './fold';
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
}

export interface PlacedBlank {
  readonly panel: string;
  readonly mark: string;
  /** corner nearest to the sheet's origin, mm */
  readonly at: Vec2;
  /** turned a quarter */
  readonly turned: boolean;
  /** as it lies on the sheet */
  readonly outlines: readonly Polygon[];
  readonly size: readonly [number, number];
}

export interface NestedSheet {
  readonly material: MaterialId;
  readonly thickness: number;
  readonly size: readonly [number, number];
  readonly blanks: readonly PlacedBlank[];
  /** share of the sheet that becomes plates */
  readonly yield: number;
  /** the largest rectangle left over: corner and size, mm */
  readonly left?: { readonly at: Vec2; readonly size: readonly [number, number] };
}

export interface Nest {
  readonly sheets: readonly NestedSheet[];
  /** blanks that no stock sheet holds */
  readonly tooLarge: readonly string[];
}

interface Item {
  readonly pattern: FlatPattern;
  /** quarter turn that lays the grain along the sheet */
  readonly turned: boolean;
}

/** A pattern's rings laid on the sheet with their box's corner at `at`. */
function laid(p: FlatPattern, turned: boolean, at: Vec2): readonly Polygon[] {
  const turn = ([x, y]: Vec2): Vec2 => (turned ? [y, -x] : [x, y]);
  const rings = p.outline.map(o => o.map(turn));
  const { min } = boxOf(rings.flat());
  return rings.map(o => o.map(([x, y]): Vec2 => [x - min[0] + at[0], y - min[1] + at[1]]));
}

/** Packs blanks of one sheet kind onto stock of one size; undefined when one of them does not fit on it. */
function packed(
  items: readonly Item[],
  size: readonly [number, number],
  wish: NestWish,
  of: Pick<NestedSheet, 'material' | 'thickness'>,
): readonly NestedSheet[] | undefined {
  // the packer wants whole numbers kept apart by whole ones: a tenth of a millimetre is fine enough
  const scale = 10;
  const up = (mm: number): number => Math.ceil(mm * scale - 1e-6);
  const packer = new MaxRectsPacker(size[0] * scale, size[1] * scale, up(wish.kerf), {
    smart: false,
    pot: false,
    square: false,
    allowRotation: !wish.keepGrain,
    border: up(wish.margin),
  });
  const rects = items.map(item => {
    const [w, h] = item.turned ? [item.pattern.size[1], item.pattern.size[0]] : item.pattern.size;
    const r = new Rectangle(up(w), up(h));
    r.data = item;
    return r;
  });
  const room = (r: Rectangle): boolean => {
    const [w, h] = [size[0] * scale - 2 * up(wish.margin), size[1] * scale - 2 * up(wish.margin)];
    return (r.width <= w && r.height <= h) || (!wish.keepGrain && r.height <= w && r.width <= h);
  };
  if (!rects.every(room)) return undefined;
  packer.addArray(rects);
  return packer.bins.map((bin): NestedSheet => {
    const blanks = bin.rects.map((r): PlacedBlank => {
      const item = r.data as Item;
      const turned = r.rot ? !item.turned : item.turned;
      const at: Vec2 = [r.x / scale, r.y / scale];
      return {
        panel: item.pattern.panel,
        mark: item.pattern.mark,
        at,
        turned,
        outlines: laid(item.pattern, turned, at),
        size: [r.width / scale, r.height / scale],
      };
    });
    const used = bin.rects.reduce((s, r) => s + patternArea((r.data as Item).pattern), 0);
    const largest = [...(bin.freeRects ?? [])].sort((a, b) => b.width * b.height - a.width * a.height)[0];
    return {
      ...of,
      size,
      blanks,
      yield: used / (size[0] * size[1]),
      left: largest && {
        at: [largest.x / scale, largest.y / scale],
        size: [largest.width / scale, largest.height / scale],
      },
    };
  });
}

/**
 * Nests the blanks of a build on stock sheets, one kind of sheet at a time, by their rectangles (maximal rectangles);
 * of the stock sizes the one that uses the least sheet is taken.
 */
export function nest(panels: readonly FoldedPanel[], wish: NestWish): Nest {
  const kinds = new Map<string, FoldedPanel[]>();
  for (const p of panels) {
    const key = `${p.sheet.material} ${p.sheet.thickness}`;
    kinds.set(key, [...(kinds.get(key) ?? []), p]);
  }
  const tooLarge: string[] = [];
  const sheets = [...kinds.values()].flatMap(kind => {
    const [first] = kind as [FoldedPanel];
    const of = { material: first.sheet.material, thickness: first.sheet.thickness };
    const items = kind.map((p): Item => {
      const pattern = flatPattern(p);
      return { pattern, turned: pattern.etch.grain[1] !== 0 };
    });
    const fits = items.filter(i => {
      const ok = wish.sheets.some(size => packed([i], size, wish, of) !== undefined);
      if (!ok) tooLarge.push(i.pattern.panel);
      return ok;
    });
    if (fits.length === 0) return [];
    const ways = wish.sheets.flatMap(size => {
      const way = packed(fits, size, wish, of);
      return way ? [way] : [];
    });
    const area = (way: readonly NestedSheet[]): number => way.reduce((s, x) => s + x.size[0] * x.size[1], 0);
    return (
      ways.sort((a, b) => area(a) - area(b))[0] ??
      fits.flatMap(i => wish.sheets.flatMap(s => packed([i], s, wish, of) ?? []).slice(0, 1))
    );
  });
  return { sheets, tooLarge };
}
