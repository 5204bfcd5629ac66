import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { check, mended } from '../checks';
import { gatherFacts } from '../derive';
import { flatPattern } from '../fold';
import { patternDxf } from '../formats';
import { type PlanDocument, panelsRemoved } from '../plan';
import { fourZ } from '../testing/hung-plates';
import { takenForAnother, wrongWays } from './wrong-way';

const waysOf = (doc: PlanDocument, panel: string) => {
  const f = gatherFacts(doc);
  const p = f.panels.find(x => x.panel.id === panel);
  if (!p) throw new Error('no plate');
  return wrongWays(p, f.joints, f.seats);
};

/** Heron's second plate: four bolts at the corners of a rectangle, moved and taken as asked. */
// without the wing, whose bolts tell the two ends of its plate apart
const heron = panelsRemoved(demo('heron'), ['plate-6']);
const mountsOf = (panel: string): readonly string[] =>
  heron.plan.joints.flatMap(j => (j.panels.includes(panel) && j.mount ? [j.mount] : []));
const withHoles = (shift: ReadonlyMap<string, readonly [number, number]>): PlanDocument => ({
  ...heron,
  rig: {
    ...heron.rig,
    mounts: heron.rig.mounts.map(m => {
      const by = shift.get(m.id);
      return by ? { ...m, at: [m.at[0] + by[0], m.at[1] + by[1], m.at[2]] as const } : m;
    }),
  },
});

describe('a plate that fits the wrong way round', () => {
  it('is found where its holes are two-fold symmetric and its shape is not', () => {
    expect(waysOf(heron, 'plate-2')).toContain('end for end');
    // nine bolts in no pattern
    expect(waysOf(demo('bramble'), 'plate-a')).toEqual([]);
  });

  it('is found no more once one hole is moved by more than its play, whichever and wherever to', () => {
    const mounts = mountsOf('plate-2');
    fc.assert(
      fc.property(
        fc.constantFrom(...mounts),
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        fc.integer({ min: 8, max: 30 }),
        (mount, way, far) => {
          const moved = withHoles(new Map([[mount, [far * Math.cos(way), far * Math.sin(way)]]]));
          expect(waysOf(moved, 'plate-2')).not.toContain('end for end');
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is still found where a hole is off by less than its play', () => {
    const [mount = ''] = mountsOf('plate-2');
    expect(waysOf(withHoles(new Map([[mount, [0.3, 0.2]]])), 'plate-2')).toContain('end for end');
  });

  it('is etched by one press, in blank and drawing, and told of no more', () => {
    const of = (doc: PlanDocument) =>
      check(gatherFacts(doc)).filter(f => f.rule === 'hung-wrong' && f.about.includes('plate-2'));
    const [finding] = of(heron);
    expect(finding?.text).toContain('Plate B also fits end for end');
    if (!finding?.mend) throw new Error('no remedy');
    const after = mended(heron, finding.mend);
    expect(of(after)).toEqual([]);
    const p = gatherFacts(after).panels.find(x => x.panel.id === 'plate-2');
    if (!p) throw new Error('no plate');
    const pattern = flatPattern(p);
    // u leads rearward: the front lies the other way
    expect(pattern.etch.way).toEqual({ text: 'FRONT, UP', along: [-1, 0] });
    expect(patternDxf(pattern, 'metric')).toContain('FRONT, UP');
    expect(
      patternDxf(flatPattern(gatherFacts(heron).panels.find(x => x.panel.id === 'plate-2') ?? p), 'metric'),
    ).not.toContain('FRONT');
  });

  it('is told from its neighbor: parts that are the same are no mistake, a longer leg over the same holes is', () => {
    const pairsOf = (doc: PlanDocument): readonly string[] => {
      const f = gatherFacts(doc);
      return takenForAnother(f.panels, f.joints, f.seats).map(([a, b]) => `${a.panel.mark}${b.panel.mark}`);
    };
    // four Z-brackets of one shape may be swapped as one likes
    const four = fourZ(demo('bramble'));
    expect(pairsOf(four)).toEqual([]);
    // one leg runs on beyond its hole: the same holes, another part
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 60 }), fc.nat({ max: 3 }), (longer, which) => {
        const k = four.plan.panels.filter(p => p.role === 'bracket')[which]!;
        const stretched: PlanDocument = {
          ...four,
          plan: {
            ...four.plan,
            panels: four.plan.panels.map(p =>
              p === k
                ? {
                    ...p,
                    base: {
                      ...p.base,
                      outline: p.base.outline.map(([x, y]) => [x > 30 ? x + longer : x, y] as const),
                    },
                  }
                : p,
            ),
          },
        };
        const found = pairsOf(stretched);
        expect(found).toHaveLength(3);
        for (const pair of found) expect(pair).toContain(k.mark);
        const told = check(gatherFacts(stretched)).find(f => f.text.includes('also fits where'));
        expect(told?.text).toMatch(/^Bracket K\d also fits where bracket K\d belongs/);
        const etched = told?.mend && mended(stretched, told.mend);
        expect(etched?.plan.panels.filter(p => p.wayUp)).toHaveLength(1);
      }),
      { numRuns: 20 },
    );
  });
});
