import type { Grain, PlanDocument } from '../plan';
import { withPanel } from './change';

/** Which way the plate's blank lies to the grain of its sheet. */
export const grainSet = (doc: PlanDocument, panel: string, grain: Grain): PlanDocument =>
  withPanel(doc, panel, p => ({ ...p, grain }));

/** Height and tilt of a plate's base: z of its origin in mm, angles in degrees. */
export const baseSet = (
  doc: PlanDocument,
  panel: string,
  part: { readonly z?: number; readonly pitch?: number; readonly roll?: number },
): PlanDocument =>
  withPanel(doc, panel, p => {
    const [x, y, z] = p.base.origin;
    return {
      ...p,
      base: {
        ...p.base,
        origin: [x, y, part.z ?? z],
        pitch: part.pitch ?? p.base.pitch,
        roll: part.roll ?? p.base.roll,
      },
    };
  });

/** Height and pitch from where the base's front and rear ends are to hang, z in mm; its front end stays where it is. */
export const endsSet = (doc: PlanDocument, panel: string, frontZ: number, rearZ: number): PlanDocument =>
  withPanel(doc, panel, p => {
    const us = p.base.outline.map(q => q[0]);
    const [u0, u1] = [Math.min(...us), Math.max(...us)];
    const sine = Math.max(-0.85, Math.min(0.85, (frontZ - rearZ) / (u1 - u0)));
    const was = (p.base.pitch * Math.PI) / 180;
    const pitch = Math.asin(sine);
    const [x, y] = p.base.origin;
    return {
      ...p,
      base: {
        ...p.base,
        pitch: (pitch * 180) / Math.PI,
        origin: [x + u0 * (Math.cos(was) - Math.cos(pitch)), y, frontZ + u0 * sine],
      },
    };
  });
