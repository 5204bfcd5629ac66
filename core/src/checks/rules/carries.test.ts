import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../../derive';
import {
  addPhase,
  checkDocument,
  done,
  moveToPhase,
  type PlanDocument,
  phasesOf,
  upToPhase,
} from '../../plan';
import { installationOf } from '../../sequence';
import { sectionModulus } from '../../weigh';
import { check, mended } from '../index';

/** Heron, whose crossbar may take the place of a crossmember that carries the transmission. */
function vehicle(): { readonly doc: PlanDocument; readonly bar: string } {
  const doc = demo('heron');
  const [bar] = doc.plan.crossbars;
  if (!bar) throw new Error('no crossbar');
  const mid = [0, 1, 2].map(k => (bar.from[k as 0] + bar.to[k as 0]) / 2) as [number, number, number];
  const gearbox = doc.rig.components.find(c => c.kind === 'transmission') ?? doc.rig.components[0]!;
  return {
    bar: bar.id,
    doc: {
      ...doc,
      rig: {
        ...doc.rig,
        factoryParts: [
          ...doc.rig.factoryParts,
          {
            id: 'crossmember',
            name: 'transmission crossmember',
            massKg: 3.4,
            at: mid,
            fasteners: [{ count: 4, head: 'hex', thread: 'M10x1.5' }],
            reuseFasteners: false,
            carries: gearbox.id,
            section: { width: 50, height: 25, wall: 2 },
          },
        ],
      },
    },
  };
}
const found = (doc: PlanDocument) => check(gatherFacts(doc)).filter(f => f.rule === 'carries');

describe('a factory part that carries something', () => {
  const { doc, bar } = vehicle();
  it('may not come off with nothing in its place; the bar that lies there can take it by one press', () => {
    const [f] = found(doc);
    expect(f?.severity).toBe('stop');
    expect(f?.text).toMatch(/^The transmission crossmember comes off and nothing carries/);
    const after = f?.mend && mended(doc, f.mend);
    expect(after?.plan.crossbars.find(c => c.id === bar)?.replaces).toBe('crossmember');
    const sound = checkDocument(structuredClone(after));
    expect(sound.ok ? [] : sound.faults).toEqual([]);
    expect(found(after as PlanDocument).filter(x => x.severity === 'stop')).toEqual([]);
  });

  it('has what it carries held up from before it comes off until the bar is fast', () => {
    const with1: PlanDocument = {
      ...doc,
      plan: {
        ...doc.plan,
        crossbars: doc.plan.crossbars.map(c => (c.id === bar ? { ...c, replaces: 'crossmember' } : c)),
      },
    };
    for (const [of, onto] of [
      [with1, true],
      [doc, false],
    ] as const) {
      const { steps, cycle } = installationOf(gatherFacts(of));
      expect(cycle).toEqual([]);
      const at = (id: string): number => steps.findIndex(s => s.id === id);
      expect(at('support-part-crossmember')).toBeGreaterThanOrEqual(0);
      expect(at('support-part-crossmember')).toBeLessThan(at('remove-crossmember'));
      expect(at('release-part-crossmember')).toBeGreaterThan(at('remove-crossmember'));
      const release = steps[at('release-part-crossmember')];
      expect(release?.takes).toEqual(steps[at('support-part-crossmember')]?.puts);
      expect(release?.title).toMatch(
        onto ? /^Let the .* down onto/ : /^Bolt the transmission crossmember back/,
      );
      // nobody drives off while it hangs on a jack
      for (const s of steps.slice(at('support-part-crossmember'), at('release-part-crossmember')))
        expect(s.drivable ?? false).toBe(false);
    }
  });

  it('is compared with what takes its place: modulus of a tube by its outer less its inner rectangle', () => {
    expect(sectionModulus({ width: 50, height: 30, wall: 'solid' })).toBeCloseTo((50 * 30 ** 2) / 6, 9);
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 80 }),
        fc.integer({ min: 20, max: 80 }),
        fc.integer({ min: 1, max: 9 }),
        (w, h, t) => {
          const tube = sectionModulus({ width: w, height: h, wall: t });
          expect(tube).toBeLessThan(sectionModulus({ width: w, height: h, wall: 'solid' }));
          expect(tube).toBeLessThan(sectionModulus({ width: w, height: h, wall: t + 1 }) + 1e-9);
          // I of the outer less I of the inner rectangle, over half the height (Roark, table A.1)
          expect(tube).toBeCloseTo((w * h ** 3 - (w - 2 * t) * (h - 2 * t) ** 3) / 12 / (h / 2), 6);
        },
      ),
    );
    const weak: PlanDocument = {
      ...doc,
      plan: {
        ...doc.plan,
        crossbars: doc.plan.crossbars.map(c =>
          c.id === bar
            ? { ...c, replaces: 'crossmember', section: { width: 20, height: 15, wall: 'solid' } }
            : c,
        ),
      },
    };
    expect(
      found(weak)
        .map(f => f.text)
        .join(),
    ).toMatch(/% of the section modulus/);
  });

  it('stays on in a phase before its bar comes', () => {
    const with1: PlanDocument = {
      ...doc,
      plan: {
        ...doc.plan,
        crossbars: doc.plan.crossbars.map(c => (c.id === bar ? { ...c, replaces: 'crossmember' } : c)),
      },
    };
    const made = done(addPhase, with1, {});
    if (!made.ok) throw new Error(made.fault);
    const second = phasesOf(made.value.plan)[1]?.id ?? '';
    const later = with1.plan.panels.reduce((d, p) => {
      const r = done(moveToPhase, d, { panel: p.id, phase: second });
      return r.ok ? r.value : d;
    }, made.value);
    const [first] = phasesOf(later.plan);
    const state = upToPhase(later, first?.id ?? '');
    // off with its bar, on without it
    expect(state.rig.factoryParts.some(f => f.id === 'crossmember')).toBe(
      state.plan.crossbars.some(c => c.id === bar),
    );
    const whole = upToPhase(later, second);
    expect(whole.plan.crossbars.some(c => c.id === bar)).toBe(true);
    expect(whole.rig.factoryParts.some(f => f.id === 'crossmember')).toBe(true);
  });
});
