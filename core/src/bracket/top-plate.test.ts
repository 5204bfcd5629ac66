import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drillingCard, holdFaults, type ResolvedJoint, throughMember } from '../bolt';
import { check } from '../checks';
import { type Facts, gatherFacts } from '../derive';
import { done, inPlan, movePlate, type PlanDocument } from '../plan';
import { installationOf } from '../sequence';
import { platesOnly } from '../testing';
import { addTopPlate, remakeBracket, topPlateAdded } from './index';

const bramble = platesOnly(demo('bramble'));
/** Bolt j28 of the converter shield, in a hole to be drilled in the third crossmember, with a plate on top of that; and the plate's id. */
function topped(doc: PlanDocument = bramble, joint = 'j28'): { document: PlanDocument; id: string } {
  const made = topPlateAdded(doc, { joint });
  if (!made.ok) throw new Error(made.fault);
  return made.value;
}
const jointIn = (facts: Facts, id: string): ResolvedJoint => {
  const j = facts.joints.find(x => x.id === id);
  if (!j) throw new Error(`no ${id}`);
  return j;
};
const { document: made, id } = topped();
const facts = gatherFacts(made);
const j28 = jointIn(facts, 'j28');

describe('a top plate with threads', () => {
  it('lies on its member over both sides, and its bolt goes right through that', () => {
    const panel = made.plan.panels.find(p => p.id === id);
    expect(panel?.base.origin).toEqual([1100, expect.any(Number), 343]);
    expect(panel?.base.outline[2]?.[0]).toBe(60);
    expect(facts.seats.get('j28')?.gaps.filter(g => g.top)).toEqual([
      { plate: id, against: { kind: 'member', id: 'cross-3' }, mm: expect.closeTo(0, 6), top: true },
    ]);
    expect(j28.layers.map(l => l.kind).slice(-3)).toEqual(['member', 'plate', 'nut']);
    // the bolt clamps the whole height of the member, 24 mm, and is screwed into the plate above
    const plates = facts.panels.find(p => p.panel.id === 'plate-e')?.sheet.thickness as number;
    const rest = j28.layers.filter(l => l.kind === 'washer' || l.kind === 'spacer');
    expect(j28.gripMm).toBeCloseTo(plates + 24 + rest.reduce((s, l) => s + l.thickness, 0), 9);
    expect(j28.lengthMm).toBeGreaterThan(j28.gripMm + Math.min(9.525, j28.thread.d));
    expect(j28.pulls.map(p => p.by)).toEqual(expect.arrayContaining(['tapped sheet']));
  });

  it('is tapped in its blank, where its plate has a clearance hole', () => {
    const hole = (panel: string) =>
      facts.panels.find(p => p.panel.id === panel)?.holes.find(h => h.joint === 'j28')?.final;
    expect(hole(id)).toEqual({ circle: Math.round((j28.thread.d - j28.thread.pitch) * 10) / 10 });
    expect(hole('plate-e')).toEqual({ circle: j28.thread.clearances.normal });
  });

  it('is laid on its member before the plate comes, its hole drilled through both walls', () => {
    const card = drillingCard(j28, facts.joints, made.plan.method);
    expect(card?.moves.map(m => m.what).join(' ')).toContain('through the far wall');
    const { steps } = installationOf(facts);
    const at = (x: string): number => steps.findIndex(s => s.id === x);
    expect(steps[at(`hang-${id}`)]?.title).toMatch(
      /^Lay bracket K1, top plate, on top of the third crossmember/,
    );
    expect(at(`hang-${id}`)).toBeGreaterThan(at('drill-j28'));
    expect(at(`hang-${id}`)).toBeLessThan(at('hang-plate-e'));
  });

  it('that floats above its member is found and brought down', () => {
    const lifted = done(movePlate, made, { panel: id, by: [0, 0, 3] });
    if (!lifted.ok) throw new Error(lifted.fault);
    const found = check(gatherFacts(lifted.value)).find(f => f.rule === 'seat' && f.about.includes(id));
    expect(found?.text).toMatch(/is .* above the third crossmember/);
    expect(found?.remedy).toMatch(/^Bring bracket K1 down by/);
    const args = found?.mend?.args as Parameters<typeof movePlate.run>[1];
    const mended = done(movePlate, lifted.value, args);
    if (!mended.ok) throw new Error(mended.fault);
    expect(check(gatherFacts(mended.value)).some(f => f.rule === 'seat' && f.about.includes(id))).toBe(false);
  });

  it('that does not reach over both sides is found', () => {
    const narrow = inPlan(made, {
      panels: made.plan.panels.map(p =>
        p.id === id
          ? {
              ...p,
              base: {
                ...p.base,
                origin: [1115, p.base.origin[1], 343],
                outline: p.base.outline.map(q => [Math.min(q[0], 30), q[1]] as const),
              },
            }
          : p,
      ),
    });
    const texts = (d: PlanDocument): readonly string[] =>
      check(gatherFacts(d))
        .filter(f => f.rule === 'top-plate')
        .map(f => f.text);
    expect(texts(made)).toEqual([]);
    expect(texts(narrow)[0]).toMatch(/does not reach over both sides of the third crossmember/);
  });

  it('stays where it lies when its plate is of another sheet, and takes one of its own', () => {
    const build = made.plan.builds.find(b => b.id !== made.plan.activeBuild)?.id as string;
    const other = gatherFacts(inPlan(made, { activeBuild: build }));
    expect(other.panels.find(p => p.panel.id === id)?.panel.base.origin).toEqual(
      made.plan.panels.find(p => p.id === id)?.base.origin,
    );
    const thin = done(remakeBracket, made, {
      bracket: id,
      sheet: { material: 'steel-hr36', thickness: 6.35, finish: 'powder', gauge: '1/4 in' },
    });
    if (!thin.ok) throw new Error(thin.fault);
    const now = jointIn(gatherFacts(thin.value), 'j28');
    expect(now.gripMm).toBe(j28.gripMm);
    expect(now.bearsN.tension).toBeLessThanOrEqual(j28.bearsN.tension);
  });

  it('is refused where the hole does not go through, is none, or has one', () => {
    const why = (joint: string, doc = bramble): string => {
      const r = topPlateAdded(doc, { joint });
      return r.ok ? '' : r.fault;
    };
    expect(why('j01')).toMatch(/does not go through/);
    expect(why('j99')).toMatch(/in no hole/);
    expect(why('j28', made)).toMatch(/already/);
    expect(why('j-19', demo('heron'))).toMatch(/an axle tube is not drilled/);
    const captive = inPlan(bramble, {
      joints: bramble.plan.joints.map(j =>
        j.id === 'j01' ? { ...j, panels: [...j.panels, id], threadIn: id } : j,
      ),
      panels: [...bramble.plan.panels, ...made.plan.panels.filter(p => p.id === id)],
    });
    const f = gatherFacts(captive);
    expect(holdFaults(jointIn(f, 'j01'), f.seats.get('j01'), f.panels).map(x => x.kind)).toContain(
      'not-through',
    );
  });

  it('wherever it can be made leaves no bolt worse off than it was', () => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren'] as const) {
      const doc = demo(name);
      const stops = (d: PlanDocument): readonly string[] =>
        check(gatherFacts(d))
          .filter(f => f.severity === 'stop')
          .map(f => `${f.rule} ${f.about.join()}`);
      const was = new Set(stops(doc));
      const open = doc.plan.joints.filter(j => topPlateAdded(doc, { joint: j.id }).ok);
      if (name === 'pebble') expect(open.length).toBeGreaterThan(4);
      for (const j of open) {
        const after = done(addTopPlate, doc, { joint: j.id });
        if (!after.ok) throw new Error(after.fault);
        expect(
          stops(after.value).filter(t => !was.has(t)),
          `${name} ${j.id}`,
        ).toEqual([]);
      }
    }
  });
});

it('the way through a block is its height up and down, and its width to a side, from whichever face', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 10, max: 500 }),
      fc.integer({ min: 10, max: 500 }),
      fc.integer({ min: 5, max: 300 }),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      (a, b, h, s) => {
        const block = {
          id: 'm',
          kind: 'crossmember' as const,
          footprint: [
            [0, 0],
            [a, 0],
            [a, b],
            [0, b],
          ] as const,
          zBottom: 100,
          zTop: 100 + h,
          wall: 3,
        };
        expect(throughMember(block, [s * a, s * b, 100], [0, 0, -1])).toBe(h);
        expect(throughMember(block, [0, s * b, 110], [-1, 0, 0])).toBeCloseTo(a, 9);
        expect(throughMember(block, [a, s * b, 110], [1, 0, 0])).toBeCloseTo(a, 9);
        expect(throughMember(block, [s * a, b, 110], [0, 1, 0])).toBeCloseTo(b, 9);
      },
    ),
  );
});
