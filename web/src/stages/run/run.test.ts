import { hardwareList } from '@plate-fold/core/bolt';
import { gatherFacts } from '@plate-fold/core/derive';
import { aboutPhase, type Tick } from '@plate-fold/core/sequence';
import { NM_PER_LBF_FT } from '@plate-fold/core/units';
import { demo } from '@plate-fold/demo';
import { beforeEach, describe, expect, it } from 'vitest';
import { DeviceStore } from '../../testing/device-store';
import { judge } from './judge';
import { fittedAfter } from './sequence-of';
import { dropTick, freshTickId, keepTick, keptRun, mergeTicks, waitingTicks } from './tick-store';

let store: DeviceStore;
beforeEach(() => {
  store = new DeviceStore();
  (globalThis as { localStorage?: unknown }).localStorage = store;
});

const tick = (id: string, at: number): Tick => ({
  id,
  stepId: 's',
  jointId: null,
  kind: 'done',
  at,
  device: 'd',
});

describe('ticks on the device', () => {
  it('wait in the order they were made until they are acknowledged, each run its own', () => {
    keepTick('r1', tick('b', 2));
    keepTick('r1', tick('a', 1));
    keepTick('r2', tick('c', 3));
    expect(waitingTicks('r1').map(t => t.id)).toEqual(['a', 'b']);
    dropTick('r1', 'a');
    expect(waitingTicks('r1').map(t => t.id)).toEqual(['b']);
    expect(waitingTicks('r2').map(t => t.id)).toEqual(['c']);
  });
  it('a torn entry is passed over, a full store says so', () => {
    keepTick('r1', tick('a', 1));
    store['plate-fold tick r1 torn'] = '{"id":';
    expect(waitingTicks('r1').map(t => t.id)).toEqual(['a']);
    store.fill();
    expect(keepTick('r1', tick('b', 2))).toBe(false);
    expect(keptRun('r1')).toBeUndefined();
  });
  it('merge without doubles, and their ids differ', () => {
    expect(mergeTicks([tick('a', 1), tick('b', 2)], [tick('b', 2), tick('c', 3)]).map(t => t.id)).toEqual([
      'a',
      'b',
      'c',
    ]);
    expect(new Set(Array.from({ length: 500 }, freshTickId)).size).toBe(500);
  });
});

describe('a reading against its target', () => {
  it('is judged against the figure that is shown, within the tolerance of a wrench', () => {
    const target = 11.2 * NM_PER_LBF_FT;
    expect(judge(11 * NM_PER_LBF_FT, target, 'inch')).toMatchObject({ near: true });
    expect(judge(16 * NM_PER_LBF_FT, target, 'inch')).toEqual({ near: false, text: '5.0 ft\u00b7lb over' });
    expect(judge(20, 50, 'metric')).toEqual({ near: false, text: '30.0 N\u00b7m under' });
    expect(judge(51.9, 50, 'metric').near).toBe(true);
    expect(judge(52.1, 50, 'metric').near).toBe(false);
  });
});

describe('the kit of a run', () => {
  it('of a phase is what all up to it take, and no more; of the last it is the whole', () => {
    const facts = gatherFacts(demo('bramble'));
    const [first, last] = (facts.document.plan.phases ?? []).map(f => aboutPhase(f.id)) as [string, string];
    const pieces = (about: string | null): number =>
      hardwareList(fittedAfter(facts, about).joints).reduce((s, l) => s + l.count, 0);
    expect(pieces(null)).toBeGreaterThan(40);
    expect(pieces(first)).toBeGreaterThan(0.3 * pieces(null));
    expect(pieces(first)).toBeLessThan(0.7 * pieces(null));
    expect(pieces(last)).toBe(pieces(null));
    // the washer and nut of a plate still to come are not asked for
    const plates = new Set(fittedAfter(facts, first).joints.flatMap(j => j.joint.panels));
    expect([...plates].sort()).toEqual(['plate-a', 'plate-b', 'plate-c']);
  });
});
