import { jointCapacity } from '@plate-fold/core/bolt';
import { jointShare } from '@plate-fold/core/checks';
import type { Facts } from '@plate-fold/core/derive';
import { useMemo } from 'react';
import { knownStrikes, SET_DOWN } from '../../state/strikes/use-strikes';

/** What a strike asks of a joint: pulled and sheared, N, and the share of what it bears. */
export interface Asked {
  readonly pullN: number;
  readonly shearN: number;
  readonly share: number;
}

/** What the belly's last strike asks of every joint, the most where two plates share it; empty where it was not struck. */
export function useShares({
  build,
  document,
  rig,
  panels,
  joints,
  seats,
}: Facts): Readonly<Record<string, Asked>> {
  return useMemo(() => {
    const out: Record<string, Asked> = {};
    for (const answer of knownStrikes({ build: build.id, document, rig, panels, joints, seats }, SET_DOWN))
      for (const r of answer.reactionsN) {
        const joint = joints.find(j => j.id === r.joint);
        if (!joint) continue;
        const share = jointShare(r, jointCapacity(joint, panels));
        if (share > (out[r.joint]?.share ?? -1)) out[r.joint] = { pullN: r.boltN, shearN: r.shearN, share };
      }
    return out;
  }, [build, document, rig, panels, joints, seats]);
}
