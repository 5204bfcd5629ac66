import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seriousFaults } from './axe';
import { DESK, openBrowser, openPage, PHONE, press, says, TestServer } from './browser';

let browser: Browser;
let server: TestServer;
beforeAll(async () => {
  [browser, server] = await Promise.all([openBrowser(), TestServer.open()]);
});
afterAll(async () => {
  await browser?.close();
  await server?.remove();
});

describe('Strike', () => {
  it('strikes the plates one after another, can be stopped, and answers anew where the rock is moved', async () => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/wren-sliders/strike'));
    await says(page, /striking \d of 5 plates/);
    await says(page, 'Gives', 90_000);
    await press(page, 'Stop');
    await says(page, /\d plates not struck/);
    const gives = (): Promise<string> =>
      page.$$eval(
        'dt',
        all => all.find(e => e.textContent === 'Gives')?.nextElementSibling?.textContent ?? '',
      );
    const worst = await gives();
    expect(worst).toMatch(/\d+\.\d\smm/);
    await press(page, 'gap left', 'radio');
    await says(page, 'touches');
    // the frame never waits: the slider answers at once while plates are struck
    await press(page, 'Go on');
    await page.locator('::-p-text(The rock stands at the worst place)').click();
    const place = await page.waitForSelector('aria/Right of the middle[role="textbox"]');
    const old = Number(await place?.evaluate(e => (e as HTMLInputElement).value));
    await place?.click({ count: 3 });
    await page.keyboard.type(String(old - Math.sign(old) * 30));
    await page.keyboard.press('Enter');
    await says(page, 'The rock stands where you put it', 90_000);
    expect(await gives()).not.toBe(worst);
    expect(page.faults).toEqual([]);
    await page.browserContext().close();
  }, 240_000);

  it.each(['light', 'dark'] as const)(
    'axe finds nothing serious (%s)',
    async theme => {
      const found: string[] = [];
      for (const view of [DESK, PHONE]) {
        const page = await openPage(browser, view, { theme });
        await page.goto(server.at('/plan/wren-sliders/strike'));
        await says(page, 'Gives', 90_000);
        found.push(...(await seriousFaults(page)).map(f => `${view.width}: ${f}`));
        await page.browserContext().close();
      }
      expect(found).toEqual([]);
    },
    240_000,
  );
});
