import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
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
  summary,
  undo,
  words,
} from './browser';
import { it } from './fixtures';

interface Saved {
  readonly rig: {
    readonly measures: Record<string, number>;
    readonly selected: Record<string, string>;
    readonly axles: { readonly front: { readonly massKg: number } };
    readonly mounts: { readonly id: string; readonly condition: string; readonly at: number[] }[];
  };
  readonly plan: {
    readonly panels: {
      readonly id: string;
      readonly name: string;
      readonly base: { readonly origin: number[]; readonly pitch: number; readonly outline: number[][] };
      readonly openings: { readonly kind: string; readonly serves?: string }[];
      readonly flanges: { length: number }[];
    }[];
    readonly joints: unknown[];
  };
}
/** The plan as the server has it. */
async function stored(page: Page): Promise<Saved> {
  await saved(page);
  const id = /plan\/([^/]+)/.exec(page.url())?.[1];
  return ((await (await fetch(new URL(`/api/documents/${id}`, page.url()))).json()) as { document: Saved })
    .document;
}
const type = async (page: Page, label: string, text: string): Promise<void> => {
  await press(page, label, 'textbox');
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
const choose = async (page: Page, label: string, option: string): Promise<void> => {
  await press(page, label, 'combobox');
  await press(page, option, 'option');
};
const undoByKey = async (page: Page): Promise<void> => {
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
};

describe('an own vehicle, from nothing', () => {
  it('is measured, covered by a proposed set, shaped, opened, given another option, and all of it undone', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/'));
    await press(page, 'SUV');
    await says(page, 'Wheelbase');
    await named(page, 'Wheelbase', 'textbox');
    const begun = await stored(page);
    for (const [label, value] of [
      ['Wheelbase', '2850'],
      ['Axle height', '390'],
      ['Across the rails', '970 mm'],
      ['Oil pan ends', '300'],
      ['Oil pan underside', '36 cm'],
      ['Gearbox ends', '1015'],
      ['Fuel tank ends', '102 in'],
    ] as const)
      await type(page, label, value);
    // a number in the wrong unit is refused where it is typed, and nothing changes
    await type(page, 'Track', '63.4');
    await says(page, 'Track is 63 mm; plausible is 1350 mm to 1850 mm');
    await type(page, 'Track', '1625');
    let doc = await stored(page);
    expect(doc.rig.measures).toMatchObject({
      wheelbase: 2850,
      tyreRadius: 390,
      panHeight: 360,
      trackWidth: 1625,
    });
    expect(doc.rig.measures.tankRear).toBeCloseTo(2590.8, 6);

    await press(page, 'Cover 7 findings', 'link');
    await says(page, 'Oil pan 0% 0% Engine front 0% 0%');
    await press(page, 'Suggest plates');
    await press(page, 'Suggest');
    await says(page, /Add \d of \d plates/, 60_000);
    await says(page, 'so both ends bolt to a crossmember');
    await page.locator('::-p-text(Add 5 of 5 plates)').click();
    await says(page, 'The whole set');
    expect(Number((await summary(page, 'Covered')).replace('%', ''))).toBeGreaterThan(93);
    doc = await stored(page);
    expect(doc.plan.panels).toHaveLength(5);
    expect(doc.plan.joints.length).toBeGreaterThanOrEqual(16);

    // drag a corner of the tank plate outward
    await press(page, 'Plate E, fuel tank');
    const corner = await page.waitForSelector('[aria-label^="Corner 1 of plate E"]');
    const box = await (corner as ElementHandle).boundingBox();
    if (!box) throw new Error('no corner');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const before = doc.plan.panels.at(-1)?.base.outline[0] as number[];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x - 14, y - 14, { steps: 4 });
    await page.mouse.move(x - 21, y - 21, { steps: 4 });
    await page.mouse.up();
    doc = await stored(page);
    const after = doc.plan.panels.at(-1)?.base.outline[0] as number[];
    expect(
      Math.hypot((after[0] ?? 0) - (before[0] ?? 0), (after[1] ?? 0) - (before[1] ?? 0)),
    ).toBeGreaterThan(50);

    // open it under the straps
    await page.locator('::-p-text(Shape)').click();
    await press(page, 'Open under fuel tank straps');
    doc = await stored(page);
    expect(doc.plan.panels.at(-1)?.openings.map(o => o.serves)).toContain('tank-straps');

    // another engine, another differential: what changes is said
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('1');
    await choose(page, 'Engine', '4 cylinder');
    await says(page, 'Added: oil pan, engine front. Removed: oil pan, engine front.');
    await choose(page, 'Front differential', 'lowered 12 mm');
    await says(page, 'Added: front differential. Removed: front differential.');
    expect((await stored(page)).rig.selected).toMatchObject({ engine: 'four', differential: 'lowered' });

    // all of it undone, back to the starting rig without a plate
    const left = (): Promise<boolean> =>
      page.$eval('button[aria-label^="Undo"]', e => !(e as HTMLButtonElement).disabled);
    for (let i = 0; i < 60 && (await left()); i++) await undo(page);
    expect(await stored(page)).toEqual(begun);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('a stroke is one step to undo, a proposal another', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/'));
    await press(page, 'Pickup');
    await named(page, 'Wheelbase', 'textbox');
    await type(page, 'Wheelbase', '3300');
    const start = await stored(page);
    await press(page, 'Cover 7 findings', 'link');
    await press(page, 'Suggest plates');
    await press(page, 'Suggest');
    await page.locator('::-p-text(Add 5 of 5 plates)').click();
    await press(page, 'Plate D, transfer case');
    const edge = (await page.waitForSelector(
      '[aria-label^="Edge 2 of plate D"]',
    )) as ElementHandle<SVGElement>;
    await edge.evaluate(e => e.focus());
    for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
    const nudged = await stored(page);
    await undoByKey(page);
    const back = await stored(page);
    expect(
      (nudged.plan.panels[3]?.base.outline[1]?.[0] ?? 0) - (back.plan.panels[3]?.base.outline[1]?.[0] ?? 0),
    ).toBeCloseTo(5, 1);
    await undoByKey(page);
    expect((await stored(page)).plan.panels).toEqual([]);
    await undoByKey(page);
    expect((await stored(page)).rig.measures.wheelbase).not.toBe(start.rig.measures.wheelbase);
    await closePage(page);
  });

  it('by keyboard alone', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/'));
    const focusOn = async (what: string, role?: string): Promise<void> => {
      const e = role === undefined ? await page.waitForSelector(what) : await named(page, what, role);
      await e?.evaluate(x => (x as HTMLElement).focus());
    };
    await focusOn('Pickup', 'button');
    await page.keyboard.press('Enter');
    await focusOn('Wheelbase', 'textbox');
    await page.keyboard.type('3250');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Tab');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('2');
    await says(page, 'Select a plate on the map');
    await page.keyboard.press('p');
    await focusOn('Suggest', 'button');
    await page.keyboard.press('Enter');
    await says(page, /Add \d of \d plates/, 60_000);
    await focusOn('Add 5 of 5 plates', 'button');
    await page.keyboard.press('Space');
    await says(page, 'The whole set');
    await page.keyboard.press(']');
    await focusOn('[aria-label^="Corner 2 of plate A"]');
    const first = (await stored(page)).plan.panels[0]?.base.outline[1] as number[];
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.up('Shift');
    await page.keyboard.press('ArrowRight');
    const moved = (await stored(page)).plan.panels[0]?.base.outline[1] as number[];
    expect((moved[0] ?? 0) - (first[0] ?? 0)).toBeCloseTo(11, 1);
    // the front end up by 10 mm in the side view
    await focusOn('[aria-label^="Rear end of plate A"]');
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.up('Shift');
    expect((await stored(page)).plan.panels[0]?.base.pitch).toBeLessThan(-0.5);
    // an edge gets a corner by Enter, the corner goes by Delete
    await focusOn('[aria-label^="Edge 1 of plate A"]');
    await page.keyboard.press('Enter');
    expect((await stored(page)).plan.panels[0]?.base.outline).toHaveLength(5);
    await focusOn('[aria-label^="Corner 2 of plate A"]');
    await page.keyboard.press('Delete');
    expect((await stored(page)).plan.panels[0]?.base.outline).toHaveLength(4);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('the rig', () => {
  it("asks for axle loads in the reader's unit and keeps kilograms", async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'inch' });
    await page.goto(server.at('/plan/heron-autumn/rig'));
    await type(page, 'Front axle load', '2000');
    await page.keyboard.press('Enter');
    // it may be saved before anybody looks
    await expect
      .poll(async () => (await stored(page)).rig.measures.frontAxleKg, { timeout: 20_000 })
      .toBeCloseTo(907.18, 1);
    await closePage(page);
  });

  it('its holes go out as CSV, come back from a spreadsheet, and are refused by row and column', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    await page.goto(server.at('/plan/heron-autumn/rig'));
    await press(page, 'Holes', 'tab');
    await press(page, 'Save CSV');
    const name = 'heron-autumn-holes.csv';
    const text = await readFile(await savedFile(folder, name), 'utf8');
    expect(text).toMatch(/^id,x mm,y mm,z mm,thread,kind,condition/);
    const input = (await page.waitForSelector(
      'input[aria-label="Holes as CSV"]',
    )) as ElementHandle<HTMLInputElement>;
    await writeFile(join(folder, 'bad.csv'), text.replace('good', 'fine').replace(/^id,x mm/, 'id,x mm'));
    await input.uploadFile(join(folder, 'bad.csv'));
    await says(page, /Nothing was imported\. row 2 condition is "fine"/);
    await press(page, 'Paste rows');
    const rows = (await named(page, 'Rows', 'textbox')) as ElementHandle<HTMLTextAreaElement>;
    await rows.evaluate(e => {
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set;
      set?.call(
        e,
        'id\tx in\ty in\tz in\tthread\tkind\tcondition\nextra-1\t10\t-5\t13.8\tM10x1.5\tthreaded\trusted\nh1lo\t-17\t-13.5\t16.8\tM10x1.5\tcaptive-nut\tbroken-nut',
      );
      e.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await press(page, 'Import');
    await says(page, '2 rows imported');
    const doc = await stored(page);
    expect(doc.rig.mounts.find(m => m.id === 'extra-1')?.at[0]).toBeCloseTo(254, 6);
    expect(doc.rig.mounts.find(m => m.id === 'h1lo')?.condition).toBe('broken-nut');
    await says(page, 'flange nut where a hand reaches');
    await closePage(page);
  });

  it('is weighed on the simulated scales, which may fail', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/pebble-tray/rig'));
    await says(page, 'Simulated scales: they read back');
    await choose(page, 'Simulated scales', 'loses one pad');
    await press(page, 'Read');
    await says(page, 'The front-right pad does not answer');
    await choose(page, 'Simulated scales', 'works normally');
    await press(page, 'Read');
    await press(page, 'Use these axle loads');
    expect(Math.abs((await stored(page)).rig.axles.front.massKg - 830)).toBeLessThan(3);
    await closePage(page);
  });

  it('options that do not fit together are refused by name', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/heron-autumn/rig'));
    await choose(page, 'Front differential', 'lowered 1/2 in');
    await choose(page, 'Sway-bar links', 'drop kit');
    await says(page, 'No longer fits: These options do not go together');
    await closePage(page);
  });

  it('has an empty sheet for the garage', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/sheet/side-by-side'));
    await says(page, 'Measuring sheet, side-by-side');
    expect((await words(page)).match(/_____________/g)?.length).toBeGreaterThan(18);
    await closePage(page);
  });
});

describe('plates', () => {
  it('are drawn on the map, split, merged, mirrored, and taken out', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/pebble-tray/cover'));
    await press(page, 'Add a plate');
    await press(page, 'Draw it on the map', 'menuitem');
    const map = await (await page.waitForSelector('[aria-label="Map of the underside"]'))?.boundingBox();
    if (!map) throw new Error('no map');
    await page.mouse.move(map.x + 560, map.y + 90);
    await page.mouse.down();
    await page.mouse.move(map.x + 700, map.y + 200, { steps: 5 });
    await page.mouse.up();
    await says(page, 'New plate');
    // and corner by corner: three taps, and the first again
    await undo(page);
    await page.waitForFunction(() => !document.body.innerText.includes('New plate'));
    await press(page, 'Add a plate');
    await press(page, 'Draw it on the map', 'menuitem');
    for (const [dx, dy] of [
      [560, 80],
      [720, 90],
      [700, 210],
      [560, 200],
      [562, 82],
    ] as const)
      await page.mouse.click(map.x + dx, map.y + dy);
    await says(page, 'New plate');
    expect((await stored(page)).plan.panels.at(-1)?.base.outline).toHaveLength(4);
    expect((await stored(page)).plan.panels).toHaveLength(4);
    await press(page, 'Split');
    await page.locator('[role="dialog"] button::-p-text(Split)').click();
    expect((await stored(page)).plan.panels).toHaveLength(5);
    await press(page, 'Merge');
    await page.locator('[role="dialog"] ::-p-text(new plate, rear)').click();
    expect((await stored(page)).plan.panels).toHaveLength(4);
    const merged = (await stored(page)).plan.panels.map(p => p.name);
    await press(page, 'Mirror');
    await says(page, 'New plate, mirrored');
    await press(page, 'Delete');
    expect((await stored(page)).plan.panels.map(p => p.name)).toEqual(merged);
    await closePage(page);
  });

  it('are shaped by a finger on a phone', async ({ browser, server }) => {
    const page = await openPage(browser, PHONE, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/cover'));
    await press(page, 'Plate D, fuel tank');
    const corner = await page.waitForSelector('[aria-label^="Corner 2 of plate D"]');
    const before = (await stored(page)).plan.panels.find(p => p.id === 'plate-4')?.base
      .outline[1] as number[];
    const box = await (corner as ElementHandle).boundingBox();
    if (!box) throw new Error('no corner');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.touchscreen.touchStart(x, y);
    for (const d of [4, 9, 14, 20]) await page.touchscreen.touchMove(x + d, y);
    await page.touchscreen.touchEnd();
    const after = (await stored(page)).plan.panels.find(p => p.id === 'plate-4')?.base.outline[1] as number[];
    expect((after[0] ?? 0) - (before[0] ?? 0)).toBeGreaterThan(80);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('take outlines from a drawing, and say what is wrong with one', async ({ browser, server }) => {
    const folder = await mkdtemp(join(tmpdir(), 'plate-fold-dxf-'));
    const poly = (points: number[][]): string =>
      `0\nLWPOLYLINE\n8\n0\n90\n${points.length}\n70\n1\n${points.map(p => `10\n${p[0]}\n20\n${p[1]}\n`).join('')}`;
    const dxf = (body: string): string => `0\nSECTION\n2\nENTITIES\n${body}0\nENDSEC\n0\nEOF\n`;
    await writeFile(
      join(folder, 'plate.dxf'),
      dxf(
        `${poly([
          [0, 0],
          [20, 0],
          [20, 12],
          [0, 12],
        ])}0\nCIRCLE\n8\n0\n10\n8\n20\n6\n40\n1\n`,
      ),
    );
    await writeFile(
      join(folder, 'cross.dxf'),
      `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n${dxf(
        poly([
          [0, 0],
          [100, 100],
          [100, 0],
          [0, 100],
        ]),
      )}`,
    );
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/wren-sliders/cover'));
    const input = (await page.waitForSelector(
      'input[aria-label="DXF drawing"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(join(folder, 'cross.dxf'));
    await says(page, /The drawing was not taken: a contour crosses itself near .* Nothing was changed/);
    await input.uploadFile(join(folder, 'plate.dxf'));
    await says(page, 'What unit is the drawing in?');
    await press(page, 'inches');
    await says(page, 'From a drawing 1');
    const added = (await stored(page)).plan.panels.at(-1);
    expect(Math.max(...(added?.base.outline.map(p => p[0] ?? 0) ?? []))).toBeCloseTo(508, 3);
    expect(added?.openings).toHaveLength(1);
    await closePage(page);
  });

  it('what cannot be is refused at its place: a corner across, an opening off the plate', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/cover'));
    await press(page, 'Plate D, fuel tank');
    await page.locator('::-p-text(Shape)').click();
    await type(page, 'Corner 1 behind the axle', '2900');
    await says(
      page,
      /Plate D would cross itself: edge \d meets edge \d\. ?Nothing was changed|Plate D would cross itself/,
    );
    await press(page, 'Dismiss');
    await press(page, 'Round hole');
    await type(page, 'Diameter', '900');
    await says(page, 'Plate D: the opening reaches past the edge of the plate');
    await type(page, 'Length, edge 2', '80');
    expect((await stored(page)).plan.panels.find(p => p.id === 'plate-d')?.flanges[0]?.length).toBe(80);
    await closePage(page);
  });
});
