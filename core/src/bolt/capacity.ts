import { type FoldedPanel, openingOutline } from '../fold';
import { contains, distanceToOutline, underGround, type Vec2 } from '../geometry';
import { panelWord, stackedIn } from '../plan';
import { MATERIALS, type Material, type MaterialFamily } from '../sheet';
import { goesRound } from './drill';
import type { ResolvedJoint } from './joint';

/** One thing that can give in a joint, and at what force, N. */
export interface CapacityElement {
  readonly what: string;
  readonly acts: 'pull' | 'shear';
  readonly force: number;
  readonly source: string;
}

/** Everything that can give in a joint; the weakest of each kind is what it bears. Nominal strengths without a safety factor. */
export interface JointCapacity {
  readonly elements: readonly CapacityElement[];
  readonly pull: CapacityElement;
  readonly shear: CapacityElement;
}

/** Friction of a clamp on a painted tube: a guess. */
const SLIP = 0.15;
/** What the two screws of a tube clamp press its halves on with, N: M6 at 10 N\u00b7m, K = 0.2, a guess. */
const CLAMP_SCREWS = (2 * 10) / (0.2 * 0.006);
const PULL_SOURCE = 'proof load of the class, or the element\u2019s strip torque (docs/method.md)';

/** What a sheet of some family bears against a bolt's shank, and torn out to an edge `clear` mm from the hole, N. */
interface Bearing {
  readonly holds: (d: number, t: number, m: Material) => number;
  readonly tears: (d: number, clear: number, t: number, m: Material) => number;
  readonly sources: readonly [holds: string, tears: string];
}
const STEEL_BEARING: Bearing = {
  holds: (d, t, m) => 2.4 * d * t * m.ultimate,
  tears: (_, clear, t, m) => 1.2 * clear * t * m.ultimate,
  sources: [
    'AISC 360-16 eq. J3-6a: 2.4 d t Fu (from memory)',
    'AISC 360-16 eq. J3-6c: 1.2 lc t Fu (from memory)',
  ],
};
const BEARING: Readonly<Record<MaterialFamily, Bearing>> = {
  steel: STEEL_BEARING,
  stainless: STEEL_BEARING,
  aluminum: {
    holds: (d, t, m) => 2 * d * t * m.ultimate,
    // from the middle of the hole
    tears: (d, clear, t, m) => (clear + d / 2) * t * m.ultimate,
    sources: [
      'Aluminum Design Manual 2015, J.3.6.1: 2 D t Ftu (from memory)',
      'Aluminum Design Manual 2015, J.3.6.1: de t Ftu (from memory)',
    ],
  },
  plastic: {
    // the hole stays stretched where its edge has yielded
    holds: (d, t, m) => d * t * m.yield,
    tears: (_, clear, t, m) => 2 * clear * t * m.shear,
    sources: ['yield under the shank, d t Sy', 'two planes in shear, 2 lc t Ss (mechanics of materials)'],
  },
};

/** Clear distance from a hole\u2019s edge to the nearest edge of a plate\u2019s base or of an opening in it, mm; undefined off the base. */
export function clearToEdge(
  p: FoldedPanel,
  at: readonly [number, number, number],
  hole: number,
): number | undefined {
  const [base] = p.facets;
  if (!base) return undefined;
  const q: Vec2 = underGround(base.frame, at[0], at[1]);
  if (!contains(base.outline, q)) return undefined;
  // an edge that carries a flange does not tear out: its metal goes on
  const free = base.outline.map((_, i) => i).filter(i => !p.panel.flanges.some(f => f.edge === i));
  const toFree = Math.min(
    ...free.map(i => {
      const a = base.outline[i] as Vec2;
      const b = base.outline[(i + 1) % base.outline.length] as Vec2;
      return distanceToOutline([a, b], q);
    }),
  );
  const toOpening = Math.min(...p.panel.openings.map(o => distanceToOutline(openingOutline(o), q)));
  return Math.max(0, Math.min(toFree, toOpening) - hole / 2);
}

/** What a joint bears, element by element, along the bolt and across it. */
export function jointCapacity(j: ResolvedJoint, panels: readonly FoldedPanel[]): JointCapacity {
  const { d, clearance } = j.thread;
  const plates = stackedIn(j.joint).flatMap(id => panels.find(p => p.panel.id === id) ?? []);
  const under = j.layers.find(l => l.kind === 'washer')?.diameter ?? j.head.bearing;
  // a strap holds by both its legs, each through a hole of its own
  const legs = j.joint.nut === 'axle-strap' ? 2 : 1;
  const elements: CapacityElement[] = j.pulls.map(l => ({
    what: l.by,
    acts: 'pull',
    force: legs * l.force,
    source: PULL_SOURCE,
  }));
  for (const p of plates) {
    const name = panelWord(p.panel);
    const { thickness } = p.sheet;
    elements.push({
      what: `${name}, head pulled through`,
      acts: 'pull',
      force: legs * Math.PI * under * thickness * p.material.shear,
      source: 'punching shear round head or washer (mechanics of materials)',
    });
    const bearing = BEARING[p.material.family];
    elements.push({
      what: `${name}, hole stretched`,
      acts: 'shear',
      force: legs * bearing.holds(d, thickness, p.material),
      source: bearing.sources[0],
    });
    const clear = clearToEdge(p, j.at, clearance);
    if (clear !== undefined && Number.isFinite(clear))
      elements.push({
        what: `${name}, torn out to its edge`,
        acts: 'shear',
        force: bearing.tears(clearance, clear, thickness, p.material),
        source: bearing.sources[1],
      });
  }
  elements.push({
    what: 'bolt',
    acts: 'shear',
    force: legs * j.bearsN.shear,
    source: '0.577 of proof on the thread (Shigley eq. 5-20)',
  });
  if (j.member && !goesRound(j.joint))
    elements.push({
      what: `wall of the ${j.member.kind}`,
      acts: 'shear',
      force: STEEL_BEARING.holds(d, j.member.wall, MATERIALS['steel-hr36']),
      source: `${STEEL_BEARING.sources[0]}; mild steel is a guess`,
    });
  if (j.joint.nut === 'tube-clamp' || j.joint.nut === 'axle-strap')
    elements.push({
      what: 'clamp slips on its tube',
      acts: 'shear',
      // a clamp is pressed on by screws of its own, a strap by its legs
      force: 2 * SLIP * (j.joint.nut === 'tube-clamp' ? CLAMP_SCREWS : legs * j.preloadN),
      source:
        j.joint.nut === 'tube-clamp'
          ? 'friction of 0.15 on two halves, two M6 screws at 10 N\u00b7m (guesses)'
          : 'friction of 0.15 on two faces (a guess)',
    });
  const weakest = (acts: CapacityElement['acts']): CapacityElement =>
    elements.filter(e => e.acts === acts).reduce((a, b) => (b.force < a.force ? b : a));
  return { elements, pull: weakest('pull'), shear: weakest('shear') };
}
