import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../derive';
import { fourZ } from '../testing/hung-plates';
import {
  bagsByPlate,
  EMPTY_KIT,
  hardwareList,
  kitComplete,
  kitGaps,
  type ResolvedJoint,
  threadsOnShelf,
  toBuy,
  uncoveredTorques,
} from './index';

const lines = [
  { kind: 'bolt', part: 'flange bolt M10x1.5 × 25, 8.8, zinc', count: 8 },
  { kind: 'washer', part: 'flat washer M10', count: 8 },
  { kind: 'nut', part: 'rivet nut M8x1.25', count: 2 },
] as const;
const tools = [
  { tool: 'socket 16 mm', for: ['j1'] },
  { tool: 'center punch', for: ['j2'] },
];

describe('what to buy', () => {
  it('is what the shelf does not hold, in whole packs', () => {
    const [bolt, washer, nut] = toBuy(lines, { 'flat washer M10': 30, 'rivet nut M8x1.25': 1 });
    expect(bolt).toMatchObject({ have: 0, missing: 8, pack: 10, packs: 1 });
    expect(washer).toMatchObject({ have: 30, missing: 0, packs: 0 });
    expect(nut).toMatchObject({ have: 1, missing: 1, pack: 10, packs: 1 });
  });
  it('together with the shelf is always enough, and never a pack too many', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 0, max: 200 }), (count, have) => {
        const [l] = toBuy([{ kind: 'washer', part: 'flat washer M8', count }], { 'flat washer M8': have });
        expect(have + l!.packs * l!.pack).toBeGreaterThanOrEqual(count);
        if (l!.packs > 0) expect(have + (l!.packs - 1) * l!.pack).toBeLessThan(count);
      }),
    );
  });
  it('comes in packs by what kind of part it is: a rivet nut as a nut, a spacer alone', () => {
    expect(toBuy([{ kind: 'spacer', part: 'spacer 12 mm for M8', count: 3 }], {})[0]).toMatchObject({
      packs: 3,
    });
    expect(toBuy(lines, {}).map(l => l.pack)).toEqual([10, 25, 10]);
  });
});

describe('threads on the shelf', () => {
  it('are counted over bolts and screws, and not over nuts or washers', () => {
    expect(
      threadsOnShelf({
        'flange bolt M10x1.5 × 25, 8.8, zinc': 8,
        'hex bolt M10x1.5 × 40, 8.8, zinc': 4,
        'button head screw M10x1.25 × 30, 10.9, zinc': 2,
        'rivet nut M8x1.25': 9,
        'flat washer M10': 30,
      }),
    ).toEqual({ 'M10x1.5': 12, 'M10x1.25': 2 });
  });
});

describe('a kit', () => {
  it('is whole when every part is counted and every tool tried', () => {
    expect(kitGaps(lines, tools, EMPTY_KIT)).toEqual({
      parts: lines.map(l => ({ part: l.part, missing: l.count })),
      tools: ['socket 16 mm', 'center punch'],
    });
    const counted = Object.fromEntries(lines.map(l => [l.part, l.count]));
    const short = { ...counted, 'flat washer M10': 7 };
    expect(kitGaps(lines, tools, { counted: short, tried: ['socket 16 mm', 'center punch'] })).toEqual({
      parts: [{ part: 'flat washer M10', missing: 1 }],
      tools: [],
    });
    const whole = kitGaps(lines, tools, { counted, tried: ['center punch', 'socket 16 mm', 'a hammer'] });
    expect(kitComplete(whole)).toBe(true);
  });
});

describe('the owner’s torque wrenches', () => {
  const joint = (torqueNm: number) => ({ id: `j${torqueNm}`, torqueNm }) as ResolvedJoint;
  it('cover what lies in their range, short of its top', () => {
    const joints = [8, 25, 50, 98].map(joint);
    const of = (...w: [number, number][]) =>
      uncoveredTorques(
        joints,
        w.map(([low, high]) => ({ name: 'mine', low, high })),
      ).map(j => j.torqueNm);
    expect(of()).toEqual([8, 25, 50, 98]);
    expect(of([20, 100])).toEqual([8, 98]);
    expect(of([20, 100], [5, 25])).toEqual([98]);
  });
});

describe('bags by plate', () => {
  it('hold every part once, each with the plate its bolt is started with', () => {
    for (const doc of [demo('bramble'), demo('heron'), fourZ(demo('bramble'))]) {
      const { joints, panels } = gatherFacts(doc);
      const bags = bagsByPlate(joints, panels);
      const sum = new Map<string, number>();
      for (const l of bags.flatMap(b => b.lines)) sum.set(l.part, (sum.get(l.part) ?? 0) + l.count);
      expect(Object.fromEntries(sum)).toEqual(
        Object.fromEntries(hardwareList(joints).map(l => [l.part, l.count])),
      );
      expect(bags.flatMap(b => b.joints).sort()).toEqual(joints.map(j => j.id).sort());
      for (const b of bags)
        for (const id of b.joints) expect(joints.find(j => j.id === id)?.joint.panels[0]).toBe(b.panel);
    }
    // a bracket has a bag of its own; Heron's bar comes last
    const hung = gatherFacts(fourZ(demo('bramble')));
    expect(bagsByPlate(hung.joints, hung.panels)).toHaveLength(5);
    const heron = gatherFacts(demo('heron'));
    expect(bagsByPlate(heron.joints, heron.panels).at(-1)?.panel).toBeUndefined();
  });
});
