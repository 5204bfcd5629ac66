import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readDxf, signedArea } from '@plate-fold/core';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './axe';
import { DESK, downloadsOf, openBrowser, openPage, PHONE, press, saved, says, TestServer } from './browser';

let browser: Browser;
let server: TestServer;
beforeAll(async () => {
  [browser, server] = await Promise.all([openBrowser(), TestServer.open()]);
});
afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

/** The size dimensioned on the blank, mm. */
const blank = (page: Page): Promise<string> =>
  page.$eval('[aria-label^="Blank of plate"]', e =>
    [...e.querySelectorAll('text.fig')].map(t => t.textContent).join(' by '),
  );

describe('Fold', () => {
  it('a demo tray is folded, its radius changed, the blank follows, goes out as DXF and opens again', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    await page.goto(server.at('/plan/bramble-winter/fold'));
    await press(page, 'B transmission', 'radio');
    await says(page, '2 bends, tips first');
    const before = await blank(page);
    await page.locator('[aria-label^="Bend side, 85.0 degrees up"]').click();
    await page.locator('aria/Inside radius[role="textbox"]').click({ count: 3 });
    await page.keyboard.type('14');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      b =>
        [...document.querySelectorAll('[aria-label^="Blank of plate"] text.fig')]
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
    const shape = (): Promise<string> =>
      page.$eval('[aria-label^="Plate B folded"] svg', e => e.innerHTML.slice(0, 4000));
    const finished = await shape();
    const slider = (await page.waitForSelector(
      'aria/Folded share[role="slider"]',
    )) as ElementHandle<HTMLInputElement>;
    await slider.focus();
    for (let i = 0; i < 50; i++) await page.keyboard.press('ArrowLeft');
    expect(await shape()).not.toBe(finished);

    await press(page, 'Blank, DXF');
    const name = 'B-transmission.dxf';
    for (let i = 0; i < 50 && !(await readdir(folder)).includes(name); i++)
      await new Promise(done => setTimeout(done, 100));
    const text = await readFile(join(folder, name), 'utf8');
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
    expect(opened?.openings).toHaveLength(3);
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  });

  it('all blanks of a build are laid on stock sheets, and what is too large is named', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/fold'));
    await press(page, 'On stock sheets', 'radio');
    await says(page, /2 sheets, \d+ % used/);
    await says(page, '3/16 in steel');
    await says(page, '1/4 in 5052');
    await page.locator('aria/Edge margin[role="textbox"]').click({ count: 3 });
    await page.keyboard.type('99');
    await page.keyboard.press('Enter');
    await says(page, /\d sheets?, \d+ % used/);
    await page.browserContext().close();
  });

  it('the simulated fabricator offers, and refuses a bend that would crack', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/heron-autumn/fold'));
    await press(page, 'Ask for all 4 plates of build A');
    await says(page, /\d+ \$, in \d+ days/);
    await page.locator('[aria-label^="Bend front-ramp"]').click();
    await page.locator('aria/Inside radius[role="textbox"]').click({ count: 3 });
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await press(page, 'Ask for all 4 plates of build A');
    await says(page, /They cannot make it: .*would crack/);
    await page.browserContext().close();
  });

  it('K comes from a test bend, and figures that cannot be are refused', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/fold'));
    await page.locator('::-p-text(K from a test bend)').click();
    await says(page, /K = 0\.\d+|measure again/);
    const set = async (label: string, text: string): Promise<void> => {
      await page.locator(`aria/${label}[role="textbox"]`).click({ count: 3 });
      await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    };
    await set('Inside radius of the test', '5');
    await set('Flat length', '131.6');
    await says(page, /K = 0\.[34]\d\d/);
    const before = await blank(page);
    await press(page, 'Use it for steel near R/t 1.0');
    await says(page, 'steel, R/t 1.0: K 0.');
    await page.locator('[aria-label^="Bend front-lip"]').click();
    await set('Inside radius', '5');
    await says(page, 'from your test bend');
    expect(await blank(page)).not.toBe(before);
    await saved(page);
    await set('Flat length', '160');
    await says(page, 'These figures give no K');
    await page.browserContext().close();
  });

  it.each(['light', 'dark'] as const)('axe finds nothing serious (%s)', async theme => {
    const found: string[] = [];
    for (const view of [DESK, PHONE]) {
      const page = await openPage(browser, view, { theme });
      await page.goto(server.at('/plan/bramble-winter/fold'), { waitUntil: 'networkidle0' });
      found.push(...(await seriousFaults(page)).map(f => `${view.width}: ${f}`));
      await page.browserContext().close();
    }
    expect(found).toEqual([]);
  });
});
