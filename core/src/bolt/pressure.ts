import type { FoldedPanel } from '../fold';
import { disc } from './clamp';
import { washerSize } from './elements';
import type { ResolvedJoint } from './joint';

/** What presses on a sheet when its joint is tight, and how hard. */
export interface Pressed {
  readonly by: 'head' | 'washer' | 'spacer' | 'nut';
  readonly panel: string;
  /** mean pressure over the ring round the hole, MPa */
  readonly mpa: number;
  /** what the sheet takes before it creeps or yields, MPa */
  readonly limit: number;
}

/** A washer carries so many of its thickness further out than what presses on it (VDI 2230: dw + 1.6 hs; from memory). */
const SPREAD = 1.6;
/** Plastic creeps under half of its yield already: common practice, no source. */
const CREEP = 0.5;

/** The diameter over which a head or nut of `bearing` mm presses through a washer, mm. */
const through = (
  bearing: number,
  washer: { readonly diameter: number; readonly thickness: number },
): number => Math.min(washer.diameter, bearing + SPREAD * washer.thickness);

/**
 * Pressure on the faces of a joint’s outermost and innermost sheet: under head or washer, spacer, and the nut where that lies on sheet. Mean
 * over the ring, from the clamp of the torque; against yield, in plastic half of it. `bearing` under stiff washers on plastic is all of them.
 */
export function pressures(j: ResolvedJoint, panels: readonly FoldedPanel[]): readonly Pressed[] {
  const { layers } = j;
  const plates = layers.flatMap((l, i) => (l.kind === 'plate' ? [i] : []));
  return plates.flatMap(i =>
    [i - 1, i + 1].flatMap((k): readonly Pressed[] => {
      const p = panels.find(x => x.panel.id === layers[i]?.ref);
      const next = layers[k];
      if (!p || !next || (next.kind === 'nut' && j.nut?.diameter === 0)) return [];
      const plastic = p.material.family === 'plastic';
      let outer: number;
      if (next.kind === 'washer') {
        const over = layers[k + Math.sign(k - i)];
        outer = plastic || !over?.diameter ? next.diameter : through(over.diameter, next);
      } else if (next.kind === 'head' || next.kind === 'nut' || next.kind === 'spacer') outer = next.diameter;
      else return [];
      const area = disc(outer) - disc(j.thread.clearance);
      return [
        {
          by: next.kind,
          panel: p.panel.id,
          mpa: area > 0 ? j.preloadN / area : Number.POSITIVE_INFINITY,
          limit: (plastic ? CREEP : 1) * p.material.yield,
        },
      ];
    }),
  );
}

/** The smallest washer that keeps a head within what a sheet takes; undefined where none does, or none is needed. */
export function washerFor(j: ResolvedJoint, p: FoldedPanel): 'flat' | 'fender' | undefined {
  return (['flat', 'fender'] as const).find(kind => {
    const w = washerSize(kind, j.thread);
    // a washer that the head's own flange covers spreads nothing
    if (w.outer <= j.head.bearing) return false;
    const outer =
      p.material.family === 'plastic'
        ? w.outer
        : through(j.head.bearing, { diameter: w.outer, thickness: w.thickness });
    return j.preloadN / (disc(outer) - disc(j.thread.clearance)) <= p.material.yield;
  });
}
