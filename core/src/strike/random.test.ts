import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holding } from '../bolt';
import { assemble } from '../derive';
import { anyPlan } from '../testing/random';
import { strikeForce, strikePlate, wishOf } from './index';

/** Plans struck here; the soak strikes many. */
const PLANS = Number(process.env.SOAK_STRIKES ?? 4);

describe('a strike on plans at random', () => {
  it('answers for every plate that its bolts hold, whatever lies beside whatever', () => {
    let struck = 0;
    fc.assert(
      fc.property(anyPlan(3), doc => {
        const of = assemble(doc);
        for (const p of of.panels) {
          const bolts = holding(p.panel.id, of.joints, of.seats, of.panels);
          const spread = (k: 0 | 1): number =>
            Math.max(...bolts.map(j => j.at[k])) - Math.min(...bolts.map(j => j.at[k]));
          // what hangs on a line or on nothing is told by its own rule
          if (bolts.length < 3 || spread(0) < 60 || spread(1) < 60) continue;
          const r = strikePlate({
            ...wishOf(of, p, strikeForce(doc.rig, 'set-down')),
            size: 1.8,
            noDent: true,
          });
          expect(r.ok ? '' : `${p.panel.mark}: ${r.fault}`).toBe('');
          struck++;
        }
      }),
      { numRuns: PLANS, seed: Number(process.env.SOAK_SEED ?? 8) },
    );
    expect(struck).toBeGreaterThan(PLANS);
  }, 600_000);
});
