import { drawnPanels, GOES_THROUGH, outwardOf, threadNamed } from '../bolt';
import { shopOf } from '../fold';
import type { Vec2 } from '../geometry';
import {
  command,
  freshId,
  inPlan,
  type Joint,
  marked,
  type Panel,
  type PlanDocument,
  plateNamed,
  presentOf,
  type SheetChoice,
  stackedIn,
  topPlateOf,
  UNMARKED,
} from '../plan';
import { type Mount, memberName } from '../rig';
import { err, ok, type Result, roundTo } from '../units';
import { END } from './between';
import { inTheWay } from './way';

/** What is tapped for a bolt of M8 or 5/16 in and more, and for a thinner one: as thick as the thread is to hold. */
const THICK: SheetChoice = { material: 'steel-hr36', thickness: 9.525, finish: 'powder', gauge: '3/8 in' };
const THIN: SheetChoice = { material: 'steel-hr36', thickness: 6.35, finish: 'powder', gauge: '1/4 in' };
const FROM = 7.9;

/** The bolts that one top plate would take with a bolt of a plan: of the same plates, through the same member, each in a hole that goes through. */
function besideIt(doc: PlanDocument, id: string): readonly { joint: Joint; mount: Mount }[] {
  const rig = presentOf(doc);
  const joint = doc.plan.joints.find(j => j.id === id);
  const hole = (j: Joint): Mount | undefined => rig.mounts.find(m => m.id === j.mount);
  const own = joint && hole(joint);
  if (!joint || !own) return [];
  const outer = stackedIn(joint)[0];
  return doc.plan.joints.flatMap(j => {
    const mount = hole(j);
    const fits =
      mount?.member === own.member &&
      stackedIn(j)[0] === outer &&
      GOES_THROUGH.has(mount.hole.kind) &&
      outwardOf(mount)[2] < -0.99 &&
      j.threadIn === undefined;
    return fits && mount ? [{ joint: j, mount }] : [];
  });
}

/** A plate with threads on top of the member that a bolt goes through, for it and those beside it; or why none can be made. */
export function topPlateAdded(
  doc: PlanDocument,
  wish: { readonly joint: string; readonly sheet?: SheetChoice },
): Result<{ readonly document: PlanDocument; readonly id: string }> {
  const rig = presentOf(doc);
  const first = doc.plan.joints.find(j => j.id === wish.joint);
  const mount = first && rig.mounts.find(m => m.id === first.mount);
  const member = mount && rig.members.find(m => m.id === mount.member);
  if (!first || !mount || !member) return err(`bolt ${wish.joint} is in no hole of a member`);
  if (member.kind === 'axle-tube') return err('an axle tube is not drilled: a strap goes over it');
  if (topPlateOf(first) !== undefined) return err(`bolt ${wish.joint} has its thread in a top plate already`);
  if (!GOES_THROUGH.has(mount.hole.kind))
    return err(`hole ${mount.id} does not go through the ${memberName(rig, member.id)}`);
  const mine = besideIt(doc, wish.joint);
  if (!mine.some(m => m.joint === first))
    return err('a top plate lies on top of a member: this hole does not look down');
  const d = Math.max(
    ...mine.map(({ joint }) => {
      const t = threadNamed(joint.fastener.thread);
      return t.ok ? t.value.d : 10;
    }),
  );
  const xs = mine.map(m => m.mount.at[0]);
  const ys = mine.map(m => m.mount.at[1]);
  const us = member.footprint.map(p => p[0]);
  const vs = member.footprint.map(p => p[1]);
  const [low, high]: [Vec2, Vec2] = [
    [Math.min(...us), Math.min(...vs)],
    [Math.max(...us), Math.max(...vs)],
  ];
  // over both sides of the member, so that they bear and not its wall; along it as far as the holes want
  const across = high[0] - low[0] <= high[1] - low[1] ? 0 : 1;
  const reach = (of: readonly number[], k: 0 | 1): [number, number] =>
    k === across
      ? [low[k], high[k]]
      : [Math.max(low[k], Math.min(...of) - END * d), Math.min(high[k], Math.max(...of) + END * d)];
  const [x0, x1] = reach(xs, 0);
  const [y0, y1] = reach(ys, 1);
  const id = freshId('bracket', doc.plan.panels);
  const sheet = wish.sheet ?? (d >= FROM ? THICK : THIN);
  const panel: Panel = {
    id,
    mark: UNMARKED,
    name: 'top plate',
    role: 'bracket',
    sheet,
    base: {
      origin: [x0, y0, member.zTop].map(v => roundTo(v, 3)) as unknown as Panel['base']['origin'],
      pitch: 0,
      roll: 0,
      outline: [
        [0, 0],
        [x1 - x0, 0],
        [x1 - x0, y1 - y0],
        [0, y1 - y0],
      ].map(p => p.map(v => roundTo(v, 3)) as unknown as Vec2),
    },
    flanges: [],
    openings: [],
    guards: [],
  };
  const blocked = inTheWay({ base: panel.base, flanges: [] }, sheet, rig, drawnPanels(doc), shopOf(doc.plan));
  if (blocked) return err(blocked);
  const ids = new Set(mine.map(m => m.joint.id));
  return ok({
    id,
    document: marked(
      inPlan(doc, {
        panels: [...doc.plan.panels, panel],
        joints: doc.plan.joints.map(j =>
          ids.has(j.id)
            ? {
                ...j,
                panels: [...j.panels, id],
                threadIn: id,
                nut: 'none' as const,
                headSide: 'below' as const,
                fastener: { ...j.fastener, length: 'auto' as const },
              }
            : j,
        ),
      }),
    ),
  });
}

/** Puts the thread of a bolt, and of those beside it, into a plate on top of the member. */
export const addTopPlate = command<{ readonly joint: string; readonly sheet?: SheetChoice }>({
  id: 'bracket.top',
  label: (doc, { joint }) => {
    const of = doc.plan.joints.find(j => j.id === joint);
    return `add a top plate for ${plateNamed(doc, (of && stackedIn(of)[0]) ?? '')}`;
  },
  run: (doc, wish) => {
    const made = topPlateAdded(doc, wish);
    return made.ok ? ok(made.value.document) : made;
  },
});
