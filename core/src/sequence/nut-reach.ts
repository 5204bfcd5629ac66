import type { ResolvedJoint } from '../bolt';
import { fromBelow, keptShadow } from '../cover';
import type { FoldedPanel } from '../fold';
import { grown, inRegion, type Region, union } from '../geometry';
import type { PlanDocument } from '../plan';
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
  const covered: Region[] = hung.map((_, i) =>
    grown(union(hung.slice(0, i + 1).flatMap(p => keptShadow(p, 'below', fromBelow).solid)), ARM.hand / 2),
  );
  const closed = (['open', 'slot'] as const).map(
    kind => [kind, covered.map(r => grown(r, -(ARM.hand / 2 + ARM[kind])))] as const,
  );
  const deep = new Map(closed);
  return new Map(
    joints.map((j): readonly [string, NutReachNote] => {
      const { mount } = j;
      if (!mount)
        return [
          j.id,
          { until: 'always', said: 'It joins plate to plate and can be held from both sides on the bench.' },
        ];
      if (!j.nut?.tool)
        return [
          j.id,
          {
            until: 'fixed',
            said: 'What takes the thread sits fast by itself: nothing has to be held behind it.',
          },
        ];
      if (mount.nutReach === 'none')
        return [
          j.id,
          {
            until: 'never',
            said: 'Nobody reaches behind it: what takes the thread must hold by itself.',
          },
        ];
      const way = mount.nutReach === 'slot' ? 'through the opening of the member' : 'from behind';
      const at = (deep.get(mount.nutReach) ?? []).findIndex(r => inRegion(r, [j.at[0], j.at[1]]));
      const closer = hung[at];
      if (!closer)
        return [
          j.id,
          { until: 'always', said: `A wrench gets to the nut ${way}, past the edge of the hung plates too.` },
        ];
      const own = j.joint.panels.includes(closer.panel.id);
      return [
        j.id,
        {
          until: { panel: closer.panel.id },
          said: own
            ? `A wrench gets to the nut ${way} only until its own plate ${closer.panel.mark} is drawn up: start and hold it while the plate still hangs low.`
            : `A wrench gets to the nut ${way} until plate ${closer.panel.mark} hangs: tighten it before.`,
        },
      ];
    }),
  );
}
