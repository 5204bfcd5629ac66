import { looksDown, type ResolvedJoint } from '../bolt';
import { fromBelow, keptShadow, type Shadow } from '../cover';
import type { FoldedPanel } from '../fold';
import { boxesMeet, grown, inRegion, union, type Vec2 } from '../geometry';
import { type PlanDocument, tiesWing } from '../plan';
import type { Mount } from '../rig';
import { hangingOrder } from './hang-order';

/** Who reaches the nut of a joint, and until which plate hangs. */
export interface NutReachNote {
  /** `fixed`: nothing has to be held; `never`: nobody gets there; `always`; or the plate whose hanging ends it */
  readonly until: 'fixed' | 'never' | 'always' | { readonly panel: string };
  /** the same in a sentence */
  readonly said: string;
}

/** How far in past the edge of a plate a hand with a wrench gets, and how wide an opening it goes through, mm: guesses. */
export const ARM = { open: 400, slot: 150, hand: 110 } as const;

/** What was found of a hole, and of which shadows it follows. */
interface Kept {
  readonly at: Vec2;
  readonly near: readonly Shadow[];
  readonly by: Shadow | undefined;
}
const kept = new WeakMap<Mount, Kept>();

/**
 * For every joint who reaches its nut and when it can no longer be reached, from the order in which the plates hang: a nut is out of
 * reach once it lies further in under the hung plates than a hand with a wrench gets from their edge or from an opening wide enough
 * for it. The distances are guesses. By joint id.
 */
export function nutReaches(
  doc: PlanDocument,
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
): ReadonlyMap<string, NutReachNote> {
  const { order, stuck } = hangingOrder(doc, panels);
  const hung = [...order, ...stuck];
  const shadows = hung.map(p => keptShadow(p, 'below', fromBelow));
  /** the plate whose hanging puts a place out of reach; only what is near it has a say in that */
  const closing = (mount: Mount, [x, y]: Vec2): FoldedPanel | undefined => {
    if (mount.nutReach === 'none') return undefined;
    const deep = ARM.hand / 2 + ARM[mount.nutReach];
    const far = deep + ARM.hand / 2 + 1;
    const round = { min: [x - far, y - far], max: [x + far, y + far] } as const;
    const near = shadows.filter(s => boxesMeet(s.box, round));
    const last = kept.get(mount);
    const same =
      last &&
      last.at[0] === x &&
      last.at[1] === y &&
      last.near.length === near.length &&
      last.near.every((s, i) => s === near[i]);
    const by = same
      ? last.by
      : near.find((_, i) => {
          const covered = grown(union(near.slice(0, i + 1).flatMap(s => s.solid)), ARM.hand / 2);
          return inRegion(covered, [x, y]) && inRegion(grown(covered, -deep), [x, y]);
        });
    if (!same) kept.set(mount, { at: [x, y], near, by });
    return by && hung[shadows.indexOf(by)];
  };
  return new Map(
    joints.map((j): readonly [string, NutReachNote] => {
      const { mount } = j;
      if (tiesWing(doc.plan, j.joint))
        return [j.id, { until: 'always', said: 'It is tightened on the bench: hold it from both sides.' }];
      if (j.nut?.kind === 'axle-strap')
        return [
          j.id,
          { until: 'fixed', said: 'Both of its nuts are turned from below: nothing is held behind.' },
        ];
      if (j.nut?.kind === 'post')
        return [
          j.id,
          {
            until: 'fixed',
            said: 'Its post is in the hole before the plate goes up: nothing is held behind it.',
          },
        ];
      if (!j.nut?.flats)
        return [
          j.id,
          {
            until: 'fixed',
            said: 'Its nut is fixed: nothing has to be held behind it.',
          },
        ];
      if (!mount)
        return [
          j.id,
          {
            until: 'always',
            said: 'It joins sheet to sheet: hold its nut over the edge, before the next plate goes up.',
          },
        ];
      if (mount.nutReach === 'none')
        return [
          j.id,
          {
            until: 'never',
            said: 'The back cannot be reached: use a nut that holds itself.',
          },
        ];
      const way = mount.nutReach === 'slot' ? 'through the opening of the member' : 'from behind';
      // plates close off what is over them; the back of a hole in a side is got at past the member
      const closer = looksDown(mount) ? closing(mount, [j.at[0], j.at[1]]) : undefined;
      if (!closer)
        return [j.id, { until: 'always', said: `A wrench gets to the nut ${way}, even with the plates up.` }];
      const own = j.joint.panels.includes(closer.panel.id);
      return [
        j.id,
        {
          until: { panel: closer.panel.id },
          said: own
            ? `A wrench gets to the nut ${way} only until its own plate ${closer.panel.mark} is tight: start and hold it while the plate still hangs low.`
            : `A wrench gets to the nut ${way} until plate ${closer.panel.mark} is up: tighten it before.`,
        },
      ];
    }),
  );
}
