import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveJoints } from '../bolt';
import { foldPanel } from '../fold';
import { rectangle } from '../geometry';
import { isBracket, type Joint, type Panel, type PlanDocument, sheetOf } from '../plan';
import { presentRig, type ServicePoint } from '../rig';
import { laps } from '../sequence';
import { winged } from '../testing/winged';
import {
  blockedBy,
  costOf,
  dropOrder,
  type Hung,
  LEAST_BOLTS,
  serviceAccess,
  serviceList,
  serviceSteps,
} from './index';

const hungOf = (doc: PlanDocument): Hung & { rig: ReturnType<typeof presentRig> } => {
  const build = doc.plan.builds[0]!;
  const rig = presentRig(doc.rig);
  const panels = doc.plan.panels.map(p => foldPanel(p, sheetOf(build, p)));
  return { doc, rig, panels, joints: resolveJoints(doc.plan.joints, rig, panels) };
};

/** A row of plates along the vehicle, each 400 long, lapped by 60, three bolts to a side; `outer[i]`: plate i lies outside plate i + 1. */
function row(
  n: number,
  outer: readonly boolean[],
  opening?: { plate: number; size: number },
): Hung & { rig: ReturnType<typeof presentRig> } {
  const base = demo('bramble');
  const panels: Panel[] = Array.from({ length: n }, (_, i) => ({
    id: `p${i}`,
    mark: 'ABCDEFG'[i] as string,
    name: `plate ${i}`,
    base: { origin: [i * 340, 0, 350] as const, pitch: 0, roll: 0, outline: rectangle(0, -200, 400, 200) },
    flanges: [],
    openings:
      opening?.plate === i
        ? [
            {
              id: `o${i}`,
              kind: 'drain' as const,
              at: [200, 0] as const,
              shape: { circle: opening.size },
              serves: 's',
            },
          ]
        : [],
    guards: [],
  }));
  const joint = (id: string, x: number, y: number, on: string[]): Joint => ({
    ...base.plan.joints[0]!,
    id,
    mount: undefined,
    at: [x, y, 355],
    panels: on,
    nut: 'hex',
  });
  const joints = panels.flatMap((_, i) =>
    [-150, 0, 150].map((y, k) => {
      const shared = i < n - 1;
      const on = !shared ? [`p${i}`] : outer[i] ? [`p${i}`, `p${i + 1}`] : [`p${i + 1}`, `p${i}`];
      return joint(`j${i}${k}`, i * 340 + 370, y, on);
    }),
  );
  const lone = panels.flatMap((_, i) =>
    [-150, 150].map((y, k) => joint(`k${i}${k}`, i * 340 + 200, y, [`p${i}`])),
  );
  const doc: PlanDocument = {
    ...base,
    plan: {
      ...base.plan,
      panels,
      joints: [...joints, ...lone],
      seams: panels.slice(1).map((p, i) => ({
        front: `p${i}`,
        rear: p.id,
        overlap: 60,
        outside: outer[i] ? `p${i}` : p.id,
      })),
      crossbars: [],
      builds: [
        {
          id: 'A',
          name: 'a',
          sheets: Object.fromEntries(
            panels.map(p => [
              p.id,
              { material: 'steel-hr36' as const, thickness: 4, finish: 'raw' as const },
            ]),
          ),
        },
      ],
      activeBuild: 'A',
    },
  };
  return hungOf(doc);
}
const point = (x: number, opening = 60, id = 's'): ServicePoint => ({
  id,
  kind: 'oil-drain',
  name: 'drain',
  at: [x, 0, 420],
  opening,
  component: 'engine',
  everyKm: 10_000,
});

describe('the way to a service point', () => {
  it('is an opening that is big enough and in line, and else the plate comes down', () => {
    for (const [size, through] of [
      [60, 'opening'],
      [200, 'opening'],
      // 59.9 mm wide with 30 mm of play aside cannot take a hand of 60
      [59, 'drop'],
      [20, 'drop'],
    ] as const)
      expect(
        serviceAccess(point(340 + 200), row(3, [true, true], { plate: 1, size })).through,
        `${size}`,
      ).toBe(through);
    // the same opening, but the point lies 120 mm to the rear of it
    expect(serviceAccess(point(340 + 320), row(3, [true, true], { plate: 1, size: 60 })).through).toBe(
      'drop',
    );
    expect(serviceAccess(point(340 + 200), row(3, [true, true], { plate: 1, size: 80 }))).toMatchObject({
      openingId: 'o1',
      drop: [],
    });
    expect(serviceAccess(point(5000), row(3, [true, true]))).toMatchObject({
      through: 'opening',
      minutes: 0,
    });
  });

  it('drops the rear plate of a lapped row alone, the first one alone too, by loosening its neighbor or nothing', () => {
    // A outside B outside C: C slides out rearward once B is loosened; A comes straight down
    const last = serviceAccess(point(2 * 340 + 250), row(3, [true, true]));
    expect(last.drop).toEqual(['p2']);
    expect(last.loosen.length).toBeGreaterThan(0);
    const first = serviceAccess(point(100), row(3, [true, true]));
    expect(first).toMatchObject({ drop: ['p0'], loosen: [] });
  });

  it('takes an outer neighbor down first where a plate is held at both ends', () => {
    // B lies inside both A and C: one of them must come down before it
    const got = serviceAccess(point(340 + 200), row(3, [true, false]));
    expect(got.drop.length).toBe(2);
    expect(got.drop.at(-1)).toBe('p1');
  });

  it('is as short as a search over all ways of taking plates down one by one finds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 5 }),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        fc.nat(4),
        (n, outer, at) => {
          const hung = row(n, outer);
          const s = point((at % n) * 340 + 200);
          const got = serviceAccess(s, hung);
          // every state is a set of plates that are down; one plate comes down at a time
          const pairs = laps(hung.doc);
          const ids = hung.panels.map(p => p.panel.id);
          const x = new Map(hung.panels.map(p => [p.panel.id, p.centroid[0]]));
          const goal = blockedBy(s, hung.panels).map(p => p.panel.id);
          const seen = new Set(['']);
          let frontier: string[][] = [[]];
          let least = Number.POSITIVE_INFINITY;
          while (frontier.length > 0) {
            const next: string[][] = [];
            for (const down of frontier) {
              const cost = costOf(new Set(down), hung);
              if (cost && goal.every(g => down.includes(g)))
                least = Math.min(least, cost.remove.length + cost.loosen.length);
              for (const id of ids) {
                if (down.includes(id)) continue;
                const held = pairs
                  .filter(([inner, o]) => inner === id && !down.includes(o))
                  .map(([, o]) => o);
                const sides = new Set(held.map(o => Math.sign((x.get(o) as number) - (x.get(id) as number))));
                if (sides.size > 1) continue;
                const state = [...down, id].sort();
                if (seen.has(state.join())) continue;
                seen.add(state.join());
                next.push(state);
              }
            }
            frontier = next;
          }
          expect(got.remove.length + got.loosen.length).toBe(least);
          // in the order given, no plate is taken down while one still hangs outside both of its ends
          const down = new Set<string>();
          for (const id of got.drop) {
            const held = pairs.filter(([inner, o]) => inner === id && !down.has(o)).map(([, o]) => o);
            expect(
              new Set(held.map(o => Math.sign((x.get(o) as number) - (x.get(id) as number)))).size,
            ).toBeLessThan(2);
            down.add(id);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('never leaves a plate hanging by fewer bolts than two', () => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren']) {
      const hung = hungOf(demo(name));
      for (const l of serviceList(hung, hung.rig)) {
        const gone = new Set(l.remove);
        // a bracket keeps hanging on its own bolt
        for (const p of hung.panels.filter(x => !isBracket(x.panel))) {
          if (l.drop.includes(p.panel.id)) continue;
          const mine = hung.joints.filter(j => j.joint.panels.includes(p.panel.id));
          if (mine.some(j => gone.has(j.id)))
            expect(mine.filter(j => !gone.has(j.id)).length).toBeGreaterThanOrEqual(LEAST_BOLTS);
        }
      }
    }
  });
  it('brings a wing down on its plate, whichever of the two is in the way', () => {
    const hung = hungOf(winged(demo('pebble'), 0));
    const wing = hung.panels.find(p => p.panel.id === 'wing')!;
    const at = [wing.centroid[0], wing.centroid[1] + 40, wing.centroid[2] + 60] as const;
    const point = { id: 's', kind: 'oil-drain', name: 'drain', at, opening: 50 } as ServicePoint;
    const access = serviceAccess(point, hung);
    expect(access.drop).toEqual(['plate-1']);
    expect(access.remove.some(j => j.startsWith('wing-'))).toBe(false);
    const { steps } = serviceSteps(access, hung, hung.rig);
    expect(steps.some(s => s.joints.some(j => j.startsWith('wing-')))).toBe(false);
    const up = steps.find(s => s.stage === 'hang');
    expect(up?.panels).toEqual(['plate-1', 'wing']);
    expect(up?.hows?.join(' ')).toMatch(/is bolted to it already and goes up with it/);
  });
  it('orders what comes down with the outside first', () => {
    const hung = row(4, [true, true, true]);
    expect(dropOrder(new Set(['p1', 'p0', 'p2']), hung)).toEqual(['p0', 'p1', 'p2']);
  });
});

describe('a year of it', () => {
  it('counts minutes by interval and distance, and a door saves what dropping costs more', () => {
    const hung = hungOf(demo('bramble'));
    const doc = { ...hung.doc, plan: { ...hung.doc.plan, upkeep: { kmPerYear: 20_000 } } };
    for (const l of serviceList({ ...hung, doc }, hung.rig)) {
      if (l.point.everyKm === undefined) expect(l.yearlyMinutes).toBeUndefined();
      else expect(l.yearlyMinutes).toBeCloseTo((l.minutes * 20_000) / l.point.everyKm, 9);
      if (l.through === 'opening') expect(l.doorSaves).toBe(0);
      else if (l.point.everyKm) expect(l.doorSaves).toBeGreaterThan(0);
    }
  });
});

describe('the steps of a service', () => {
  it.each(['bramble', 'heron', 'pebble', 'wren'])(
    'of %s put back every bolt they took out, in order of their needs',
    name => {
      const hung = hungOf(demo(name));
      for (const l of serviceList(hung, hung.rig)) {
        const { steps, cycle } = serviceSteps(l, hung, hung.rig);
        expect(cycle).toEqual([]);
        const at = new Map(steps.map((s, i) => [s.id, i]));
        for (const [i, s] of steps.entries())
          for (const n of s.needs) expect(at.get(n), `${s.id} needs ${n}`).toBeLessThan(i);
        const work = at.get('service-work')!;
        for (const id of l.remove) {
          expect(
            steps.slice(0, work).some(s => s.joints.includes(id)),
            `${id} comes out`,
          ).toBe(true);
          expect(
            steps.slice(work).some(s => s.stage === 'tighten' && s.joints.includes(id) && s.share === 1),
            `${id} is tight again`,
          ).toBe(true);
        }
        for (const id of l.loosen)
          expect(steps.slice(work).some(s => s.stage === 'tighten' && s.joints.includes(id))).toBe(true);
      }
    },
  );
});
