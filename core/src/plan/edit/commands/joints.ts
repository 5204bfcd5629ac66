import type { Vec3 } from '../../../geometry';
import { roundTo } from '../../../units';
import type { Joint, PlanDocument, Seam } from '../../plan';
import { inPlan, withJoint } from '../change';
import { command, counted, plateNamed } from '../command';
import { jointRemoved } from '../joints';
import { seamSet } from '../seams';

/** What is otherwise about a bolt: whole fields, fields of its fastener, and fields that go. */
export interface JointChange {
  readonly joint: string;
  readonly part?: Partial<Omit<Joint, 'id' | 'fastener'>>;
  readonly fastener?: Partial<Joint['fastener']>;
  readonly drop?: readonly ('lock' | 'cut' | 'slots')[];
}

const WHAT: Partial<Readonly<Record<string, string>>> = {
  torque: 'torque',
  lube: 'lubricant',
  nut: 'nut',
  washers: 'washers',
  spacer: 'spacer',
  lock: 'lock',
  cut: 'hole',
};

/** Changed as told; a field of undefined goes. */
function changed(doc: PlanDocument, { joint, part, fastener, drop = [] }: JointChange): PlanDocument {
  return withJoint(doc, joint, j => {
    const next = { ...j, ...part, ...(fastener ? { fastener: { ...j.fastener, ...fastener } } : {}) };
    return drop.length === 0
      ? next
      : (Object.fromEntries(
          Object.entries(next).filter(([k]) => !(drop as readonly string[]).includes(k)),
        ) as unknown as Joint);
  });
}

export const changeJoints = command<{ readonly joints: readonly JointChange[] }>({
  id: 'bolt.change',
  label: (_, { joints }) => {
    const bolts = counted(
      joints.map(j => j.joint),
      'bolt',
    );
    const [first] = joints;
    const fields = Object.keys(first?.part ?? {}).filter(k => k !== 'lock' || joints.length > 1);
    const what = fields.length === 1 && !first?.fastener ? WHAT[fields[0] ?? ''] : undefined;
    return what ? `set the ${what} of ${bolts}` : `change ${bolts}`;
  },
  run: (doc, { joints }) => joints.reduce(changed, doc),
});

/** Other hardware for whole joints: each takes the place of the one of its id; its spacer stays as it is drawn. */
export const takeHardware = command<{ readonly joints: readonly Joint[] }>({
  id: 'bolt.hardware',
  label: (_, { joints }) =>
    `change the hardware of ${counted(
      joints.map(j => j.id),
      'bolt',
    )}`,
  run: (doc, { joints }) =>
    joints.reduce((d, next) => withJoint(d, next.id, j => ({ ...next, spacer: j.spacer })), doc),
});

export const lockJoint = command<{ readonly joint: string; readonly on: boolean }>({
  id: 'bolt.lock',
  label: (_, { joint, on }) => `${on ? 'lock' : 'unlock'} bolt ${joint}`,
  run: (doc, { joint, on }) => withJoint(doc, joint, ({ lock: _, ...j }) => (on ? { ...j, lock: true } : j)),
});

/** Spacers grown by so much at each joint, mm; none goes below nothing. `lock`: their owner chose them. */
export const growSpacers = command<{
  readonly by: Readonly<Record<string, number>>;
  readonly lock?: boolean;
}>({
  id: 'bolt.spacers',
  label: (_, { by }) => `set spacers at ${counted(Object.keys(by), 'bolt')}`,
  run: (doc, { by, lock }) =>
    Object.entries(by).reduce(
      (d, [id, mm]) =>
        withJoint(d, id, j => ({
          ...j,
          spacer: Math.max(0, roundTo(j.spacer + mm, 3)),
          ...(lock ? { lock } : {}),
        })),
      doc,
    ),
});

export const removeJoint = command<{ readonly joint: string }>({
  id: 'bolt.remove',
  label: (_, { joint }) => `delete bolt ${joint}`,
  run: (doc, { joint }) => jointRemoved(doc, joint),
});

/** Leaves one plate out of a bolt, or takes the bolt out where it has no other. */
export const leavePlateOff = command<{ readonly joint: string; readonly panel: string }>({
  id: 'bolt.leave-plate-off',
  label: (doc, { joint, panel }) => `take ${plateNamed(doc, panel)} off bolt ${joint}`,
  run: (doc, { joint, panel }) => {
    const j = doc.plan.joints.find(x => x.id === joint);
    return j && j.panels.length > 1
      ? withJoint(doc, joint, x => ({ ...x, panels: x.panels.filter(p => p !== panel) }))
      : jointRemoved(doc, joint);
  },
});

/** A hole drilled for the plan, put into a member at a place, mm. */
export const moveHole = command<{ readonly hole: string; readonly member: string; readonly at: Vec3 }>({
  id: 'hole.move',
  label: (_, { hole }) => `move hole ${hole}`,
  run: (doc, { hole, member, at }) =>
    inPlan(doc, { holes: doc.plan.holes?.map(h => (h.id === hole ? { ...h, member, at } : h)) }),
});

/** Lays a seam between two plates, or takes it away. */
export const setSeam = command<{ readonly front: string; readonly rear: string; readonly seam?: Seam }>({
  id: 'seam.set',
  label: (doc, { front, rear }) =>
    `change the seam of ${plateNamed(doc, front)} and ${plateNamed(doc, rear)}`,
  run: (doc, { front, rear, seam }) => seamSet(doc, front, rear, seam),
});
