import type { Rig } from '../rig';
import { LIFT_LIMIT_KG } from './limits';
import { FORMAT, type PlanDocument, type SheetChoice } from './plan';

/** What a new plate is cut from until its owner says otherwise: 3/16 in hot-rolled steel, powder coated. */
export const USUAL_SHEET: SheetChoice = {
  material: 'steel-hr36',
  thickness: 4.7625,
  finish: 'powder',
  gauge: '3/16 in',
};

/** A plan without plates for a rig, with one build. */
export const blankPlan = (rig: Rig, id: string, name: string): PlanDocument => ({
  format: FORMAT,
  rig,
  plan: {
    id,
    name,
    rigId: rig.id,
    panels: [],
    crossbars: [],
    joints: [],
    seams: [],
    builds: [{ id: 'A', name: 'first', sheets: {} }],
    activeBuild: 'A',
    method: {
      start: 'front-rear-centre',
      drilling: 'template',
      lift: 'ground',
      people: 1,
      drive: 'hand-only',
    },
    limits: { maxLiftKg: LIFT_LIMIT_KG },
  },
});
