import type { Words } from '../checks';
import { longestSpan, SIDE, SIDE_HEIGHT } from '../cover';
import { baseFrame, boxOf, heightAt, underGround } from '../geometry';
import type { Flange, Panel } from '../plan';
import type { PresentRig } from '../rig';
import { MATERIALS, minimumRadius } from '../sheet';
import type { Lane } from './lanes';
import { OVERLAP, type Wish } from './wish';

/** Room between a side that is turned up and what stands beside it, mm. */
const BESIDE = 4;
/** A neighbor's edge nearer than this crowds a side that leans outward, mm. */
const NEIGHBOR = 40;
/** A side begins so far behind a bend or a lap, mm. */
const CLEAR = 12;

export interface Stiffened {
  readonly flanges: readonly Flange[];
  readonly reasons: readonly string[];
  /** the span still bears less than it is long, mm */
  readonly short?: { readonly spanMm: number; readonly bearsMm: number };
}

/**
 * Turned-up sides where the span is too long for the flat sheet and nothing stands in their way; `longest` is the brake's
 * longest bend, mm; beside `others` they stand square, so that they do not lean into one another.
 */
export function stiffened(
  rig: PresentRig,
  wish: Wish,
  lane: Lane,
  shape: Pick<Panel, 'base' | 'flanges'>,
  lip: readonly [number, number],
  longest: number,
  others: readonly Lane[],
  words: Words,
): Stiffened {
  const span = lane.rear.x - lane.front.x;
  const width = lane.y[1] - lane.y[0];
  const flat = longestSpan(wish.sheet, rig.rig, width, []);
  if (span <= flat) return { flanges: shape.flanges, reasons: [] };
  if (minimumRadius(MATERIALS[wish.sheet.material], wish.sheet.thickness) === undefined)
    return { flanges: shape.flanges, reasons: [], short: { spanMm: span, bearsMm: flat } };
  const frame = baseFrame(shape.base.origin, shape.base.pitch, 0);
  const off = (k: 0 | 1): number => Math.max(lip[k], OVERLAP / 2) + CLEAR;
  const [x0, x1] = [lane.front.x + off(0), lane.rear.x - off(1)];
  const us = shape.base.outline.map(p => p[0]);
  const uAt = (x: number): number => underGround(frame, x, 0)[0];
  const whole = Math.max(...us) - Math.min(...us);
  const ends: [number, number] = [
    Math.max(CLEAR, uAt(x0) - Math.min(...us)),
    Math.max(CLEAR, Math.max(...us) - uAt(x1)),
  ];
  // no longer than the brake is, or can force
  const over = Math.max(0, whole - ends[0] - ends[1] - longest);
  const [insetFront, insetRear] = [Math.ceil(ends[0] + over / 2), Math.ceil(ends[1] + over / 2)];
  const free = (y: number, out: number): boolean =>
    [...rig.components, ...rig.members.map(m => ({ ...m, keepOut: 0 }))].every(c => {
      const b = boxOf(c.footprint);
      const [lo, hi] = [Math.min(y, y + out), Math.max(y, y + out)];
      const beside = b.min[0] < x1 && b.max[0] > x0 && b.min[1] < hi + BESIDE && b.max[1] > lo - BESIDE;
      const top =
        Math.max(heightAt(frame, x0, 0), heightAt(frame, x1, 0)) + SIDE.length + wish.sheet.thickness;
      return !beside || c.zBottom - c.keepOut > top;
    });
  const crowded = (y: number): boolean =>
    others.some(
      o =>
        o !== lane &&
        o.front.x < lane.rear.x &&
        o.rear.x > lane.front.x &&
        o.y.some(edge => Math.abs(edge - y) < NEIGHBOR),
    );
  const room = whole - insetFront - insetRear;
  const sides = (
    [
      [0, lane.y[0], -CLEAR, [insetFront, insetRear]],
      [2, lane.y[1], CLEAR, [insetRear, insetFront]],
    ] as const
  ).filter(([, y, out]) => room > 80 && free(y, out));
  const bears = longestSpan(
    wish.sheet,
    rig.rig,
    width,
    sides.map(() => SIDE_HEIGHT),
  );
  const flanges = sides.map(
    ([edge, , , inset], i): Flange => ({
      id: `side-${i + 1}`,
      edge,
      length: SIDE.length,
      angle: crowded(edge === 0 ? lane.y[0] : lane.y[1]) ? 90 : SIDE.angle,
      inset,
    }),
  );
  const which = sides.length === 2 ? 'Both sides are' : 'One side is';
  return {
    flanges: [...shape.flanges, ...flanges],
    reasons:
      sides.length > 0
        ? [
            `${which} turned up: the span of ${words.tape(span)} is over the ${words.tape(flat)} limit for flat sheet.`,
          ]
        : [],
    ...(span > bears ? { short: { spanMm: span, bearsMm: bears } } : {}),
  };
}
