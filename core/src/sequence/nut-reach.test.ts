import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { resolveJoints } from '../bolt';
import { foldPanel } from '../fold';
import { distanceToOutline } from '../geometry';
import { type PlanDocument, sheetOf } from '../plan';
import { presentRig } from '../rig';
import { ARM, hangingOrder, nutReaches } from './index';

const looked = (doc: PlanDocument) => {
  const build = doc.plan.builds[0]!;
  const rig = presentRig(doc.rig);
  const panels = doc.plan.panels.map(p => foldPanel(p, sheetOf(build, p)));
  return { doc, rig, panels, joints: resolveJoints(doc.plan.joints, rig, panels) };
};

describe('until when a nut is reached', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])(
    'every joint of %s is told of, in the order the plates hang',
    name => {
      const { doc, panels, joints } = looked(demo(name));
      const { order } = hangingOrder(doc, panels);
      const reaches = nutReaches(doc, panels, joints);
      for (const j of joints) {
        const note = reaches.get(j.id)!;
        expect(note.said).toMatch(/\.$/);
        if (!j.nut?.flats && j.mount) expect(note.until).toBe('fixed');
        if (typeof note.until === 'object') {
          const closer = note.until.panel;
          expect(order.some(p => p.panel.id === closer)).toBe(true);
          expect(['slot', 'open']).toContain(j.mount?.nutReach);
        }
      }
    },
  );
  it('ends where the plates reach further over it than an arm, and not before', () => {
    const { doc } = looked(demo('bramble'));
    const through = doc.rig.mounts.find(
      m => m.hole.kind === 'through' && doc.plan.joints.some(j => j.mount === m.id),
    )!;
    // one wide plate, one through bolt with a nut: in its middle and near its edge
    const at = (inset: number, half: number) => {
      const panel = {
        ...doc.plan.panels[0]!,
        base: {
          origin: [through.at[0], through.at[1], through.at[2] - 5] as const,
          pitch: 0,
          roll: 0,
          outline: [
            [-half, -inset],
            [half, -inset],
            [half, half],
            [-half, half],
          ] as const,
        },
        flanges: [],
        openings: [],
      };
      const joint = {
        ...doc.plan.joints.find(j => j.mount === through.id)!,
        panels: [panel.id],
        nut: 'hex' as const,
      };
      const rig = {
        ...doc.rig,
        mounts: doc.rig.mounts.map(m => (m === through ? { ...m, nutReach: 'open' as const } : m)),
      };
      const made = {
        ...doc,
        rig,
        plan: { ...doc.plan, panels: [panel], joints: [joint], seams: [], crossbars: [] },
      };
      const l = looked(made);
      const outline = l.panels[0]!.facets[0]!.outline;
      return {
        until: nutReaches(made, l.panels, l.joints).get(joint.id)!.until,
        deep: distanceToOutline(outline, [0, 0]),
      };
    };
    const shallow = at(ARM.open - 20, 900);
    expect(shallow.deep).toBeCloseTo(ARM.open - 20, 6);
    expect(shallow.until).toBe('always');
    expect(at(ARM.open + 20, 900).until).toMatchObject({ panel: expect.any(String) });
  });
});
