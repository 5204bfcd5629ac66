import { describe, expect, it } from 'vitest';
import type { BoltClass, Head, NutKind, WasherKind } from '../plan';
import handbook from './handbook.json';
import {
  headSize,
  nutSize,
  REUSED_PRELOAD,
  STRENGTH,
  stockLength,
  THREADS,
  threadNamed,
  torqueFor,
  washerSize,
} from './index';

/** The coarse thread of a size. */
const coarse = (size: string) => {
  const t = THREADS.find(x => x.size === size);
  if (!t) throw new Error(`no thread of size ${size}`);
  return t;
};
const thread = (name: string) => {
  const t = threadNamed(name);
  if (!t.ok) throw new Error(t.fault);
  return t.value;
};
/** Figure in a tool's name, in mm: `socket 9/16 in`, `wrench 13 mm`, `hex key 7/32 in`. */
const sizeOf = (tool: string): number => {
  const m = tool.match(/([\d./ ]+) (mm|in)$/);
  const parts = (m?.[1] ?? '')
    .trim()
    .split(' ')
    .map(p => p.split('/').map(Number))
    .map(([a = 0, b = 1]) => a / b);
  return parts.reduce((s, x) => s + x, 0) * (m?.[2] === 'in' ? 25.4 : 1);
};

/** Each row of core/src/bolt/handbook.json names its published source. */
describe('the catalog against the handbook', () => {
  it.each(handbook.heads)('head $head $size ($source)', row => {
    const h = headSize(row.head as Head, coarse(row.size));
    if (row.flats !== undefined) expect(h.flats).toBeCloseTo(row.flats, 1);
    if (row.flats !== undefined) expect(sizeOf(h.tool)).toBeCloseTo(row.flats, 1);
    if (row.bearing !== undefined) expect(h.bearing).toBeCloseTo(row.bearing, 1);
    if (row.height !== undefined) expect(h.height).toBeCloseTo(row.height, 1);
    if (row.key !== undefined) expect(sizeOf(h.tool)).toBeCloseTo(row.key, 1);
  });
  it.each(handbook.nuts)('nut $nut $size ($source)', row => {
    const n = nutSize(row.nut as Exclude<NutKind, 'none'>, coarse(row.size));
    if (row.height !== undefined) expect(n.height).toBeCloseTo(row.height, 1);
    if (row.flats !== undefined) expect(sizeOf(n.flats)).toBeCloseTo(row.flats, 1);
  });
  it.each(handbook.washers)('washer $washer $size ($source)', row => {
    const w = washerSize(row.washer as WasherKind, coarse(row.size));
    expect(w.outer).toBeCloseTo(row.outer, 1);
    expect(w.thickness).toBeCloseTo(row.thickness, 1);
  });
  it.each(handbook.threads)('thread $thread ($source)', row => {
    const t = thread(row.thread);
    expect(Math.abs(t.stressArea - row.area)).toBeLessThan(0.005 * row.area);
    if (row.tap !== undefined) expect(t.tapDrill).toBeCloseTo(row.tap, 1);
    if (row.clearance !== undefined) expect(t.clearance).toBe(row.clearance);
  });
  it.each(handbook.holes)('clearance hole $size ($source)', row => {
    expect(coarse(row.size).clearance).toBeCloseTo(row.clearance, 2);
  });
  it.each(handbook.proof)('proof load $size class $class ($source)', row => {
    const proof = STRENGTH[row.class as BoltClass].proof * coarse(row.size).stressArea;
    expect(Math.abs(proof - row.proofN)).toBeLessThan(0.006 * row.proofN);
  });
  it.each(handbook.worked)('worked torque $id', row => {
    const preload = row.fraction * row.proof * row.area;
    expect(preload).toBeCloseTo(row.preloadN, -1);
    expect(torqueFor(row.k, row.d, preload)).toBeCloseTo(row.torqueNm, 1);
  });
  it.each(handbook.charts)('torque chart $size class $class, dry ($source)', row => {
    const t = coarse(row.size);
    const ours = torqueFor(0.2, t.d, REUSED_PRELOAD * STRENGTH[row.class as BoltClass].proof * t.stressArea);
    expect(Math.abs(ours - row.torqueNm)).toBeLessThan(row.within * row.torqueNm);
  });
  it.each(handbook.lengths)('worked length $id', row => {
    const t = thread(row.thread);
    const needed = row.grip + row.nut + row.pitches * t.pitch;
    expect(needed).toBeCloseTo(row.needed, 1);
    expect(stockLength(needed, t)).toBeCloseTo(row.stock, 2);
  });
});
