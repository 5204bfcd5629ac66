import { formatLength, type UnitSystem } from '../units';
import { hasFoot } from './elements';
import type { ResolvedJoint } from './joint';
import { postDepth } from './spacer';

/** Something in a stack that cannot be, and where along it. */
export interface StackFault {
  readonly kind:
    | 'into-air'
    | 'nut-on-thread'
    | 'sunk-too-deep'
    | 'washer-under-sunk'
    | 'reaches-behind'
    | 'post-shallow'
    | 'foot-shallow'
    | 'too-short';
  readonly at: 'head' | 'nut' | 'end';
  /** in a few words, for the drawing */
  readonly said: string;
}

/** Heads that cut a thread of their own. */
const CUTS = new Set(['thread-cutting', 'self-drilling']);
/** Bolt end that may stand short of the needed length before it is called too short, mm. */
const SLACK = 0.5;

/** What of a joint's stack cannot be, from the head on; none where it can be put together. */
export function stackFaults(j: ResolvedJoint, units: UnitSystem = 'metric'): readonly StackFault[] {
  const fine = (mm: number): string => formatLength(mm, units, true);
  const out: StackFault[] = [];
  const { head, length } = j.joint.fastener;
  if (head === 'countersunk') {
    // the sheet the head lies in is the first plate from it
    const sheet = j.layers.find(l => l.kind === 'plate');
    if (sheet && j.head.height > sheet.thickness + 1e-6)
      out.push({
        kind: 'sunk-too-deep',
        at: 'head',
        said: `head ${fine(j.head.height)} deep in ${fine(sheet.thickness)} sheet`,
      });
    if (j.joint.washers.some(w => w !== 'cup' && w !== 'lock' && w !== 'half-moon'))
      out.push({ kind: 'washer-under-sunk', at: 'head', said: 'a flat washer under a countersunk head' });
  }
  const sound = j.mount?.condition === 'good' || j.mount?.condition === 'rusted';
  const hole = j.mount?.hole.kind;
  const post = j.joint.nut === 'post';
  const foot = hasFoot(j.nut?.kind);
  if (
    j.joint.nut !== 'none' &&
    !post &&
    sound &&
    (hole === 'threaded' || hole === 'captive-nut' || hole === 'rivet-nut')
  )
    out.push({
      kind: 'nut-on-thread',
      at: 'nut',
      said: `a nut behind a hole that has its own thread`,
    });
  if (!j.nut && !CUTS.has(head)) out.push({ kind: 'into-air', at: 'end', said: 'no thread to hold on to' });
  else if (length !== 'auto' && j.lengthMm < j.neededMm - SLACK)
    out.push({
      kind: 'too-short',
      at: 'end',
      said: `${fine(j.neededMm - j.lengthMm)} too short`,
    });
  const inPost = j.lengthMm - j.gripMm;
  const depth = postDepth(j.joint.spacer);
  if (foot && inPost > depth + 1e-6)
    out.push({
      kind: post ? 'post-shallow' : 'foot-shallow',
      at: 'end',
      said: `the bolt goes ${fine(inPost)} into ${post ? 'a post' : 'the foot of a clamp'} that is tapped ${fine(depth)} deep`,
    });
  const behind = j.mount?.behind;
  // of a post it is the stud that reaches through, by a diameter; a clamp goes round
  if (behind && (foot ? j.thread.d : j.protrusionMm + (j.nut?.height ?? 0)) > behind.depth)
    out.push({
      kind: 'reaches-behind',
      at: 'end',
      said: `reaches what is ${formatLength(behind.depth, units)} behind`,
    });
  return out;
}
