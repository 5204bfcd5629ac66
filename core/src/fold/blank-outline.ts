import { difference, type Region, union } from '../geometry';
import type { FoldedPanel } from './folded-panel';

const outlines = new WeakMap<object, Region>();
/** The cut edge of a blank, reliefs in it, without openings and holes. */
export function blankOutline({ blank: { pieces, reliefs } }: Pick<FoldedPanel, 'blank'>): Region {
  const hit = outlines.get(pieces);
  if (hit) return hit;
  const whole = union(pieces.map(p => p.outline));
  const made = reliefs.length > 0 ? difference(whole, union(reliefs.flatMap(r => r.outlines))) : whole;
  outlines.set(pieces, made);
  return made;
}
