import { drillName, toolCode } from '../bolt';
import { type FoldedPanel, holeWidth } from '../fold';
import { stackedIn } from '../plan';
import { listed } from '../units';
import { holeWork } from './hole-work';
import type { Job } from './job';

/** Pilots of a plate that are opened on the bench. */
export interface Pilots {
  /** joint ids */
  readonly joints: readonly string[];
  /** by size: "j-9 and j-10 to 9 mm" */
  readonly sizes: readonly string[];
  readonly tools: readonly string[];
}

/**
 * The pilots that a plate comes with where the vehicle is drilled with the plates down: each is opened before its plate is raised for good.
 * `itself`: those through which this plate, which lies on the member, marks the vehicle; else those that another plate marks.
 */
export function pilotsOf({ joints, doc, units, fitted }: Job, p: FoldedPanel, itself: boolean): Pilots {
  const bySize = new Map<number, string[]>();
  for (const h of p.holes) {
    const j = joints.find(x => x.id === h.joint);
    if (h.kind !== 'pilot' || !j || !holeWork({ doc, units, ...(fitted ? { fitted } : {}) }, j).marked)
      continue;
    if ((stackedIn(j.joint).at(-1) === p.panel.id) !== itself) continue;
    const width = holeWidth(h.final);
    bySize.set(width, [...(bySize.get(width) ?? []), j.id]);
  }
  return {
    joints: [...bySize.values()].flat(),
    sizes: [...bySize].map(([width, ids]) => `${listed(ids)} to ${drillName(width, units)}`),
    tools: [...bySize.keys()].map(width => toolCode('drill', width)),
  };
}
