import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldPanel } from '../fold';
import { type Joint, type PlanDocument, sheetOf, withJoint } from '../plan';
import { type HoleCondition, type NutReach, presentRig } from '../rig';
import { MATERIALS } from '../sheet';
import {
  chooseHardware,
  clearToEdge,
  drillingCard,
  drillStop,
  jointCapacity,
  jointNotes,
  partNames,
  type ResolvedJoint,
  removals,
  repairOptions,
  resolveJoints,
  STRENGTH,
  stackFaults,
  toolList,
} from './index';

const looked = (doc: PlanDocument, build = doc.plan.builds[0]!) => {
  const rig = presentRig(doc.rig);
  const panels = doc.plan.panels.map(p => foldPanel(p, sheetOf(build, p)));
  return { doc, rig, panels, joints: resolveJoints(doc.plan.joints, rig, panels) };
};
const heron = looked(demo('heron'));
const bramble = looked(demo('bramble'));

describe('what a joint bears', () => {
  it('is the weakest of what can give, each with its source', () => {
    for (const { joints, panels } of [heron, bramble])
      for (const j of joints) {
        const c = jointCapacity(j, panels);
        for (const acts of ['pull', 'shear'] as const) {
          const all = c.elements.filter(e => e.acts === acts);
          expect(c[acts].force).toBe(Math.min(...all.map(e => e.force)));
          for (const e of all) expect(e.source.length).toBeGreaterThan(10);
        }
        expect(c.pull.force).toBeLessThanOrEqual(j.bearsN.tension + 1e-9);
      }
  });
  it('has a plate stretch at 2.4 d t Fu and tear at 1.2 lc t Fu (AISC 360-16 J3.10), by hand', () => {
    const j = bramble.joints.find(
      x =>
        x.joint.panels.length === 1 &&
        x.thread.size === 'M10' &&
        jointCapacity(x, bramble.panels).elements.some(e => e.what.includes('torn out')),
    )!;
    const p = bramble.panels.find(x => x.panel.id === j.joint.panels[0])!;
    const of = (word: string) => jointCapacity(j, bramble.panels).elements.find(e => e.what.includes(word))!;
    expect(of('stretched').force).toBeCloseTo(
      2.4 * 10 * p.sheet.thickness * MATERIALS['steel-hr36'].ultimate,
      6,
    );
    const clear = clearToEdge(p, j.at, j.thread.clearance)!;
    expect(of('torn out').force).toBeCloseTo(1.2 * clear * p.sheet.thickness * 365, 6);
    const shear = 0.577 * STRENGTH[j.joint.fastener.class].proof * j.thread.stressArea;
    expect(
      jointCapacity(j, bramble.panels).elements.find(e => e.what === 'bolt' && e.acts === 'shear')!.force,
    ).toBeCloseTo(shear, 6);
  });
  it('is never more in thinner sheet', () => {
    const doc = bramble.doc;
    const thin = looked({
      ...doc,
      plan: {
        ...doc.plan,
        builds: doc.plan.builds.map(b => ({
          ...b,
          sheets: Object.fromEntries(
            Object.entries(b.sheets).map(([k, s]) => [k, { ...s, thickness: s.thickness / 2 }]),
          ),
        })),
      },
    });
    for (const j of thin.joints) {
      const before = bramble.joints.find(x => x.id === j.id)!;
      expect(jointCapacity(j, thin.panels).shear.force).toBeLessThanOrEqual(
        jointCapacity(before, bramble.panels).shear.force + 1e-6,
      );
    }
  });
});

describe('a bad hole', () => {
  const with_ = (condition: HoleCondition, nutReach: NutReach) => {
    const of = looked({
      ...heron.doc,
      rig: {
        ...heron.doc.rig,
        mounts: heron.doc.rig.mounts.map(m => (m.id === 'h2ri' ? { ...m, condition, nutReach } : m)),
      },
    });
    const j = of.joints.find(x => x.mount?.id === 'h2ri')!;
    return { options: repairOptions(j, of.rig, of.panels), ...of, j };
  };
  it('that is sound needs nothing; a blocked one cannot be mended', () => {
    expect(with_('good', 'none').options).toEqual([]);
    expect(with_('blocked', 'none').options).toEqual([]);
  });
  it('offers what a hand can reach, the strongest first', () => {
    const ids = (c: HoleCondition, r: NutReach) => with_(c, r).options.map(o => o.id);
    expect(new Set(ids('broken-nut', 'none'))).toEqual(new Set(['rivet-nut', 'weld-tab']));
    expect(new Set(ids('broken-nut', 'slot'))).toEqual(
      new Set(['nut-plate', 't-bolt', 'rivet-nut', 'weld-tab']),
    );
    expect(ids('stripped', 'open')).toContain('flange-nut');
    expect(ids('rusted', 'none')).toContain('chase');
    const { options } = with_('broken-nut', 'open');
    const shares = options.map(o => o.ofOriginal);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
  });
  it('holds less on a rivet nut than the sound one did, and as much behind a flange nut', () => {
    const { options } = with_('broken-nut', 'open');
    const of = (id: string) => options.find(o => o.id === id)!;
    expect(of('rivet-nut').ofOriginal).toBeLessThan(1);
    expect(of('flange-nut').ofOriginal).toBeCloseTo(1, 6);
    expect(of('rivet-nut').adds.join(' ')).toMatch(/rivet nut.*setting tool.*drill/);
    expect(of('weld-tab').caution).toMatch(/licensed/);
  });
  it('chased is as it was', () => {
    const { options } = with_('rusted', 'none');
    expect(options.find(o => o.id === 'chase')).toMatchObject({ ofOriginal: 1 });
  });
});

describe('hardware chosen for all joints', () => {
  it('of the lifted SUV mends its two broken nuts and says why', () => {
    const choices = chooseHardware(heron.joints, heron);
    const broken = heron.joints.filter(j => j.mount?.condition === 'broken-nut');
    expect(broken.length).toBe(2);
    for (const j of broken) {
      const c = choices.find(x => x.id === j.id)!;
      expect(c.joint.nut).toBe('rivet-nut');
      expect(c.why).toMatch(/rivet nut from below, since the captive nut is broken: \d+ % of the sound hole/);
    }
    for (const c of choices) expect(c.why).toMatch(/^[A-Z].*\.$/);
  });
  it('fits every thread that a hole gives, keeps torques that were entered, and leaves what is locked', () => {
    const doc = withJoint(
      withJoint(heron.doc, 'j-1', j => ({ ...j, torque: 21, washers: ['fender'] })),
      'j-3',
      j => ({ ...j, lock: true, fastener: { ...j.fastener, head: 'socket' } }),
    );
    const of = looked(doc);
    for (const c of chooseHardware(of.joints, of)) {
      const j = of.joints.find(x => x.id === c.id)!;
      const own = j.mount?.hole.thread;
      if (own && !c.kept) expect(c.joint.fastener.thread).toBe(own);
      if (c.id === 'j-1') expect(c.joint.torque).toBe(21);
      if (c.id === 'j-3')
        expect(c).toMatchObject({ kept: true, changed: false, joint: { fastener: { head: 'socket' } } });
    }
  });
  it('chosen twice is the same, and never asks for more kinds of bolts than the free choice had', () => {
    for (const { doc, rig, panels, joints } of [
      heron,
      bramble,
      looked(demo('pebble')),
      looked(demo('wren')),
    ]) {
      const once = chooseHardware(joints, { rig, panels });
      const next = once.reduce((d, c) => withJoint(d, c.id, () => c.joint), doc);
      const again = chooseHardware(resolveJoints(next.plan.joints, rig, panels), { rig, panels });
      for (const c of again) expect(c, c.why).toMatchObject({ changed: false });
    }
  });
  it('takes the stronger class where a strike asks much, and the shelf\u2019s thread in a plain hole', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2, noNaN: true }), share => {
        const [c] = chooseHardware(heron.joints.slice(0, 1), {
          ...heron,
          shares: { [heron.joints[0]!.id]: share },
        });
        expect(c!.joint.fastener.class).toBe(share > 0.8 ? '10.9' : '8.8');
      }),
    );
    // where the nut gives first a stronger bolt does not help: a nut behind, if a hand reaches there
    const [model] = looked(demo('pebble')).joints.filter(j => j.nut?.kind === 'rivet-nut');
    const nutFor = (nutReach: 'none' | 'slot' | 'open', share: number) => {
      const j = { ...model!, mount: { ...model!.mount!, hole: { kind: 'drill' as const }, nutReach } };
      const [c] = chooseHardware([j], { ...looked(demo('pebble')), shares: { [j.id]: share } });
      return [c!.joint.nut, c!.joint.fastener.class];
    };
    expect(nutFor('open', 0.5)).toEqual(['rivet-nut', '8.8']);
    expect(nutFor('open', 1.2)).toEqual(['flange-serrated', '10.9']);
    expect(nutFor('slot', 1.2)).toEqual(['nut-plate', '10.9']);
    expect(nutFor('none', 1.2)).toEqual(['rivet-nut', '8.8']);
    const plain = bramble.joints.filter(j => j.mount?.hole.kind === 'through');
    expect(plain.length).toBeGreaterThan(0);
    const fine = chooseHardware(plain, { ...bramble, shelf: { 'M12x1.25': 20 } });
    for (const c of fine) expect(c.joint.fastener.thread).toBe('M12x1.25');
    for (const c of chooseHardware(plain, bramble)) expect(c.joint.fastener.thread).toBe('M12x1.75');
  });
});

describe('the card of a new hole', () => {
  it('marks, punches, drills up in steps and paints, with what holds the plate meanwhile', () => {
    const j = bramble.joints.find(x => x.mount?.hole.kind === 'drill')!;
    const card = drillingCard(j, bramble.joints, { drilling: 'mark-and-remove' })!;
    expect(card.moves[0]?.what).toContain('take it down again');
    // its rivet nut is set from below, so that the plate comes down whatever the method; a plain hole is drilled through it
    const { nut: _, ...plain } = j;
    expect(drillingCard(j, bramble.joints, { drilling: 'template' })!.moves[0]?.what).toContain(
      'take it down',
    );
    expect(drillingCard(plain, bramble.joints, { drilling: 'template' })!.moves[0]?.what).toContain(
      'template',
    );
    expect(card.moves.map(m => m.what)).toContain('Pilot');
    expect(card.moves.filter(m => m.tool?.includes('drill') || m.tool?.includes('bit')).length).toBe(
      j.drill.length,
    );
    for (const id of card.fitFirst) {
      const o = bramble.joints.find(x => x.id === id)!;
      expect(o.drill).toEqual([]);
      expect(o.joint.panels.some(p => j.joint.panels.includes(p))).toBe(true);
    }
  });
  it('stops short of what is behind, and is not made for a hole that is there', () => {
    const j = bramble.joints.find(x => x.mount?.hole.kind === 'drill')!;
    const near = { ...j, mount: { ...j.mount!, behind: { component: 'tank', depth: 18 } } };
    const wall = near.member?.wall ?? 3;
    expect(drillingCard(near, bramble.joints, { drilling: 'template' })).toMatchObject({
      stopMm: Math.min(13, wall + 4),
    });
    // a plain hole is drilled through the hanging plate: its sheet is passed first
    const { nut: _, ...plain } = near;
    const sheet = plain.layers.find(l => l.kind === 'plate')?.thickness ?? 0;
    expect(drillingCard(plain, bramble.joints, { drilling: 'template' })?.stopMm).toBeCloseTo(
      sheet + Math.min(13, wall + 4),
      9,
    );
    // a step bit reaches 40 mm through before it has its size: with less room behind it is a twist drill
    const bits = (depth: number) =>
      drillingCard(
        { ...near, mount: { ...near.mount, behind: { component: 'tank', depth } } },
        bramble.joints,
        {
          drilling: 'template',
        },
      )!.moves.flatMap(m => m.tool ?? []);
    expect(bits(60).some(t => t.startsWith('step-bit:'))).toBe(true);
    expect(bits(39).some(t => t.startsWith('step-bit:'))).toBe(false);
    // through 3 mm of metal and the tip of the bit; 5 mm short of what is right behind
    expect(drillStop(55, 3)).toBe(7);
    expect(drillStop(9, 6)).toBe(4);
    expect(drillStop(2, 6)).toBe(0);
    for (const tool of ['drill stop', 'marker', 'center punch', 'deburring tool'])
      expect(toolList([near]).map(t => t.tool)).toContain(tool);
    expect(toolList([{ ...near, drill: [] }]).map(t => t.tool)).not.toContain('drill stop');
    const sound = bramble.joints.find(x => x.drill.length === 0)!;
    expect(drillingCard(sound, bramble.joints, { drilling: 'template' })).toBeUndefined();
  });
});

describe('a stack that cannot be', () => {
  const made = (change: (j: Joint) => Joint, id = 'j-1') =>
    looked(withJoint(heron.doc, id, change)).joints.find(j => j.id === id)!;
  const kinds = (j: ResolvedJoint): readonly string[] => stackFaults(j).map(f => f.kind);
  it('is not what the demo plans have, but for heads sunk deeper than their sheet', () => {
    for (const { joints } of [heron, bramble, looked(demo('pebble')), looked(demo('wren'))])
      for (const j of joints)
        expect(
          kinds(j).filter(k => k !== 'sunk-too-deep'),
          j.id,
        ).toEqual([]);
  });
  it('is named: a nut on a threaded hole, a head deeper than the sheet, a washer under it', () => {
    expect(kinds(made(j => ({ ...j, nut: 'hex' })))).toEqual(['nut-on-thread']);
    const sunk = made(
      j => ({ ...j, fastener: { ...j.fastener, head: 'countersunk', thread: 'M10x1.5' } }),
      'j-3',
    );
    expect(kinds(sunk)).toEqual(['sunk-too-deep', 'washer-under-sunk']);
    // ISO 10642: an M8 head is 4.96 mm high, deeper than 3/16 in of sheet by 0.2 mm
    expect(sunk.head.height).toBeGreaterThan(4.7625);
  });
  it('is named: too short a bolt, and one that reaches what is behind', () => {
    const short = made(j => ({ ...j, fastener: { ...j.fastener, length: 12 } }));
    expect(kinds(short)).toEqual(['too-short']);
    const near = {
      ...short,
      lengthMm: 60,
      protrusionMm: 40,
      mount: { ...short.mount!, behind: { component: 'x', depth: 30 } },
    };
    expect(kinds(near)).toContain('reaches-behind');
  });
  it('is named: a bolt through a plain hole with nothing to hold on to', () => {
    const j = bramble.joints.find(x => x.mount?.hole.kind === 'through')!;
    const loose = looked(withJoint(bramble.doc, j.id, x => ({ ...x, nut: 'none' }))).joints.find(
      x => x.id === j.id,
    )!;
    expect(kinds(loose)).toEqual(['into-air']);
  });
});

describe('lengths, torques and strengths', () => {
  it('a longer grip never gives a shorter bolt', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...heron.joints.map(j => j.id)),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (id, a, more) => {
          const at = (spacer: number) =>
            looked(withJoint(heron.doc, id, j => ({ ...j, spacer }))).joints.find(j => j.id === id)!.lengthMm;
          expect(at(a + more)).toBeGreaterThanOrEqual(at(a));
        },
      ),
      { numRuns: 25 },
    );
  });
  it('more lubrication never gives more torque', () => {
    for (const { id } of heron.joints) {
      const at = (lube: Joint['lube']) =>
        looked(withJoint(heron.doc, id, j => ({ ...j, lube, torque: 'auto' }))).joints.find(j => j.id === id)!
          .torqueNm;
      expect(at('threadlocker')).toBeLessThanOrEqual(at('dry'));
      expect(at('anti-seize')).toBeLessThanOrEqual(at('threadlocker'));
    }
  });
});

describe('what the factory used', () => {
  const part = { id: 'f', name: 'cover', massKg: 1, at: [0, 0, 0] as const, reuseFasteners: false };
  it('comes off by its kind, rivets and pins for good', () => {
    const of = (head: string, thread = '') =>
      removals({ ...part, fasteners: [{ count: 3, head, thread }] })[0]!;
    expect(of('blind rivet')).toMatchObject({ reusable: false, count: 3 });
    expect(of('blind rivet').how).toMatch(/Punch the mandrel/);
    expect(of('push pin')).toMatchObject({ tool: 'clip lifter', reusable: false });
    expect(of('captive screw')).toMatchObject({ reusable: true });
    expect(of('flange', 'M8x1.25')).toMatchObject({ tool: 'socket 13 mm', reusable: true });
    expect(of('square', 'M7').tool).toBe('driver for square M7');
  });
});

describe('notes on a joint', () => {
  it('tell direction, reach, play for centring, and who shares the hole', () => {
    const shared = heron.joints.find(j => j.joint.panels.length === 2)!;
    expect(jointNotes(shared, ['A', 'B']).shared).toMatch(/^Plates A and B share this hole, A outermost/);
    // M12 in a hole of 13.5 mm behind a clearance hole of 13.5 mm: 0.75 + 0.75 to each side
    const through = bramble.joints.find(
      j => j.mount?.hole.kind === 'through' && j.mount.hole.diameter === 13.5 && j.thread.size === 'M12',
    )!;
    expect(jointNotes(through, ['A']).playMm[0]).toBeCloseTo(1.5, 9);
    expect(jointNotes(through, ['A']).playMm[1]).toBeCloseTo(1.5, 9);
    expect(jointNotes(through, ['A']).shared).toBeUndefined();
    const above = { ...through, joint: { ...through.joint, headSide: 'above' as const } };
    expect(jointNotes(above, ['A']).direction).toMatch(/^Head above/);
  });
});

describe('spacers and clamps', () => {
  const made = (change: Partial<Joint>) =>
    looked(withJoint(heron.doc, 'j-6', j => ({ ...j, ...change }))).joints.find(j => j.id === 'j-6')!;
  it('of aluminum weigh less, of plastic are crushed first, and both stand on the bag list', () => {
    const steel = made({ spacer: 20 });
    const al = made({ spacer: 20, spacerOf: 'aluminium' });
    const plastic = made({ spacer: 20, spacerOf: 'plastic' });
    // the ring of 2 d less the hole, 20 mm long, at the difference of the densities
    const ring = (Math.PI / 4) * (20 ** 2 - 10.5 ** 2) * 20;
    expect(steel.massKg - al.massKg).toBeCloseTo(ring * (7850 - 2700) * 1e-9, 9);
    expect(plastic.limitedBy).toBe('plastic spacer');
    expect(plastic.torqueNm).toBeLessThan(steel.torqueNm);
    expect(partNames(al).join()).toContain('aluminum spacer 20 mm for M10');
    expect(partNames(steel).join()).toContain('spacer 20 mm for M10');
  });
  it('on a tube slip before the bolt shears', () => {
    const j = made({ nut: 'tube-clamp' });
    const { shear } = jointCapacity(j, heron.panels);
    expect(shear.what).toBe('clamp slips on its tube');
    // two M6 screws at 10 N·m (T = K d F), on two halves
    expect(shear.force).toBeCloseTo((2 * 0.15 * 2 * 10) / (0.2 * 0.006), 6);
    expect(made({ nut: 'nut-strip' }).nut?.name).toBe('nut strip in the channel');
  });
});
