import { readFile } from 'node:fs/promises';
import DxfParser from 'dxf-parser';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { seriousFaults } from './axe';
import {
  closePage,
  DESK,
  downloadsOf,
  named,
  openPage,
  PHONE,
  press,
  saved,
  savedFile,
  says,
  undo,
  words,
} from './browser';
import { it } from './fixtures';

type Point = readonly [number, number];
interface Saved {
  readonly rig: {
    readonly members: readonly { id: string; kind: string; footprint: Point[]; zBottom: number }[];
    readonly mounts: readonly {
      id: string;
      at: [number, number, number];
      hole: { kind: string; thread?: string };
    }[];
  };
  readonly plan: {
    readonly panels: readonly {
      id: string;
      base: { origin: number[]; outline: Point[] };
      openings: { shape: { circle?: number } }[];
    }[];
    readonly joints: readonly { id: string; mount?: string; panels: string[] }[];
    readonly holes?: readonly { id: string; at: [number, number, number]; member?: string }[];
    readonly crossbars: readonly { id: string; name: string; mounts: string[] }[];
  };
}
/** The plan as the server has it. */
async function stored(page: Page): Promise<Saved> {
  await saved(page);
  const id = /plan\/([^/]+)/.exec(page.url())?.[1];
  return ((await (await fetch(new URL(`/api/documents/${id}`, page.url()))).json()) as { document: Saved })
    .document;
}
const mapBox = async (page: Page) => {
  const box = await (await page.waitForSelector('[aria-label="Map of the underside"]'))?.boundingBox();
  if (!box) throw new Error('no map');
  return box;
};
const middle = (footprint: readonly Point[]): Point => {
  const xs = footprint.map(p => p[0]);
  const ys = footprint.map(p => p[1]);
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
};

/** Draws a plate between two places of the screen. */
async function drawn(page: Page, from: Point, to: Point): Promise<void> {
  await press(page, 'Add a plate');
  await press(page, 'Draw it on the map', 'menuitem');
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(...to, { steps: 5 });
  await page.mouse.up();
  await says(page, 'New plate');
}

/** Where a place of the vehicle is on the screen: told by the corners of the plate chosen there. */
async function onScreen(page: Page, mark: string, panel: Saved['plan']['panels'][number]) {
  const corner = async (i: number): Promise<{ px: Point; mm: Point }> => {
    const el = await page.waitForSelector(`[aria-label^="Corner ${i + 1} of plate ${mark},"]`);
    const box = await el?.boundingBox();
    const [u, v] = panel.base.outline[i] as Point;
    if (!box) throw new Error(`corner ${i + 1} is not on the screen`);
    return {
      px: [box.x + box.width / 2, box.y + box.height / 2],
      mm: [(panel.base.origin[0] ?? 0) + u, (panel.base.origin[1] ?? 0) + v],
    };
  };
  const [a, b] = [await corner(0), await corner(2)];
  const k = [0, 1].map(i => ((b.px[i] ?? 0) - (a.px[i] ?? 0)) / ((b.mm[i] ?? 0) - (a.mm[i] ?? 0)));
  return (p: Point): Point => [
    a.px[0] + (p[0] - a.mm[0]) * (k[0] ?? 0),
    a.px[1] + (p[1] - a.mm[1]) * (k[1] ?? 0),
  ];
}

/** Circles of a DXF file as a parser from the registry reads them. */
const circles = (text: string) =>
  (
    (new DxfParser().parseSync(text)?.entities ?? []) as unknown as {
      type: string;
      layer: string;
      center: { x: number; y: number };
      radius: number;
    }[]
  ).filter(e => e.type === 'CIRCLE');
const between = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot((a[0] ?? 0) - (b[0] ?? 0), (a[1] ?? 0) - (b[1] ?? 0));
/** All distances between places, shortest first. */
const distances = (points: readonly (readonly number[])[]): number[] =>
  points.flatMap((a, i) => points.slice(i + 1).map(b => between(a, b))).sort((x, y) => x - y);

describe('a plate that can be built', () => {
  it('is drawn under an own vehicle, bolted up to new holes, exported, and its holes are where the bolts are', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    await page.goto(server.at('/'));
    await press(page, 'Pickup');
    await says(page, 'Wheelbase');
    await saved(page);
    await page.goto(page.url().replace(/\/rig$/, '/cover'));
    const map = await mapBox(page);
    await drawn(page, [map.x + 480, map.y + 90], [map.x + 600, map.y + 190]);
    let doc = await stored(page);
    let panel = doc.plan.panels.at(-1) as Saved['plan']['panels'][number];
    const at = await onScreen(page, 'A', panel);
    await undo(page);

    // from one crossing member to the next, a hand beyond either
    const crossing = doc.rig.members
      .filter(m => !/rail/.test(m.kind))
      .map(m => ({ m, x: middle(m.footprint)[0] }))
      .sort((p, q) => p.x - q.x);
    const [front, rear] = [crossing[1], crossing[2]];
    if (!front || !rear) throw new Error('the pickup has too few members');
    await drawn(page, at([front.x - 45, -220]), at([rear.x + 45, 220]));
    for (const [m, y] of [
      [front, -150],
      [front, 150],
      [rear, -150],
      [rear, 150],
    ] as const) {
      await press(page, 'Drill a hole');
      await page.mouse.click(...at([m.x, y]));
      await page.waitForFunction(() => !document.body.innerText.includes('is to be bolted'));
    }
    doc = await stored(page);
    panel = doc.plan.panels.at(-1) as Saved['plan']['panels'][number];
    const joints = doc.plan.joints.filter(j => j.panels.includes(panel.id));
    expect(joints).toHaveLength(4);
    expect(await words(page)).not.toMatch(/hangs .* below/);
    const holes = [...(doc.plan.holes ?? []), ...doc.rig.mounts];
    const bolts = joints.map(j => holes.find(h => h.id === j.mount)?.at ?? [NaN, NaN]);

    await page.goto(page.url().replace('/cover', '/fold'));
    await press(page, 'Blank, DXF');
    const all = circles(await readFile(await savedFile(folder, 'A-new-plate.dxf'), 'utf8'));
    // what is left when the openings are told off are the four bolts' clearance holes
    const openings = panel.openings.flatMap(o => (o.shape.circle === undefined ? [] : [o.shape.circle / 2]));
    const cut = all.filter(c => !openings.some(r => Math.abs(r - c.radius) < 1e-3));
    expect(all.length - cut.length).toBe(openings.length);
    expect(cut).toHaveLength(4);
    const got = distances(cut.map(c => [c.center.x, c.center.y]));
    distances(bolts).forEach((d, i) => {
      expect(got[i]).toBeCloseTo(d, 1);
    });
    // the table beside the drawing says the same
    expect(await words(page)).toContain(joints[0]?.id);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('a crossbar', () => {
  it('is laid between two members on the map, raised by its figure, cut by its list, and taken out with its holes', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/cover'));
    await press(page, 'Plate D, fuel tank');
    const panel = (await stored(page)).plan.panels.find(p => p.id === 'plate-4');
    if (!panel) throw new Error('Heron has no plate D');
    const at = await onScreen(page, 'D', panel);
    const rails = (await stored(page)).rig.members.filter(m => /rail/.test(m.kind));
    expect(rails).toHaveLength(2);
    await press(page, 'Add a crossbar');
    await says(page, 'Tap a hole or a member for its first end');
    for (const rail of rails) {
      const y = middle(rail.footprint)[1];
      await page.mouse.click(...at([1700, y]));
    }
    await says(page, 'Top above ground');
    const made = (await stored(page)).plan;
    const bar = made.crossbars.at(-1);
    expect(made.crossbars).toHaveLength(2);
    expect(bar?.mounts).toHaveLength(2);
    for (const id of bar?.mounts ?? []) expect(made.holes?.some(h => h.id === id)).toBe(true);
    await says(page, 'Cutting and drilling');
    await says(page, 'its lower end countersunk');
    expect(await seriousFaults(page)).toEqual([]);
    await press(page, 'Delete the crossbar');
    const after = (await stored(page)).plan;
    expect(after.crossbars).toHaveLength(1);
    expect(after.holes?.some(h => bar?.mounts.includes(h.id))).toBe(false);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('that a plate hides is chosen from the list, on a phone too', async ({ browser, server }) => {
    const page = await openPage(browser, PHONE, { units: 'metric', theme: 'dark' });
    await page.goto(server.at('/plan/heron-autumn/cover'));
    await press(page, 'Crossbar bar under the tank');
    await page.waitForSelector('[aria-label^="Corner 1 of plate D,"]');
    await press(page, 'Bolts', 'tab');
    await page.locator('[aria-label="Crossbars it is bolted to"] button').click();
    await says(page, 'Top above ground');
    expect(await seriousFaults(page)).toEqual([]);
    await closePage(page);
  });
});

describe('a measure that moves what the owner has changed', () => {
  it('says so first, and one undo takes all of it back', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/'));
    await press(page, 'SUV');
    await says(page, 'Wheelbase');
    await saved(page);
    const { rig } = await stored(page);
    const held = rig.mounts.at(-1);
    if (!held) throw new Error('the SUV has no holes');
    await press(page, 'Holes', 'tab');
    await press(page, 'Paste rows');
    const rows = (await named(page, 'Rows', 'textbox')) as ElementHandle<HTMLTextAreaElement>;
    await rows.evaluate(
      (e, text) => {
        const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set;
        set?.call(e, text);
        e.dispatchEvent(new Event('input', { bubbles: true }));
      },
      [
        'id,x mm,y mm,z mm,thread,kind,condition',
        [
          held.id,
          held.at[0] + 12,
          held.at[1],
          held.at[2],
          held.hole.thread ?? '',
          held.hole.kind,
          'good',
        ].join(','),
      ]
        .join('\n')
        .replaceAll(',', '\t'),
    );
    await press(page, 'Import');
    await says(page, '1 row imported');
    const moved = await stored(page);
    const xOf = (doc: Saved): number => doc.rig.mounts.find(m => m.id === held.id)?.at[0] ?? NaN;
    expect(xOf(moved)).toBeCloseTo(held.at[0] + 12, 6);

    await press(page, 'Measure', 'tab');
    const enter = async (): Promise<void> => {
      await press(page, 'Across the rails', 'textbox');
      await page.keyboard.down('Control');
      await page.keyboard.press('a');
      await page.keyboard.up('Control');
      await page.keyboard.type('1010');
      await page.keyboard.press('Enter');
      await says(page, 'check this first');
      await says(page, `You changed hole ${held.id}`);
    };
    await enter();
    expect(await stored(page)).toEqual(moved);
    await press(page, 'Keep mine, move the rest');
    await page.waitForFunction(() => !document.body.innerText.includes('check this first'));
    expect(xOf(await stored(page))).toBeCloseTo(held.at[0] + 12, 6);
    expect((await stored(page)).rig.mounts).not.toEqual(moved.rig.mounts);
    await undo(page);
    expect(await stored(page)).toEqual(moved);
    await enter();
    await press(page, 'Use the measurement');
    await page.waitForFunction(() => !document.body.innerText.includes('check this first'));
    expect(xOf(await stored(page))).toBeCloseTo(held.at[0], 6);
    await undo(page);
    expect(await stored(page)).toEqual(moved);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});
