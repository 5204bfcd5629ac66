import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LONGEST_SPACER } from '../bolt';
import { check } from '../checks';
import { gapsAtRest, longestSpan } from '../cover';
import { gatherFacts } from '../derive';
import { foldPanel } from '../fold';
import {
  blankPlan,
  buildOf,
  checkDocument,
  done,
  isBracket,
  type PlanDocument,
  presentOf,
  sheetOf,
  USUAL_SHEET,
} from '../plan';
import { BODIES, startingRig } from '../rig';
import { anyBlankPlan, usualWish } from '../testing/random';
import { proposalTaken, propose, takeProposal, type Wish } from './index';

const wishFor = (doc: PlanDocument, part: Partial<Wish> = {}): Wish => ({ ...usualWish(doc), ...part });

const folded = (doc: PlanDocument) => doc.plan.panels.map(p => foldPanel(p, sheetOf(buildOf(doc.plan), p)));

/** What has to hold of every proposed set, whatever the rig; tells whether the checks still find something that had to be announced. */
function hold(doc: PlanDocument, wish: Wish): boolean {
  const proposal = propose(doc, wish);
  const taken = proposalTaken(doc, proposal, wish);
  const read = checkDocument(structuredClone(taken));
  expect(read.ok ? [] : read.faults).toEqual([]);
  const rig = presentOf(taken);
  const panels = folded(taken);
  const about = new Set(proposal.prevented.flatMap(p => p.about));

  // no stop and no fix that was not announced
  const limits = { ...taken.plan.limits, maxLiftKg: wish.maxLiftKg };
  const facts = gatherFacts({ ...taken, plan: { ...taken.plan, limits } });
  const grave = check(facts).filter(f => f.severity !== 'note');
  for (const f of grave)
    expect(
      f.about.some(id => about.has(id)),
      `${f.rule}: ${f.text}`,
    ).toBe(true);

  // every stack closes, whatever else had to be announced
  expect(grave.filter(f => f.rule === 'seat' || f.rule === 'solid').map(f => f.text)).toEqual([]);

  // nothing reaches into a part, moving ones least of all
  for (const g of gapsAtRest(rig.components, panels))
    expect(g.gapMm, `${g.panel} to ${g.component}`).toBeGreaterThan(0);

  // every plate says why
  for (const p of proposal.plates) expect(p.reasons.length).toBeGreaterThan(0);
  return grave.some(f => f.rule !== 'too-heavy');
}

/** Vehicles looked at here; five hundred are the soak's. */
const RIGS = Number(process.env.SOAK_RIGS ?? 40);

describe('a proposed set', () => {
  it.each(BODIES)('is valid for the starting %s', body => {
    const doc = blankPlan(startingRig(body), 'x', 'x');
    hold(doc, wishFor(doc));
  });

  it.each(['bramble', 'heron', 'pebble', 'wren'])(
    'holds on the vehicle of %s, with nothing left to mend',
    name => {
      const document = demo(name);
      const doc = blankPlan(document.rig, 'x', 'x');
      hold(doc, wishFor(doc));
    },
  );

  it('has no stop and no fix that it has not announced, on plausible vehicles of every body, option and height', () => {
    let announced = 0;
    let all = 0;
    fc.assert(
      fc.property(anyBlankPlan, doc => {
        all++;
        if (hold(doc, wishFor(doc))) announced++;
      }),
      { numRuns: RIGS, seed: Number(process.env.SOAK_SEED ?? 7) },
    );
    if (process.env.SOAK_RIGS)
      console.log(
        `${announced} of ${all} suggested sets needed an announcement (${((100 * announced) / all).toFixed(1)} %)`,
      );
    expect(announced / all).toBeLessThan(0.1);
  });

  it('passes under a member that a part hangs too far below, and says so', () => {
    const rig = startingRig('suv');
    const cross = rig.members.find(m => m.id === 'cross-2');
    const front = rig.components.find(c => c.kind === 'front-differential');
    if (!cross || !front) throw new Error('the SUV has no front differential');
    // the differential's rear end lies right under the second crossmember, 54 mm lower
    const x = Math.max(...cross.footprint.map(p => p[0])) - 10;
    const by = x - Math.max(...front.footprint.map(p => p[0]));
    const low = {
      ...rig,
      components: rig.components.map(c =>
        c === front
          ? {
              ...c,
              zBottom: cross.zBottom - 54,
              footprint: c.footprint.map(([u, v]): [number, number] => [u + by, v]),
            }
          : c,
      ),
    };
    const doc = blankPlan(low, 'x', 'x');
    // with a helper or a jack: alone, the longer plate would be too heavy, and the spacers are said instead
    const proposal = propose(doc, wishFor(doc, { maxLiftKg: 80 }));
    const passing = proposal.plates.filter(p => p.reasons.some(r => /^Passes under the/.test(r)));
    expect(passing.length).toBeGreaterThan(0);
    expect(proposal.prevented.filter(p => p.text.includes('spacer'))).toEqual([]);
    const alone = propose(doc, wishFor(doc, { maxLiftKg: 15 }));
    expect(alone.prevented.some(p => p.text.includes('too tall for a bolt'))).toBe(true);
  });

  it('can be taken in part: the plates left out leave no bolt or seam behind', () => {
    const doc = blankPlan(startingRig('truck'), 'x', 'x');
    const wish = wishFor(doc);
    const proposal = propose(doc, wish);
    const [first] = proposal.plates;
    const taken = proposalTaken(doc, proposal, wish, [first?.panel.id ?? '']);
    expect(checkDocument(taken).ok).toBe(true);
    expect(taken.plan.panels).toHaveLength(1);
    expect(taken.plan.seams).toEqual([]);
    expect(taken.plan.joints.every(j => j.panels.length === 1)).toBe(true);
  });

  it('says what prevents it where no members hold a plate', () => {
    const rig = startingRig('truck');
    const bare = {
      ...rig,
      members: rig.members.filter(m => m.kind === 'rail'),
      mounts: rig.mounts.filter(m => m.member.startsWith('rail')),
    };
    const doc = blankPlan(bare, 'x', 'x');
    const proposal = propose(doc, wishFor(doc));
    expect(proposal.plates).toEqual([]);
    expect(proposal.prevented.length).toBe(wishFor(doc).components.length);
    expect(proposal.prevented[0]?.text).toContain('no two crossmembers');
  });

  it('keeps to the limits, or names them', () => {
    const doc = blankPlan(startingRig('truck'), 'x', 'x');
    const said = propose(
      doc,
      wishFor(doc, { maxLiftKg: 5, maxBlank: [300, 300], minClearance: 600 }),
    ).prevented;
    for (const word of ['you lift alone', 'larger than your', 'above the ground'])
      expect(
        said.some(s => s.text.includes(word)),
        word,
      ).toBe(true);
  });

  it('the span rule: thicker, stronger and turned-up sheet spans more', () => {
    const rig = startingRig('truck');
    const span = (t: number, sides: number): number =>
      longestSpan({ ...USUAL_SHEET, thickness: t }, rig, 600, Array(sides).fill(36));
    expect(span(6.35, 0)).toBeGreaterThan(span(4.7625, 0));
    expect(span(4.7625, 2)).toBeGreaterThan(1.5 * span(4.7625, 0));
    // 8·Sy·t²·b/4 / (m·g/2) by hand for 3/16 in grade 36 (250 MPa), 600 mm wide, 1120 kg on the front axle
    expect(span(4.7625, 0)).toBeCloseTo((8 * 250 * 4.7625 ** 2 * 600) / 4 / ((1120 * 9.80665) / 2), -1);
  });
});

describe('a suggested plate whose spacers would be too tall', () => {
  it('is hung by brackets where there is room for them, never the worse for it, and says so', () => {
    let hung = 0;
    const grave = (doc: PlanDocument): readonly string[] =>
      check(gatherFacts(doc))
        .filter(f => f.severity !== 'note')
        .map(f => f.rule);
    fc.assert(
      fc.property(anyBlankPlan, doc => {
        const wish = wishFor(doc);
        const proposal = propose(doc, wish);
        const bare = proposalTaken(doc, proposal, wish);
        if (!bare.plan.joints.some(j => j.spacer > LONGEST_SPACER)) return;
        const plates = proposal.plates.map(p => p.panel.id);
        const r = done(takeProposal, doc, { proposal, wish, plates, replace: false });
        if (!r.ok) throw new Error(r.fault);
        const read = checkDocument(structuredClone(r.value));
        expect(read.ok ? [] : read.faults).toEqual([]);
        const [before, after] = [grave(bare), grave(r.value)];
        for (const rule of new Set(after))
          expect(after.filter(x => x === rule).length, rule).toBeLessThanOrEqual(
            before.filter(x => x === rule).length,
          );
        const brackets = r.value.plan.panels.filter(isBracket);
        if (brackets.length === 0) return;
        hung++;
        // each is bolted to the vehicle and to its plate, by its own thread
        for (const b of brackets) {
          const own = r.value.plan.joints.filter(j => j.panels.includes(b.id));
          expect(own.map(j => j.mount !== undefined).sort()).toEqual([false, true]);
          expect(own.find(j => j.mount === undefined)?.threadIn).toBe(b.id);
        }
        expect(proposal.plates.flatMap(p => p.reasons).join(' ')).toMatch(/Hung by (a|\d+) bracket/);
        const tall = r.value.plan.joints.filter(j => j.spacer > LONGEST_SPACER).length;
        expect(tall).toBeLessThan(bare.plan.joints.filter(j => j.spacer > LONGEST_SPACER).length);
      }),
      { numRuns: Number(process.env.SOAK_RIGS ?? 40), seed: Number(process.env.SOAK_SEED ?? 3) },
    );
    expect(hung).toBeGreaterThan(0);
  });
});
