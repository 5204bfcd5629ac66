import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyMutation } from '../testing/mutate';
import { differences } from './differences';
import { checkDocument } from './document';
import { panelMoved, withJoint, withPanel } from './edit';
import type { PlanDocument } from './plan';
import { sheetsSet } from './restack';

const DEMO = demo('bramble');
const B = DEMO.plan.panels[1]?.id as string;
const said = (after: PlanDocument, units: 'inch' | 'metric' = 'metric') => differences(DEMO, after, units);

describe('two versions of a plan', () => {
  it('are told apart in words of the work, in the reader\u2019s unit', () => {
    expect(said(DEMO)).toEqual([]);
    expect(said(structuredClone(DEMO))).toEqual([]);
    const moved = withPanel(DEMO, B, p => ({
      ...p,
      base: { ...p.base, origin: [p.base.origin[0] + 12, p.base.origin[1], p.base.origin[2] - 3] },
    }));
    expect(said(moved)).toEqual(['plate B moved 12 mm back and 3 mm down']);
    expect(said(moved, 'inch')).toEqual(['plate B moved 0.472 in back and 0.118 in down']);
    expect(differences(moved, DEMO, 'metric')).toEqual(['plate B moved 12 mm forward and 3 mm up']);
    const bolts = ['j01', 'j02'].reduce((d, j) => withJoint(d, j, x => ({ ...x, torque: 25 })), DEMO);
    expect(said(bolts)).toEqual([`bolts j01, j02: torque 25 N\u00b7m`]);
    const sheets = sheetsSet(DEMO, 'A', {
      [B]: { material: 'al-6061-t6', thickness: 6.35, finish: 'raw' } as never,
    });
    expect(said(sheets)).toContainEqual(expect.stringMatching(/^build “3\/16 steel”: plate B of .*6061$/));
    const fewer = { ...DEMO, plan: { ...DEMO.plan, panels: DEMO.plan.panels.slice(1), name: 'x' } };
    expect(said(fewer)).toEqual([
      `the plan is called \u201cx\u201d, was \u201c${DEMO.plan.name}\u201d`,
      `plate A, ${DEMO.plan.panels[0]?.name}, removed`,
    ]);
    expect(said(panelMoved(DEMO, B, [12, 0, 0]))).not.toEqual([]);
  });

  it('whatever differs, something is said; what is the same is not spoken of', () => {
    fc.assert(
      fc.property(anyMutation(DEMO), changed => {
        const read = checkDocument(changed);
        if (!read.ok) return;
        const differ = JSON.stringify(DEMO) !== JSON.stringify(read.document);
        expect(said(read.document).length > 0).toBe(differ);
      }),
      { numRuns: 300 },
    );
  });
});
