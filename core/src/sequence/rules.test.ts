import { demo } from '@plate-fold/demo';
// What a careful mechanic would want of any list of steps, whatever the plan, method, school or lift.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ResolvedJoint, wrenchAmong, wrenchCode, wrenchesFor } from '../bolt';
import { type Facts, gatherFacts } from '../derive';
import {
  DRILLINGS,
  DRIVES,
  type Joint,
  LIFTS,
  NUTS,
  type PlanDocument,
  STARTS,
  tiesWing,
  topPlateOf,
  wingsOf,
} from '../plan';
import { doneWith, serviceAccess, serviceSteps } from '../service';
import { anyPlan } from '../testing/random';
import { winged } from '../testing/winged';
import {
  holeWork,
  installation,
  jointsToFit,
  RAISING,
  rowsOf,
  type Sequence,
  type Step,
  settingsOf,
  spotOf,
  TIPS,
  tiedGroups,
  wrenchTolerance,
} from './index';

const anyMethod = fc.record({
  start: fc.constantFrom(...STARTS),
  drilling: fc.constantFrom(...DRILLINGS),
  lift: fc.constantFrom(...LIFTS),
  people: fc.constantFrom(1 as const, 2 as const),
  drive: fc.constantFrom(...DRIVES),
});

/** A demo with holes gone bad, new, or given other nuts, some plates and joints left out, a wing perhaps, any method. */
const anyWreck: fc.Arbitrary<PlanDocument> = fc
  .tuple(
    fc.constantFrom('bramble', 'heron', 'pebble', 'wren'),
    anyMethod,
    fc.array(
      fc.record({
        i: fc.nat(80),
        condition: fc.constantFrom(
          'good' as const,
          'rusted' as const,
          'stripped' as const,
          'broken-nut' as const,
        ),
        kind: fc.constantFrom(undefined, 'drill' as const, 'through' as const, 'captive-nut' as const),
        nut: fc.constantFrom(undefined, ...NUTS),
        early: fc.boolean(),
        carries: fc.boolean(),
        cut: fc.constantFrom(undefined, undefined, 'none' as const),
      }),
      { maxLength: 12 },
    ),
    fc.array(fc.nat(40), { maxLength: 8 }),
    fc.array(fc.nat(6), { maxLength: 2 }),
    fc.option(fc.nat(6)),
  )
  .map(([name, method, changes, gone, plates, wing]) => {
    const base = wing === null ? demo(name) : winged(demo(name), wing);
    const left = base.plan.panels.filter((_, i) => !plates.includes(i) || base.plan.panels.length === 1);
    const ids = new Set(left.map(p => p.id));
    let joints: Joint[] = base.plan.joints
      .filter((_, i) => !gone.includes(i))
      .map(j => ({ ...j, panels: j.panels.filter(p => ids.has(p)) }))
      .filter(j => j.panels.length > 0);
    let { mounts } = base.rig;
    const tank = base.rig.components.find(c => c.kind === 'fuel-tank');
    for (const c of changes) {
      const j = joints[c.i % Math.max(1, joints.length)];
      if (!j) continue;
      joints = joints.map(x =>
        x.id === j.id
          ? {
              ...x,
              ...(c.nut ? { nut: c.nut } : {}),
              ...(c.early ? { tightenBefore: 'hang' as const } : {}),
              ...(c.cut ? { cut: c.cut } : {}),
            }
          : x,
      );
      mounts = mounts.map(m =>
        m.id === j.mount
          ? {
              ...m,
              // a hole that is still to be drilled is neither rusted nor stripped
              condition: c.kind === 'drill' || (!c.kind && m.hole.kind === 'drill') ? 'good' : c.condition,
              hole: c.kind ? { ...m.hole, kind: c.kind } : m.hole,
              ...(c.carries && tank ? { carries: tank.id } : {}),
            }
          : m,
      );
    }
    return {
      ...base,
      rig: { ...base.rig, mounts },
      plan: {
        ...base.plan,
        panels: left,
        joints,
        seams: base.plan.seams.filter(s => ids.has(s.front) && ids.has(s.rear)),
        method,
      },
    };
  });

interface Made {
  readonly sequence: Sequence;
  readonly joints: readonly ResolvedJoint[];
  readonly doc: PlanDocument;
}
const made = (
  doc: PlanDocument,
  { rig, panels, joints }: Pick<Facts, 'rig' | 'panels' | 'joints'> = gatherFacts(doc),
): Made => ({
  doc,
  joints: jointsToFit(joints, panels),
  sequence: installation(doc, rig, panels, joints),
});

const at = (steps: readonly Step[], test: (s: Step) => boolean): number => steps.findIndex(test);

/** No bolt before its hole is there, deburred, painted, its nut set and proved. */
function holesFirst({ sequence: { steps }, joints, doc }: Made): void {
  for (const j of joints) {
    const work = holeWork({ doc, units: 'metric' }, j);
    const turned = at(
      steps,
      s =>
        s.joints.includes(j.id) &&
        (s.stage === 'start' || s.stage === 'hang' || s.stage === 'tighten' || s.torqueNm !== undefined),
    );
    if (turned < 0) continue;
    const making = (what: 'hole' | 'deburred' | 'painted' | 'proved' | 'marked'): number =>
      at(steps, s => s.joints.includes(j.id) && (s.makes?.includes(what) ?? false) && s.stage !== 'bench');
    const before = (what: Parameters<typeof making>[0]): void => {
      const i = making(what);
      expect(i, `${j.id} ${what}`).toBeGreaterThanOrEqual(0);
      expect(i, `${j.id} ${what} before it is started`).toBeLessThan(turned);
    };
    if (work.fresh && work.drilled) for (const what of ['hole', 'deburred', 'painted'] as const) before(what);
    if (work.setsNut) {
      const set = at(steps, s => s.id.startsWith('set-') && s.joints.includes(j.id));
      expect(set, `${j.id} nut`).toBeGreaterThanOrEqual(0);
      expect(steps[set]?.makes).toContain('proved');
      expect(set).toBeLessThan(turned);
      if (work.drilled) expect(making('hole')).toBeLessThan(set);
      expect(steps[set]?.hows?.length).toBeGreaterThan(3);
    }
    if (work.oldNut) {
      const out = at(steps, s => s.id === `repair-${j.id}`);
      expect(out).toBeGreaterThanOrEqual(0);
      if (work.drilled) expect(out).toBeLessThan(making('hole'));
    }
    if (work.marked && work.drilled && j.joint.panels.length > 0) {
      // hung on what is there, marked, down again, then drilled
      const marked = making('marked');
      const p = steps[marked]?.panels[0];
      expect(at(steps, s => s.id === `mark-hang-${p}`)).toBeLessThan(marked);
      const down = at(steps, s => s.id === `mark-down-${p}`);
      expect(marked).toBeLessThan(down);
      expect(down).toBeLessThan(making('hole'));
      // a plate all of whose bolts are to be tight before it goes up is left off
      if (!steps.some(s => s.id === `leave-off-${p}`))
        expect(making('hole')).toBeLessThan(at(steps, s => s.id === `hang-${p}`));
    }
    if (work.inPlace && work.drilled) {
      expect(at(steps, s => s.id === `hang-${j.joint.panels[0]}`)).toBeLessThan(making('hole'));
      expect(work.setsNut).toBe(false);
    }
  }
}

/** What is put in place is taken away, once, and later. */
function nothingLeft({ steps }: Pick<Sequence, 'steps'>): void {
  const put = new Map<string, number>();
  steps.forEach((s, i) => {
    for (const x of s.takes ?? []) {
      expect(put.has(x), `${s.id} takes ${x}`).toBe(true);
      put.delete(x);
    }
    for (const x of s.puts ?? []) {
      expect(put.has(x), `${s.id} puts ${x} twice`).toBe(false);
      put.set(x, i);
    }
  });
  expect([...put.keys()]).toEqual([]);
  expect(steps.at(-1)?.drivable).toBe(true);
  // nothing is put under a vehicle that stands on the ground, nothing done under it after it came down
  const up = at(steps, s => s.stage === 'safety');
  const down = at(steps, s => s.id.endsWith('let-down'));
  for (const [i, s] of steps.entries())
    if (['remove', 'support', 'hang', 'start', 'home', 'tighten', 'drill'].includes(s.stage)) {
      expect(i, s.id).toBeGreaterThan(up);
      expect(i, s.id).toBeLessThan(down);
    }
}

/** At every moment a hung plate is on its jack, or on bolts in two rows, or tight; a bracket in the hand, or on its bolt to the vehicle. */
function nothingHangsOnNothing({ sequence: { steps }, joints, doc }: Made): void {
  const brackets = new Set(doc.plan.panels.filter(p => p.role === 'bracket').map(p => p.id));
  const jacks = new Set<string>();
  const started = new Set<string>();
  const tight = new Set<string>();
  const up = new Set<string>();
  const joined = new Set<string>();
  const last = new Map<string, number>();
  steps.forEach((s, i) => {
    if (s.stage === 'tighten') for (const id of s.joints) last.set(id, i);
  });
  steps.forEach((s, i) => {
    for (const x of s.puts ?? []) if (/ plate /.test(x)) jacks.add(s.panels[0] as string);
    if (s.stage === 'hang') for (const p of s.panels) up.add(p);
    if (s.stage === 'remove') for (const p of s.panels) up.delete(p);
    if (s.stage === 'start') for (const id of s.joints) started.add(id);
    if (s.stage === 'bench' && s.torqueNm !== undefined) for (const id of s.joints) joined.add(id);
    for (const [id, n] of last) if (n === i) tight.add(id);
    for (const x of s.takes ?? []) if (/ plate /.test(x)) for (const p of s.panels) jacks.delete(p);
    for (const p of up) {
      if (jacks.has(p)) continue;
      const carrier = wingsOf(doc.plan).get(p);
      if (carrier !== undefined) {
        // it hangs on its own bolts to what is up
        const own = joints.filter(j => j.joint.panels.includes(p));
        expect(up.has(carrier) && own.every(j => joined.has(j.id)), `${p} after ${s.id}`).toBe(true);
        continue;
      }
      const mine = joints.filter(
        j => j.joint.panels.includes(p) && j.joint.tightenBefore !== 'hang' && !tiesWing(doc.plan, j.joint),
      );
      const holding = mine.filter(j => started.has(j.id));
      if (brackets.has(p)) {
        const hung = joints.some(
          j => j.mount && j.joint.panels.includes(p) && (started.has(j.id) || tight.has(j.id)),
        );
        const inHand =
          s.panels.join() === p || joints.some(j => j.joint.panels.includes(p) && s.joints.includes(j.id));
        // a top plate lies on its member
        const lies = joints.some(j => topPlateOf(j.joint) === p);
        expect(hung || inHand || lies, `${p} after ${s.id}`).toBe(true);
        continue;
      }
      const fast = mine.length > 0 && mine.every(j => tight.has(j.id));
      expect(fast || rowsOf(holding.map(spotOf)) >= 2, `${p} after ${s.id}`).toBe(true);
    }
  });
}

/** Rounds over a whole group in one order, each bolt at its own setting, never above its own torque. */
function roundsInOrder({ sequence: { steps }, joints, doc }: Made): void {
  const byId = new Map(joints.map(j => [j.id, j]));
  const tighten = steps.filter(s => s.stage === 'tighten');
  const roll = wrenchesFor(joints.map(j => j.torqueNm));
  for (const s of tighten) {
    for (const id of s.joints) {
      const full = (byId.get(id) as ResolvedJoint).torqueNm;
      const nm = s.torques?.[id];
      if (s.byHand?.includes(id)) {
        expect(nm).toBeUndefined();
        // what no wrench reads at all is snug in every round
        if (full >= 2) expect(s.pass).toBe(1);
        expect(s.hows?.join(' ')).toContain('No torque wrench on the roll reads');
        // no wrench that is there for another bolt reads it
        const settable = [full * (1 - wrenchTolerance(full)), full];
        expect(settable.every(v => wrenchAmong(roll, (s.share as number) * v))).toBe(false);
      } else {
        expect(nm, `${s.id} ${id}`).toBeGreaterThan(0);
        // the step brings a wrench that reads it, and the roll has that
        const reads = wrenchAmong(roll, nm as number);
        if (reads && (s.share ?? 1) < 1) expect(s.wrenches?.[id]).toBe(wrenchCode(reads));
        if (s.wrenches?.[id]) expect(s.tools).toContain(s.wrenches[id]);
        expect(nm as number).toBeLessThanOrEqual((s.share ?? 1) * full + 1e-6);
        // one setting for what a wrench cannot tell apart, and no more than that
        expect(nm as number).toBeGreaterThanOrEqual(
          (s.share ?? 1) * full * (1 - 1.01 * wrenchTolerance(full)),
        );
      }
    }
    // one step a plate and round: not cut up by torque
    if (s.panels.length > 0)
      expect(
        tighten.filter(x => x.pass === s.pass && x.panels[0] === s.panels[0] && !x.id.startsWith('fast-'))
          .length,
      ).toBeLessThanOrEqual(1);
  }
  // all plates of a group have a round before the next begins
  for (const s of tighten)
    for (const n of s.needs) {
      const before = steps.find(x => x.id === n);
      if (before?.stage === 'tighten') expect(before.pass).toBeLessThan(s.pass as number);
    }
  for (const j of joints) {
    if (j.joint.tightenBefore === 'hang' || tiesWing(doc.plan, j.joint)) continue;
    const rounds = tighten.filter(s => s.joints.includes(j.id));
    // of a bracket that its plate will cover: tight at once, before that goes up
    if (rounds.some(s => s.id.startsWith('fast-'))) {
      expect(rounds).toHaveLength(1);
      continue;
    }
    const passes = rounds.map(s => s.pass as number);
    expect(passes).toEqual([...passes].sort((a, b) => a - b));
    expect(passes.slice(-2)).toEqual([3, 4]);
    expect(passes[0]).toBe(1);
  }
}

/** Statements that would be untrue. */
function nothingUntrue({ sequence: { steps }, joints, doc }: Made): void {
  const way = RAISING[doc.plan.method.lift];
  const highVoltage = doc.rig.components.some(c => c.highVoltage);
  const hung: string[] = [];
  for (const [i, s] of steps.entries()) {
    for (const b of s.support?.shared?.bolts ?? []) {
      expect(b.forceN).toBeGreaterThanOrEqual(0);
      // only bolts that can be in by then
      const j = joints.find(x => x.id === b.joint) as ResolvedJoint;
      expect(holeWork({ doc, units: 'metric' }, j).inPlace).toBe(false);
    }
    if (s.support?.shared) expect(s.support.shared.jackN).toBeGreaterThanOrEqual(0);
    const said = [s.title, s.why, ...(s.hows ?? [])].join(' ');
    if (s.stage === 'hang' && /up before its neighbor/.test(said))
      expect(
        doc.plan.seams.some(
          x => (x.front === s.panels[0] || x.rear === s.panels[0]) && x.outside !== s.panels[0],
        ) || joints.some(j => j.joint.panels.slice(1).includes(s.panels[0] as string)),
      ).toBe(true);
    if (s.stage === 'hang') hung.push(s.id);
    if (/lock to lock/.test(said)) {
      if (!way.wheelsFree) expect(i).toBeGreaterThan(at(steps, x => x.id === 'let-down'));
    }
    // on its side the belly stands upright: nothing is jacked under it, and it is tipped without its battery
    if (doc.plan.method.lift === 'side') {
      if (['support', 'hang', 'start', 'home', 'tighten', 'finish'].includes(s.stage))
        expect(`${said} ${s.tools.join()} ${s.tip?.text ?? ''}`).not.toMatch(/\bjack\b/i);
      expect(s.support).toBeUndefined();
      expect(at(steps, x => x.id === 'battery-off')).toBeLessThan(at(steps, x => x.id === 'safety'));
      expect(at(steps, x => x.id === 'battery-on')).toBeGreaterThan(at(steps, x => x.id === 'let-down'));
    }
    // a floor jack does not reach up to a lift
    if (doc.plan.method.lift === 'two-post' && s.stage === 'support' && s.support)
      expect(s.tools.join()).toContain('transmission jack');
    if (/chock/.test(said) || s.tools.some(t => t.includes('chock')))
      expect(['ground', 'ramps']).toContain(doc.plan.method.lift);
    if (!highVoltage) expect(s.cautions.join(' ')).not.toContain('High voltage');
    expect(said).not.toMatch(/undefined|NaN|-\d+(\.\d+)? (N|lbf)\b/);
  }
  // a tank is held before its shield comes off and its plate goes up, and let go after that is tight
  const hold = at(steps, s => s.id.startsWith('support-tank-'));
  if (hold >= 0) {
    const tank = doc.rig.components.find(c => steps[hold]?.id === `support-tank-${c.id}`);
    for (const p of doc.plan.panels.filter(x => x.guards.includes(tank?.id ?? ''))) {
      const hang = at(steps, s => s.id === `hang-${p.id}`);
      if (hang >= 0) expect(hold).toBeLessThan(hang);
    }
    const shield = at(steps, s => s.stage === 'remove' && /tank/.test(s.title) && s.part !== undefined);
    if (shield >= 0) expect(hold).toBeLessThan(shield);
  }
}

/** Nothing of a group goes up before all of the group is ready, and factory parts say how each fastener comes off. */
function readyFirst({ sequence: { steps }, doc, joints }: Made): void {
  const { panels } = gatherFacts(doc);
  for (const group of tiedGroups(doc, panels)) {
    const ids = new Set(group.map(p => p.panel.id));
    const first = at(steps, s => s.id.startsWith('hang-') && ids.has(s.panels[0] ?? ''));
    if (first < 0) continue;
    const mine = new Set(joints.filter(j => j.joint.panels.some(p => ids.has(p))).map(j => j.id));
    steps.forEach((s, i) => {
      const bench = s.id.startsWith('bench-') && ids.has(s.panels[0] ?? '');
      const nut = s.id.startsWith('set-') && mine.has(s.joints[0] ?? '');
      if (bench || nut) expect(i, s.id).toBeLessThan(first);
    });
  }
  for (const s of steps.filter(x => x.part !== undefined)) {
    expect(s.hows?.length, s.id).toBeGreaterThan(0);
    expect(s.bags?.length, s.id).toBeGreaterThan(0);
  }
}

/** A trick stands alone at its step, and at two steps at most. */
function tricksFew({ sequence: { steps } }: Made): void {
  const known = new Set(TIPS.map(t => t.id));
  const count = new Map<string, number>();
  for (const { tip } of steps) {
    if (!tip) continue;
    expect(known.has(tip.id)).toBe(true);
    count.set(tip.id, (count.get(tip.id) ?? 0) + 1);
  }
  for (const [id, n] of count) expect(n, id).toBeLessThanOrEqual(2);
}

function sound(m: Made): void {
  const { steps, cycle } = m.sequence;
  if (cycle.length > 0) return;
  expect(new Set(steps.map(s => s.id)).size).toBe(steps.length);
  const index = new Map(steps.map((s, i) => [s.id, i]));
  for (const [i, s] of steps.entries())
    for (const n of s.needs) expect(index.get(n), `${s.id} needs ${n}`).toBeLessThan(i);
  holesFirst(m);
  nothingLeft(m.sequence);
  nothingHangsOnNothing(m);
  roundsInOrder(m);
  nothingUntrue(m);
  tricksFew(m);
}

describe('the order of an installation', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])('of %s, by every lift, school and drilling', name => {
    const doc = demo(name);
    const facts = gatherFacts(doc);
    for (const lift of LIFTS)
      for (const start of STARTS)
        for (const drilling of DRILLINGS)
          sound(
            made(
              { ...doc, plan: { ...doc.plan, method: { ...doc.plan.method, lift, start, drilling } } },
              facts,
            ),
          );
  });

  it('holds for wrecks: holes gone bad or new, any nut, plates and bolts left out, any method', () => {
    fc.assert(
      fc.property(anyWreck, doc => {
        const m = made(doc);
        sound(m);
        if (m.sequence.cycle.length === 0) readyFirst(m);
      }),
      { numRuns: Number(process.env.SOAK_PLANS ?? 40) },
    );
  });

  it('holds for random plans on random vehicles', () => {
    fc.assert(
      fc.property(anyPlan(), anyMethod, (doc, method) =>
        sound(made({ ...doc, plan: { ...doc.plan, method } })),
      ),
      { numRuns: Math.ceil(Number(process.env.SOAK_PLANS ?? 40) / 4) },
    );
  });

  it('bolts a wing to its plate on the bench, and raises both as one', () => {
    const doc = winged(demo('pebble'), 0);
    const { steps } = made(doc).sequence;
    const join = steps.find(s => s.id === 'join-wing') as Step;
    expect(join.joints).toEqual(['wing-2', 'wing-1', 'wing-3']);
    expect(join.torques?.['wing-1']).toBeGreaterThan(0);
    expect(at(steps, s => s === join)).toBeLessThan(at(steps, s => s.stage === 'safety'));
    const raise = steps.filter(s => s.stage === 'hang' && s.panels.includes('wing'));
    expect(raise).toHaveLength(1);
    const { panels } = gatherFacts(doc);
    const [host, wing] = ['plate-a', 'wing'].map(id => panels.find(p => p.panel.id === id)?.massKg ?? 0);
    const held = steps.find(s => s.id === 'support-plate-a')?.support;
    expect(raise[0]?.hows?.join(' ')).toMatch(/Plate W is bolted to it already/);
    if (held) expect(held.massKg).toBeCloseTo((host ?? 0) + (wing ?? 0), 6);
    // no bolt of it is turned under the vehicle
    const under = steps.slice(at(steps, s => s.stage === 'safety'));
    expect(under.some(s => s.joints.some(j => j.startsWith('wing-')))).toBe(false);
  });

  it('leaves a plate off that no bolt holds, and says so', () => {
    const doc = demo('bramble');
    const bare = {
      ...doc,
      plan: { ...doc.plan, joints: doc.plan.joints.filter(j => !j.panels.includes('plate-e')) },
    };
    const { steps } = made(bare).sequence;
    expect(steps.some(s => s.id === 'leave-off-plate-e')).toBe(true);
    expect(steps.some(s => s.id === 'hang-plate-e')).toBe(false);
    expect(steps.at(-1)?.drivable).toBe(true);
  });

  it('drills a hole of a plate where the vehicle’s own hole marks it, before the plate goes up', () => {
    const doc = demo('pebble');
    const cut = {
      ...doc,
      plan: {
        ...doc.plan,
        joints: doc.plan.joints.map(j => (j.id === 'j-17' ? { ...j, cut: 'none' as const } : j)),
      },
    };
    const { steps } = made(cut).sequence;
    const of = (id: string): number => at(steps, s => s.id === id);
    const plate = 'skirt-right';
    expect(steps[of(`mark-hang-${plate}`)]?.joints).not.toContain('j-17');
    expect(steps[of(`mark-hang-${plate}`)]?.hows?.join()).toMatch(/transfer screw.+ of j-17/);
    expect(steps[of(`fit-mark-${plate}`)]?.joints).toEqual(['j-17']);
    expect(of(`mark-hang-${plate}`)).toBeLessThan(of(`fit-mark-${plate}`));
    expect(of(`mark-down-${plate}`)).toBeLessThan(of(`fit-drill-${plate}`));
    expect(of(`fit-drill-${plate}`)).toBeLessThan(of(`hang-${plate}`));
    expect(steps[of(`fit-drill-${plate}`)]?.hows?.[0]).toBe('j-17: 9 mm, after a pilot.');
    expect(made(doc).sequence.steps.some(s => s.id.startsWith('fit-'))).toBe(false);
  });

  it('drills nothing where a clamp or a strap goes round the member', () => {
    const doc = demo('pebble');
    for (const nut of ['tube-clamp', 'axle-strap'] as const) {
      const round = {
        ...doc,
        plan: { ...doc.plan, joints: doc.plan.joints.map(j => (j.id === 'j-14' ? { ...j, nut } : j)) },
      };
      const { sequence, joints } = made(round);
      expect(joints.find(j => j.id === 'j-14')?.drill).toEqual([]);
      expect(sequence.steps.some(s => s.id === 'drill-j-14' || s.id === 'mark-j-14')).toBe(false);
      expect(sequence.steps.some(s => s.id === 'set-j-14')).toBe(nut === 'tube-clamp');
      expect(sequence.steps.some(s => s.stage === 'start' && s.joints.includes('j-14'))).toBe(true);
      const hole = gatherFacts(round)
        .panels.flatMap(p => p.holes)
        .find(h => h.joint === 'j-14');
      expect(hole?.kind).toBe('clearance');
    }
    expect(made(doc).joints.find(j => j.id === 'j-14')?.drill.length).toBeGreaterThan(0);
  });

  it('leaves a bracket off that nothing holds to the vehicle, and the bolt of its plate with it', () => {
    const doc = demo('wren');
    const [bracket] = doc.plan.panels.filter(p => p.role === 'bracket');
    const mine = doc.plan.joints.filter(j => j.panels.includes(bracket!.id));
    const hole = mine.find(j => j.mount !== undefined)!;
    const plate = mine.find(j => j !== hole)!;
    const { steps } = made({
      ...doc,
      plan: { ...doc.plan, joints: doc.plan.joints.filter(j => j !== hole) },
    }).sequence;
    expect(steps.some(s => s.id === `leave-off-${bracket!.id}`)).toBe(true);
    expect(steps.some(s => s.id === `hang-${bracket!.id}` || s.joints.includes(plate.id))).toBe(false);
    expect(made(doc).sequence.steps.some(s => s.joints.includes(plate.id))).toBe(true);
  });

  it('takes a wheel off that stands in the way of a bolt, and puts it on again, where the wheels hang', () => {
    const doc = demo('bramble');
    const j = doc.plan.joints.find(x => x.panels[0] === 'plate-a')!;
    const { trackWidth } = doc.rig;
    const near = (lift: (typeof LIFTS)[number]): PlanDocument => ({
      ...doc,
      rig: {
        ...doc.rig,
        mounts: doc.rig.mounts.map(m =>
          m.id === j.mount ? { ...m, at: [-350, -(trackWidth / 2 - 180), m.at[2]] as const } : m,
        ),
      },
      plan: { ...doc.plan, method: { ...doc.plan.method, lift } },
    });
    const { steps } = made(near('ground')).sequence;
    const [off, on] = [
      at(steps, s => s.id === 'wheel-off-front-left'),
      at(steps, s => s.id === 'wheel-on-front-left'),
    ];
    expect(steps[off]?.joints).toContain(j.id);
    expect(off).toBeLessThan(at(steps, s => s.stage === 'remove'));
    expect(on).toBeGreaterThan(at(steps, s => s.id === 'check'));
    expect(on).toBeLessThan(at(steps, s => s.id === 'let-down'));
    nothingLeft({ steps });
    expect(made(near('ramps')).sequence.steps.some(s => s.id.startsWith('wheel-'))).toBe(false);
  });

  it('says fuel, lengths and torque in the reader\u2019s units', () => {
    const doc = demo('bramble');
    const { rig, panels, joints } = gatherFacts(doc);
    const { steps } = installation(doc, rig, panels, joints, 'inch');
    const all = steps.flatMap(s => [s.why, ...(s.hows ?? [])]).join('\n');
    // 80 l are 21.1 US gallons of 0.72 to 0.775 kg/l (EN 228): 127 to 137 lb
    expect(all).toContain('21.1 gal weigh 127 to 137 lb');
    expect(all).not.toMatch(/\d kg\b|\d l\b|N\u00b7m/);
  });

  it('minds high voltage only where there is some', () => {
    const doc = demo('wren');
    expect(made(doc).sequence.steps.some(s => s.cautions.join().includes('High voltage'))).toBe(false);
    const hybrid: PlanDocument = {
      ...doc,
      rig: {
        ...doc.rig,
        components: doc.rig.components.map(c => (c.kind === 'battery' ? { ...c, highVoltage: true } : c)),
      },
    };
    expect(made(hybrid).sequence.steps.some(s => s.cautions.join().includes('High voltage'))).toBe(true);
  });

  it('changes a tank\u2019s own bolts one at a time where it hangs on them', () => {
    const doc = demo('bramble');
    const tank = doc.rig.components.find(c => c.kind === 'fuel-tank');
    const of = doc.plan.joints.find(j => j.panels[0] === 'plate-d');
    const carried = {
      ...doc,
      rig: {
        ...doc.rig,
        mounts: doc.rig.mounts.map(m => (m.id === of?.mount ? { ...m, carries: tank?.id as string } : m)),
      },
    };
    const { steps } = made(carried).sequence;
    expect(steps.find(s => s.id === 'start-plate-d')?.hows?.join()).toContain('Never two out at once');
    expect(
      made(doc)
        .sequence.steps.find(s => s.id === 'start-plate-d')
        ?.hows?.join(),
    ).not.toContain('Never two');
  });
});

describe('settings of the wrench', () => {
  const joint = (id: string, torqueNm: number, entered = false) =>
    ({ id, torqueNm, joint: { torque: entered ? torqueNm : 'auto' } }) as unknown as ResolvedJoint;
  it('are one where a wrench cannot tell them apart, the lower of the two', () => {
    expect([...settingsOf([joint('a', 21), joint('b', 20.4), joint('c', 50)])]).toEqual([
      ['b', 20.4],
      ['a', 20.4],
      ['c', 50],
    ]);
  });
  it('keep a torque that was entered', () => {
    expect(settingsOf([joint('a', 50), joint('b', 51, true), joint('c', 52)]).get('b')).toBe(51);
    expect(settingsOf([joint('a', 50), joint('b', 51, true), joint('c', 52)]).get('c')).toBe(51);
  });
});

describe('a service', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])('of %s is a whole job at every point', name => {
    const doc = demo(name);
    for (const lift of LIFTS) {
      const on = { ...doc, plan: { ...doc.plan, method: { ...doc.plan.method, lift } } };
      const { rig, panels, joints } = gatherFacts(on);
      const hung = { doc: on, panels, joints };
      for (const point of rig.servicePoints) {
        const access = serviceAccess(point, hung, doneWith(point, rig));
        const { steps, cycle } = serviceSteps(access, hung, rig);
        expect(cycle).toEqual([]);
        nothingLeft({ steps });
        const i = (id: string): number => at(steps, s => s.id === id);
        const work = i('service-work');
        expect(work).toBeGreaterThan(0);
        // what came out goes in again, after the work, and everything that was turned is brought to its torque
        for (const id of [...access.remove, ...access.loosen]) {
          const tight = steps.filter(s => s.stage === 'tighten' && s.joints.includes(id));
          expect(tight.length, `${point.id} ${id}`).toBeGreaterThan(0);
          expect(at(steps, s => s === tight[0])).toBeGreaterThan(work);
        }
        const said = steps
          .flatMap(s => [s.title, s.why, ...(s.hows ?? []), ...s.tools, ...s.cautions])
          .join('\n');
        expect(said).toContain('maker');
        if (point.kind === 'oil-drain') {
          for (const word of ['Drain pan', 'socket', 'New washer', 'dipstick', 'Start it', 'leaks'])
            expect(said).toContain(word);
          for (const [a, b] of [
            ['service-work', 'service-fill'],
            ['service-fill', 'service-leaks'],
            ['service-leaks', 'service-let-down'],
          ] as const)
            expect(i(a)).toBeLessThan(i(b));
          if (rig.servicePoints.some(p => p.kind === 'oil-filter')) {
            const filter = doneWith(point, rig);
            expect(i('service-filter') > work).toBe(filter.length > 0);
          }
        }
      }
    }
  });
  it('takes the amount that was entered', () => {
    const doc = demo('bramble');
    const { rig, panels, joints } = gatherFacts(doc);
    const point = { ...rig.servicePoints.find(p => p.kind === 'oil-drain')!, litres: 5.7 };
    const hung = { doc, panels, joints };
    const { steps } = serviceSteps(serviceAccess(point, hung), hung, rig, 'inch');
    // 5.7 l are 6.02 US quarts
    expect(steps.find(s => s.id === 'service-fill')?.why).toContain('6.0 qt');
  });
});
