import fc from 'fast-check';
import {
  baseSet,
  blankPlan,
  checkDocument,
  edgeMoved,
  flangeAdded,
  jointRemoved,
  type PlanDocument,
  panelMoved,
  presentOf,
  sheetsSet,
  USUAL_SHEET,
  withJoint,
  withPanel,
} from '../plan';
import { proposalTaken, propose, type Wish } from '../propose';
import {
  BODIES,
  type Body,
  type Measures,
  measureFaults,
  measuresOf,
  type Rig,
  startingRig,
  typicalMeasures,
} from '../rig';

/** How far a measure may stray from where its vehicle stands in the range, as a share of the range. */
const STRAY = 0.15;

/**
 * Measures over the whole ranges of the sheet, as one vehicle has them: heights high or low together, lengths long or short together, each
 * with its own stray; and only what the sheet takes.
 */
export const anyMeasures = (body: Body): fc.Arbitrary<Measures> => {
  const list = measuresOf(body);
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  return fc
    .tuple(
      share,
      share,
      fc.array(fc.double({ min: -STRAY, max: STRAY, noNaN: true }), {
        minLength: list.length,
        maxLength: list.length,
      }),
    )
    .map(([high, long, stray]) => {
      const measured = list.map((m, i) => {
        const [, least, most] = m.of[body] as readonly [number, number, number];
        const base = /height|radius/i.test(m.id) ? high : long;
        const k = Math.max(0, Math.min(1, base + (stray[i] ?? 0)));
        return [m.id, Math.round(least + k * (most - least))] as const;
      });
      return { ...typicalMeasures(body), ...Object.fromEntries(measured) } as Measures;
    })
    .filter(m => measureFaults(body, m).length === 0);
};

/** A vehicle lifted by so much, its front differential let down by so much, mm. */
function lifted(rig: Rig, lift: number, lowered: number): Rig {
  const up = lift;
  return {
    ...rig,
    tyreRadius: rig.tyreRadius + lift / 4,
    components: rig.components.map(c => {
      const down = c.kind === 'front-differential' ? lowered : 0;
      return { ...c, zBottom: c.zBottom + up - down, zTop: c.zTop + up - down };
    }),
    members: rig.members.map(m => ({ ...m, zBottom: m.zBottom + up, zTop: m.zTop + up })),
    mounts: rig.mounts.map(m => ({ ...m, at: [m.at[0], m.at[1], m.at[2] + up] })),
    servicePoints: rig.servicePoints.map(s => ({ ...s, at: [s.at[0], s.at[1], s.at[2] + up] })),
  };
}

/** A plausible vehicle of any body, with any of its options, at its height or lifted. */
export const anyRig: fc.Arbitrary<Rig> = fc
  .constantFrom(...BODIES)
  .chain(body =>
    fc.tuple(
      anyMeasures(body).map(m => startingRig(body, m)),
      fc.array(fc.nat({ max: 7 }), { minLength: 6, maxLength: 6 }),
      fc.constantFrom(0, 0, 25, 50, 75, 100),
      fc.integer({ min: 0, max: 40 }),
    ),
  )
  .map(([rig, picks, lift, lowered]) => {
    const selected = Object.fromEntries(
      rig.options.map((o, i) => [o.id, o.choices[(picks[i] ?? 0) % o.choices.length]?.id ?? '']),
    );
    return lifted({ ...rig, selected: { ...rig.selected, ...selected } }, lift, lowered);
  });

/** A plan without plates on any plausible vehicle. */
export const anyBlankPlan: fc.Arbitrary<PlanDocument> = anyRig.map(rig => blankPlan(rig, 'x', 'x'));

/** What is done to a plan at random, as an owner might. */
const anyChange: fc.Arbitrary<(doc: PlanDocument) => PlanDocument> = fc
  .tuple(
    fc.nat({ max: 9 }),
    fc.nat({ max: 999 }),
    fc.integer({ min: -40, max: 40 }),
    fc.integer({ min: -40, max: 40 }),
  )
  .map(([kind, pick, a, b]) => (doc: PlanDocument): PlanDocument => {
    const panel = doc.plan.panels[pick % Math.max(1, doc.plan.panels.length)];
    const joint = doc.plan.joints[pick % Math.max(1, doc.plan.joints.length)];
    if (!panel) return doc;
    const { outline } = panel.base;
    switch (kind) {
      case 0:
        return panelMoved(doc, panel.id, [0, 0, a / 2]);
      case 1:
        return panelMoved(doc, panel.id, [a, b, 0]);
      case 2:
        return joint ? jointRemoved(doc, joint.id) : doc;
      case 3:
        return joint ? withJoint(doc, joint.id, j => ({ ...j, spacer: Math.abs(a) / 2 })) : doc;
      case 4:
        return baseSet(doc, panel.id, { pitch: panel.base.pitch + a / 15 });
      case 5: {
        const r = edgeMoved(doc, panel.id, pick % outline.length, a);
        return r.ok ? r.value : doc;
      }
      case 6: {
        const corner = outline[pick % outline.length] ?? [0, 0];
        return withPanel(doc, panel.id, p => ({
          ...p,
          openings: [
            ...p.openings,
            {
              id: `random-${pick}`,
              kind: 'drain',
              at: [corner[0] + a, corner[1] + b],
              shape: { circle: 40 },
            },
          ].filter((o, i, all) => all.findIndex(x => x.id === o.id) === i) as typeof p.openings,
        }));
      }
      case 7:
        return flangeAdded(doc, panel.id, { edge: pick % outline.length }, 20 + Math.abs(a), 30 + b);
      case 8:
        return joint
          ? withJoint(doc, joint.id, j => ({
              ...j,
              fastener: {
                ...j.fastener,
                thread: a > 0 ? 'M10x1.5' : '3/8-16',
                head: b > 0 ? 'carriage' : 'hex',
              },
            }))
          : doc;
      default:
        return sheetsSet(doc, doc.plan.activeBuild, {
          [panel.id]: {
            material: a > 0 ? 'al-5052-h32' : 'steel-hr36',
            thickness: b > 0 ? 6.35 : 3.175,
            finish: 'raw',
          },
        });
    }
  });

/** What is asked for of a suggested set at random: every part that wants a plate, in usual sheet. */
export const usualWish = (doc: PlanDocument): Wish => ({
  components: presentOf(doc)
    .components.filter(c => c.protect)
    .map(c => c.id),
  sheet: USUAL_SHEET,
  maxBlank: [2400, 1250],
  maxLiftKg: 30,
});

/** A suggested set on any plausible vehicle, with up to so many things done to it at random: mostly not a good plan, always a sound file. */
export const anyPlan = (changes = 3): fc.Arbitrary<PlanDocument> =>
  fc.tuple(anyBlankPlan, fc.array(anyChange, { maxLength: changes })).map(([blank, list]) => {
    const wish = usualWish(blank);
    const set = proposalTaken(blank, propose(blank, wish), wish);
    return list.reduce((doc, change) => {
      const next = change(doc);
      return checkDocument(next).ok ? next : doc;
    }, set);
  });
