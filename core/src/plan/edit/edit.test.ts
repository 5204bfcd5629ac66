import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaOf, baseFrame, intersection, regionOf, signedArea, toSpace, type Vec2 } from '../../geometry';
import { presentRig, startingRig } from '../../rig';
import { blankPlan } from '../blank';
import { checkDocument } from '../document';
import type { Panel, PlanDocument } from '../plan';
import { frontToRear, isBracket } from '../select';
import {
  cornerAdded,
  cornerMoved,
  cornerRemoved,
  edgeMoved,
  endsSet,
  fitted,
  flangeAdded,
  flangeChanged,
  flangeRemoved,
  jointAdded,
  markAt,
  openingFault,
  openingSet,
  outlineFault,
  panelAdded,
  panelDuplicated,
  panelMirrored,
  panelMoved,
  panelSplit,
  panelsMerged,
  panelsRemoved,
  relettered,
  seamSet,
  snapLines,
  snapped,
} from './index';

const panel = (d: PlanDocument, id: string): Panel => d.plan.panels.find(p => p.id === id) as Panel;
const ok = <T>(r: { ok: boolean; value?: T; fault?: string }): T => {
  if (!r.ok) throw new Error(r.fault);
  return r.value as T;
};
const valid = (d: PlanDocument): void => {
  const r = checkDocument(d);
  expect(r.ok ? [] : r.faults).toEqual([]);
};
const area = (p: Panel): number => Math.abs(signedArea(p.base.outline));

describe('outlines', () => {
  it('are refused when they cross, enclose nothing or hold no numbers, with the plate and the edge', () => {
    expect(
      outlineFault(
        [
          [0, 0],
          [100, 100],
          [100, 0],
          [0, 100],
        ],
        'plate A',
      ),
    ).toBe('plate A would cross itself: edge 1 meets edge 3');
    expect(
      outlineFault(
        [
          [0, 0],
          [100, 0],
          [200, 0],
        ],
        'plate A',
      ),
    ).toContain('no area');
    expect(
      outlineFault(
        [
          [0, 0],
          [1, 1],
        ],
        'plate A',
      ),
    ).toContain('three corners');
    expect(
      outlineFault(
        [
          [0, 0],
          [Number.NaN, 0],
          [5, 5],
        ],
        'plate A',
      ),
    ).toContain('not a number');
  });

  it('never throw, whatever the corners: doubled points, zero edges, crossings', () => {
    const coordinate = fc.oneof(
      fc.constantFrom(0, 0, 100),
      fc.integer({ min: -50, max: 50 }),
      fc.constant(Number.NaN),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(coordinate, coordinate), { maxLength: 7 }), fc.nat(7), (o, i) => {
        const doc = demo('bramble');
        const d: PlanDocument = {
          ...doc,
          plan: {
            ...doc.plan,
            panels: doc.plan.panels.map(p =>
              p.id === 'plate-d' ? { ...p, base: { ...p.base, outline: o as Vec2[] } } : p,
            ),
          },
        };
        for (const r of [
          cornerMoved(d, 'plate-d', i, [3, 4]),
          edgeMoved(d, 'plate-d', i, 12),
          cornerRemoved(d, 'plate-d', i),
          panelSplit(d, 'plate-d', { x: 2100 }),
        ])
          expect(typeof r.ok).toBe('boolean');
      }),
      { numRuns: 120 },
    );
  });

  it('an edge moves square to itself and its neighbors keep their lines', () => {
    const d = demo('bramble');
    const wide = ok(edgeMoved(d, 'plate-d', 0, 25));
    expect(panel(wide, 'plate-d').base.outline.slice(0, 2)).toEqual([
      [0, -515],
      [1085, -515],
    ]);
    expect(area(panel(wide, 'plate-d')) - area(panel(d, 'plate-d'))).toBeCloseTo(25 * 1085, 6);
    const over = edgeMoved(d, 'plate-d', 0, -500);
    expect(over.ok).toBe(true);
    valid(wide);
  });

  it('flanges stay on their edges when corners come and go', () => {
    const d = demo('bramble');
    const more = cornerAdded(d, 'plate-a', 0);
    expect(panel(more, 'plate-a').flanges.map(f => f.edge)).toEqual([4, 2]);
    const back = ok(cornerRemoved(more, 'plate-a', 1));
    expect(panel(back, 'plate-a').flanges.map(f => f.edge)).toEqual([3, 1]);
    expect(panel(back, 'plate-a').base.outline).toEqual(panel(d, 'plate-a').base.outline);
  });
});

describe('plates', () => {
  it('come with a sheet in every build and go with all that named them', () => {
    const d = demo('bramble');
    const { document: more, id } = panelAdded(d, { ...panel(d, 'plate-b'), id: undefined, name: 'extra' });
    valid(more);
    expect(more.plan.builds.every(b => b.sheets[id])).toBe(true);
    const less = panelsRemoved(more, [id, 'plate-b']);
    valid(less);
    expect(less.plan.joints.some(j => j.panels.includes('plate-b'))).toBe(false);
    expect(less.plan.seams.some(s => s.front === 'plate-b' || s.rear === 'plate-b')).toBe(false);
    // a bolt shared with a neighbor stays with the neighbor
    expect(less.plan.joints.some(j => j.id === 'j07')).toBe(true);
    // letters are painted on plates and printed on drawings: what is left keeps its own
    expect(less.plan.panels.map(p => p.mark)).toEqual(['A', 'C', 'D', 'E', 'F', 'K1', 'K2', 'K3']);
  });

  it('keep their letters when others come and go, and are told from front to rear', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.nat(9), fc.integer({ min: -800, max: 3000 })), { maxLength: 12 }),
        acts => {
          let d: PlanDocument = panelsRemoved(
            demo('heron'),
            demo('heron')
              .plan.panels.filter(isBracket)
              .map(p => p.id),
          );
          for (const [adds, which, x] of acts) {
            const was = new Map(d.plan.panels.map(p => [p.id, p.mark]));
            const some = d.plan.panels[which % Math.max(1, d.plan.panels.length)];
            if (adds || !some) {
              const like = demo('heron').plan.panels[0] as Panel;
              d = panelAdded(d, {
                ...like,
                id: undefined,
                base: { ...like.base, origin: [x, 0, 300] },
              }).document;
            } else d = panelsRemoved(d, [some.id]);
            for (const p of d.plan.panels) if (was.has(p.id)) expect(p.mark).toBe(was.get(p.id));
            expect(new Set(d.plan.panels.map(p => p.mark)).size).toBe(d.plan.panels.length);
          }
          const begin = (p: Panel): number => p.base.origin[0] + Math.min(...p.base.outline.map(q => q[0]));
          const along = frontToRear(d.plan.panels).map(begin);
          expect(along).toEqual([...along].sort((a, b) => a - b));
          const anew = frontToRear(relettered(d).plan.panels).map(p => p.mark);
          expect(anew).toEqual(anew.map((_, i) => markAt(i)));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('mirrored twice are what they were', () => {
    fc.assert(
      fc.property(fc.constantFrom('plate-a', 'plate-b', 'plate-c', 'plate-d', 'plate-e'), id => {
        const d = demo('bramble');
        const once = panelMirrored(d, id, false).document;
        const twice = panelMirrored(once, id, false).document;
        const strip = (p: Panel) => ({
          ...p,
          openings: p.openings.map(o => ({ ...o, serves: undefined })),
          flanges: p.flanges.map(f => ({ ...f, inset: f.inset ?? null })),
        });
        expect(strip(panel(twice, id))).toEqual(strip(panel(d, id)));
        expect(area(panel(once, id))).toBeCloseTo(area(panel(d, id)), 6);
      }),
    );
    const copy = panelMirrored(demo('bramble'), 'plate-e', true);
    valid(copy.document);
    expect(copy.document.plan.panels).toHaveLength(demo('bramble').plan.panels.length + 1);
  });

  it('split into two that lap by the overlap and share the bolts between', () => {
    const d = demo('bramble');
    const { document: two, ids } = ok(panelSplit(d, 'plate-d', { x: 2160 }));
    valid(two);
    const [front, rear] = ids.map(id => panel(two, id)) as [Panel, Panel];
    const lap = areaOf(intersection(regionOf(front.base.outline), regionOf(rear.base.outline)));
    expect(lap).toBeCloseTo(60 * 405, 3);
    expect(area(front) + area(rear) - lap).toBeCloseTo(area(panel(d, 'plate-d')), 3);
    expect(rear.flanges.map(f => f.id)).toContain('tail');
    expect(front.openings.length + rear.openings.length).toBe(panel(d, 'plate-d').openings.length);
    expect(two.plan.seams).toContainEqual({ front: ids[0], rear: ids[1], overlap: 60, outside: ids[0] });
    const joined = ok(panelsMerged(two, ids[0], ids[1]));
    valid(joined);
    expect(area(panel(joined, ids[0]))).toBeCloseTo(area(panel(d, 'plate-d')), 1);
    expect(panelSplit(d, 'plate-d', { x: 1640 }).ok).toBe(false);
  });

  it('split along the vehicle too, into a left and a right one', () => {
    const d = demo('bramble');
    const { document: two, ids } = ok(panelSplit(d, 'plate-b', { y: -80 }, 40));
    valid(two);
    const [left, right] = ids.map(id => panel(two, id)) as [Panel, Panel];
    expect(area(left) + area(right) - 40 * 860).toBeCloseTo(area(panel(d, 'plate-b')), 3);
    expect(left.flanges.map(f => f.id)).toEqual(['side']);
    expect(right.flanges).toEqual([]);
    expect(right.name).toBe('transmission, right');
    const held = (id: string): number => two.plan.joints.filter(j => j.panels.includes(id)).length;
    expect(held(left.id)).toBeGreaterThan(0);
    expect(held(right.id)).toBeGreaterThan(0);
  });

  it('that do not touch are not merged', () => {
    const r = panelsMerged(demo('bramble'), 'plate-a', 'plate-d');
    expect(r.ok ? '' : r.fault).toContain('do not touch');
  });

  it('are copied and moved without their bolts', () => {
    const d = demo('bramble');
    const copy = panelDuplicated(d, 'plate-c');
    valid(copy.document);
    expect(copy.document.plan.joints).toEqual(d.plan.joints);
    const moved = panelMoved(d, 'plate-c', [5, -3, 2]);
    expect(panel(moved, 'plate-c').base.origin).toEqual([1105, -3, 316.1675]);
  });

  it('tilt about one end: the other keeps its height', () => {
    fc.assert(
      fc.property(fc.integer({ min: 250, max: 400 }), fc.integer({ min: 250, max: 400 }), (f, r) => {
        const p = panel(endsSet(demo('bramble'), 'plate-d', f, r), 'plate-d');
        const frame = baseFrame(p.base.origin, p.base.pitch, p.base.roll);
        const us = p.base.outline.map(q => q[0]);
        expect(toSpace(frame, [Math.min(...us), 0])[2]).toBeCloseTo(f, 6);
        expect(toSpace(frame, [Math.max(...us), 0])[2]).toBeCloseTo(r, 6);
        expect(toSpace(frame, [Math.min(...us), 0])[0]).toBeCloseTo(1630, 6);
      }),
    );
  });
});

describe('openings, flanges, seams and bolts', () => {
  it('an opening off its plate or at its very edge is refused', () => {
    const d = demo('bramble');
    const o = panel(d, 'plate-d').base.outline;
    expect(openingFault(o, { at: [0, -300], shape: { circle: 40 } })).toContain('past the edge');
    expect(openingFault(o, { at: [30, -300], shape: { circle: 48 } })).toContain('too little sheet');
    expect(openingFault(o, { at: [200, -300], shape: { rect: [100, 60] } })).toBeUndefined();
    const r = openingSet(d, 'plate-d', { id: 'x', kind: 'drain', at: [2000, 0], shape: { circle: 40 } });
    expect(r.ok ? '' : r.fault).toContain('plate D');
  });

  it('flanges are added to edges and to flanges, changed and taken off', () => {
    const d = flangeAdded(demo('bramble'), 'plate-c', { edge: 2 });
    const [f] = panel(d, 'plate-c').flanges;
    const lip = flangeAdded(d, 'plate-c', { on: f?.id ?? '' }, 25, -30);
    valid(lip);
    const inner = panel(lip, 'plate-c').flanges[0]?.flanges?.[0];
    expect(inner).toMatchObject({ edge: 'far', length: 25, angle: -30 });
    const changed = flangeChanged(lip, 'plate-c', inner?.id ?? '', { length: 33 });
    expect(panel(changed, 'plate-c').flanges[0]?.flanges?.[0]?.length).toBe(33);
    expect(panel(flangeRemoved(changed, 'plate-c', f?.id ?? ''), 'plate-c').flanges).toEqual([]);
  });

  it('who lies outside decides the order of sheets at shared bolts', () => {
    const d = seamSet(demo('bramble'), 'plate-a', 'plate-b', {
      front: 'plate-a',
      rear: 'plate-b',
      overlap: 40,
      outside: 'plate-b',
    });
    expect(d.plan.joints.find(j => j.id === 'j07')?.panels).toEqual(['plate-b', 'plate-a']);
    expect(seamSet(d, 'plate-a', 'plate-b', undefined).plan.seams).toHaveLength(2);
  });

  it('a bolt takes what its hole has', () => {
    const rig = startingRig('truck');
    let d = blankPlan(rig, 'x', 'x');
    d = panelAdded(d, {
      name: 'p',
      base: {
        origin: [0, 0, 300],
        pitch: 0,
        roll: 0,
        outline: [
          [0, -480],
          [900, -480],
          [900, 480],
          [0, 480],
        ],
      },
      flanges: [],
      openings: [],
      guards: [],
      id: 'p',
    }).document;
    for (const m of ['h2lo', 'h2li', 'rail-l1']) d = ok(jointAdded(d, m, 'p'));
    valid(d);
    expect(d.plan.joints.map(j => [j.fastener.thread, j.nut])).toEqual([
      ['M10x1.5', 'none'],
      ['M8x1.25', 'none'],
      ['M12x1.75', 'flange-serrated'],
    ]);
    expect(jointAdded(d, 'h2lo', 'p').ok).toBe(false);
    const lost = fitted({ ...d, rig: { ...rig, mounts: rig.mounts.filter(m => m.id !== 'h2lo') } });
    valid(lost);
    expect(lost.plan.joints).toHaveLength(2);
  });
});

describe('snapping', () => {
  const d = demo('bramble');
  const lines = snapLines(d, presentRig(d.rig), 'plate-a');
  it('finds holes, members, the center line and neighbors within reach, else the grid', () => {
    expect(snapped([328, 3], lines, 5, 1)).toMatchObject({ at: [330, 0], y: 'center line' });
    expect(snapped([1098, 7.4], lines, 5, 1).at).toEqual([1100, 7]);
    expect(snapped([700.4, 47.6], lines, 5, 1).at).toEqual([700, 48]);
    expect(snapped([700.4, 47.6], lines, 5, 25.4 / 16).at[0]).toBeCloseTo(441 * (25.4 / 16), 6);
  });
});
