import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check, type Finding } from '../checks';
import { gatherFacts } from '../derive';
import { add3, dot3, length3, sub3, toSpace } from '../geometry';
import { type Call, changeJoints, done, inPlan, jointAdded, type PlanDocument, presentOf } from '../plan';
import { type Member, memberName } from '../rig';
import { installationOf, nutReaches } from '../sequence';
import { jointCapacity, legsOf, partNames, strapOver, threadNamed } from './index';

const heron = demo('heron');
const facts = gatherFacts(heron);
const straps = facts.joints.filter(j => j.nut?.kind === 'axle-strap');
const skid = facts.panels.find(p => p.panel.id === 'plate-5')!;
const m10 = threadNamed('M10x1.5');

describe('a strap over an axle tube', () => {
  it('has its legs beside the tube, square to it, whichever way it lies', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 140, noNaN: true }),
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        (width, turn) => {
          const way = (l: number, w: number) =>
            [Math.cos(turn) * l - Math.sin(turn) * w, Math.sin(turn) * l + Math.cos(turn) * w] as const;
          const tube: Member = {
            id: 't',
            kind: 'axle-tube',
            footprint: [way(0, -width / 2), way(600, -width / 2), way(600, width / 2), way(0, width / 2)],
            zBottom: 300,
            zTop: 300 + width,
            wall: 6,
          };
          if (!m10.ok) throw new Error(m10.fault);
          const made = strapOver(tube, m10.value, [0, 0, -1]);
          expect(made.overMm).toBeCloseTo(width, 6);
          // a leg of 10 mm beside the tube, with air, and no further than it must
          expect(made.legMm - 5 - width / 2).toBeGreaterThan(0.5);
          expect(made.legMm - 5 - width / 2).toBeLessThan(2);
          const [a, b] = legsOf(made);
          expect(length3(add3(a, b))).toBeLessThan(1e-9);
          expect(dot3(made.across, [Math.cos(turn), Math.sin(turn), 0])).toBeCloseTo(0, 9);
        },
      ),
    );
  });

  it('makes two holes in its plate, which fold to its legs', () => {
    expect(straps).toHaveLength(4);
    for (const j of straps) {
      const holes = skid.holes.filter(h => h.joint === j.id);
      const made = strapOver(j.member!, j.thread, [0, 0, -1]);
      const at = holes.map(h => sub3(toSpace(skid.facets.find(f => f.id === h.facet)!.frame, h.at), j.at));
      expect(at.map(v => dot3(v, made.across)).sort((p, q) => p - q)).toEqual([
        expect.closeTo(-made.legMm, 3),
        expect.closeTo(made.legMm, 3),
      ]);
      // the drilled hole in the blank is for the leg, not for the tube
      for (const h of holes) expect(h.cut).toEqual({ circle: j.thread.clearance });
    }
  });

  it('is bought with a nut and a washer for each of its legs, and no bolt', () => {
    const names = partNames(straps[0]!);
    expect(names.filter(n => n.startsWith('strap over a tube of 80 mm, legs M10x1.5'))).toHaveLength(1);
    expect(names.filter(n => n.includes('flange nut M10x1.5'))).toHaveLength(2);
    expect(names.filter(n => n.startsWith('flat washer M10'))).toHaveLength(2);
    expect(names.some(n => /bolt/.test(n))).toBe(false);
  });

  it('holds by both legs, of mild rod, and slips on its tube before it tears', () => {
    const { elements } = jointCapacity(straps[0]!, facts.panels);
    const leg = elements.find(e => e.what === 'leg of the strap')!;
    // class 4.8: 310 MPa on 58.0 mm² (ISO 898-1), twice
    expect(leg.force).toBeCloseTo(2 * 310 * straps[0]!.thread.stressArea, 3);
    expect(elements.some(e => e.what.startsWith('wall of'))).toBe(false);
    expect(elements.find(e => e.what === 'clamp slips on its tube')!.force).toBeCloseTo(
      4 * 0.15 * straps[0]!.preloadN,
      6,
    );
    // T = K d F for the force in one leg (Shigley eq. 8-27)
    expect(straps[0]!.torqueNm).toBeCloseTo((0.2 * 10 * straps[0]!.preloadN) / 1000, 6);
  });

  it('hangs over the tube before its plate comes, and both of its nuts are brought up in turn', () => {
    const { steps } = installationOf(facts);
    const hang = steps.find(s => s.id === 'hang-plate-5');
    expect(hang?.hows?.join(' ')).toMatch(
      /Lay the straps of j-19, j-20, j-21, j-22 over the axle tube first/,
    );
    const tight = steps.filter(s => s.stage === 'tighten' && s.panels.includes('plate-5'));
    expect(tight.length).toBeGreaterThan(1);
    for (const s of tight) expect(s.hows?.join(' ')).toMatch(/both nuts of the strap in turn/);
    expect(nutReaches(heron, facts.panels, facts.joints).get('j-19')?.said).toMatch(/turned from below/);
    expect(steps.some(s => s.stage === 'drill' && s.joints.some(id => straps.some(j => j.id === id)))).toBe(
      false,
    );
  });

  it('is what an axle tube gets by itself; a bolt drilled into one is stopped, and mended to a strap', () => {
    const bare: PlanDocument = inPlan(heron, {
      joints: heron.plan.joints.filter(j => j.nut !== 'axle-strap'),
    });
    const again = jointAdded(bare, 'strap-left-in', 'plate-5');
    expect(again.ok && again.value.plan.joints.at(-1)?.nut).toBe('axle-strap');
    const drilled = done(changeJoints, heron, { joints: [{ joint: 'j-19', part: { nut: 'rivet-nut' } }] });
    if (!drilled.ok) throw new Error(drilled.fault);
    const found = check(gatherFacts(drilled.value)).find(
      f => f.rule === 'drilling' && f.about.includes('j-19'),
    );
    expect(found?.severity).toBe('stop');
    const { args } = (found as Finding).mend as Call<Parameters<typeof changeJoints.run>[1]>;
    const mended = done(changeJoints, drilled.value, args);
    expect(mended.ok && check(gatherFacts(mended.value)).some(f => f.rule === 'drilling')).toBe(false);
  });

  it('names the two halves of an axle by their sides', () => {
    const rig = presentOf(heron);
    expect(['axle-left', 'axle-right'].map(id => memberName(rig, id))).toEqual([
      'driver\u2019s side axle tube',
      'passenger\u2019s side axle tube',
    ]);
  });
});

describe('a clamp round a frame tube', () => {
  const wren = demo('wren');
  const made = (spacer: number) => {
    const joints = wren.plan.joints.map(j => (j.id === 'j-21' ? { ...j, spacer } : j));
    const f = gatherFacts(inPlan(wren, { joints }));
    return { f, j: f.joints.find(x => x.id === 'j-21')! };
  };
  const { f, j } = made(33.6);

  it('has its thread in a foot that fills what is between tube and plate', () => {
    expect(f.seats.get('j-21')?.gaps.every(g => Math.abs(g.mm) < 0.5)).toBe(true);
    // plate and washer alone are clamped
    expect(j.gripMm).toBeCloseTo(
      j.layers.filter(l => l.kind === 'plate' || l.kind === 'washer').reduce((s, l) => s + l.thickness, 0),
      9,
    );
    expect(j.lengthMm - j.gripMm).toBeGreaterThanOrEqual(8);
    expect(partNames(j)).toContain('tube clamp for a tube of 38 mm, foot 33.6 mm high, tapped M8x1.25');
    expect(partNames(j).some(n => n.startsWith('spacer'))).toBe(false);
    expect(j.drill).toEqual([]);
  });

  it('sits on its tube before the plate goes up', () => {
    const { steps } = installationOf(f);
    const at = (id: string): number => steps.findIndex(s => s.id === id);
    expect(steps[at('set-j-21')]?.title).toContain('tube clamp');
    expect(at('set-j-21')).toBeLessThan(at('hang-plate-2'));
    expect(steps[at('hang-plate-2')]?.hows?.join(' ') ?? '').not.toContain('j-21');
  });

  it('is stopped where its foot is too low for a thread, and where it does not reach', () => {
    const grave = (spacer: number) =>
      check(made(spacer).f).filter(x => x.severity !== 'note' && x.about.includes('j-21'));
    expect(grave(33.6)).toEqual([]);
    expect(grave(4).map(x => x.rule)).toContain('stack');
    const seat = grave(20).find(x => x.rule === 'seat');
    expect(seat?.remedy).toMatch(/a clamp with a foot 33\.\d mm high/);
  });
});
