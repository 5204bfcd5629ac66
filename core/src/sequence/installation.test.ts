import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveJoints } from '../bolt';
import { type FoldedPanel, foldPanel, openingOutline } from '../fold';
import { contains, rectangle } from '../geometry';
import { isBracket, type Joint, LIFT_LIMIT_KG, type PlanDocument, STARTS, sheetOf, tiesWing } from '../plan';
import { presentRig } from '../rig';
import {
  AGAIN_MINUTES,
  evenings,
  hangingOrder,
  installation,
  jackPlace,
  jointsToFit,
  judgeTurn,
  type Sequence,
  sharedLoads,
  supportOf,
  type TurnSample,
  totalMinutes,
} from './index';

const looked = (doc: PlanDocument) => {
  const build = doc.plan.builds[0]!;
  const rig = presentRig(doc.rig);
  const panels = doc.plan.panels.map(p => foldPanel(p, sheetOf(build, p)));
  const joints = resolveJoints(doc.plan.joints, rig, panels);
  return { doc, rig, panels, joints };
};
const made = (doc: PlanDocument) => {
  const l = looked(doc);
  return { ...l, sequence: installation(l.doc, l.rig, l.panels, l.joints) };
};

/** What must hold of any installation, whatever the plan. */
function sound({
  sequence,
  joints,
  panels,
  doc,
}: {
  sequence: Sequence;
  joints: ReturnType<typeof resolveJoints>;
  panels: readonly FoldedPanel[];
  doc: PlanDocument;
}) {
  const { steps, cycle } = sequence;
  const fitted = new Set(jointsToFit(joints, panels).map(j => j.id));
  expect(cycle).toEqual([]);
  const at = new Map(steps.map((s, i) => [s.id, i]));
  expect(at.size).toBe(steps.length);
  for (const [i, s] of steps.entries()) {
    for (const n of s.needs) expect(at.get(n), `${s.id} needs ${n}`).toBeLessThan(i);
    expect(s.why.length).toBeGreaterThan(5);
    expect(s.minutes).toBeGreaterThan(0);
  }
  const first = (id: string, test: (s: (typeof steps)[number]) => boolean) =>
    steps.findIndex(s => s.joints.includes(id) && test(s));
  for (const j of joints) {
    // of what is left off
    if (!fitted.has(j.id)) continue;
    // through one sheet alone, and into nothing
    if (!j.mount && j.joint.panels.length < 2) continue;
    if (j.joint.tightenBefore === 'hang' || !doc.plan.panels.some(p => p.id === j.joint.panels[0])) continue;
    // of a wing: tight on the bench, and not touched again
    if (tiesWing(doc.plan, j.joint)) {
      expect(steps.filter(s => s.torques?.[j.id] !== undefined).map(s => s.stage)).toEqual(['bench']);
      continue;
    }
    // of a bracket that its plate will cover: tight at once, before that goes up
    if (first(j.id, s => s.id.startsWith('fast-')) >= 0) {
      expect(steps.filter(s => s.stage === 'tighten' && s.joints.includes(j.id))).toHaveLength(1);
      continue;
    }
    // started by hand once, then home, then every pass in its order
    const started = first(j.id, s => s.stage === 'start');
    const passes = [1, 2, 3, 4].map(n => first(j.id, s => s.stage === 'tighten' && s.pass === n));
    expect(started).toBeGreaterThanOrEqual(0);
    // a second round below the wrench's range is left out
    const made = [started, ...passes.filter(p => p >= 0)];
    expect(made).toEqual([...new Set(made)].sort((a, b) => a - b));
    expect(passes.filter((p, i) => p < 0 && i !== 1)).toEqual([]);
    const home = steps.findIndex(s => s.stage === 'home' && s.panels.includes(j.joint.panels[0] as string));
    expect(home).toBeGreaterThan(started);
    expect(home).toBeLessThan(passes[0] as number);
  }
  // nothing is marked drivable while a plate hangs loose
  const loose = new Set<string>();
  const lastTight = new Map<string, number>();
  steps.forEach((s, i) => {
    const touched = s.joints.flatMap(id => joints.find(j => j.id === id)?.joint.panels ?? []);
    if (s.stage === 'tighten') for (const p of touched) lastTight.set(p, i);
  });
  steps.forEach((s, i) => {
    if (s.stage === 'hang') loose.add(s.panels[0] as string);
    // taken down again after it was only marked
    if (s.stage === 'remove') for (const p of s.panels) loose.delete(p);
    for (const [p, last] of lastTight) if (last === i) loose.delete(p);
    if (loose.size > 0) expect(s.drivable, s.id).toBe(false);
    if (s.night) expect(s.drivable).toBe(true);
  });
}

describe('the whole job', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])('of %s keeps every need, pass and loose plate', name => {
    sound(made(demo(name)));
  });

  it('keeps them for random plans: joints left out, shared, moved to other plates, any school and method', () => {
    const base = demo('bramble');
    const ids = base.plan.panels.map(p => p.id);
    fc.assert(
      fc.property(
        fc.subarray([...base.plan.joints], { minLength: 4 }),
        fc.subarray(ids, { minLength: 1 }),
        fc.array(fc.record({ i: fc.nat(60), early: fc.boolean() }), { maxLength: 5 }),
        fc.constantFrom(...STARTS),
        fc.constantFrom('template' as const, 'mark-and-remove' as const),
        fc.constantFrom(1 as const, 2 as const),
        (joints, kept, some, start, drilling, people) => {
          const chosen: Joint[] = joints
            .map(j => ({ ...j, panels: j.panels.filter(p => kept.includes(p)) }))
            .filter(j => j.panels.length > 0);
          for (const { i, early } of some) {
            const j = chosen[i % Math.max(1, chosen.length)];
            if (j && early) chosen[i % chosen.length] = { ...j, tightenBefore: 'hang' };
          }
          const doc: PlanDocument = {
            ...base,
            plan: {
              ...base.plan,
              panels: base.plan.panels.filter(p => kept.includes(p.id)),
              joints: chosen,
              seams: base.plan.seams.filter(s => kept.includes(s.front) && kept.includes(s.rear)),
              crossbars: [],
              method: { ...base.plan.method, start, drilling, people },
            },
          };
          sound(made(doc));
        },
      ),
      { numRuns: 40 },
    );
  });

  it('puts bench work before the vehicle is raised, and makes a group fast before the next hangs', () => {
    const { sequence, doc, panels } = made(demo('bramble'));
    const raised = sequence.steps.findIndex(s => s.id === 'safety');
    for (const p of panels) {
      const bench = sequence.steps.findIndex(s => s.stage === 'bench' && s.panels.includes(p.panel.id));
      expect(bench).toBeGreaterThan(0);
      expect(bench).toBeLessThan(raised);
    }
    const { order } = hangingOrder(doc, panels);
    const tied = new Set(['plate-a', 'plate-b', 'plate-c', 'plate-d']);
    const lone = order.filter(p => !tied.has(p.panel.id) && !isBracket(p.panel)).map(p => p.panel.id);
    for (const id of lone) {
      const hang = sequence.steps.findIndex(s => s.id === `hang-${id}`);
      const before = sequence.steps
        .slice(0, hang)
        .filter(s => s.stage !== 'support' || s.takes !== undefined)
        .at(-1);
      expect(before, id).toMatchObject({ drivable: true });
    }
    expect(sequence.steps.filter(s => s.night).length).toBeGreaterThan(4);
  });

  it('says what goes into which bag, holds the tank, and rules the impact out where it must', () => {
    const { sequence } = made(demo('bramble'));
    const removed = sequence.steps.filter(s => s.part !== undefined);
    expect(removed.length).toBe(4);
    for (const s of removed) expect(s.bags?.length).toBeGreaterThan(0);
    // 80 l of 720 to 775 kg/m3 (EN 228): 57.6 to 62 kg
    expect(sequence.steps.find(s => s.id === 'support-tank-tank')?.why).toContain('80 l weigh 58 to 62 kg');
    // Pebble's tray stands alone, narrow and sound; its skirts hang on rivet nuts; Bramble has tapped holes and stainless
    let runIn = 0;
    for (const name of ['bramble', 'pebble']) {
      const doc = demo(name);
      const { sequence: impact, joints } = made({
        ...doc,
        plan: { ...doc.plan, method: { ...doc.plan.method, drive: 'impact-then-hand' } },
      });
      for (const s of impact.steps.filter(x => x.stage === 'tighten')) {
        const byHand = s.joints.some(id => {
          const j = joints.find(x => x.id === id);
          return (
            j?.nut?.name === 'rivet nut' ||
            j?.nut?.kind === 'threaded' ||
            j?.joint.fastener.finish === 'stainless'
          );
        });
        if (byHand || (s.pass ?? 0) > 1) expect(s.impact).toBe('never');
        if (byHand) expect(s.cautions.join(' ')).toContain('tapped sheet and stainless');
        if (s.impact === 'run-in') runIn++;
      }
    }
    expect(runIn).toBeGreaterThan(0);
  });

  it('takes the owner\u2019s own minutes and guesses less on a lift with a friend', () => {
    const doc = demo('bramble');
    const own = made({ ...doc, plan: { ...doc.plan, minutes: { kit: 77 } } });
    expect(own.sequence.steps.find(s => s.id === 'kit')?.minutes).toBe(77);
    const fast = made({
      ...doc,
      plan: { ...doc.plan, method: { ...doc.plan.method, lift: 'two-post', people: 2 } },
    });
    expect(totalMinutes(fast.sequence.steps)).toBeLessThan(totalMinutes(made(doc).sequence.steps));
  });
});

describe('evenings', () => {
  it('hold every step once, end where one may stop, and are full', () => {
    const { sequence } = made(demo('bramble'));
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 900 }), per => {
        const plan = evenings(sequence.steps, per);
        expect(plan.flatMap(e => e.steps.map(s => s.id))).toEqual(sequence.steps.map(s => s.id));
        for (const e of plan.slice(0, -1)) expect(e.steps.at(-1)?.night).toBe(true);
        for (const e of plan) if (!e.over) expect(e.minutes).toBeLessThanOrEqual(per);
        // an evening over its length is one stretch that cannot be broken
        for (const e of plan) if (e.over) expect(e.steps.filter(s => s.night).length).toBeLessThanOrEqual(1);
        const sum = plan.reduce((s, e) => s + e.minutes, 0);
        expect(sum).toBeCloseTo(totalMinutes(sequence.steps) + AGAIN_MINUTES * (plan.length - 1), 6);
      }),
    );
  });
});

describe('the jack', () => {
  it('carries a plate alone under its middle, by hand: 20 kg is 196.1 N', () => {
    const panel = {
      id: 'p',
      mark: 'A',
      name: 'flat',
      base: { origin: [0, 0, 300] as const, pitch: 0, roll: 0, outline: rectangle(-300, -200, 300, 200) },
      flanges: [],
      openings: [],
      guards: [],
    };
    const p = foldPanel(panel, { material: 'steel-hr36', thickness: 10, finish: 'raw' });
    // 0.6 x 0.4 x 0.01 m of 7850 kg/m3 is 18.84 kg
    expect(p.massKg).toBeCloseTo(18.84, 6);
    const s = supportOf(p, []);
    expect(s.aloneN).toBeCloseTo(18.84 * 9.80665, 6);
    expect(Math.hypot(s.jackAt[0], s.jackAt[1])).toBeLessThan(15);
    expect(s.shared).toBeUndefined();
  });
  it('shares with two bolts by statics, worked by hand', () => {
    // jack at x = -100, bolts at x = 200, y = +-100, center of mass at x = 0: jack 2/3, bolts 1/6 each
    const got = sharedLoads(
      600,
      [0, 0],
      [-100, 0],
      [
        [200, -100],
        [200, 100],
      ],
    )!;
    expect(got[0]).toBeCloseTo(400, 9);
    expect(got[1]).toBeCloseTo(100, 9);
    expect(got[2]).toBeCloseTo(100, 9);
    // the jack past the center, on the bolts' side: the bolts hold down
    const tips = sharedLoads(
      600,
      [0, 0],
      [50, 0],
      [
        [200, -100],
        [200, 100],
      ],
    )!;
    expect(tips[1]).toBeCloseTo(-100, 9);
    expect(tips.every(f => f >= 0)).toBe(false);
    expect(
      sharedLoads(
        600,
        [0, 0],
        [0, 0],
        [
          [100, 0],
          [200, 0],
        ],
      ),
    ).toBeUndefined();
  });
  it('keeps balance whatever the places: forces and both moments', () => {
    const point = fc.tuple(
      fc.double({ min: -900, max: 900, noNaN: true }),
      fc.double({ min: -900, max: 900, noNaN: true }),
    );
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 900, noNaN: true }),
        point,
        point,
        point,
        point,
        (w, c, j, a, b) => {
          const r = sharedLoads(w, c, j, [a, b]);
          if (!r || Math.max(...r.map(Math.abs)) > 1e6) return;
          expect(r[0] + r[1] + r[2]).toBeCloseTo(w, 4);
          for (const k of [0, 1] as const) {
            const moment = r[0] * j[k] + r[1] * a[k] + r[2] * b[k] - w * c[k];
            expect(Math.abs(moment)).toBeLessThan(1e-4 * w * 1000 + 1e-3);
          }
        },
      ),
    );
  });
  it('stands on whole sheet of every plate of the demo', () => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren'])
      for (const p of looked(demo(name)).panels) {
        const at = jackPlace(p);
        const base = p.facets[0]!;
        const d = [at[0] - base.frame.origin[0], at[1] - base.frame.origin[1], at[2] - base.frame.origin[2]];
        const dot = (v: readonly number[]) => v.reduce((s, x, i) => s + x * (d[i] as number), 0);
        const q = [dot(base.frame.u), dot(base.frame.v)] as const;
        expect(contains(base.outline, q)).toBe(true);
        for (const o of p.panel.openings) expect(contains(openingOutline(o), q)).toBe(false);
      }
  });
  it('lifts what one person may by the load constant of 23 kg (NIOSH Pub. 94-110)', () => {
    expect(LIFT_LIMIT_KG).toBe(23);
  });
});

/** A turn made of straight stretches: [degrees, torque at their end]. */
const turn = (...stretches: readonly (readonly [deg: number, nm: number])[]): TurnSample[] => {
  const out: TurnSample[] = [{ deg: 0, nm: 0 }];
  for (const [deg, nm] of stretches) {
    const from = out.at(-1)!;
    for (let k = 1; k <= 40; k++)
      out.push({ deg: from.deg + ((deg - from.deg) * k) / 40, nm: from.nm + ((nm - from.nm) * k) / 40 });
  }
  return out;
};

describe('a turn judged by torque and angle', () => {
  it.each([
    ['good', turn([720, 2], [770, 40])],
    ['short', turn([720, 2], [755, 30])],
    ['over', turn([720, 2], [775, 48])],
    ['cross-threaded', turn([60, 18], [400, 22], [450, 40])],
    ['stripping', turn([720, 2], [745, 26], [830, 14])],
    ['yielded', turn([720, 2], [760, 34], [900, 40])],
  ] as const)('%s', (verdict, samples) => {
    const t = judgeTurn(samples, 40);
    expect(t.verdict).toBe(verdict);
    expect(t.said.length).toBeGreaterThan(10);
  });
  it('of nothing is short, and never throws', () => {
    expect(judgeTurn([], 40)).toMatchObject({ verdict: 'short', peakNm: 0 });
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            nm: fc.double({ min: 0, max: 200, noNaN: true }),
            deg: fc.double({ min: 0, max: 2000, noNaN: true }),
          }),
        ),
        fc.double({ min: 1, max: 150, noNaN: true }),
        (s, target) => {
          const t = judgeTurn(
            [...s].sort((a, b) => a.deg - b.deg),
            target,
          );
          expect(t.peakNm).toBe(Math.max(0, ...s.map(x => x.nm)));
        },
      ),
    );
  });
});
