import { contains, distanceToOutline, type Polygon, type Vec2 } from '../../geometry';
import { err, ok, type Result } from '../../units';
import type { Opening, PlanDocument } from '../plan';
import { panelWord } from '../select';
import { withPanel } from './change';

/** Least sheet left round an opening, mm: common practice, no source. */
export const OPENING_EDGE = 8;

const halfSize = (o: Pick<Opening, 'shape'>): number => {
  if ('circle' in o.shape) return o.shape.circle / 2;
  if ('rect' in o.shape) return Math.max(...o.shape.rect) / 2;
  return 0;
};

const corners = (o: Pick<Opening, 'at' | 'shape'>): readonly Vec2[] => {
  const [u, v] = o.at;
  if ('circle' in o.shape) {
    const r = o.shape.circle / 2;
    return [
      [u - r, v],
      [u + r, v],
      [u, v - r],
      [u, v + r],
    ];
  }
  if ('rect' in o.shape) {
    const [w, h] = o.shape.rect;
    return [
      [u - w / 2, v - h / 2],
      [u + w / 2, v - h / 2],
      [u + w / 2, v + h / 2],
      [u - w / 2, v + h / 2],
    ];
  }
  return o.shape.polygon.map(([a, b]): Vec2 => [a + u, b + v]);
};

/** Why an opening cannot be there: off its plate, or with too little sheet round it. Undefined when it can. */
export function openingFault(outline: Polygon, o: Pick<Opening, 'at' | 'shape'>): string | undefined {
  const pts = corners(o);
  if (pts.some(p => !contains(outline, p))) return 'the opening reaches past the edge of the plate';
  const round =
    'circle' in o.shape
      ? distanceToOutline(outline, o.at) - halfSize(o)
      : Math.min(...pts.map(p => distanceToOutline(outline, p)));
  return round < OPENING_EDGE ? 'too little sheet would be left beside the opening' : undefined;
}

/** Adds or replaces an opening, refused when it does not lie within the plate. */
export function openingSet(doc: PlanDocument, panel: string, o: Opening): Result<PlanDocument> {
  const p = doc.plan.panels.find(x => x.id === panel);
  if (!p) return err('there is no such plate');
  const fault = openingFault(p.base.outline, o);
  if (fault) return err(`${panelWord(p)}: ${fault}`);
  const openings = p.openings.some(x => x.id === o.id)
    ? p.openings.map(x => (x.id === o.id ? o : x))
    : [...p.openings, o];
  return ok(withPanel(doc, panel, x => ({ ...x, openings })));
}

export const openingRemoved = (doc: PlanDocument, panel: string, id: string): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, openings: p.openings.filter(o => o.id !== id) }));
