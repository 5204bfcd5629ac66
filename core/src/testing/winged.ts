// A set with a wing: a plate that is bolted to another by one edge, and to nothing else.
import { rectangle, type Vec3 } from '../geometry';
import { isBracket, type Joint, type PlanDocument } from '../plan';

/** How far a wing's bolts lie in from the edge of the plate that carries it, and how wide it is beyond that, mm. */
const IN = 18;
const WIDE = 160;

/** The plan with a wing under the right edge of one of its plates, counted from the first. */
export function winged(doc: PlanDocument, host: number): PlanDocument {
  const plates = doc.plan.panels.filter(p => !isBracket(p));
  const on = plates[host % Math.max(1, plates.length)];
  const [like] = doc.plan.joints;
  if (!on || !like) return doc;
  const [xs, ys] = [0, 1].map(k => on.base.outline.map(p => p[k] as number)) as [number[], number[]];
  const [x0, x1, edge] = [Math.min(...xs), Math.max(...xs), Math.max(...ys)];
  const sheet = doc.plan.builds[0]?.sheets[on.id];
  const [ox, oy, oz] = on.base.origin;
  const { mount: _, threadIn: __, ...joint } = like;
  const bolt = (id: string, share: number): Joint => ({
    ...joint,
    id,
    at: [ox + x0 + share * (x1 - x0), oy + edge - IN, oz + 20] as Vec3,
    panels: ['wing', on.id],
    nut: 'flange-serrated',
    spacer: 0,
  });
  return {
    ...doc,
    plan: {
      ...doc.plan,
      panels: [
        ...doc.plan.panels,
        {
          id: 'wing',
          mark: 'W',
          name: 'wing',
          base: {
            ...on.base,
            origin: [ox, oy, oz - (sheet?.thickness ?? 3)],
            outline: rectangle(x0 + 10, edge - 2 * IN, x1 - 10, edge + WIDE),
          },
          flanges: [],
          openings: [],
          guards: [],
        },
      ],
      joints: [...doc.plan.joints, bolt('wing-1', 0.15), bolt('wing-2', 0.5), bolt('wing-3', 0.85)],
      builds: doc.plan.builds.map(b => {
        const s = b.sheets[on.id];
        return s ? { ...b, sheets: { ...b.sheets, wing: s } } : b;
      }),
    },
  };
}
