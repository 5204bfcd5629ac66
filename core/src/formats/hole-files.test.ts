import { demo } from '@plate-fold/demo';
import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  barCuts,
  clinchHole,
  drilledPanels,
  goesRound,
  holeRows,
  type ResolvedJoint,
  resolveJoints,
  squareHole,
  strapOver,
  threadNamed,
} from '../bolt';
import { type Facts, gatherFacts } from '../derive';
import {
  enclosedVolume,
  type FoldedPanel,
  flatPattern,
  flatRegions,
  fold,
  foldedSolid,
  holeArea,
  NEST_DEFAULTS,
  nest,
  onSheet,
  patternArea,
  pose,
  SHOPS,
} from '../fold';
import { cross3, inRegion, length3, rectangle, sub3, toSpace, type Vec2, type Vec3 } from '../geometry';
import { type Flange, type Joint, type Panel, type SheetChoice, topPlateOf } from '../plan';
import type { Member, Mount, PresentRig } from '../rig';
import { barCutsCsv, holeTableCsv, nestDxf, patternDxf, patternSvg } from './index';

const demos = ['bramble', 'heron', 'pebble', 'wren'] as const;
const factsOf = (name: string, build?: string) => {
  return gatherFacts(demo(name), build);
};

interface DrawnCircle {
  readonly layer: string;
  readonly at: Vec2;
  readonly r: number;
}
/** Circles of a DXF file as a parser from the registry reads them. */
function circlesOf(text: string): readonly DrawnCircle[] {
  const entities = (new DxfParser().parseSync(text)?.entities ?? []) as unknown as readonly {
    type: string;
    layer: string;
    center?: { x: number; y: number };
    radius?: number;
  }[];
  return entities.flatMap(e =>
    e.type === 'CIRCLE' && e.center && e.radius !== undefined
      ? [{ layer: e.layer, at: [e.center.x, e.center.y] as Vec2, r: e.radius }]
      : [],
  );
}

/** A place of the blank folded back into space with its flat, found by the bends and not by the mold lines. */
const foldedBack = (f: FoldedPanel, facet: string, at: Vec2): Vec3 => {
  const frame = pose(f).frames.get(facet);
  if (!frame) throw new Error(`no flat ${facet}`);
  return toSpace(frame, at);
};

/** How far a place is off the line of a bolt, mm, which need not be upright. */
const offAxis = (j: Pick<ResolvedJoint, 'id' | 'at'>, facts: Facts, place: Vec3): number =>
  length3(cross3(sub3(place, j.at), facts.seats.get(j.id)?.axis ?? [0, 0, -1]));

describe('the holes of a blank', () => {
  it.each(demos)(
    '%s: every bolt of every plate has its hole in the DXF where folding puts it on the axis',
    name => {
      for (const build of factsOf(name).document.plan.builds) {
        const facts = factsOf(name, build.id);
        let holes = 0;
        for (const p of facts.panels) {
          const circles = circlesOf(patternDxf(flatPattern(p), 'metric'));
          const mine = facts.joints.filter(j => j.joint.panels.includes(p.panel.id));
          // a strap has two legs, either side of its axis
          const strap = (j: ResolvedJoint): boolean => j.nut?.kind === 'axle-strap';
          expect(p.holes.map(h => h.joint).sort()).toEqual(
            mine.flatMap(j => (strap(j) ? [j.id, j.id] : [j.id])).sort(),
          );
          for (const hole of p.holes) {
            const j = mine.find(x => x.id === hole.joint);
            if (!j) continue;
            const leg = strap(j) && j.member ? strapOver(j.member, j.thread, [0, 0, -1]).legMm : 0;
            // slots are drawn as lines and arcs; their middle folds onto the axis
            if (hole.kind === 'slot') {
              const middle = foldedBack(p, hole.facet, hole.blank);
              expect(offAxis(j, facts, middle)).toBeLessThan(0.05);
              holes++;
              continue;
            }
            const drawn = circles.find(
              c => Math.hypot(c.at[0] - hole.blank[0], c.at[1] - hole.blank[1]) < 1e-3 && c.layer !== 'CSK',
            );
            expect(drawn, `${name} ${build.id} ${p.panel.mark} ${j.id}`).toBeDefined();
            if (!drawn) continue;
            const back = foldedBack(p, hole.facet, drawn.at);
            expect(Math.abs(offAxis(j, facts, back) - leg)).toBeLessThan(0.05);
            const pilot =
              j.mount?.hole.kind === 'drill' &&
              !goesRound(j.joint) &&
              // where a nut is set, or it goes right through to a top plate, the hole is marked and the plate comes down
              topPlateOf(j.joint) === undefined &&
              j.joint.nut !== 'rivet-nut' &&
              facts.document.plan.method.drilling === 'template';
            expect(drawn.layer).toBe(pilot ? 'PILOT' : 'CUT');
            const own =
              j.joint.threadIn !== p.panel.id
                ? j.thread.clearances[j.joint.fit ?? 'normal']
                : j.joint.nut === 'none'
                  ? j.thread.tapDrill
                  : clinchHole(j.thread.size);
            expect(2 * drawn.r).toBeCloseTo(pilot ? 25.4 / 8 : own, 3);
            holes++;
          }
        }
        expect(holes).toBeGreaterThan(10);
      }
    },
  );

  const steel: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
  const member: Member = {
    id: 'm',
    kind: 'crossmember',
    footprint: rectangle(-3000, -3000, 3000, 3000),
    zBottom: 900,
    zTop: 950,
    wall: 3,
  };
  const tree: fc.Arbitrary<readonly Flange[]> = fc
    .uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1, maxLength: 4 })
    .chain(edges =>
      fc.tuple(
        ...edges.map(edge =>
          fc
            .record({
              length: fc.integer({ min: 60, max: 140 }),
              angle: fc.integer({ min: -60, max: 60 }),
              inset: fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })),
              lip: fc.integer({ min: -60, max: 60 }),
            })
            .map(
              ({ lip, ...f }): Flange => ({
                id: `f${edge}`,
                edge,
                ...f,
                flanges: [{ id: `lip${edge}`, edge: 'far', length: 70, angle: lip }],
              }),
            ),
        ),
      ),
    );

  it('lie on their bolts in random flange trees, in the blank as in space', () => {
    let met = 0;
    fc.assert(
      fc.property(
        tree,
        fc.integer({ min: -6, max: 6 }),
        fc.integer({ min: -6, max: 6 }),
        fc.nat({ max: 99 }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (flanges, pitch, roll, pick, a, b) => {
          const panel: Panel = {
            id: 'p',
            mark: 'A',
            name: 'tray',
            base: { origin: [100, 20, 300], pitch, roll, outline: rectangle(0, 0, 600, 400) },
            flanges,
            openings: [],
            guards: [],
          };
          const f = fold(panel, steel);
          const facet = f.facets[pick % f.facets.length];
          if (!facet) return;
          const us = facet.outline.map(q => q[0]);
          const vs = facet.outline.map(q => q[1]);
          const at: Vec2 = [
            Math.min(...us) + a * (Math.max(...us) - Math.min(...us)),
            Math.min(...vs) + b * (Math.max(...vs) - Math.min(...vs)),
          ];
          const d = f.blank.developed.find(x => x.facet.id === facet.id);
          if (!d || Math.abs(facet.frame.n[2]) < 0.4) return;
          const blank: Vec2 = [
            d.origin[0] + d.u[0] * at[0] + d.v[0] * at[1],
            d.origin[1] + d.u[1] * at[0] + d.v[1] * at[1],
          ];
          if (!inRegion(flatRegions(f).get(facet.id) ?? [], blank)) return;
          const over = toSpace(facet.frame, at);
          const mount: Mount = {
            id: 'h',
            member: 'm',
            at: [over[0], over[1], 900],
            hole: { kind: 'captive-nut', thread: 'M8x1.25' },
            condition: 'good',
            nutReach: 'none',
          };
          const joint: Joint = {
            id: 'j',
            mount: 'h',
            panels: ['p'],
            fastener: { head: 'hex', thread: 'M8x1.25', class: '8.8', length: 'auto', finish: 'zinc' },
            nut: 'none',
            washers: [],
            // the flat that lies where the stack wants it is the one that is meant
            spacer: 900 - toSpace(facet.frame, at, 4)[2],
            headSide: 'below',
            lube: 'dry',
            torque: 'auto',
          };
          const rig = {
            mounts: [mount],
            members: [member],
            components: [],
            bars: [],
          } as unknown as PresentRig;
          const joints = resolveJoints([joint], rig, [f]);
          const { panels } = drilledPanels([f], joints, rig, {
            start: 'front-to-rear',
            drilling: 'template',
            lift: 'ground',
            people: 1,
            drive: 'hand-only',
          });
          const [drilled] = panels;
          const [hole] = drilled?.holes ?? [];
          expect(hole?.facet).toBe(facet.id);
          const back = foldedBack(f, facet.id, hole?.blank ?? [0, 0]);
          expect(Math.hypot(back[0] - over[0], back[1] - over[1])).toBeLessThan(0.05);
          // and in the drawing, as a parser reads it
          const circle = circlesOf(patternDxf(flatPattern(drilled as FoldedPanel), 'metric')).find(
            c => c.layer === 'CUT',
          );
          expect(circle?.at[0]).toBeCloseTo(hole?.blank[0] ?? 0, 3);
          expect(circle?.at[1]).toBeCloseTo(hole?.blank[1] ?? 0, 3);
          met++;
        },
      ),
      { numRuns: 150, seed: 3 },
    );
    expect(met).toBeGreaterThan(60);
  });

  it('take their metal away: area, mass, pattern and solid agree', () => {
    for (const name of demos) {
      const facts = factsOf(name);
      for (const p of facts.panels) {
        const bare = fold(p.panel, p.sheet, facts.document.plan.shop?.kFactors);
        const holes = p.holes.reduce((s, h) => s + (h.cut ? holeArea(h.cut) : 0), 0);
        expect(holes).toBeGreaterThan(0);
        expect(bare.blank.areaMm2 - p.blank.areaMm2).toBeCloseTo(holes, 6);
        expect(bare.massKg - p.massKg).toBeCloseTo(holes * p.sheet.thickness * p.material.density * 1e-9, 9);
        expect(patternArea(flatPattern(bare)) - patternArea(flatPattern(p))).toBeCloseTo(holes, 3);
        // clipping keeps four decimals, so an area of so many corners is a little off
        const lost = enclosedVolume(foldedSolid(bare)) - enclosedVolume(foldedSolid(p));
        expect(Math.abs(lost - holes * p.sheet.thickness)).toBeLessThan(1);
      }
    }
  });

  it('are slots, squares, pilots and countersinks where the joint asks for them, each on its layer', () => {
    const facts = factsOf('bramble');
    const plateC = (of: Facts) => of.panels.find(p => p.panel.id === 'plate-c') as FoldedPanel;
    const plain = plateC(facts);
    const changed = (part: Partial<Joint>, head?: Joint['fastener']['head']) => {
      const joints = facts.document.plan.joints.map(j =>
        j.id === 'j17' ? { ...j, ...part, fastener: { ...j.fastener, ...(head ? { head } : {}) } } : j,
      );
      const after = gatherFacts({ ...facts.document, plan: { ...facts.document.plan, joints } });
      const p = plateC(after);
      return { p, hole: p.holes.find(h => h.joint === 'j17'), text: patternDxf(flatPattern(p), 'metric') };
    };
    const m8 = threadNamed('M8');
    if (!m8.ok) throw new Error(m8.fault);
    expect(plain.holes.find(h => h.joint === 'j17')?.cut).toEqual({ circle: 9 });
    // ISO 273 fine and coarse for M8
    expect(changed({ fit: 'close' }).hole?.cut).toEqual({ circle: 8.4 });
    expect(changed({ fit: 'loose' }).hole?.cut).toEqual({ circle: 10 });
    const slot = changed({ slots: { 'plate-c': { length: 25, along: 90 } } });
    expect(slot.hole).toMatchObject({ kind: 'slot', cut: { slot: [25, 9], along: 90 } });
    // two straight sides and two true half circles, as a parser reads them
    const lines = (new DxfParser().parseSync(slot.text)?.entities ?? []) as unknown as readonly {
      type: string;
      layer: string;
      vertices?: readonly { x: number; y: number; bulge?: number }[];
    }[];
    const round = lines.find(
      e => e.vertices?.length === 4 && e.vertices.filter(v => v.bulge === 1).length === 2,
    );
    expect(round?.layer).toBe('CUT');
    const ys = (round?.vertices ?? []).map(v => v.y);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(25 - 9, 3);
    // ISO 8677 neck 8.58 mm and its room
    const carriage = changed({}, 'carriage');
    expect(carriage.hole).toMatchObject({ kind: 'square', cut: { square: 9 } });
    expect(squareHole(m8.value)).toBeCloseTo(9, 6);
    const sunk = changed({ washers: [] }, 'countersunk');
    expect(sunk.hole?.sink).toMatchObject({ diameter: 17.92, angle: 90, below: true });
    expect(
      circlesOf(sunk.text)
        .filter(c => c.layer === 'CSK')
        .map(c => 2 * c.r)[0],
    ).toBeCloseTo(17.92, 3);
    expect(sunk.text).toContain('j17 CSK 90 deg');
    const pilot = changed({ cut: 'pilot' });
    expect(
      circlesOf(pilot.text)
        .filter(c => c.layer === 'PILOT')
        .map(c => 2 * c.r)[0],
    ).toBeCloseTo(3.175, 3);
    const none = changed({ cut: 'none' });
    expect(none.hole).toMatchObject({ kind: 'uncut', final: { circle: 9 } });
    expect(none.hole?.cut).toBeUndefined();
    expect(none.p.blank.areaMm2 - plain.blank.areaMm2).toBeCloseTo((Math.PI * 81) / 4, 6);
  });

  it('lie on the nested sheets, in the SVG and in the hole table where they lie in the blank', () => {
    const facts = factsOf('heron');
    const patterns = facts.panels.map(flatPattern);
    const { sheets } = nest(facts.panels, { ...NEST_DEFAULTS, sheets: SHOPS[1]?.sheets ?? [] });
    const drawn = sheets.flatMap(s => circlesOf(nestDxf(s, patterns, 'metric')));
    for (const s of sheets)
      for (const blank of s.blanks)
        for (const h of patterns.find(p => p.panel === blank.panel)?.holes ?? []) {
          const at = onSheet(blank, h.at);
          // a slot is lines and arcs
          if (h.kind === 'slot') continue;
          expect(drawn.some(c => Math.hypot(c.at[0] - at[0], c.at[1] - at[1]) < 1e-3)).toBe(true);
        }
    const table = holeTableCsv(facts.panels, facts.joints, 'inch').split('\r\n');
    expect(table[0]).toBe('plate,bolt,thread,x in,y in,cut,kind,measured');
    expect(table).toHaveLength(2 + facts.panels.reduce((n, p) => n + p.holes.length, 0));
    const p = facts.panels.find(x => x.panel.id === 'plate-2') as FoldedPanel;
    const [first] = holeRows(p, facts.joints);
    expect(first?.x).toBeCloseTo(30, 2);
    expect(patternSvg(flatPattern(p))).toContain('>j-4</text>');
  });

  it('and the crossbar goes out as it is sawn and drilled', () => {
    const { document, joints } = factsOf('heron');
    const [cut] = barCuts(document.plan.crossbars, joints, document.plan.holes);
    expect(cut?.length).toBeCloseTo(794, 9);
    expect(cut?.holes.map(h => [h.id, h.along, h.how])).toEqual([
      ['j-15', 22, 'through'],
      ['j-17', 272, 'tapped'],
      ['j-18', 522, 'tapped'],
      ['j-16', 772, 'through'],
    ]);
    // tap drill of M10 coarse, ISO 2306
    expect(cut?.holes[1]?.diameter).toBe(8.5);
    // the bar's own bolts are sunk, so that the plate lies against it: ISO 10642, 90 degrees
    expect(cut?.holes[0]?.sink?.angle).toBe(90);
    expect(cut?.holes[1]?.sink).toBeUndefined();
    const csv = barCutsCsv(cut ? [cut] : []);
    expect(csv).toMatch(/through, its lower end countersunk 90° to/);
    expect(csv.split('\r\n')).toHaveLength(6);
  });
});
