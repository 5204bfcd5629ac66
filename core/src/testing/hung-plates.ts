// Plates on brackets that are easily reckoned with: what tests and benchmarks strike.
import { bracketAdded } from '../bracket';
import { rectangle, type Vec2, type Vec3 } from '../geometry';
import { blankPlan, type Joint, jointFor, type Panel, type PlanDocument } from '../plan';
import type { Member, Mount } from '../rig';

export const SHEET = { material: 'steel-hr36', thickness: 4.7625, finish: 'raw' } as const;
export const hole = (id: string, at: Vec3, normal: Vec3): Mount => ({
  id,
  member: `block-${id}`,
  at,
  normal,
  hole: { kind: 'through', diameter: 11 },
  condition: 'good',
  nutReach: 'open',
});
/** A solid block behind a hole, 60 mm deep. */
function block({ id, at: [x, y, z], normal = [0, 0, -1] }: Mount, like: Member): Member {
  const side = Math.abs(normal[2]) < 0.5;
  const out = normal[1] > 0;
  return {
    ...like,
    id: `block-${id}`,
    footprint: rectangle(
      x - 40,
      side && out ? y - 60 : side ? y : y - 40,
      x + 40,
      side && out ? y : side ? y + 60 : y + 40,
    ),
    zBottom: side ? z - 40 : z,
    zTop: side ? z + 40 : z + 60,
  };
}
/** A plate of 3/16 in steel, 300 mm over the ground, under some holes. */
export function plateUnder(
  doc: PlanDocument,
  mounts: readonly Mount[],
  length: number,
  width: number,
): PlanDocument {
  const like = doc.rig.members.find(m => m.id === 'rail-left') as Member;
  const bare = blankPlan(
    {
      ...doc.rig,
      mounts,
      survey: undefined,
      components: [],
      options: [],
      selected: {},
      servicePoints: [],
      factoryParts: [],
      measured: [],
      misfits: [],
      members: mounts.map(m => block(m, like)),
    },
    'hung',
    'hung',
  );
  return {
    ...bare,
    plan: {
      ...bare.plan,
      builds: [{ id: 'A', name: 'steel', sheets: { 'plate-a': SHEET } }],
      panels: [
        {
          id: 'plate-a',
          mark: 'A',
          name: 'plate',
          base: {
            outline: rectangle(-length / 2, -width / 2, length / 2, width / 2),
            origin: [0, 0, 300],
            pitch: 0,
            roll: 0,
          },
          flanges: [],
          openings: [],
          guards: [],
        },
      ],
    },
  };
}
/** The plate on brackets of a sheet's thickness, each from a hole to a place on it. */
function hung(
  doc: PlanDocument,
  pairs: readonly (readonly [string, Vec2])[],
  thickness: number,
): PlanDocument {
  return pairs.reduce((d, [mount, at]) => {
    const r = bracketAdded(d, { mount, panel: 'plate-a', at, sheet: { ...SHEET, thickness } });
    if (!r.ok) throw new Error(r.fault);
    return r.value.document;
  }, doc);
}
/** On two L-brackets, from the sides of two rails. */
export const twoL = (doc: PlanDocument, thickness = 4.7625): PlanDocument =>
  hung(
    plateUnder(doc, [hole('m1', [0, -215, 360], [0, 1, 0]), hole('m2', [0, 215, 360], [0, -1, 0])], 240, 400),
    [
      ['m1', [0, -165]],
      ['m2', [0, 165]],
    ],
    thickness,
  );
export const CORNERS = [
  [-1, -1],
  [-1, 1],
  [1, -1],
  [1, 1],
] as const;
/** On four Z-brackets, from crossmembers over its ends. */
export const fourZ = (doc: PlanDocument, thickness = 4.7625): PlanDocument =>
  hung(
    plateUnder(
      doc,
      CORNERS.map(([x, y], i) => hole(`m${i + 1}`, [290 * x, 130 * y, 380], [0, 0, -1])),
      500,
      320,
    ),
    CORNERS.map(([x, y], i): [string, Vec2] => [`m${i + 1}`, [215 * x, 130 * y]]),
    thickness,
  );
/** A plate bolted by one edge under another, which four holes hold. */
export function wing(doc: PlanDocument): PlanDocument {
  const top = 300 + 2 * SHEET.thickness;
  const held: readonly Vec2[] = [
    [-360, -120],
    [-360, 120],
    [-100, -120],
    [-100, 120],
  ];
  const bare = plateUnder(
    doc,
    held.map(([x, y], i) => hole(`h${i}`, [x, y, top], [0, 0, -1])),
    300,
    300,
  );
  const [own] = bare.plan.panels as [Panel];
  const [first] = bare.rig.mounts as [Mount];
  const placed = (id: string, mark: string, x0: number, x1: number, z: number): Panel => ({
    ...own,
    id,
    mark,
    base: { ...own.base, outline: rectangle(x0, -150, x1, 150), origin: [0, 0, z] },
  });
  const between = (id: string, y: number): Joint => {
    const { mount: _, ...joint } = jointFor(id, first, ['plate-a', 'plate-b']);
    return { ...joint, nut: 'flange-serrated', at: [20, y, top] };
  };
  return {
    ...bare,
    plan: {
      ...bare.plan,
      builds: [{ id: 'A', name: 'steel', sheets: { 'plate-a': SHEET, 'plate-b': SHEET } }],
      panels: [placed('plate-a', 'A', 0, 300, 300), placed('plate-b', 'B', -400, 40, 300 + SHEET.thickness)],
      joints: [
        ...bare.rig.mounts.map((m, i) => jointFor(`h${i}`, m, ['plate-b'])),
        between('w1', -100),
        between('w2', 100),
      ],
    },
  };
}
