import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check, type Finding } from '../checks';
import { gatherFacts } from '../derive';
import { type Call, changeJoints, done, inPlan, type Joint, type PlanDocument } from '../plan';
import type { Mount } from '../rig';
import { installationOf } from '../sequence';
import { holdFaults, nutSetting, partNames, type ResolvedJoint, stackFaults } from './index';

const heron = demo('heron');
/** Bolt j-13 of the tank plate, under a sound M8 captive nut, changed as told; and its hole. */
function made(part: Partial<Joint>, hole: Partial<Mount> = {}): ResolvedJoint {
  const doc: PlanDocument = inPlan(
    {
      ...heron,
      rig: { ...heron.rig, mounts: heron.rig.mounts.map(m => (m.id === 'h6li' ? { ...m, ...hole } : m)) },
    },
    { joints: heron.plan.joints.map(j => (j.id === 'j-13' ? { ...j, ...part } : j)) },
  );
  const found = gatherFacts(doc).joints.find(j => j.id === 'j-13');
  if (!found) throw new Error('no j-13');
  return found;
}
const kinds = (j: ResolvedJoint): readonly string[] =>
  [...holdFaults(j, undefined, []), ...stackFaults(j)].map(f => f.kind);

describe('a threaded post in place of a loose spacer', () => {
  const loose = made({ nut: 'none', spacer: 25 });
  const post = made({ nut: 'post', spacer: 25 });

  it('clamps the plate alone: a bolt shorter by the spacer and what stands over', () => {
    expect(loose.gripMm - post.gripMm).toBeCloseTo(25 + (loose.member?.wall ?? 0), 9);
    // a diameter of thread in the post; nothing has to stand out of a blind hole
    expect(post.neededMm).toBeCloseTo(post.gripMm + 8, 9);
    expect(post.lengthMm).toBeLessThan(loose.lengthMm - 20);
    expect(kinds(post)).toEqual([]);
  });

  it('is bought as one part instead of the spacers, with its stud', () => {
    expect(partNames(post).filter(p => p.includes('spacer'))).toEqual([]);
    expect(partNames(post)).toContain('threaded post M8x1.25, 25 mm high, with stud');
    expect(partNames(loose).join()).toContain('spacer 25 mm for M8');
    // a post is as much steel as the spacer it replaces: what differs is the bolt's own length
    expect(post.massKg).toBeLessThan(loose.massKg);
  });

  it('bears no more than the thread its stud is in', () => {
    expect(post.bearsN.tension).toBeLessThanOrEqual(loose.bearsN.tension + 1e-6);
    expect(post.pulls.map(p => p.by)).toEqual(expect.arrayContaining(['captive nut', 'threaded post']));
    expect(post.torqueNm).toBeLessThanOrEqual(loose.torqueNm + 1e-9);
  });

  it('stands in its hole before the plate goes up; loose spacers are stuck on first', () => {
    const said = nutSetting(post, 'metric');
    expect(said?.kind).toBe('threaded post');
    expect(said?.moves.join(' ')).toMatch(/25\.0 mm high.*Tighten it to 23 N·m/);
    const { steps } = installationOf(gatherFacts(heron));
    const at = (id: string): number => steps.findIndex(s => s.id === id);
    expect(at('set-j-13')).toBeGreaterThan(-1);
    expect(at('set-j-13')).toBeLessThan(at('hang-plate-4'));
    expect(steps[at('hang-plate-4')]?.hows?.join(' ')).toContain('25.0 mm at j-11.');
    expect(steps[at('hang-plate-1')]?.hows?.join(' ')).toContain('5.0 mm at j-6.');
  });

  it.each([
    ['a plain hole', { hole: { kind: 'through', diameter: 9 } }, 'post-no-thread'],
    ['a broken nut', { condition: 'broken-nut' }, 'post-no-thread'],
    ['another thread', { hole: { kind: 'captive-nut', thread: 'M10x1.5' } }, 'other-thread'],
  ] as const)('finds no hold in %s', (_, hole, kind) => {
    expect(kinds(made({ nut: 'post', spacer: 25 }, hole))).toContain(kind);
  });

  it('is never so short that its bolt meets its foot, unless that is told', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), spacer => {
        const j = made({ nut: 'post', spacer });
        const inside = j.lengthMm - j.gripMm;
        expect(inside).toBeGreaterThanOrEqual(8 - 1e-9);
        expect(kinds(j).includes('post-shallow')).toBe(inside > Math.max(0, spacer - 2) + 1e-6);
      }),
      { numRuns: 40 },
    );
  });

  it('is offered for what stands loose and tall, once, and brings nothing else', () => {
    const bare = inPlan(heron, {
      joints: heron.plan.joints.map(j => (j.nut === 'post' ? { ...j, nut: 'none' as const } : j)),
    });
    const found = check(gatherFacts(bare)).filter(f => f.rule === 'loose-spacer');
    expect(found.map(f => f.about)).toEqual([['plate-4', 'j-12', 'j-13', 'j-14']]);
    const { args } = (found[0] as Finding).mend as Call<Parameters<typeof changeJoints.run>[1]>;
    const mended = done(changeJoints, bare, args);
    if (!mended.ok) throw new Error(mended.fault);
    expect(mended.value.plan.joints).toEqual(heron.plan.joints);
    const after = check(gatherFacts(mended.value));
    expect(after.some(f => f.rule === 'loose-spacer')).toBe(false);
    // the broken nut beside them keeps its spacer
    expect(mended.value.plan.joints.find(j => j.id === 'j-11')?.nut).toBe('none');
    const was = new Set(check(gatherFacts(bare)).map(f => f.text));
    expect(after.filter(f => !was.has(f.text))).toEqual([]);
  });
});
