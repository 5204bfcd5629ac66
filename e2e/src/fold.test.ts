import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readDxf } from '@plate-fold/core/formats';
import { signedArea } from '@plate-fold/core/geometry';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import {
  closePage,
  DESK,
  downloadsOf,
  named,
  openPage,
  press,
  saved,
  savedFile,
  says,
  TestServer,
} from './browser';
import { it } from './fixtures';

/** The size dimensioned on the blank, mm. */
const blank = async (page: Page): Promise<string> => {
  const drawing = await page.waitForSelector('[aria-label^="Blank of plate"]');
  return (
    drawing?.evaluate(e => [...e.querySelectorAll('text[data-size]')].map(t => t.textContent).join(' by ')) ??
    ''
  );
};

/**
 * What is seen of a picture, pixel by pixel, once it stands still and looks like none of those `before`: on a
 * busy machine a picture stands still for a while before it follows.
 * @throws Error where it never does
 */
async function picture(page: Page, label: string, ...before: readonly string[]): Promise<string> {
  const el = (await page.waitForSelector(`[aria-label^="${label}"]`)) as ElementHandle<Element>;
  let last = '';
  for (let i = 0; i < 200; i++) {
    await new Promise(done => setTimeout(done, 200));
    const now = await el.screenshot({ encoding: 'base64' });
    if (now === last && !before.includes(now)) return now;
    last = now;
  }
  throw new Error(before.includes(last) ? `${label} looks as before` : `${label} never stands still`);
}

/** Moves the slider from finished towards flat by so many tenths. */
async function folded(page: Page, steps: number): Promise<void> {
  const slider = (await named(page, 'Folded share', 'slider')) as ElementHandle<HTMLInputElement>;
  await slider.focus();
  for (let i = 0; i < steps; i++) await page.keyboard.press('PageDown');
}

async function typed(page: Page, label: string, text: string): Promise<void> {
  await press(page, label, 'textbox', { count: 3 });
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

const downloaded = async (folder: string, name: string): Promise<Buffer> =>
  readFile(await savedFile(folder, name));

describe('Fold', () => {
  it('a demo tray is folded, its radius changed, the blank follows, goes out as DXF and opens again', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    await page.goto(server.at('/plan/bramble-winter/fold'));
    await press(page, 'B transmission', 'radio');
    await says(page, '2 bends in the order for the brake');
    const before = await blank(page);
    await page.locator('[aria-label^="Bend side, 85.0 degrees up"]').click();
    await press(page, 'Inside radius', 'textbox', { count: 3 });
    await page.keyboard.type('14');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      b =>
        [...document.querySelectorAll('[aria-label^="Blank of plate"] text[data-size]')]
          .map(t => t.textContent)
          .join(' by ') !== b,
      {},
      before,
    );
    const after = await blank(page);
    // a larger radius takes more off the legs than it adds in the bend: the blank gets narrower
    expect(Number(after.split(' by ')[1]?.split(' ')[0])).toBeLessThan(
      Number(before.split(' by ')[1]?.split(' ')[0]),
    );
    await saved(page);
    // half folded: the picture follows the slider
    const finished = await picture(page, 'Plate B folded');
    await folded(page, 5);
    await picture(page, 'Plate B folded', finished);

    await press(page, 'Blank, DXF');
    const name = 'B-transmission.dxf';
    const text = (await downloaded(folder, name)).toString('utf8');
    const read = readDxf(text);
    const area = read.ok ? Math.abs(signedArea(read.value.plates[0]?.outline ?? [])) : 0;
    await page.goto(server.at('/plan/bramble-winter/cover'));
    const input = (await page.waitForSelector(
      'input[aria-label="DXF drawing"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(join(folder, name));
    await says(page, 'From a drawing 1');
    await saved(page);
    const kept = (await (await fetch(server.at('/api/documents/bramble-winter'))).json()) as {
      document: { plan: { panels: { base: { outline: [number, number][] }; openings: unknown[] }[] } };
    };
    const opened = kept.document.plan.panels.at(-1);
    expect(Math.abs(signedArea(opened?.base.outline ?? []))).toBeCloseTo(area, 1);
    // three openings, and a hole for each of its eight bolts
    expect(opened?.openings).toHaveLength(3 + 8);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('all blanks of a build are laid on stock sheets, and what is too large is named', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/fold'));
    await press(page, 'On stock sheets', 'radio');
    await says(page, /4 sheets, \d+ % used/);
    await says(page, '3/16 in steel');
    await says(page, '1/4 in 5052');
    await press(page, 'Edge margin', 'textbox', { count: 3 });
    await page.keyboard.type('99');
    await page.keyboard.press('Enter');
    await says(page, /\d sheets?, \d+ % used/);
    const folder = await downloadsOf(page);
    await press(page, 'Sheet 1, DXF');
    const read = readDxf((await downloaded(folder, 'nest-1.dxf')).toString('utf8'));
    expect(read.ok && read.value.plates.length).toBeGreaterThan(0);
    await page.locator('::-p-text(grain along the sheet)').click();
    await press(page, 'Turned in steps of', 'combobox');
    await page.locator('::-p-text(steps of 15°)').click();
    await says(page, /\d sheets?, \d+ % used/);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('the simulated fabricator offers, and refuses a bend that would crack', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/fold'));
    await press(page, 'Get a quote for all 6 plates and 3 brackets of build “steel ahead, aluminum behind”');
    await says(page, /\d+ \$, in \d+ days/);
    await page.locator('[aria-label^="Bend front-ramp"]').click();
    await press(page, 'Inside radius', 'textbox', { count: 3 });
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await press(page, 'Get a quote for all 6 plates and 3 brackets of build “steel ahead, aluminum behind”');
    await says(page, /They cannot make it: .*would crack/);
    await closePage(page);
  });

  it('K comes from a test bend, and figures that cannot be are refused', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/fold'));
    await page.locator('::-p-text(K from a test bend)').click();
    await says(page, /K = 0\.\d+|measure again/);
    const set = (label: string, text: string): Promise<void> => typed(page, label, text);
    await set('Inside radius of the test', '5');
    await set('Flat length', '131.6');
    await says(page, /K = 0\.[34]\d\d/);
    const before = await blank(page);
    await press(page, 'Use it for steel near R/t 1.0');
    await says(page, 'steel, R/t 1.0: K 0.');
    await page.locator('[aria-label^="Bend front-lip"]').click();
    await set('Inside radius', '5');
    await says(page, 'from the shop’s own table');
    expect(await blank(page)).not.toBe(before);
    await saved(page);
    await set('Flat length', '160');
    await says(page, 'These figures give no K');
    await closePage(page);
  });

  it('the plate in space turns by keys, is cut open, goes with and without its neighbors and parts, and out as GLB', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    await page.goto(server.at('/plan/bramble-winter/fold'));
    const label = 'Plate A folded';
    const seen = [await picture(page, label)];
    const differs = async (): Promise<void> => {
      seen.push(await picture(page, label, ...seen));
    };
    expect(await page.$(`[aria-label^="${label}"] canvas`)).not.toBeNull();
    await page.focus(`[aria-label^="${label}"]`);
    await page.keyboard.press('ArrowLeft');
    await differs(); // turned
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('+');
    await differs(); // lifted and nearer
    await page.keyboard.press('Home');
    await page.waitForSelector(`[aria-label^="${label}"][aria-valuenow="38"]`);
    await press(page, 'above', 'radio');
    await says(page, 'seen from above');
    await differs(); // from above
    await press(page, 'below', 'radio');
    await press(page, 'parts');
    await differs(); // without parts
    await press(page, 'plates');
    await differs(); // alone
    await press(page, 'Section', 'combobox');
    await page.locator('::-p-text(cut across)').click();
    await differs(); // cut
    await says(page, /x −?\d+ mm/);
    await press(page, 'Folded, GLB');
    const glb = await downloaded(folder, 'A-engine.glb');
    expect(glb.subarray(0, 4).toString()).toBe('glTF');
    expect(glb.readUInt32LE(8)).toBe(glb.length);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('without WebGL the plate is drawn in projection, and the slider still folds it', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.evaluateOnNewDocument(() => {
      const real = HTMLCanvasElement.prototype.getContext;
      HTMLCanvasElement.prototype.getContext = function (
        this: HTMLCanvasElement,
        kind: string,
        ...rest: unknown[]
      ) {
        return kind.startsWith('webgl') ? null : Reflect.apply(real, this, [kind, ...rest]);
      } as typeof real;
    });
    await page.goto(server.at('/plan/bramble-winter/fold'));
    const finished = await picture(page, 'Plate A folded');
    expect(await page.$('[aria-label^="Plate A folded"] canvas')).toBeNull();
    await folded(page, 6);
    await picture(page, 'Plate A folded', finished);
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  });

  it('a K entered in the table changes the blank, and emptied gives it back', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/fold'));
    await says(page, 'DIN 6935');
    const before = await blank(page);
    await press(page, 'K table');
    const cell = 'K of steel at R/t 1.5';
    await typed(page, cell, '0.9');
    await page.waitForSelector(`[aria-label="${cell}"][aria-invalid="true"]`);
    await typed(page, cell, '0.30');
    await page.keyboard.press('Escape');
    await says(page, 'from the shop’s own table');
    const after = await blank(page);
    expect(after).not.toBe(before);
    await press(page, 'K table');
    const input = await page.waitForSelector(`[aria-label="${cell}"]`);
    await input?.click({ count: 3 });
    await page.keyboard.press('Backspace');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await says(page, 'DIN 6935');
    expect(await blank(page)).toBe(before);
    await closePage(page);
  });

  it('a shop with a low punch has no order for the tray and says what stands in the way; flanges that meet are mitred', async ({
    browser,
  }) => {
    // on a server of its own: the plan the others share has been drawn into
    const own = await TestServer.open();
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(own.at('/plan/bramble-winter/fold'));
    await press(page, 'B transmission', 'radio');
    await press(page, 'Change it');
    await typed(page, 'Punch, tip to beam', '20');
    await typed(page, 'Beam and bed, thickness', '700');
    await page.keyboard.press('Escape');
    await says(page, 'No bend order works on this brake');
    await says(page, /no bend order works\. Bend .* hits the beam above the punch/);
    await press(page, 'D fuel tank', 'radio');
    await page.locator('[aria-label^="Bend sill"]').click();
    await typed(page, 'Angle', '90');
    await page.locator('[aria-label^="Bend tail"]').click();
    await typed(page, 'Angle', '90');
    await says(page, /tail and sill overlap/);
    const before = await blank(page);
    await page.locator('::-p-text(mitered with the flange beside it)').click();
    await page.waitForFunction(() => !document.body.innerText.includes('run into one another'));
    // the walls are trimmed by a sheet's thickness: the blank's size stays, its outline does not
    expect(await blank(page)).toBe(before);
    expect(page.faults).toEqual([]);
    await closePage(page);
    await own.remove();
  });
});
