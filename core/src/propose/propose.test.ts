import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverage } from '../coverage';
import { foldPanel } from '../fold';
import { catchEdges, gapsAtRest } from '../gaps';
import { blankPlan, buildOf, checkDocument, type PlanDocument, sheetOf, USUAL_SHEET } from '../plan';
import {
  BODIES,
  type Body,
  type Measures,
  measureFaults,
  measuresOf,
  presentRig,
  startingRig,
  typicalMeasures,
} from '../rig';
import { longestSpan, proposalTaken, propose, type Wish } from './index';

const wishFor = (doc: PlanDocument, part: Partial<Wish> = {}): Wish => ({
  components: presentRig(doc.rig)
    .components.filter(c => c.protect)
    .map(c => c.id),
  sheet: USUAL_SHEET,
  maxBlank: [2400, 1250],
  maxLiftKg: 30,
  ...part,
});

const folded = (doc: PlanDocument) => doc.plan.panels.map(p => foldPanel(p, sheetOf(buildOf(doc.plan), p)));

/** What has to hold of every proposed set, whatever the rig. */
function hold(doc: PlanDocument, wish: Wish): void {
  const proposal = propose(doc, wish);
  const taken = proposalTaken(doc, proposal, wish);
  const read = checkDocument(taken);
  expect(read.ok ? [] : read.faults).toEqual([]);
  const rig = presentRig(taken.rig);
  const panels = folded(taken);
  const about = new Set(proposal.prevented.flatMap(p => p.about));

  // nothing reaches into a part, moving ones least of all
  for (const g of gapsAtRest(rig.components, panels))
    expect(g.gapMm, `${g.panel} to ${g.component}`).toBeGreaterThan(0);

  // every plate hangs by four bolts, or by three well spread
  for (const p of taken.plan.panels) {
    const at = taken.plan.joints
      .filter(j => j.panels.includes(p.id))
      .map(j => taken.rig.mounts.find(m => m.id === j.mount)?.at ?? [0, 0, 0]);
    const spread = (k: 0 | 1): number => Math.max(...at.map(a => a[k])) - Math.min(...at.map(a => a[k]));
    const well = at.length >= 4 || (at.length === 3 && spread(0) > 100 && spread(1) > 60);
    expect(well, `${p.name}: ${JSON.stringify(at)}`).toBe(true);
  }

  // what is chosen is covered, or it is said what prevents it
  for (const c of coverage(rig.components, panels).components)
    if (wish.components.includes(c.id) && c.fraction < 0.95) expect(about).toContain(c.id);

  // nothing catches, except where the reason has been given
  for (const c of catchEdges(panels))
    expect(about.has(c.panel) || about.has(c.behind), `${c.panel} catches ${c.heightMm}`).toBe(true);

  // every plate says why
  for (const p of proposal.plates) expect(p.reasons.length).toBeGreaterThan(0);
}

describe('a proposed set', () => {
  it.each(BODIES)('is valid for the starting %s', body => {
    const doc = blankPlan(startingRig(body), 'x', 'x');
    hold(doc, wishFor(doc));
  });

  const measures = (body: Body): fc.Arbitrary<Measures> =>
    fc
      .record(
        Object.fromEntries(
          measuresOf(body).map(m => {
            const [typical, least, most] = m.of[body] as readonly [number, number, number];
            // mostly near the typical vehicle, heights of parts and members moving apart by some centimetres
            const reach =
              m.unit === 'kg'
                ? (most - least) / 2
                : Math.min((most - least) / 2, Math.abs(typical) * 0.16 + 30);
            return [
              m.id,
              fc.integer({
                min: Math.ceil(Math.max(least, typical - reach)),
                max: Math.floor(Math.min(most, typical + reach)),
              }),
            ];
          }),
        ),
      )
      .map(m => ({ ...typicalMeasures(body), ...m }) as Measures)
      .filter(m => measureFaults(body, m).length === 0);

  it('is valid for 200 random plausible rigs', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BODIES).chain(body => fc.tuple(fc.constant(body), measures(body))),
        ([body, m]) => {
          const doc = blankPlan(startingRig(body, m), 'x', 'x');
          hold(doc, wishFor(doc));
        },
      ),
      { numRuns: 200, seed: 7 },
    );
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
    expect(proposal.prevented[0]?.text).toContain('no two crossing members');
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
