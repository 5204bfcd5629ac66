// What tests of brackets share: how a bracket meets a face, and a pickup with room for a hat.
import { foldPanel } from '../fold';
import {
  add3,
  contains,
  distanceToOutline,
  dot3,
  scale3,
  sub3,
  unit3,
  type Vec2,
  type Vec3,
} from '../geometry';
import { isBracket, type Panel, type PlanDocument, panelsRemoved, type SheetChoice, wingsOf } from '../plan';
import type { Mount } from '../rig';

/** A bracket's shape as a panel by itself. */
export const bracketPanel = (shape: Pick<Panel, 'base' | 'flanges'>): Panel => ({
  id: 'k',
  mark: 'K1',
  name: 'bracket',
  role: 'bracket',
  openings: [],
  guards: [],
  ...shape,
});

/** A plan without its brackets and wings: its plates hang on the vehicle alone. */
export const platesOnly = (doc: PlanDocument): PlanDocument => {
  const wings = wingsOf(doc.plan);
  return panelsRemoved(
    doc,
    doc.plan.panels.filter(p => isBracket(p) || wings.has(p.id)).map(p => p.id),
  );
};

/**
 * How far a face of the vehicle is from the nearer side of the bracket's flat that has its hole, mm, and how far the hole is inside that
 * flat; undefined where no flat is level with the face.
 */
export function faceMet(
  panel: Panel,
  sheet: SheetChoice,
  face: { readonly at: Vec3; readonly normal: Vec3 },
): { readonly off: number; readonly inside: number } | undefined {
  const n = unit3(face.normal);
  return (
    foldPanel(panel, sheet)
      .facets.filter(f => Math.abs(dot3(f.frame.n, n)) > 1 - 1e-6)
      .map(f => {
        // where its normal looks out of the face it lies on its underside, else on its upper side
        const out = dot3(f.frame.n, n) > 0;
        const side = out ? f.frame.origin : add3(f.frame.origin, scale3(f.frame.n, sheet.thickness));
        const from = sub3(face.at, f.frame.origin);
        const on: Vec2 = [dot3(from, f.frame.u), dot3(from, f.frame.v)];
        return {
          off: Math.abs(dot3(sub3(side, face.at), n)),
          inside: contains(f.outline, on) ? distanceToOutline(f.outline, on) : -1,
        };
      })
      // both feet of a hat lie in one plane: the one that has the hole
      .sort((a, b) => Number(a.off > 0.01) - Number(b.off > 0.01) || b.inside - a.inside || a.off - b.off)[0]
  );
}

/**
 * The demo pickup, as it is handed in, its transfer case out of the way, with a stiffener 56 mm above plate C and two pairs of free holes in its underside:
 * `in-1`, `out-1` on the left, `in1`, `out1` on the right.
 */
export function stiffened(doc: PlanDocument): PlanDocument {
  const z = 375;
  const hole = (id: string, y: number): Mount => ({
    id,
    member: 'stiffener',
    at: [1400, y, z],
    hole: { kind: 'captive-nut', thread: 'M8x1.25' },
    condition: 'good',
    nutReach: 'none',
  });
  return {
    ...doc,
    rig: {
      ...doc.rig,
      components: doc.rig.components.map(c => (c.id === 'transfer' ? { ...c, zBottom: 425 } : c)),
      members: [
        ...doc.rig.members,
        {
          id: 'stiffener',
          kind: 'crossmember',
          footprint: [
            [1365, -300],
            [1435, -300],
            [1435, 300],
            [1365, 300],
          ],
          zBottom: z,
          zTop: z + 40,
          wall: 3,
        },
      ],
      mounts: [
        ...doc.rig.mounts,
        ...[-1, 1].flatMap(s => [hole(`in${s}`, s * 40), hole(`out${s}`, s * 200)]),
      ],
    },
  };
}
