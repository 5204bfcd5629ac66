import { outwardOf, type ResolvedJoint } from '../bolt';
import { type FoldedPanel, facetInSpace, openingOutline, removesMetal } from '../fold';
import { add3, contains, scale3, toSpace, type Vec2, type Vec3 } from '../geometry';
import { isBracket } from '../plan';
import { memberName } from '../rig';
import { tapeLength } from '../units';
import type { Job } from './job';

/** A socket's middle stands so far off the face that its bolt is in, mm: common practice, no source. */
const SOCKET = 30;
/** Less than this along an axis is not worth saying, mm. */
const ASIDE = 6;

/** The side of a member that a hole looks out of, seen from the vehicle's middle. */
function sideOf([x, y, z]: Vec3, at: Vec3): string {
  const [ax, ay, az] = [Math.abs(x), Math.abs(y), Math.abs(z)];
  if (az >= ax && az >= ay) return z < 0 ? 'underside' : 'top';
  if (ay >= ax) return Math.sign(y) === Math.sign(at[1]) ? 'outer side' : 'inner side';
  return x < 0 ? 'front face' : 'rear face';
}

/** How a bracket sits: on which face of what, and where its other hole comes to lie; nothing where it is bolted to no hole. */
export function seatWords(job: Job, bracket: string): readonly string[] {
  const own = job.joints.filter(j => j.joint.panels.includes(bracket));
  const hole = own.find(j => j.mount);
  const plate = own.find(j => !j.mount);
  if (!hole?.mount || !plate) return [];
  const { member } = hole.mount;
  const [dx, dy, dz] = [0, 1, 2].map(k => (plate.at[k] as number) - (hole.at[k] as number)) as [
    number,
    number,
    number,
  ];
  const inward = dy * Math.sign(hole.at[1]) < 0;
  const far = (mm: number, way: string): readonly string[] =>
    Math.abs(mm) < ASIDE ? [] : [`${tapeLength(Math.abs(mm), job.units)} ${way}`];
  const ways = [
    ...far(dz, dz < 0 ? 'lower' : 'higher'),
    ...far(dy, inward ? 'inboard' : 'outboard'),
    ...far(dx, dx < 0 ? 'forward' : 'rearward'),
  ];
  return [
    `On the ${sideOf(outwardOf(hole.mount), hole.at)} of the ${memberName(job.rig, member)}; the hole with the thread for the plate comes ${ways.length > 0 ? ways.join(', ') : 'right at it'}.`,
  ];
}

/** Whether plates that go up later cover a bolt's head: no socket reaches it any more. Openings leave it in reach. */
export function coveredLater(j: ResolvedJoint, panels: readonly FoldedPanel[]): boolean {
  if (!j.mount) return false;
  const head = add3(j.at, scale3(outwardOf(j.mount), SOCKET));
  const plan = (p: readonly Vec3[]): readonly Vec2[] => p.map(q => [q[0], q[1]]);
  return panels.some(p => {
    if (isBracket(p.panel) || j.joint.panels.includes(p.panel.id)) return false;
    const [base] = p.facets;
    if (!base) return false;
    const under = p.facets.some(f => {
      const corners = facetInSpace(f);
      return contains(plan(corners), [head[0], head[1]]) && Math.min(...corners.map(c => c[2])) < head[2];
    });
    return (
      under &&
      !p.panel.openings
        .filter(removesMetal)
        .some(o => contains(plan(openingOutline(o).map(q => toSpace(base.frame, q))), [head[0], head[1]]))
    );
  });
}
