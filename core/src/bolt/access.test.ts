import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldPanel } from '../fold';
import { rectangle } from '../geometry';
import type { Joint, Panel } from '../plan';
import type { PresentRig } from '../rig';
import { EXTENSIONS, extensionFor, fewestThreads, recessMm, resolveJoint, toolList } from './index';

const panelOf = (id: string, z: number, x0: number, flanges: Panel['flanges'] = []): Panel => ({
  id,
  mark: id,
  name: id,
  base: { origin: [x0, 0, z], pitch: 0, roll: 0, outline: rectangle(0, 0, 300, 300) },
  flanges,
  openings: [],
  guards: [],
});
const steel = { material: 'steel-hr36', thickness: 4, finish: 'raw' } as const;
const rig = (members: PresentRig['members'] = []): PresentRig =>
  ({ members, mounts: [], components: [] }) as unknown as PresentRig;
const jointAt = (x: number, panels: readonly ReturnType<typeof foldPanel>[]) => {
  const joint: Joint = {
    id: 'j',
    at: [x, 150, 404],
    panels: ['A'],
    fastener: { head: 'hex', thread: 'M10x1.5', class: '8.8', length: 'auto', finish: 'zinc' },
    nut: 'hex',
    washers: [],
    spacer: 0,
    headSide: 'below',
    lube: 'dry',
    torque: 'auto',
  };
  return resolveJoint(joint, rig(), new Map(panels.map(p => [p.panel.id, p])))!;
};

describe('what is in a ratchet\u2019s way', () => {
  it('is nothing for a head in the middle of its own flat plate', () => {
    const a = foldPanel(panelOf('A', 400, 0), steel);
    expect(recessMm(jointAt(150, [a]), { panels: [a], rig: rig() })).toBe(0);
  });
  it('is the depth of a lip folded down right beside it, by hand', () => {
    // a flange 80 long, square down, on the edge at u = 300; its mold line is the underside
    const lip = { id: 'f', edge: 1, length: 80, angle: -90 };
    const a = foldPanel(panelOf('A', 400, 0, [lip]), steel);
    expect(recessMm(jointAt(280, [a]), { panels: [a], rig: rig() })).toBeCloseTo(80, 3);
    expect(extensionFor(jointAt(280, [a]), { panels: [a], rig: rig() })).toBe(75);
    expect(recessMm(jointAt(200, [a]), { panels: [a], rig: rig() })).toBe(0);
  });
  it('is also a neighbor that hangs lower, or a rail, and stands among the tools', () => {
    const a = foldPanel(panelOf('A', 400, 0), steel);
    const b = foldPanel(panelOf('B', 310, 310), steel);
    const j = jointAt(290, [a, b]);
    expect(recessMm(j, { panels: [a, b], rig: rig() })).toBeCloseTo(90, 6);
    expect(toolList([j], { panels: [a, b], rig: rig() }).map(t => t.tool)).toContain('extension:75');
    const rail = {
      id: 'r',
      kind: 'rail' as const,
      footprint: rectangle(300, 0, 360, 300),
      zBottom: 220,
      zTop: 300,
      wall: 3,
    };
    expect(extensionFor(j, { panels: [a], rig: rig([rail]) })).toBe(150);
    expect(
      toolList([j])
        .map(t => t.tool)
        .join(),
    ).not.toContain('extension');
  });
  it('a longer extension is never asked for by a shallower recess', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 260, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (d, more) => {
          const of = (depth: number) => {
            const a = foldPanel(panelOf('A', 400, 0), steel);
            const b = foldPanel(panelOf('B', 400 - depth, 310), steel);
            return extensionFor(jointAt(290, [a, b]), { panels: [a, b], rig: rig() }) ?? 0;
          };
          expect(of(d + more)).toBeGreaterThanOrEqual(of(d));
          expect([0, ...EXTENSIONS]).toContain(of(d));
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('the fewest different threads', () => {
  const names = ['M6', 'M8', 'M10', 'M12', 'M14'];
  const job = fc.array(
    fc.record({
      id: fc.uuid(),
      options: fc.uniqueArray(fc.constantFrom(...names), { minLength: 1, maxLength: 4 }),
    }),
    { maxLength: 8 },
  );
  it('are as few as trying every set finds, and every joint gets one of its own', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...names), { maxLength: 2 }), job, (dictated, free) => {
        const got = fewestThreads(new Set(dictated), free);
        for (const f of free) expect(f.options).toContain(got.get(f.id));
        const used = new Set([...dictated, ...got.values()]).size;
        let least = names.length;
        for (let bits = 0; bits < 1 << names.length; bits++) {
          const set = names.filter((n, i) => bits & (1 << i) || dictated.includes(n));
          if (free.every(f => f.options.some(o => set.includes(o))))
            least = Math.min(least, new Set(set).size);
        }
        expect(used).toBe(Math.max(least, dictated.length));
      }),
    );
  });
  it('take what stands foremost where several are equally few', () => {
    const got = fewestThreads(new Set(), [
      { id: 'a', options: ['M10', 'M8'] },
      { id: 'b', options: ['M10', 'M8'] },
    ]);
    expect([...got.values()]).toEqual(['M10', 'M10']);
  });
});
