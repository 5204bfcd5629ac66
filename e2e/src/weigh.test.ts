import type { Browser, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './axe';
import { DESK, openBrowser, openPage, PHONE, press, saved, says, TestServer, tally } from './browser';

let browser: Browser;
let server: TestServer;
beforeAll(async () => {
  [browser, server] = await Promise.all([openBrowser(), TestServer.open()]);
});
afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

const climbed = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () =>
      document.querySelector('tbody tr') !== null &&
      !/being struck|laying out|striking/.test(document.body.innerText),
    { timeout: 150_000 },
  );
const rows = (page: Page): Promise<readonly string[]> =>
  page.$$eval('tbody tr', all => all.map(r => (r as HTMLElement).innerText.replace(/\s+/g, ' ')));

describe('Weigh: every sheet for a plate', () => {
  it('comes in as it is struck, sorts, and puts the taken sheet into the build', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/wren-sliders/weigh'));
    await press(page, 'every sheet for a plate', 'radio');
    // points stand in the chart before the last sheet is struck
    await page.waitForSelector('.apexcharts-canvas', { timeout: 60_000 });
    await says(page, 'being struck');
    await climbed(page);
    const all = await rows(page);
    expect(all.length).toBeGreaterThanOrEqual(40);
    expect(all.filter(r => r.includes('on the edge')).length).toBeGreaterThan(2);
    const markers = await page.$$('.apexcharts-marker');
    expect(markers.length).toBeGreaterThan(30);
    await press(page, 'Gap left');
    const up = (await rows(page)).map(r => r.match(/(−?\d+\.\d) mm/)?.[1]).filter(Boolean);
    expect(up.length).toBeGreaterThan(30);
    const before = await tally(page, 'Net mass');
    const row = await page.waitForSelector('::-p-xpath(//tr[th[contains(., "1/4 in 5052")]]//button)');
    await row?.click();
    await saved(page);
    expect(await tally(page, 'Net mass')).not.toBe(before);
    await page.waitForSelector('::-p-xpath(//tr[th[contains(., "1/4 in 5052")]][contains(., "as it is")])');
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  }, 300_000);

  it('the best build keeps its limits, and goes into the plan', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/wren-sliders/weigh'));
    await press(page, 'best build', 'radio');
    await says(page, 'must not drum');
    await says(page, /The lightest that keeps it all|keeps the limits/, 120_000);
    await page.waitForSelector('[aria-label="Best build"]', { timeout: 200_000 });
    const before = await tally(page, 'Net mass');
    await press(page, 'Stop');
    await press(page, 'Take it into build A');
    await saved(page);
    expect(await tally(page, 'Net mass')).not.toBe(before);
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  }, 400_000);

  it('keeps a note on a build, and takes wheel rates from heights measured before and after', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/weigh'));
    const note = await page.waitForSelector('aria/Note on build B[role="textbox"]');
    await note?.click();
    await page.keyboard.type('light, for the long trip');
    await page.keyboard.press('Tab');
    await saved(page);
    await page.reload();
    await page.waitForSelector('aria/Note on build B[role="textbox"]');
    expect(
      await page.$eval('textarea[aria-label="Note on build B"]', e => (e as HTMLTextAreaElement).value),
    ).toBe('light, for the long trip');
    await page.locator('::-p-text(Measured before and after)').click();
    await says(page, 'No rate yet');
    for (const [label, mm] of [
      ['Before, front', '850'],
      ['After, front', '840'],
    ] as const) {
      const field = await page.waitForSelector(`aria/${label}[role="textbox"]`);
      await field?.click({ count: 3 });
      await page.keyboard.type(mm);
      await page.keyboard.press('Enter');
    }
    await says(page, /front: \d+\.\d N\/mm a wheel/);
    await press(page, 'Take this rate into the rig');
    await saved(page);
    // the rig now sinks in front by what was measured
    await says(page, /−10(\.\d+)? mm|−10\.\d/);
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  }, 100_000);

  it('axe finds nothing serious', async () => {
    const found: string[] = [];
    for (const view of [DESK, PHONE]) {
      const page = await openPage(browser, view, { theme: view === DESK ? 'light' : 'dark' });
      await page.goto(server.at('/plan/wren-sliders/weigh'));
      for (const tab of ['every sheet for a plate', 'best build']) {
        await press(page, tab, 'radio');
        await says(page, 'prices are invented defaults');
        found.push(...(await seriousFaults(page)).map(f => `${view.width} ${tab}: ${f}`));
      }
      await page.browserContext().close();
    }
    expect(found).toEqual([]);
  }, 200_000);
});
