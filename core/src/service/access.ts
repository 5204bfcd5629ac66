import type { ResolvedJoint } from '../bolt';
import { fromBelow, keptShadow, undersideAt } from '../cover';
import { clearDiameter, type FoldedPanel, openingCenter } from '../fold';
import { distance2, distanceToOutline, grown, inRegion, toSpace, type Vec2 } from '../geometry';
import type { Opening, PlanDocument } from '../plan';
import { carrierOf, isBracket, tiesWing, wingsOf } from '../plan';
import type { ServicePoint } from '../rig';
import { isHeavy, laps, lifted, UNDER } from '../sequence';

/** How a service point is got at. */
export interface ServiceAccess {
  readonly point: ServicePoint;
  readonly through: 'opening' | 'drop';
  /** the opening that serves, where a plate lies below the point at all */
  readonly openingId?: string;
  /** plates that come down, in the order in which they do */
  readonly drop: readonly string[];
  /** bolts that are only loosened, so that a plate slides out from above its neighbor */
  readonly loosen: readonly string[];
  /** bolts that come out */
  readonly remove: readonly string[];
  /** getting there and closing up again, without the work itself: a guess */
  readonly minutes: number;
}

/** How far off the middle of an opening hand and tool still get at a point, mm: a guess. */
export const OFF_LINE = 30;
/** Round openings are drawn with corners and so a little too narrow, mm. */
const ROUNDING = 0.2;
/** Bolts of an outer plate this near to the plate above it are loosened to let that one out, mm: a guess. */
export const NEAR_SEAM = 250;
/** A plate that keeps fewer bolts than this does not hang safely: common practice, no source. */
export const LEAST_BOLTS = 2;

/** Minutes: guesses, all of them. */
export const MINUTES = { opening: 0.5, loosen: 1.2, remove: 2.5, plate: 6, heavyAlone: 4 } as const;

/** What the plates and bolts of a plan are, for finding out what must come down. */
export interface Hung {
  readonly doc: PlanDocument;
  readonly panels: readonly FoldedPanel[];
  readonly joints: readonly ResolvedJoint[];
}

/** The plates that lie below a point and leave no room for a round thing of its opening's size in line with it. */
export function blockedBy(point: ServicePoint, panels: readonly FoldedPanel[]): readonly FoldedPanel[] {
  const [x, y, z] = point.at;
  return panels.filter(p => {
    const { solid } = keptShadow(p, `under ${z}`, fromBelow, z);
    if (solid.length === 0) return false;
    // where the middle of that round thing cannot be, less what a hand reaches aside
    const barred = grown(grown(solid, point.opening / 2 - ROUNDING), -OFF_LINE);
    return inRegion(barred, [x, y]);
  });
}

/** The opening that a point is served through, in the lowest plate below it; undefined where nothing lies below. */
function servedBy(point: ServicePoint, panels: readonly FoldedPanel[]): string | undefined {
  const at: Vec2 = [point.at[0], point.at[1]];
  const found = panels.flatMap(p => {
    const base = p.facets[0];
    if (!base) return [];
    return p.panel.openings.flatMap((o: Opening) => {
      const center = toSpace(base.frame, openingCenter(o));
      const off = distance2(at, [center[0], center[1]]);
      const meant = o.serves === point.id;
      if (center[2] > point.at[2] || o.kind === 'louvers') return [];
      if (!meant && off > clearDiameter(o) / 2 + OFF_LINE) return [];
      return [{ id: o.id, rank: meant ? 0 : off, z: center[2] }];
    });
  });
  return found.sort((a, b) => a.rank - b.rank || a.z - b.z)[0]?.id;
}

/** What it takes to bring a set of plates down; undefined where it cannot be done without others. */
export function costOf(
  set: ReadonlySet<string>,
  { doc, panels, joints }: Hung,
): { readonly remove: readonly string[]; readonly loosen: readonly string[] } | undefined {
  const pairs = laps(doc);
  const wings = wingsOf(doc.plan);
  const middle = new Map(panels.map(p => [p.panel.id, p.centroid[0]]));
  // wings come down on the plate that carries them
  const remove = joints.filter(j => j.joint.panels.some(p => set.has(p)) && !tiesWing(doc.plan, j.joint));
  const gone = new Set(remove.map(j => j.id));
  for (const p of panels) {
    // a bracket stays where it is bolted, whatever hung on it
    if (set.has(p.panel.id) || isBracket(p.panel) || wings.has(p.panel.id)) continue;
    const mine = joints.filter(j => j.joint.panels.includes(p.panel.id));
    if (mine.some(j => gone.has(j.id)) && mine.filter(j => !gone.has(j.id)).length < LEAST_BOLTS)
      return undefined;
  }
  const loosen = new Set<string>();
  for (const id of set) {
    const outer = [...new Set(pairs.filter(([inner]) => inner === id).map(([, o]) => o))].filter(
      o => !set.has(o),
    );
    const sides = new Set(outer.map(o => (middle.get(o) as number) < (middle.get(id) as number)));
    // it slides out from above its neighbors only where they all lie at the same end of it
    if (sides.size > 1) return undefined;
    const own = panels.find(p => p.panel.id === id);
    if (!own) continue;
    const { solid } = keptShadow(own, 'below', fromBelow);
    for (const o of outer)
      for (const j of joints) {
        if (!j.joint.panels.includes(o) || gone.has(j.id)) continue;
        const at: Vec2 = [j.at[0], j.at[1]];
        const far = inRegion(solid, at) ? 0 : Math.min(...solid.map(r => distanceToOutline(r, at)));
        if (far <= NEAR_SEAM) loosen.add(j.id);
      }
  }
  return { remove: remove.map(j => j.id), loosen: [...loosen] };
}

/** Plates of a set in the order in which they come down: what laps over the outside first, then from the rear. */
export function dropOrder(set: ReadonlySet<string>, { doc, panels }: Hung): readonly string[] {
  const pairs = laps(doc);
  const left = panels.filter(p => set.has(p.panel.id)).sort((a, b) => b.centroid[0] - a.centroid[0]);
  const out: string[] = [];
  while (left.length > 0) {
    const next = left.findIndex(
      p => !pairs.some(([inner, outer]) => inner === p.panel.id && left.some(q => q.panel.id === outer)),
    );
    const [p] = left.splice(Math.max(0, next), 1);
    if (p) out.push(p.panel.id);
  }
  return out;
}

/**
 * The way to a service point: an opening big enough in line with it, or the plates that come down for it with the fewest bolts turned,
 * all sets of plates looked through. `also`: points that are reached in the same job. Minutes are guesses. Common practice, no source.
 */
export function serviceAccess(
  point: ServicePoint,
  hung: Hung,
  also: readonly ServicePoint[] = [],
): ServiceAccess {
  const { doc } = hung;
  const all = hung.panels.filter(p => !isBracket(p.panel));
  const panels = all.filter(p => !wingsOf(doc.plan).has(p.panel.id));
  const { lift, people } = doc.plan.method;
  const below = all.filter(p => {
    const z = undersideAt(p, point.at[0], point.at[1]);
    return z !== undefined && z < point.at[2];
  });
  const blocking = [...new Set([point, ...also].flatMap(x => blockedBy(x, all)))];
  const under = UNDER[lift];
  if (blocking.length === 0) {
    const openingId = servedBy(point, all);
    return {
      point,
      through: 'opening',
      ...(openingId === undefined ? {} : { openingId }),
      drop: [],
      loosen: [],
      remove: [],
      minutes: below.length === 0 && openingId === undefined ? 0 : MINUTES.opening * under,
    };
  }
  const needed = [...new Set(blocking.map(p => carrierOf(doc.plan, p.panel.id)))];
  const others = panels.map(p => p.panel.id).filter(id => !needed.includes(id));
  let best:
    | {
        readonly set: ReadonlySet<string>;
        readonly remove: readonly string[];
        readonly loosen: readonly string[];
      }
    | undefined;
  const turned = (c: { remove: readonly string[]; loosen: readonly string[] }): number =>
    c.remove.length + c.loosen.length;
  for (let bits = 0; bits < 1 << others.length; bits++) {
    const set = new Set([...needed, ...others.filter((_, i) => bits & (1 << i))]);
    const cost = costOf(set, hung);
    if (!cost) continue;
    if (!best || turned(cost) < turned(best) || (turned(cost) === turned(best) && set.size < best.set.size))
      best = { set, ...cost };
  }
  // all of them can always come down
  const { set, remove, loosen } = best ?? {
    set: new Set(panels.map(p => p.panel.id)),
    remove: hung.joints.filter(j => !tiesWing(doc.plan, j.joint)).map(j => j.id),
    loosen: [],
  };
  const drop = dropOrder(set, hung);
  const plates = panels.filter(p => set.has(p.panel.id));
  const heavy = plates.filter(p => isHeavy({ doc }, lifted(hung, p)) && people === 1).length;
  const minutes =
    under *
    (remove.length * MINUTES.remove +
      loosen.length * MINUTES.loosen +
      plates.length * MINUTES.plate +
      heavy * MINUTES.heavyAlone);
  return { point, through: 'drop', drop, loosen, remove, minutes: Math.round(minutes * 2) / 2 };
}
