import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { foldPanel } from '../fold';
import { buildOf, presentOf, sheetOf } from '../plan';
import { frontSection } from './front-section';

const doc = demo('bramble');
const rig = presentOf(doc);
const panels = doc.plan.panels.map(p => foldPanel(p, sheetOf(buildOf(doc.plan), p)));

describe('a cut across the vehicle', () => {
  it('shows a plate where it is, as thick as it is, and the rails beside it', () => {
    // plate B's base is level at 309.475 from 395 left to 225 right of the middle
    const cut = frontSection(rig, panels, 700);
    const base = cut.sheet.find(s => s.panel === 'plate-b' && Math.abs(s.from[1] - 309.475) < 1e-6);
    expect(base?.from[0]).toBeCloseTo(-395, 6);
    expect(base?.to[0]).toBeCloseTo(225, 6);
    expect(base?.thick).toEqual([-0, panels.find(p => p.panel.id === 'plate-b')?.sheet.thickness]);
    const rails = cut.blocks.filter(b => b.id.startsWith('rail-'));
    expect(rails.map(r => [...r.y, ...r.z])).toEqual([
      [-470, -400, 430, 560],
      [400, 470, 430, 560],
    ]);
  });

  it('follows a pitched plate by its slope', () => {
    // plate C drops rearward: pitch -0.1338 degrees from 314.1675 at x 1100
    const z = (x: number): number | undefined =>
      frontSection(rig, panels, x).sheet.find(s => s.panel === 'plate-c')?.from[1];
    expect(z(1500)).toBeCloseTo(314.1675 + 400 * Math.tan((0.1338 * Math.PI) / 180), 3);
  });

  it('shows nothing ahead of the vehicle', () => {
    expect(frontSection(rig, panels, -3000)).toEqual({ sheet: [], near: [], blocks: [] });
  });
});
