import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { attached, holdFaults, respaced, seatsOf, spacerPile, threadNamed } from '../bolt';
import { solidClashes, waterTraps } from '../cover';
import { type Assembly, assemble, gatherFacts } from '../derive';
import { foldPanel } from '../fold';
import {
  flangeAdded,
  holesTidied,
  inPlan,
  type Joint,
  type PlanDocument,
  panelMoved,
  panelSplit,
  panelsMerged,
  panelsRemoved,
  presentOf,
  redrawnFor,
  restacked,
  sheetsSet,
  withJoint,
  withPanel,
} from '../plan';
import { memberName } from '../rig';
import { platesOnly } from '../testing';
import { anyPlan } from '../testing/random';
import { check, type Finding, vettedRemedy } from './index';
import { mended } from './mended';

const bramble = demo('bramble');
const heron = demo('heron');
const of = (doc: PlanDocument, rule: string, build?: string): readonly Finding[] =>
  check(gatherFacts(doc, build)).filter(f => f.rule === rule);
const BUILD_RULES = [
  'seat',
  'bolt-place',
  'bolt-tilt',
  'hole-edge',
  'hole-spacing',
  'hole-bend',
  'hole-in-opening',
  'hole-cut',
  'spacer-long',
  'head-clear',
  'solid',
  'thread-into-air',
];
const at = (doc: PlanDocument, id: string, part: Partial<Joint>): PlanDocument =>
  withJoint(doc, id, j => ({ ...j, ...part }));

describe('the demo plans can be built', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])('%s, in every build', name => {
    const doc = demo(name);
    for (const b of doc.plan.builds)
      expect(
        check(gatherFacts(doc, b.id))
          .filter(f => f.severity !== 'note' && BUILD_RULES.includes(f.rule))
          .map(f => f.text),
      ).toEqual([]);
  });
});

describe('seats', () => {
  it('tell how far a plate hangs, where and at how many bolts, and mend it with spacers or by moving it', () => {
    const low = panelMoved(bramble, 'plate-e', [0, 0, -33.3375]);
    const [found] = of(low, 'seat').filter(f => f.text.includes('crossmember'));
    expect(check(gatherFacts(low), 'inch').find(f => f.rule === 'seat')?.text).toMatch(
      /^Plate E is 1 5\/16 in below the .+ at (\d bolts|bolt \w+)\.$/,
    );
    const facts = gatherFacts(low);
    const r = vettedRemedy(facts, found as Finding);
    expect(r?.brings).toEqual([]);
    expect(of(r ? mended(low, r.mend) : low, 'seat').length).toBeLessThan(of(low, 'seat').length);
    const up = { ...low };
    const back = [found as Finding]
      .flatMap(f => f.more ?? [])
      .find(m => m.remedy.startsWith('Bring plate E up'));
    expect(of(back ? mended(up, back.mend) : up, 'seat')).toEqual([]);
  });
  it('tell how far a plate is pulled into its member or its neighbor', () => {
    expect(
      of(panelMoved(bramble, 'plate-d', [0, 0, 4]), 'seat')
        .map(f => f.text)
        .join(' '),
    ).toMatch(/Plate D is 4\.0 mm inside the rear crossmember/);
    expect(
      of(panelMoved(bramble, 'plate-a', [0, 0, -2]), 'seat')
        .map(f => f.text)
        .join(' '),
    ).toMatch(/Plate A is 2\.0 mm below plate B/);
  });
  it('close in every build, whatever sheets it has; a bracket is bent for one height and stays out of it', () => {
    const gapsOf = ({ seats, document: { plan } }: Assembly): readonly number[] =>
      plan.joints
        .filter(j => !j.panels.some(id => plan.panels.some(p => p.id === id && p.role === 'bracket')))
        .flatMap(j => seats.get(j.id)?.gaps.map(g => Math.abs(g.mm)) ?? []);
    const thickness = fc.constantFrom(1.5, 2.5, 3.416, 4.7625, 6.35, 9.525, 12.7);
    fc.assert(
      fc.property(
        fc.constantFrom('bramble', 'heron', 'pebble', 'wren'),
        fc.array(thickness, { minLength: 6, maxLength: 6 }),
        (name, ts) => {
          const doc = demo(name);
          const [first] = doc.plan.builds;
          if (!first) return;
          const sheets = Object.fromEntries(
            // a bracket is made anew for other sheet
            doc.plan.panels
              .filter(p => p.role !== 'bracket')
              .map((p, i) => [
                p.id,
                { material: 'steel-hr36' as const, thickness: ts[i] ?? 5, finish: 'raw' as const },
              ]),
          );
          const other = inPlan(doc, {
            builds: [...doc.plan.builds, { ...first, id: 'X', name: 'x', sheets }],
          });
          const gaps = gapsOf(assemble(other, 'X'));
          // as the first build closes, within what it was let off and what tilting rounds to
          expect(Math.max(...gaps)).toBeLessThan(0.5);
          // and where it becomes the first it is drawn so
          const drawn = redrawnFor(other, other.plan.builds.at(-1) as (typeof other.plan.builds)[number]);
          const again = gapsOf(assemble(drawn, 'X'));
          expect(Math.max(...again)).toBeLessThan(0.5);
        },
      ),
      { numRuns: 40, seed: 11 },
    );
  });
  it('stay closed when the first build, for which plates are drawn, gets other sheet', () => {
    const [first] = bramble.plan.builds;
    const thick = sheetsSet(bramble, first?.id ?? '', {
      'plate-c': { material: 'al-5052-h32', thickness: 9.525, finish: 'raw' },
    });
    expect(of(thick, 'seat')).toEqual([]);
    // C's upper face stays where it was pressed; B, outside it, comes down with it
    const z = (doc: PlanDocument, id: string) => doc.plan.panels.find(p => p.id === id)?.base.origin[2] ?? 0;
    expect(z(bramble, 'plate-c') - z(thick, 'plate-c')).toBeCloseTo(9.525 - 4.7625, 1);
    expect(z(bramble, 'plate-b') - z(thick, 'plate-b')).toBeGreaterThan(4);
    expect(z(thick, 'plate-d')).toBe(z(bramble, 'plate-d'));
    const back = sheetsSet(thick, first?.id ?? '', { 'plate-c': first?.sheets['plate-c'] as never });
    expect(z(back, 'plate-c')).toBeCloseTo(z(bramble, 'plate-c'), 6);
    expect(restacked(bramble, first?.sheets ?? {}, first?.sheets ?? {}).panels).toBe(bramble.plan.panels);
  });
  it('count a bar between plate and member', () => {
    const lifted = inPlan(heron, {
      crossbars: heron.plan.crossbars.map(c => ({
        ...c,
        from: [c.from[0], c.from[1], c.from[2] - 3],
        to: [c.to[0], c.to[1], c.to[2] - 3],
      })),
    });
    expect(
      of(lifted, 'seat')
        .map(f => f.text)
        .join(' '),
    ).toContain('Bar under the tank is 3.0 mm below');
  });
});

describe('what holds nothing does not count', () => {
  const faults = (doc: PlanDocument, id: string) => {
    const { joints, seats, panels } = assemble(doc);
    const j = joints.find(x => x.id === id);
    return j ? holdFaults(j, seats.get(id), panels).map(f => f.kind) : ['missing'];
  };
  const holes = (doc: PlanDocument, id: string, part: object): PlanDocument => ({
    ...doc,
    rig: { ...doc.rig, mounts: doc.rig.mounts.map(m => (m.id === id ? { ...m, ...part } : m)) },
  });
  it('a bolt beside its plate, through its edge, a bend or an opening', () => {
    expect(faults(holes(bramble, 'h5lo', { at: [2680, -700, 325] }), 'j18')).toContain('beside');
    expect(faults(holes(bramble, 'h5lo', { at: [2713.8, -330, 325] }), 'j18')).toContain('bend');
    const open = withPanel(bramble, 'plate-d', p => ({
      ...p,
      openings: [...p.openings, { id: 'o', kind: 'drain', at: [1050, -330], shape: { circle: 60 } }],
    }));
    expect(faults(open, 'j18')).toContain('opening');
    expect(of(open, 'bolt-place').map(f => f.text)).toEqual([
      'Bolt j18 goes through an opening of plate D, so it does not hold the plate.',
    ]);
    expect(faults(holes(bramble, 'h4lo', { at: [1632, -330, 325] }), 'j15')).toContain('edge');
  });
  it('no member, another thread, too thick for the hole, a head that cannot be turned', () => {
    expect(faults(holes(bramble, 'h5lo', { at: [2680, -330, 390] }), 'j18')).toContain('mid-air');
    expect(faults(at(bramble, 'j18', { fastener: { ...heronBolt, thread: 'M8x1.25' } }), 'j18')).toEqual([
      'other-thread',
    ]);
    const rivet = holes(bramble, 'h5lo', { hole: { kind: 'rivet-nut', thread: 'M6x1' } });
    expect(faults(rivet, 'j18')).toEqual(['other-thread']);
    expect(faults(holes(bramble, 'rail-l5', { hole: { kind: 'through', diameter: 11 } }), 'j11')).toEqual([
      'too-thick',
    ]);
    expect(faults(at(bramble, 'j18', { fastener: { ...heronBolt, head: 'carriage' } }), 'j18')).toEqual([
      'head-turns',
    ]);
    const odd = at(bramble, 'j18', { fastener: { ...heronBolt, thread: 'M11x1.5' } });
    expect(of(odd, 'thread-into-air').map(f => f.about)).toEqual([['j18']]);
  });
  it('such bolts hold no plate: two of four leave it hanging on a line', () => {
    const plain = platesOnly(bramble);
    const odd = ['j15', 'j16'].reduce(
      (d, id) => at(d, id, { fastener: { ...heronBolt, thread: '1/4-20' } }),
      inPlan(plain, {
        joints: plain.plan.joints.filter(j => !['j20', 'j21', 'j22', 'j23'].includes(j.id)),
      }),
    );
    expect(of(odd, 'few-bolts').some(f => f.about.includes('plate-d'))).toBe(true);
  });
  it('a stud gets its nut and no bolt', () => {
    const stud = holes(bramble, 'h5lo', { hole: { kind: 'stud', thread: 'M10x1.5' } });
    const j = assemble(stud).joints.find(x => x.id === 'j18');
    expect(j?.parts.some(p => p.kind === 'bolt')).toBe(false);
    expect(j?.parts.some(p => p.kind === 'nut')).toBe(true);
    expect(j?.massKg).toBeLessThan(assemble(bramble).joints.find(x => x.id === 'j18')?.massKg ?? 0);
  });
});
const heronBolt = heron.plan.joints[2]?.fastener as Joint['fastener'];

describe('heads', () => {
  it('of a bar or of an inner plate stand in no other plate; sunk or bolted through they do not', () => {
    const proud = ['j-15', 'j-16'].reduce(
      (d, id) => at(d, id, { fastener: { ...heronBolt, thread: 'M10x1.5', head: 'flange' } }),
      heron,
    );
    const found = of(proud, 'head-clear');
    expect(found.map(f => f.text)).toEqual([
      'The head of bolt j-15 is between the crossbar and plate D.',
      'The head of bolt j-16 is between the crossbar and plate D.',
    ]);
    const r = vettedRemedy(gatherFacts(proud), found[0] as Finding);
    expect(r?.brings).toEqual([]);
    const inner = at(bramble, 'j07', { panels: ['plate-b'] });
    expect(of(inner, 'head-clear').map(f => f.about)).toEqual([['j07', 'plate-a']]);
  });
});

describe('holes in sheet', () => {
  it('too near to an edge (AISC 360 J3.4), to one another (J3.3) and to a bend are told with both figures', () => {
    const cut = withPanel(bramble, 'plate-c', p => ({
      ...p,
      base: { ...p.base, outline: p.base.outline.map(([u, v]) => [u === 590 ? 572 : u, v] as const) },
    }));
    // 12 mm from the edge, where 1.5 diameters of M10 are 15
    const edge = of(cut, 'hole-edge').find(f => f.about.includes('j15'));
    expect(edge?.text).toMatch(/12\.0 mm from the edge; 15\.0 mm is the least for M10/);
    const close = {
      ...bramble,
      rig: {
        ...bramble.rig,
        mounts: bramble.rig.mounts.map(m => (m.id === 'h4ri' ? { ...m, at: [1660, -130, 325] as const } : m)),
      },
    };
    const spacing = of(respaced(close, ['plate-c']), 'hole-spacing').find(f => f.about.includes('j17'));
    expect(spacing?.severity).toBe('fix');
    expect(spacing?.text).toMatch(/20 mm apart; 21 mm is the least for M8/);
    // 2 t + R and half the hole: 9.5 + 20 + 5.5 mm, where the bolts stand 30 mm from the edge
    const bent = withPanel(bramble, 'plate-c', p => ({
      ...p,
      flanges: [{ id: 'f', edge: 3, length: 60, angle: 30, insideRadius: 20 }],
    }));
    expect(of(bent, 'hole-bend').map(f => f.text)).toContain(
      'Plate C: bolt j12 is 30 mm from bend f; it needs 35 mm.',
    );
  });
  it('smaller than the cutter makes are marked or cut full instead', () => {
    const shop = bramble.plan.shop as NonNullable<typeof bramble.plan.shop>;
    const joints = bramble.plan.joints.map(j => (j.id === 'j28' ? { ...j, cut: 'pilot' as const } : j));
    const plasma = inPlan(bramble, { joints, shop: { ...shop, cutter: 'plasma' } });
    const found = of(plasma, 'hole-cut');
    expect(found.map(f => f.about[1])).toContain('j28');
    const after = found.reduce((d, f) => (f.mend ? mended(d, f.mend) : d), plasma);
    expect(of(after, 'hole-cut')).toEqual([]);
    expect(of(inPlan(bramble, { shop: { ...shop, cutter: 'hand' } }), 'hole-cut')).toEqual([]);
  });
  it('on a slope stand off square, and a tapered washer helps as far as it goes', () => {
    const tilted = withPanel(heron, 'plate-4', p => ({ ...p, base: { ...p.base, pitch: 8 } }));
    const f = of(tilted, 'bolt-tilt').find(x => x.about.includes('j-13'));
    expect(f?.text).toMatch(/8\.0° off square/);
    const help = f?.mend ? mended(tilted, f.mend) : tilted;
    expect(of(help, 'bolt-tilt').some(x => x.about.includes('j-13'))).toBe(false);
  });
});

describe('solids', () => {
  it('are kept apart on flats with thickness, steep and upright ones too', () => {
    const facts = assemble(bramble);
    expect(solidClashes(facts.rig, facts.panels)).toEqual([]);
    // an upright side run into the rail beside it: no vertical gap shows it
    const wall = flangeAdded(
      panelMoved(demo('pebble'), 'plate-1', [0, 0, 0]),
      'skirt-left',
      { edge: 0 },
      60,
      88,
    );
    const near = withPanel(wall, 'skirt-left', p => ({
      ...p,
      base: { ...p.base, outline: p.base.outline.map(([u, v]) => [u, v === -515 ? -424 : v] as const) },
    }));
    const { rig, panels } = assemble(near);
    expect(solidClashes(rig, panels).some(c => c.panel === 'skirt-left' && c.with.kind === 'member')).toBe(
      true,
    );
    expect(
      solidClashes(facts.rig, assemble(panelMoved(bramble, 'plate-a', [0, 0, -400])).panels),
    ).toContainEqual(expect.objectContaining({ panel: 'plate-a', with: { kind: 'ground', id: 'ground' } }));
    const crossed = panelMoved(bramble, 'plate-c', [0, 0, -3]);
    expect(of(crossed, 'seat').length + of(crossed, 'solid').length).toBeGreaterThan(0);
  });
  it('a flange that lies level holds no water back, one that rises does', () => {
    const level = { ...heron, plan: { ...heron.plan } };
    expect(waterTraps(assemble(level).panels)).toEqual([]);
    const [p] = heron.plan.panels.slice(3);
    if (!p) throw new Error('no plate');
    const tray = [0, 1, 2, 3].reduce((d, edge) => flangeAdded(d, p.id, { edge }, 40, 60), heron);
    const dry = withPanel(tray, p.id, q => ({
      ...q,
      openings: q.openings.filter(o => o.kind === 'louvers'),
    }));
    expect(waterTraps(assemble(dry).panels).map(t => t.panel)).toEqual([p.id]);
  });
});

describe('edits that leave a plan that can be built', () => {
  it('a split plate: the outer half hangs one sheet lower, on spacers, and every stack closes', () => {
    for (const [doc, id, x] of [
      [bramble, 'plate-c', 1400],
      [heron, 'plate-4', 2240],
      [bramble, 'plate-d', 2180],
    ] as const) {
      const r = panelSplit(doc, id, { x });
      if (!r.ok) throw new Error(r.fault);
      const { document, ids } = r.value;
      expect(of(document, 'seat').map(f => f.text)).toEqual([]);
      expect(of(document, 'solid').map(f => f.text)).toEqual([]);
      expect(document.plan.seams).toContainEqual({
        front: ids[0],
        rear: ids[1],
        overlap: 60,
        outside: ids[0],
      });
    }
  });
  it('merged again, its bolts stand as the one plate now does', () => {
    const r = panelSplit(heron, 'plate-4', { x: 2240 });
    if (!r.ok) throw new Error(r.fault);
    const merged = panelsMerged(r.value.document, ...r.value.ids);
    if (!merged.ok) throw new Error(merged.fault);
    expect(of(respaced(merged.value, [r.value.ids[0]]), 'seat').map(f => f.text)).toEqual([]);
  });
  it('a bolt added to a hole gets the spacer and the place among its plates that it really has', () => {
    const bare = inPlan(bramble, {
      joints: bramble.plan.joints.filter(j => !['j07', 'j17'].includes(j.id)),
    });
    const facts = assemble(bare);
    const add = (doc: PlanDocument, m: string, p: string): PlanDocument => {
      const r = attached(doc, facts.rig, facts.panels, m, p);
      if (!r.ok) throw new Error(r.fault);
      return r.value;
    };
    const both = add(add(bare, 'h2lo', 'plate-b'), 'h2lo', 'plate-a');
    const j = both.plan.joints.find(x => x.mount === 'h2lo');
    expect(j?.panels).toEqual(['plate-a', 'plate-b']);
    expect(j?.spacer).toBeCloseTo(4.76, 2);
    expect(of(both, 'seat')).toEqual([]);
    const far = attached(bare, facts.rig, facts.panels, 'h1lo', 'plate-d');
    expect(far.ok ? '' : far.fault).toContain('is not above a flat part of plate D');
  });
  it('holes drilled for a plan go with their plate and with their bar', () => {
    const gone = panelsRemoved(heron, ['plate-4']);
    expect(gone.plan.holes?.map(h => h.id)).toEqual(['bar-front', 'bar-rear', 'cross-4-middle']);
    const bare = holesTidied(
      inPlan(gone, { crossbars: [], joints: gone.plan.joints.filter(j => j.panels.length > 0) }),
    );
    expect(bare.plan.holes?.map(h => h.id)).toEqual(['cross-4-middle']);
    expect(presentOf(bare).bars).toEqual([]);
  });
});

describe('the vehicle is called by its names', () => {
  it('members by where they are', () => {
    const rig = presentOf(bramble);
    expect(memberName(rig, 'cross-1')).toBe('front crossmember');
    expect(memberName(rig, 'cross-5')).toBe('rear crossmember');
    expect(memberName(rig, 'rail-left')).toBe('driver\u2019s side frame rail');
    expect(memberName(presentOf(heron), 'bar-1')).toBe('bar under the tank');
  });
  it('spacers by what is sold: one, two or three that make up the height', () => {
    const [m8, inch] = ['M8', '3/8'].map(t => {
      const r = threadNamed(t);
      if (!r.ok) throw new Error(r.fault);
      return r.value;
    });
    expect(spacerPile(12, m8!)).toEqual([12]);
    expect(spacerPile(27, m8!)).toEqual([25, 2]);
    expect(spacerPile(25.4, inch!)).toEqual([25.4]);
    fc.assert(
      fc.property(fc.double({ min: 1, max: 60, noNaN: true }), mm => {
        const pile = spacerPile(mm, m8!);
        expect(Math.abs(pile.reduce((a, b) => a + b, 0) - mm)).toBeLessThan(0.26);
      }),
    );
  });
});

describe('a plan at random', () => {
  it('stands as its parts do, looked at twice: seats do not depend on what was looked at before', () => {
    fc.assert(
      fc.property(anyPlan(), doc => {
        const { rig, joints, seats, panels } = assemble(doc);
        const fresh = structuredClone(doc);
        const again = assemble(fresh);
        expect([...again.seats.values()].map(s => s.gaps)).toEqual([...seats.values()].map(s => s.gaps));
        expect(seatsOf(joints, rig, panels).size).toBe(joints.length);
        for (const p of panels)
          expect(p.holes.length).toBeLessThanOrEqual(
            joints.filter(j => j.joint.panels.includes(p.panel.id)).length,
          );
        for (const p of doc.plan.panels) foldPanel(p, doc.plan.builds[0]?.sheets[p.id] as never);
      }),
      { numRuns: 10, seed: 21 },
    );
  });
});
