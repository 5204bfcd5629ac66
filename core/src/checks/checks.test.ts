import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { optionEffect } from '../compare';
import { gatherFacts, weighAll } from '../derive';
import { foldedSolid, SHOPS } from '../fold';
import { checkDocument, type PlanDocument } from '../plan';
import { withChoice } from '../rig';
import { installationOf } from '../sequence';
import { check, type Finding, RULES } from './index';
import { mended } from './mended';

// biome-ignore lint/suspicious/noExplicitAny: tests change documents freely
const changed = (change: (doc: any) => void): PlanDocument => {
  const doc = structuredClone(demo('bramble'));
  change(doc);
  const r = checkDocument(doc);
  if (!r.ok) throw new Error(`${r.faults[0]?.path} ${r.faults[0]?.fault}`);
  return r.document;
};
const findings = (doc: PlanDocument, rule: string): readonly Finding[] =>
  check(gatherFacts(doc)).filter(f => f.rule === rule);
/** Applies a finding's own remedy and looks again for the same complaint about the same things. */
const mendedOf = (doc: PlanDocument, rule: string): readonly Finding[] => {
  const first = findings(doc, rule).find(f => f.mend);
  if (!first?.mend) throw new Error(`${rule} offers no remedy`);
  const after = checkDocument(mended(doc, first.mend));
  if (!after.ok) throw new Error(after.faults[0]?.fault);
  return findings(after.document, rule).filter(f => f.about.join() === first.about.join());
};

describe('Bramble as delivered', () => {
  const facts = gatherFacts(demo('bramble'));
  it('has nothing that must stop the job, in any build', () => {
    for (const b of facts.document.plan.builds)
      expect(check(gatherFacts(facts.document, b.id)).filter(f => f.severity === 'stop')).toEqual([]);
  });
  it('is plausible: a full steel set near 180 lb, aluminum well under', () => {
    const [a, b, c] = weighAll(facts).map(w => w.addedKg * 2.2046);
    expect(a).toBeGreaterThan(160);
    expect(a).toBeLessThan(210);
    expect(b).toBeLessThan(0.55 * a!);
    expect(c).toBeGreaterThan(b!);
    expect(c).toBeLessThan(a!);
  });
  it('rails clear the tires and no two parts share space', () => {
    const { rig, components, members } = facts.rig;
    const boxes = [...components, ...members].map(p => ({
      id: p.id,
      x: [Math.min(...p.footprint.map(q => q[0])), Math.max(...p.footprint.map(q => q[0]))],
      y: [Math.min(...p.footprint.map(q => q[1])), Math.max(...p.footprint.map(q => q[1]))],
      z: [p.zBottom, p.zTop],
      convex: p.footprint.length === 4,
    }));
    for (const b of boxes.filter(x => x.id.startsWith('rail')))
      expect(Math.max(...b.y.map(Math.abs))).toBeLessThan(rig.trackWidth / 2 - 125);
    const apart = (p: number[], q: number[]): boolean => p[1]! <= q[0]! || q[1]! <= p[0]!;
    for (const p of boxes)
      for (const q of boxes)
        if (p.id < q.id && p.convex && q.convex)
          expect([p.id, q.id, apart(p.x, q.x) || apart(p.y, q.y) || apart(p.z, q.z)]).toEqual([
            p.id,
            q.id,
            true,
          ]);
  });
  it('every bolt finds its plates at its hole, within reach of the wrench', () => {
    for (const j of facts.joints) {
      const [x, y, z] = j.at;
      for (const id of j.joint.panels) {
        const p = facts.panels.find(q => q.panel.id === id)!;
        const flats = p.facets.filter(f => Math.abs(f.frame.n[2]) > 0.99);
        const under = flats.some(f => {
          const xs = f.outline.map(q => f.frame.origin[0] + f.frame.u[0] * q[0] + f.frame.v[0] * q[1]);
          const ys = f.outline.map(q => f.frame.origin[1] + f.frame.u[1] * q[0] + f.frame.v[1] * q[1]);
          const edge = 1.2 * j.thread.d;
          const low = f.frame.origin[2] - (f.frame.n[2] < 0 ? p.sheet.thickness : 0);
          return (
            x > Math.min(...xs) + edge &&
            x < Math.max(...xs) - edge &&
            y > Math.min(...ys) + edge &&
            y < Math.max(...ys) - edge &&
            // a joint without a hole of the vehicle is placed where its bracket begins
            z > low - 0.01 &&
            z - low < 25
          );
        });
        expect([j.id, id, under]).toEqual([j.id, id, true]);
      }
    }
  });
});

describe('every rule', () => {
  it('has an id of its own and says why', () => {
    expect(new Set(RULES.map(r => r.id)).size).toBe(RULES.length);
    for (const r of RULES) expect(r.why.length).toBeGreaterThan(20);
  });

  it('uncovered: a missing plate leaves its part bare, and stops', () => {
    const doc = changed(
      d =>
        (d.plan.panels[3].base.outline = [
          [0, -645],
          [40, -645],
          [40, -600],
          [0, -600],
        ]),
    );
    expect(findings(doc, 'uncovered')[0]).toMatchObject({ severity: 'stop', about: ['tank'] });
  });
  it('too-near: a raised plate first crowds, then enters what it guards', () => {
    const raise = (by: number) => changed(d => (d.plan.panels[1].base.origin[2] += by));
    expect(findings(raise(25), 'too-near')[0]).toMatchObject({
      severity: 'fix',
      about: ['plate-b', 'transmission'],
    });
    expect(findings(raise(60), 'too-near')[0]).toMatchObject({ severity: 'stop' });
  });
  it('moving-part: a plate in the swept space of a shaft stops', () => {
    const doc = changed(d => (d.plan.panels[1].base.origin[2] += 30));
    expect(findings(doc, 'moving-part')[0]?.about).toEqual(['plate-b', 'shaft-front']);
  });
  it('hot-part: louvers are asked for and added; plastic stops', () => {
    const bare = changed(d => {
      d.plan.panels[4].openings = d.plan.panels[4].openings.filter(
        (o: { kind: string }) => o.kind !== 'louvers',
      );
    });
    expect(findings(bare, 'hot-part')).toHaveLength(2);
    expect(mendedOf(bare, 'hot-part')).toEqual([]);
    const plastic = changed(
      d => (d.plan.builds[0].sheets['plate-e'] = { material: 'uhmw-pe', thickness: 9.525, finish: 'raw' }),
    );
    expect(findings(plastic, 'hot-part')[0]?.severity).toBe('stop');
  });
  it('catch-edge: laid the wrong way it catches, and the remedy lays it right', () => {
    const doc = changed(d => (d.plan.panels[2].base.origin[2] = 298));
    expect(findings(doc, 'catch-edge')[0]?.about).toEqual(['plate-c', 'plate-b']);
    expect(mendedOf(doc, 'catch-edge')).toEqual([]);
  });
  it('water-trap: a tray without holes is given one', () => {
    const doc = changed(d => {
      d.plan.panels[2].openings = [];
      d.plan.panels[2].flanges = [0, 1, 2, 3].map(edge => ({
        id: `lip${edge}`,
        edge,
        length: 40,
        angle: 30,
      }));
    });
    expect(findings(doc, 'water-trap')).toHaveLength(1);
    expect(mendedOf(doc, 'water-trap')).toEqual([]);
  });
  it('service-blocked: a closed drain is opened to the size hand and tool need', () => {
    const doc = changed(d => (d.plan.panels[0].openings = d.plan.panels[0].openings.slice(1)));
    expect(findings(doc, 'service-blocked').map(f => f.about[1])).toContain('oil-drain');
    expect(mendedOf(doc, 'service-blocked')).toEqual([]);
  });
  it('too-heavy: by the limit set, and by how many lift', () => {
    const over = findings(demo('bramble'), 'too-heavy').filter(f => f.severity === 'fix');
    expect(over.map(f => f.about[0])).toEqual(['plate-a', 'plate-b']);
    expect(
      findings(
        changed(d => (d.plan.method.people = 2)),
        'too-heavy',
      ).filter(f => f.severity === 'fix'),
    ).toEqual([]);
  });
  it('least-thickness: what practice asks under a tank, where it takes hits, and where it only deters', () => {
    const of = (panel: string, material: string, thickness: number, limits: object = {}) =>
      changed(d => {
        d.plan.builds[0].sheets[panel] = { material, thickness, finish: 'raw' };
        Object.assign(d.plan.limits, limits);
      });
    for (const [panel, material, thickness, thin] of [
      // 10 gauge steel and 3/16 in aluminum under the tank, as the trade has it
      ['plate-d', 'steel-hr36', 3.0378, true],
      ['plate-d', 'steel-hr36', 3.4163, false],
      ['plate-d', 'al-5052-h32', 4.06, true],
      ['plate-d', 'al-5052-h32', 4.7625, false],
      ['plate-b', 'steel-hr36', 1.8974, true],
      ['plate-b', 'steel-hr36', 2.657, false],
      ['plate-e', 'steel-hr36', 1.519, false],
      // sold as 16 gauge where sheet is sold by millimeters
      ['plate-e', 'steel-hr36', 1.5, false],
      ['plate-e', 'steel-hr36', 1.214, true],
      // practice has no word on plastic
      ['plate-d', 'uhmw-pe', 6.35, false],
    ] as const)
      expect(findings(of(panel, material, thickness), 'least-thickness').map(f => f.about[0])).toEqual(
        thin ? [panel] : [],
      );
    const thin = of('plate-d', 'steel-hr36', 1.519);
    expect(findings(thin, 'least-thickness')[0]?.text).toContain('under a fuel tank');
    expect(mendedOf(thin, 'least-thickness')).toEqual([]);
    expect(findings(of('plate-d', 'steel-hr36', 1.519, { least: { off: true } }), 'least-thickness')).toEqual(
      [],
    );
    expect(
      findings(of('plate-d', 'steel-hr36', 3.4163, { least: { tank: 5 } }), 'least-thickness'),
    ).toHaveLength(1);
    // no example is thinner than that
    for (const d of ['bramble', 'heron', 'pebble', 'wren'] as const)
      for (const b of demo(d).plan.builds)
        expect(check(gatherFacts(demo(d), b.id)).filter(f => f.rule === 'least-thickness')).toEqual([]);
  });
  it('bend: a tight radius is opened, plastic is not folded, along the grain wants more', () => {
    const tight = changed(d => (d.plan.panels[0].flanges[0].insideRadius = 2));
    expect(findings(tight, 'bend')[0]).toMatchObject({ severity: 'fix', about: ['plate-a', 'front-ramp'] });
    expect(findings(tight, 'bend')[0]?.text).toContain('tighter than');
    const left = mendedOf(tight, 'bend').filter(f => f.about[1] === 'front-ramp');
    expect(left).toEqual([]);
    const plastic = changed(
      d => (d.plan.builds[0].sheets['plate-a'] = { material: 'uhmw-pe', thickness: 9.525, finish: 'raw' }),
    );
    expect(findings(plastic, 'bend').some(f => f.severity === 'stop')).toBe(true);
    // by itself the blank's grain lies across most of its bends; turned, plate B's side bends run along it
    expect(findings(demo('bramble'), 'bend').filter(f => f.about[0] === 'plate-b')).toEqual([]);
    const turned = changed(d => (d.plan.panels[1].grain = 'u'));
    const along = findings(turned, 'bend').filter(f => f.about[0] === 'plate-b');
    expect(along.map(f => [f.severity, f.about[1]])).toEqual([
      ['note', 'side'],
      ['note', 'side-lip'],
    ]);
    const wider = along.reduce((d, f) => (f.mend ? mended(d, f.mend) : d), turned);
    expect(findings(wider, 'bend').filter(f => f.about[0] === 'plate-b')).toEqual([]);
    expect(wider.plan.panels[1]?.flanges[0]?.insideRadius).toBeGreaterThan(9);
  });
  it('bend: a radius of nought or less, an angle beyond the punch and insets that leave nothing are found at the bend', () => {
    for (const [spoil, words] of [
      [{ insideRadius: 0 }, 'cannot be made'],
      [{ insideRadius: -4 }, 'cannot be made'],
      [{ angle: 170 }, 'more than the 150°'],
      [{ inset: [600, 600] }, 'use up the whole edge'],
    ] as const) {
      const doc = changed(d => Object.assign(d.plan.panels[0].flanges[0], spoil));
      const [first] = findings(doc, 'bend').filter(f => f.about[1] === 'front-ramp');
      expect(first, words).toMatchObject({ severity: 'stop', about: ['plate-a', 'front-ramp'] });
      expect(first?.text).toContain(words);
      const again = first?.mend && mended(doc, first.mend);
      expect(again && findings(again, 'bend').filter(f => f.severity === 'stop')).toEqual([]);
      // the picture holds: every corner of the folded solid is a number
      const plate = gatherFacts(doc).panels[0];
      expect(plate && foldedSolid(plate).flat(2).every(Number.isFinite)).toBe(true);
    }
  });
  it('brake: a short flange falls in, a long blank is not for sale, a bend is too long or too heavy, an order may not exist', () => {
    const short = changed(d => (d.plan.panels[3].flanges[0].length = 20));
    expect(findings(short, 'brake')[0]?.text).toContain('die');
    expect(mendedOf(short, 'brake')).toEqual([]);
    const long = changed(
      d =>
        (d.plan.panels[2].base.outline = [
          [0, -375],
          [3200, -375],
          [3200, 225],
          [0, 225],
        ]),
    );
    expect(findings(long, 'brake')[0]?.text).toContain('larger than');
    const shop = (over: object) => changed(d => (d.plan.shop = { ...structuredClone(SHOPS[0]), ...over }));
    expect(findings(shop({ brake: { length: 600, force: 400 } }), 'brake')[0]?.text).toContain(
      'takes 600 mm',
    );
    expect(findings(shop({ brake: { length: 1270, force: 60 } }), 'brake')[0]?.text).toMatch(/takes \d+ kN/);
    // a punch shorter than plate B's side wall is high, with a broad beam over it
    const low = shop({ tools: { punchHeight: 30, punchWidth: 26, dieHeight: 80, beam: 600 } });
    expect(findings(low, 'brake').some(f => f.text.includes('no bend order works'))).toBe(true);
    // air bending charts go from 6 to 12 t: 4.76 mm of steel in a die of 28 mm is too tight, in one of 30 mm it is not
    const tight = findings(shop({ dies: [20, 28] }), 'brake').filter(f => f.text.includes('widest die'));
    expect(tight.map(f => f.about[0])).toContain('plate-a');
    expect(findings(shop({ dies: [20, 30] }), 'brake').filter(f => f.text.includes('widest die'))).toEqual(
      [],
    );
    expect(findings(demo('bramble'), 'brake')).toEqual([]);
  });
  it('blank: walls that overlap when folded are mitered', () => {
    const walls = changed(
      d =>
        (d.plan.panels[2].flanges = [0, 1, 2, 3].map(edge => ({
          id: `wall${edge}`,
          edge,
          length: 60,
          angle: 90,
        }))),
    );
    const met = findings(walls, 'blank').filter(f => f.text.includes('overlap by'));
    expect(met).toHaveLength(4);
    expect(met[0]?.severity).toBe('stop');
    const done = met.reduce((d, f) => (f.mend ? mended(d, f.mend) : d), walls);
    expect(findings(done, 'blank').filter(f => f.text.includes('overlap by'))).toEqual([]);
  });
  it('bolt-length: too short stops, too long is noted, both are put right', () => {
    const short = changed(d => (d.plan.joints[6].fastener.length = 20));
    expect(findings(short, 'bolt-length')[0]).toMatchObject({ severity: 'stop' });
    expect(findings(short, 'bolt-length')[0]?.text).toContain('share the hole');
    expect(mendedOf(short, 'bolt-length')).toEqual([]);
    expect(
      findings(
        changed(d => (d.plan.joints[0].fastener.length = 80)),
        'bolt-length',
      )[0]?.severity,
    ).toBe('note');
  });
  it('thread-into-air: no nut in a plain hole, or the wrong thread', () => {
    const bare = changed(d => (d.plan.joints[9].nut = 'none'));
    expect(findings(bare, 'thread-into-air')).toHaveLength(1);
    expect(mendedOf(bare, 'thread-into-air')).toEqual([]);
    const wrong = changed(d => (d.plan.joints[0].fastener.thread = 'M8x1.25'));
    expect(findings(wrong, 'thread-into-air')[0]?.text).toContain('M10x1.5');
    expect(mendedOf(wrong, 'thread-into-air')).toEqual([]);
  });
  it('nut-reach: a loose nut behind a closed wall becomes a rivet nut', () => {
    const doc = changed(
      d => (d.rig.mounts.find((m: { id: string }) => m.id === 'rail-l4').nutReach = 'none'),
    );
    expect(findings(doc, 'nut-reach')).toHaveLength(1);
    expect(mendedOf(doc, 'nut-reach')).toEqual([]);
  });
  it('drilling: towards a tank stops, towards an exhaust wants a stop on the drill', () => {
    expect(findings(demo('bramble'), 'drilling')[0]).toMatchObject({
      severity: 'fix',
      about: ['j28', 'exhaust'],
    });
    const tank = changed(
      d => (d.rig.mounts.find((m: { id: string }) => m.id === 'conv-extra').behind.component = 'tank'),
    );
    expect(findings(tank, 'drilling')[0]?.severity).toBe('stop');
  });
  it('galling: dry stainless is greased', () => {
    const doc = changed(d => (d.plan.joints[23].lube = 'dry'));
    expect(findings(doc, 'galling')).toHaveLength(1);
    expect(mendedOf(doc, 'galling')).toEqual([]);
  });
  it('dissimilar-metals: zinc bolts in bare aluminum are 0.35 V apart (anodic index, engineering practice)', () => {
    const doc = changed(d => (d.plan.activeBuild = 'B'));
    expect(findings(doc, 'dissimilar-metals')[0]?.text).toContain('0.35 V');
  });
  it('option-misfit: without a front axle drive the transfer case plate guards nothing', () => {
    const two = { ...demo('bramble'), rig: withChoice(demo('bramble').rig, 'drivetrain', '2wd') };
    expect(findings(two, 'option-misfit').map(f => f.about[0])).toEqual(['plate-c']);
    const gone = changed(d => (d.rig.mounts[0].when = { drivetrain: ['2wd'] }));
    expect(findings(gone, 'option-misfit')[0]).toMatchObject({ severity: 'stop', about: ['j01'] });
    expect(mendedOf(gone, 'option-misfit')).toEqual([]);
  });
  it('hole-blocked and limits', () => {
    expect(
      findings(
        changed(d => (d.rig.mounts[0].condition = 'blocked')),
        'hole-blocked',
      ),
    ).toHaveLength(1);
    const tightened = changed(d => (d.plan.limits = { budget: 200, minClearance: 300 }));
    expect(findings(tightened, 'limits').map(f => f.where)).toEqual(['weigh', 'cover']);
  });
  it('waiting-steps: plates that each lie outside the other are named, and told apart by how they hang', () => {
    const doc = changed(d => (d.plan.seams[0].outside = 'plate-b'));
    const [f] = findings(doc, 'waiting-steps');
    expect(f?.severity).toBe('stop');
    expect(f?.about.length).toBeGreaterThan(1);
    expect(f?.text).toMatch(/plate A and plate B|plate B and plate A/i);
    const after = f?.mend ? mended(doc, f.mend) : doc;
    expect(findings(after, 'waiting-steps')).toEqual([]);
  });
});

describe('the other demo plans', () => {
  const rules = (doc: PlanDocument, build?: string): readonly string[] =>
    check(gatherFacts(doc, build))
      .filter(f => f.severity === 'stop')
      .map(f => f.rule);
  it('Heron shows a conflict with the bumper plate, repairs, and a combination that is refused', () => {
    const heron = demo('heron');
    expect(rules(heron)).toEqual(['too-near']);
    const repairs = installationOf(gatherFacts(heron)).steps.filter(s => s.stage === 'repair');
    expect(repairs.filter(s => s.title.includes('rivet nut')).length).toBe(2);
    const both = {
      ...heron,
      rig: withChoice(withChoice(heron.rig, 'differential', 'lowered'), 'links', 'kit'),
    };
    expect(rules(both)).toContain('option-refused');
    const first = check(gatherFacts(heron)).find(f => f.rule === 'too-near');
    const mendedDoc = first?.mend && mended(heron, first.mend);
    expect(mendedDoc && rules(mendedDoc)).toEqual([]);
  });
  it('Pebble has nothing to stop it; Wren shows the heat rule, and aluminum there answers it', () => {
    expect(rules(demo('pebble'))).toEqual([]);
    expect(rules(demo('wren'))).toEqual(['hot-part']);
    expect(rules(demo('wren'), 'B')).toEqual([]);
  });
});

describe('checks of cover and hold', () => {
  it('a wholly bare part gets a plate, a plate without bolts gets them, both by their remedy', () => {
    const bare = changed(doc => {
      doc.plan.panels = doc.plan.panels.filter((p: { id: string }) => p.id !== 'plate-d');
      doc.plan.joints = doc.plan.joints.filter((j: { panels: string[] }) => !j.panels.includes('plate-d'));
      doc.plan.seams = doc.plan.seams.filter((s: { rear: string }) => s.rear !== 'plate-d');
      for (const b of doc.plan.builds) delete b.sheets['plate-d'];
      delete doc.plan.phases;
    });
    const tank = findings(bare, 'uncovered').find(f => f.about.includes('tank'));
    expect(tank?.severity).toBe('stop');
    const covered = mended(bare, tank!.mend!);
    expect(checkDocument(covered).ok).toBe(true);
    expect(findings(covered, 'uncovered').some(f => f.about.includes('tank'))).toBe(false);
    expect(findings(covered, 'few-bolts').map(f => f.severity)).toEqual(['stop']);
    const loose = changed(doc => {
      doc.plan.joints = doc.plan.joints.filter((j: { panels: string[] }) => !j.panels.includes('plate-b'));
    });
    expect(findings(loose, 'few-bolts').map(f => f.about[0])).toContain('plate-b');
    expect(mendedOf(loose, 'few-bolts')).toEqual([]);
  });
  it('a span beyond what the sheet bears is found, and thicker sheet answers it', () => {
    const thin = changed(doc => {
      for (const id of Object.keys(doc.plan.builds[0].sheets))
        doc.plan.builds[0].sheets[id] = { material: 'al-5052-h32', thickness: 2, finish: 'raw' };
    });
    expect(findings(thin, 'span').length).toBeGreaterThan(0);
    expect(findings(demo('bramble'), 'span')).toEqual([]);
  });
  it('an opening at the edge is found and taken out by its remedy', () => {
    const doc = changed(d => {
      d.plan.panels[3].openings.push({ id: 'edge', kind: 'stones', at: [8, -300], shape: { circle: 25 } });
    });
    expect(findings(doc, 'opening-outside')).toHaveLength(1);
    expect(mendedOf(doc, 'opening-outside')).toEqual([]);
  });
  it('from ahead: a flatter ray sees no less of what hangs behind a plate', () => {
    const at = (aheadDegrees: number): number =>
      gatherFacts(
        changed(d => {
          d.plan.limits.aheadDegrees = aheadDegrees;
        }),
      ).coverage.fromAheadFraction;
    expect(at(20)).toBeCloseTo(gatherFacts(demo('bramble')).coverage.fromAheadFraction, 12);
    expect(at(45)).not.toBeCloseTo(at(10), 4);
  });
});

describe('what an option changes', () => {
  it('names what comes, what goes, and what no longer fits', () => {
    const doc = demo('bramble');
    const two = optionEffect(doc, 'drivetrain', '2wd');
    expect(two.removed).toContain('transfer case');
    expect(two.added).toEqual([]);
    const four = optionEffect(doc, 'engine', 'four');
    expect(four.added).toContain('oil pan');
    expect(four.misfits.every(t => t.length > 10)).toBe(true);
    expect(optionEffect(doc, 'engine', 'six')).toEqual({ added: [], removed: [], misfits: [] });
  });
});
