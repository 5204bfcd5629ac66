import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fold } from '../fold';
import { rectangle } from '../geometry';
import type { Joint, Panel, SheetChoice } from '../plan';
import type { Member, Mount, PresentRig } from '../rig';
import { MM_PER_INCH, NM_PER_LBF_FT } from '../units';
import {
  drillLadder,
  hardwareList,
  headSize,
  internalShearArea,
  nutFactor,
  nutSize,
  REUSED_PRELOAD,
  resolveJoint,
  STRENGTH,
  stockLength,
  THREADS,
  threadNamed,
  toolList,
  torqueFor,
  washerSize,
} from './index';

const thread = (name: string) => {
  const t = threadNamed(name);
  if (!t.ok) throw new Error(t.fault);
  return t.value;
};
const member: Member = {
  id: 'x',
  kind: 'crossmember',
  footprint: rectangle(0, 0, 100, 100),
  zBottom: 310,
  zTop: 380,
  wall: 3,
};
const mountOf = (over: Partial<Mount> = {}): Mount => ({
  id: 'm',
  member: 'x',
  at: [50, 50, 310],
  hole: { kind: 'captive-nut', thread: 'M10x1.5' },
  condition: 'good',
  nutReach: 'none',
  ...over,
});
const jointOf = (over: Partial<Joint> = {}, fastener: Partial<Joint['fastener']> = {}): Joint => ({
  id: 'j',
  mount: 'm',
  panels: ['p'],
  fastener: { head: 'hex', thread: 'M10x1.5', class: '8.8', length: 'auto', finish: 'zinc', ...fastener },
  nut: 'none',
  washers: ['flat'],
  spacer: 0,
  headSide: 'below',
  lube: 'dry',
  torque: 'auto',
  ...over,
});
const panel: Panel = {
  id: 'p',
  mark: 'A',
  name: 'p',
  base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline: rectangle(0, 0, 100, 100) },
  flanges: [],
  openings: [],
  guards: [],
};
const steel: SheetChoice = { material: 'steel-hr36', thickness: 4.7625, finish: 'raw' };
const resolved = (joint: Joint, mount = mountOf(), sheet = steel) => {
  const rig = { mounts: [mount], members: [member], components: [], bars: [] } as unknown as PresentRig;
  const folded = fold(panel, sheet);
  const r = resolveJoint(joint, rig, new Map([['p', folded]]));
  if (!r) throw new Error('not resolved');
  return r;
};

describe('threads', () => {
  it('have stress areas by their formulas (ISO 898-1, ASME B1.1)', () => {
    for (const t of THREADS) {
      const area =
        t.system === 'metric'
          ? (Math.PI / 4) * (t.d - 0.9382 * t.pitch) ** 2
          : 0.7854 * (t.d - 0.9743 * t.pitch) ** 2;
      expect(Math.abs(t.stressArea - area) / area).toBeLessThan(0.007);
    }
  });
  it('are found by trade name', () => {
    expect(thread('M10').pitch).toBe(1.5);
    expect(thread('m8 x 1').pitch).toBe(1);
    expect(thread('3/8-16').d).toBeCloseTo(9.525, 9);
    expect(threadNamed('M11').ok).toBe(false);
  });
  // ASME B1.1 App. B with ISO 965-2 limits, mm²/mm
  it.each([
    ['M6', 12.191],
    ['M8', 16.829],
    ['M10', 21.477],
    ['M12', 26.117],
  ])('internal shear area of %s is %d per mm', (name, area) => {
    expect(Math.abs(internalShearArea(thread(name)) - area) / area).toBeLessThan(0.01);
  });
});

describe('torque', () => {
  // worked: T = K·F·d with F = f·Sp·At (Shigley Eqs. 8-27, 8-31)
  it.each([
    ['M8', '8.8', 0.2, 15921, 25.47],
    ['M8', '10.9', 0.16, 22783.5, 29.16],
    ['M10', '10.9', 0.2, 36105, 72.21],
    ['M10x1.25', '10.9', 0.15, 38097, 57.15],
    ['1/4-20', 'grade-5', 0.2, 9017.7, 11.45],
    ['5/16-18', 'grade-8', 0.18, 20977.8, 29.97],
    ['3/8-16', 'grade-5', 0.2, 21977, 41.87],
  ] as const)('%s %s K %d', (name, grade, k, force, nm) => {
    const t = thread(name);
    const f = REUSED_PRELOAD * STRENGTH[grade].proof * t.stressArea;
    expect(Math.abs(f - force) / force).toBeLessThan(0.001);
    expect(Math.abs(torqueFor(k, t.d, f) - nm) / nm).toBeLessThan(0.001);
  });
  // typical published charts, 75 % proof, K = 0.20, 10 % tolerance
  it.each([
    ['M6', '8.8', 10],
    ['M8', '8.8', 25],
    ['M10', '8.8', 50],
    ['M12', '10.9', 125],
    ['3/8-16', 'grade-5', 31 * NM_PER_LBF_FT],
    ['1/2-13', 'grade-8', 107 * NM_PER_LBF_FT],
  ] as const)('%s %s lies on the shop chart', (name, grade, nm) => {
    const t = thread(name);
    const got = torqueFor(0.2, t.d, REUSED_PRELOAD * STRENGTH[grade].proof * t.stressArea);
    expect(Math.abs(got - nm) / nm).toBeLessThan(0.1);
  });
  it('more lubrication never gives more torque', () => {
    for (const finish of ['plain', 'zinc', 'stainless'] as const) {
      expect(nutFactor(finish, 'anti-seize')).toBeLessThan(nutFactor(finish, 'threadlocker'));
      expect(nutFactor(finish, 'threadlocker')).toBeLessThan(nutFactor(finish, 'dry'));
    }
  });
});

describe('lengths', () => {
  // worked: L = plates + washers + nut + 2 threads, up to ISO 888 / inch stock
  it.each([
    ['M8', 22.5, 25],
    ['M12', 41.3, 45],
    ['3/8-16', 1.0831 * MM_PER_INCH, 1.25 * MM_PER_INCH],
    ['1/2-13', 1.4363 * MM_PER_INCH, 1.5 * MM_PER_INCH],
    ['1/4-20', 0.5713 * MM_PER_INCH, 0.625 * MM_PER_INCH],
  ])('%s needing %d comes as %d', (name, need, stock) => {
    expect(stockLength(need, thread(name))).toBeCloseTo(stock, 6);
  });
  it('follow the stack: plate, washer, wall, captive nut, two pitches', () => {
    const r = resolved(jointOf());
    expect(r.gripMm).toBeCloseTo(2 + 4.7625 + 3, 6);
    expect(r.neededMm).toBeCloseTo(9.7625 + 8.4 + 3, 6);
    expect(r.lengthMm).toBe(25);
    expect(r.protrusionMm).toBeCloseTo(25 - 9.7625 - 8.4, 6);
  });
  it('a longer grip never gives a shorter bolt', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 20 }), (s, more) => {
        const at = (spacer: number) => resolved(jointOf({ spacer })).lengthMm;
        expect(at(s + more)).toBeGreaterThanOrEqual(at(s));
      }),
    );
  });
});

describe('the weakest element rules', () => {
  it('the bolt, in a captive nut', () => {
    const r = resolved(jointOf());
    expect(r.limitedBy).toBe('bolt');
    expect(r.torqueNm).toBeCloseTo(0.2 * 10 * 0.75 * 580 * 58 * 1e-3, 6);
  });
  it('a rivet nut at M10: two thirds of the 30 lbf·ft at which it is expected to strip (common practice)', () => {
    const r = resolved(jointOf({ nut: 'rivet-nut' }), mountOf({ hole: { kind: 'drill' } }));
    expect(r.limitedBy).toBe('rivet nut');
    expect(r.torqueNm / NM_PER_LBF_FT).toBeCloseTo(20, 1);
    // it bears all of it: 40.7 N\u00b7m at K = 0.2 on 10 mm
    expect(r.pulls.find(l => l.by === 'rivet nut')?.force).toBeCloseTo(40.7e3 / 2, -1);
    expect(r.drill.at(-1)).toBe(13);
    expect(r.toolFor.set).toBe('rivet nut setting tool');
  });
  it('a rivet nut on a dry plain thread: by torque, since the clamp that K = 0.30 leaves is less', () => {
    const dry = resolved(
      jointOf({ nut: 'rivet-nut' }, { finish: 'plain' }),
      mountOf({ hole: { kind: 'drill' } }),
    );
    expect(dry.torqueNm / NM_PER_LBF_FT).toBeCloseTo(20, 1);
    expect(dry.preloadN).toBeCloseTo((dry.torqueNm * 1000) / (0.3 * 10), 6);
    expect(dry.limitedBy).toBe('rivet nut');
  });
  it('a clip nut at M6: two thirds of 7 lbf·ft (common practice)', () => {
    const r = resolved(jointOf({}, { thread: 'M6' }), mountOf({ hole: { kind: 'clip-nut' } }));
    expect(r.limitedBy).toBe('clip nut');
    expect(r.torqueNm / NM_PER_LBF_FT).toBeCloseTo(14 / 3, 1);
  });
  it('a captive nut of which nothing is known carries no more than an 8.8 bolt (ISO 898-2)', () => {
    const strong = resolved(jointOf({}, { class: '10.9' }), mountOf());
    expect(strong.limitedBy).toBe('captive nut');
    expect(strong.torqueNm).toBeCloseTo(resolved(jointOf({}, { class: '8.8' }), mountOf()).torqueNm, 9);
    // class 8, M10: 870 MPa on 58 mm\u00b2
    expect(strong.pulls.find(l => l.by === 'captive nut')?.force).toBeCloseTo(
      870 * strong.thread.stressArea,
      6,
    );
  });
  it('an oiled black bolt takes 0.18 of d\u00b7F, not the 0.30 of a dry one (Shigley Table 8-15)', () => {
    const dry = resolved(jointOf({}, { finish: 'plain' }), mountOf());
    const oiled = resolved(jointOf({ lube: 'oil' }, { finish: 'plain' }), mountOf());
    expect([dry.kFactor, oiled.kFactor]).toEqual([0.3, 0.18]);
    expect(oiled.preloadN).toBeCloseTo(dry.preloadN, 6);
    expect(oiled.torqueNm).toBeCloseTo(0.6 * dry.torqueNm, 9);
  });
  it('holds no more than its weakest part, whatever torque is entered', () => {
    const r = resolved(jointOf({ torque: 500 }), mountOf());
    expect(r.askedN).toBeCloseTo(500_000 / (r.kFactor * 10), 6);
    expect(r.preloadN).toBeLessThanOrEqual(580 * 58 + 1);
    expect(r.preloadN).toBe(Math.min(...r.pulls.map(l => l.force)));
  });
  it('tapped sheet, and plastic under the head', () => {
    expect(resolved(jointOf(), mountOf({ hole: { kind: 'threaded' } })).limitedBy).toBe('tapped sheet');
    const uhmw: SheetChoice = { material: 'uhmw-pe', thickness: 9.525, finish: 'raw' };
    expect(resolved(jointOf(), mountOf(), uhmw).limitedBy).toBe('plastic sheet');
  });
  it('capacity never exceeds the bolt, whatever is combined', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('hex', 'button', 'countersunk', 'tamper-6' as const),
        fc.constantFrom('none', 'rivet-nut', 'clip', 'hex' as const),
        fc.constantFrom('M6', 'M8', 'M10', 'M12'),
        (head, nut, name) => {
          const r = resolved(jointOf({ nut: nut as Joint['nut'] }, { head: head as 'hex', thread: name }));
          expect(r.preloadN).toBeLessThanOrEqual(0.75 * 580 * thread(name).stressArea + 1e-6);
        },
      ),
    );
  });
  it('a vehicle maker\u2019s value beats ours', () => {
    const r = resolved(jointOf({ torque: 33 }));
    expect(r.torqueNm).toBe(33);
    expect(r.limitedBy).toBe('value entered');
  });
  it('a broken captive nut out of reach becomes a rivet nut, within reach a flange nut', () => {
    const blind = resolved(jointOf(), mountOf({ condition: 'broken-nut' }));
    expect(blind.nut?.kind).toBe('rivet-nut');
    expect(blind.drill.at(-1)).toBe(13);
    const open = resolved(jointOf(), mountOf({ condition: 'broken-nut', nutReach: 'open' }));
    expect(open.nut?.kind).toBe('flange-serrated');
    expect(open.drill).toEqual([]);
  });
});

describe('dimensions', () => {
  it('of heads (ISO 4014, ISO 7380-1, ISO 10642, ASME B18.2.1)', () => {
    expect(headSize('hex', thread('M10'))).toMatchObject({ flats: 16, height: 6.4, tool: 'socket 16 mm' });
    expect(headSize('hex', thread('3/8-16')).tool).toBe('socket 9/16 in');
    expect(headSize('button', thread('M8'))).toMatchObject({
      bearing: 14,
      height: 4.4,
      tool: 'hex key 5 mm',
    });
    expect(headSize('countersunk', thread('M10')).bearing).toBe(22.4);
    expect(headSize('tamper-6', thread('M8')).tool).toContain('T40');
  });
  it('of nuts and washers (ISO 4032, ISO 4161, ISO 7089, ISO 7093-1)', () => {
    expect(nutSize('hex', thread('M12')).height).toBe(10.8);
    expect(nutSize('flange-serrated', thread('M10')).height).toBe(10);
    expect(washerSize('flat', thread('M10'))).toMatchObject({ outer: 20, thickness: 2 });
    expect(washerSize('fender', thread('M8'))).toMatchObject({ outer: 24, thickness: 2 });
  });
  it('drills climb from a 1/8 in pilot in steps of about two', () => {
    const ladder = drillLadder(13.5);
    expect(ladder[0]).toBeCloseTo(3.18, 2);
    expect(ladder.at(-1)).toBe(13.5);
    ladder.slice(1).forEach((d, i) => expect(d / ladder[i]!).toBeLessThanOrEqual(2.3));
  });
  // thread-cutting 5/16 for 3/8, 7/16 for 1/2; carriage 1/2 for 1/2; self-drilling 3/16: common practice
  it.each([
    ['thread-cutting', '3/8', 5 / 16],
    ['thread-cutting', '1/2', 7 / 16],
    ['carriage', '1/2', 1 / 2],
    ['self-drilling', '1/4', 3 / 16],
  ] as const)('%s %s wants a %d in hole', (head, size, inches) => {
    const r = resolved(
      jointOf({}, { head, thread: size, class: 'grade-5' }),
      mountOf({ hole: { kind: 'drill' } }),
    );
    expect(r.drill.at(-1)).toBeCloseTo(inches * MM_PER_INCH, 1);
  });
});

describe('lists', () => {
  it('count every part and name every tool once', () => {
    const joints = [
      resolved(jointOf()),
      resolved(jointOf({ id: 'k', nut: 'nylon-lock', washers: ['flat', 'flat'] })),
    ];
    const list = hardwareList(joints);
    expect(list.find(l => l.part === 'flat washer M10, 200 HV, zinc')?.count).toBe(3);
    expect(list.find(l => l.part.startsWith('nylon lock nut'))?.count).toBe(1);
    expect(list.reduce((n, l) => n + l.count, 0)).toBe(6);
    const tools = toolList(joints);
    expect(tools.find(t => t.tool === 'socket 16 mm')?.for).toEqual(['j', 'k']);
    expect(tools.find(t => t.tool === 'wrench 16 mm')?.for).toEqual(['k']);
  });
});
