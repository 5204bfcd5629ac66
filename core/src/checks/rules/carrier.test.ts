import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { boltToHoles } from '../../bolt';
import { gatherFacts } from '../../derive';
import { blankPlan, done, type PlanDocument, panelAdded } from '../../plan';
import { type Member, type Mount, startingRig } from '../../rig';
import { check } from '../check';

/** A pickup whose rear axle tube has four holes in its underside, a skid of 300 by 260 mm bolted to them. */
function withSkid(bump: number): { readonly bare: PlanDocument; readonly doc: PlanDocument } {
  const rig = startingRig('truck');
  const x = rig.wheelbase;
  const tube: Member = {
    id: 'rear-tube',
    kind: 'axle-tube',
    footprint: [
      [x - 60, -600],
      [x + 60, -600],
      [x + 60, 600],
      [x - 60, 600],
    ],
    zBottom: 260,
    zTop: 380,
    wall: 8,
    moves: { with: 'rear-axle', bump, droop: 90 },
  };
  const holes = [-1, 1].flatMap(a =>
    [-1, 1].map(
      (b): Mount => ({
        id: `tube-${a}-${b}`,
        member: 'rear-tube',
        at: [x + 40 * a, 100 * b, 260],
        hole: { kind: 'threaded', thread: 'M10x1.5' },
        condition: 'good',
        nutReach: 'none',
      }),
    ),
  );
  const bare = blankPlan(
    { ...rig, members: [...rig.members, tube], mounts: [...rig.mounts, ...holes] },
    'own',
    'own',
  );
  const made = panelAdded(bare, {
    name: 'differential skid',
    base: {
      origin: [x - 150, 0, 260 - 4.7625],
      pitch: 0,
      roll: 0,
      outline: [
        [0, -130],
        [300, -130],
        [300, 130],
        [0, 130],
      ],
    },
    flanges: [],
    openings: [],
    guards: [],
  });
  const bolted = done(boltToHoles, made.document, { panel: made.id, holes: holes.map(h => h.id) });
  if (!bolted.ok) throw new Error(bolted.fault);
  return { bare, doc: bolted.value };
}

const said = (doc: PlanDocument) => check(gatherFacts(doc)).filter(f => f.rule === 'carrier');

describe('a plate on an axle', () => {
  it('loads the wheels by its moments and leaves the springs alone', () => {
    const { bare, doc } = withSkid(80);
    const [was, is] = [gatherFacts(bare).weight, gatherFacts(doc).weight];
    const skid = gatherFacts(doc).panels[0];
    expect([...gatherFacts(doc).carried.keys()]).toEqual([skid?.panel.id]);
    // all of it stands over the rear axle
    expect(is.axles.rearKg - was.axles.rearKg).toBeCloseTo(is.addedKg - was.addedKg, 6);
    expect(is.unsprungKg).toBeCloseTo(is.addedKg - was.addedKg, 9);
    expect(is.rideHeight.frontMm).toBeCloseTo(was.rideHeight.frontMm, 9);
    expect(is.rideHeight.rearMm).toBeCloseTo(was.rideHeight.rearMm, 9);
    expect(is.unsprungKg).toBeGreaterThan(2.5);
  });

  it('is held to its part at full bump, not at rest', () => {
    const { doc } = withSkid(80);
    const top = 260;
    const over = (gap: number): PlanDocument => ({
      ...doc,
      rig: {
        ...doc.rig,
        components: [
          ...doc.rig.components,
          {
            id: 'spare',
            kind: 'exhaust',
            name: 'tail pipe',
            footprint: [
              [doc.rig.wheelbase + 70, -60],
              [doc.rig.wheelbase + 140, -60],
              [doc.rig.wheelbase + 140, 60],
              [doc.rig.wheelbase + 70, 60],
            ],
            zBottom: top + gap,
            zTop: top + gap + 60,
            protect: false,
            keepOut: 12,
          },
        ],
      },
    });
    expect(said(over(120))).toEqual([]);
    const [near] = said(over(85));
    expect([near?.severity, near?.text]).toEqual([
      'fix',
      expect.stringMatching(/rises 80 mm with the rear axle and leaves 5.0 mm to tail pipe/),
    ]);
    const [hits] = said(over(60));
    expect([hits?.severity, hits?.text]).toEqual([
      'stop',
      expect.stringMatching(/hits tail pipe: 20 mm too far/),
    ]);
  });

  it('may not be bolted to the frame as well', () => {
    const doc = demo('bramble');
    const torn: PlanDocument = {
      ...doc,
      rig: {
        ...doc.rig,
        members: doc.rig.members.map(m =>
          m.id === 'cross-2' ? { ...m, moves: { with: 'front-axle', bump: 60, droop: 70 } } : m,
        ),
      },
    };
    const stops = said(torn).filter(f => f.severity === 'stop');
    expect(stops.some(f => /moves with the front axle, and to the .* which does not/.test(f.text))).toBe(
      true,
    );
    expect(said(doc)).toEqual([]);
  });

  it('is told where an axle comes down on a plate of the frame', () => {
    const { doc } = withSkid(40);
    const x = doc.rig.wheelbase;
    // a plate of the frame 60 mm under the tube, which falls by 90
    const { document } = panelAdded(doc, {
      name: 'tank end',
      base: {
        origin: [x - 50, 300, 200 - 4.7625],
        pitch: 0,
        roll: 0,
        outline: [
          [0, 0],
          [200, 0],
          [200, 200],
          [0, 200],
        ],
      },
      flanges: [],
      openings: [],
      guards: [],
    });
    const [down] = said(document).filter(f => /full droop/.test(f.text));
    expect([down?.severity, down?.text]).toEqual([
      'stop',
      expect.stringMatching(/comes down into plate B at full droop, 30 mm too far/),
    ]);
  });
});
