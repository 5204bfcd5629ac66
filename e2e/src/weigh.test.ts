import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import {
  closePage,
  DESK,
  fewPlates,
  named,
  openPage,
  press,
  saved,
  says,
  storedPlan,
  summary,
  undo,
} from './browser';
import { it } from './fixtures';

const climbed = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () => document.querySelector('tbody tr') !== null && !/striking|preparing/i.test(document.body.innerText),
    { polling: 200, timeout: 150_000 },
  );
const rows = (page: Page): Promise<readonly string[]> =>
  page.$$eval('tbody tr', all => all.map(r => (r as HTMLElement).innerText.replace(/\s+/g, ' ')));

/** One page and one plan of two plates for what follows: what is struck is kept. */
const onWren = it.extend<{
  readonly $file: { readonly plan: string; readonly page: Awaited<ReturnType<typeof openPage>> };
}>({
  plan: [
    async ({ server }, use) => use(await fewPlates(server, 'wren', ['plate-1', 'plate-4'])),
    { scope: 'file' },
  ],
  page: [
    async ({ browser, server, plan }, use) => {
      const page = await openPage(browser, DESK, { units: 'metric', fresh: true });
      await page.goto(server.at(`/plan/${plan}/weigh`));
      await use(page);
      expect(page.faults).toEqual([]);
      await closePage(page);
    },
    { scope: 'file' },
  ],
});

describe('Weigh: every sheet for a plate', () => {
  onWren(
    'comes in as it is struck, sorts, and puts the taken sheet into the build',
    async ({ page }) => {
      await press(page, 'every sheet for a plate', 'radio');
      // points stand in the chart before the last sheet is struck
      await page.waitForSelector('.apexcharts-canvas');
      await says(page, 'striking');
      await climbed(page);
      const all = await rows(page);
      expect(all.length).toBeGreaterThanOrEqual(40);
      expect(all.filter(r => r.includes('best trade-off')).length).toBeGreaterThan(1);
      // what is thinner than a sheet that hits is left out until it is asked for
      const markers = async (): Promise<number> => (await page.$$('.apexcharts-marker')).length;
      const first = await markers();
      expect(first).toBeGreaterThan(15);
      await press(page, 'Strike them too');
      await says(page, 'striking');
      await climbed(page);
      expect(await markers()).toBeGreaterThan(first);
      await press(page, 'Clearance');
      const up = (await rows(page)).map(r => r.match(/(−?\d+\.\d) mm/)?.[1]).filter(Boolean);
      expect(up.length).toBeGreaterThan(30);
      const before = await summary(page, 'Net mass');
      const row = await page.waitForSelector('::-p-xpath(//tr[th[contains(., "1/4 in 5052")]]//button)');
      await row?.click();
      await saved(page);
      expect(await summary(page, 'Net mass')).not.toBe(before);
      await page.waitForSelector('::-p-xpath(//tr[th[contains(., "1/4 in 5052")]][contains(., "current")])');
    },
    300_000,
  );

  onWren(
    'is of metric plate where the dealer has that, and of all plates at once',
    async ({ page, plan, server }) => {
      await press(page, 'every sheet for a plate', 'radio');
      await press(page, 'metric sizes', 'radio');
      await page.waitForSelector('::-p-xpath(//tr[th[contains(., "10 mm 6061")]])');
      await press(page, 'US sizes', 'radio');
      await press(page, 'same sheet on all plates', 'radio');
      // what all plates together leave is known once each of them is struck in it
      await page.waitForSelector(
        '::-p-xpath(//tr[th[contains(., "3/8 in 6061")]]/td[2][contains(., "mm")])',
        {
          timeout: 120_000,
        },
      );
      const before = await summary(page, 'Net mass');
      const take = await page.waitForSelector('::-p-xpath(//tr[th[contains(., "3/8 in 6061")]]//button)');
      // rows move as sheets are struck: pressed where it is
      await take?.evaluate(e => (e as HTMLElement).click());
      // the plan follows the press, and is saved after it
      await expect.poll(() => summary(page, 'Net mass')).not.toBe(before);
      await saved(page);
      const made = await storedPlan(server, page, plan);
      const sheets = made.builds.find(x => x.id === made.activeBuild)?.sheets ?? {};
      expect(new Set(Object.values(sheets).map(x => x.material))).toEqual(new Set(['al-6061-t6']));
      await undo(page);
    },
    200_000,
  );
});

describe('Weigh: the best build', () => {
  onWren(
    'keeps its limits, says what stops it, and goes into the plan; summary and stance follow',
    async ({ page, plan, server }) => {
      await press(page, 'best build', 'radio');
      await page.locator('::-p-text(no drumming)').click();
      // only aluminum may be bought
      for (const short of ['steel', 'steel 50', 'AR 400', 'stainless', 'UHMW'])
        await page.locator(`::-p-xpath(//label[normalize-space(.)="${short}"]/input)`).click();
      await says(page, 'of 5052, 6061');
      await page.waitForSelector('[aria-label="Best build"]', { timeout: 200_000 });
      await says(page, /thinner sheets skipped|One step cheaper/, 200_000);
      await press(page, 'no contact', 'radio');
      await says(page, 'Limits: no contact');
      const plates = await page.$$eval('[aria-label="Best build"] tbody tr', all =>
        all.map(r => (r as HTMLElement).innerText),
      );
      expect(plates.length).toBe(2);
      for (const p of plates) expect(p).toMatch(/5052|6061/);
      const before = await summary(page, 'Net mass');
      const stance = await page.$eval('aside', e => e.innerText);
      await page.locator('::-p-xpath(//button[starts-with(., "Use it for build")])').click();
      await saved(page);
      expect(await summary(page, 'Net mass')).not.toBe(before);
      expect(await page.$eval('aside', e => e.innerText)).not.toBe(stance);
      const { limits, builds, activeBuild } = await storedPlan(server, page, plan);
      expect(limits).toMatchObject({ materials: ['al-5052-h32', 'al-6061-t6'], minGap: 0 });
      for (const s of Object.values(builds.find(x => x.id === activeBuild)?.sheets ?? {}))
        expect(s.material).toMatch(/^al-/);
    },
    400_000,
  );
});

describe('Weigh: builds side by side', () => {
  it('are struck, nested and priced part by part, and say what hardware changes', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric', fresh: true });
    const plan = await fewPlates(server, 'heron', ['plate-2', 'plate-3', 'plate-5']);
    await page.goto(server.at(`/plan/${plan}/weigh`));
    const cells = (row: string): Promise<readonly string[]> =>
      page.$$eval(
        'tbody tr',
        (all, name) =>
          [
            ...(all
              .find(r => r.querySelector('th')?.innerText.split('\n')[0] === name)
              ?.querySelectorAll('td') ?? []),
          ].map(c => (c as HTMLElement).innerText.replace(/\s+/g, ' ')),
        row,
      );
    await says(page, 'plates not struck');
    expect((await cells('Clearance under a strike')).every(c => c.startsWith('\u2013'))).toBe(true);
    await press(page, 'Strike every build');
    await page.waitForFunction(() => !/plates to go|not struck/.test(document.body.innerText), {
      timeout: 120_000,
    });
    for (const row of ['Clearance under a strike', 'Lowest vibration'])
      for (const c of await cells(row)) expect(c, row).toMatch(/\d (mm|Hz)/);
    await page.waitForFunction(() => !/Stock sheets[^\n]*\n[^\n]*\n?\s*\u2013/.test(document.body.innerText));
    for (const c of await cells('Stock sheets')) expect(c).toMatch(/^\d/);
    expect((await cells('Hardware that changes')).some(c => /→|none/.test(c))).toBe(true);
    expect(page.faults).toEqual([]);
    await closePage(page);
  }, 200_000);

  it('follow the owner\u2019s rates, an offer and the tax, and refuse what is no price', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/wren-sliders/weigh'));
    await press(page, 'cost', 'radio');
    await says(page, 'invented default');
    const enter = async (label: string, text: string): Promise<void> => {
      const field = await named(page, label, 'textbox');
      await field?.click({ count: 3 });
      await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    };
    const before = await summary(page, 'Cost, estimate');
    await enter('Cutting, dollars', 'NaN');
    await says(page, /is not a number|not understood|number/);
    expect(await summary(page, 'Cost, estimate')).toBe(before);
    await enter('Cutting, dollars', '4.5');
    await enter('Source of Cutting', 'the shop by the mill, May');
    await saved(page);
    expect(Number(await summary(page, 'Cost, estimate').then(t => t.replace(/\D/g, '')))).toBeGreaterThan(
      Number(before.replace(/\D/g, '')),
    );
    expect((await storedPlan(server, page, 'wren-sliders')).rates).toEqual({
      cut: { value: 4.5, source: 'the shop by the mill, May' },
    });
    await says(page, 'partly invented defaults');
    await press(page, 'Cutting back to the default');
    await saved(page);
    expect(await summary(page, 'Cost, estimate')).toBe(before);
    await enter('Offer for build “3/8 UHMW”', '500');
    await enter('Tax on the goods (0: none)', '10');
    await enter('Your deductible (0: none)', '250');
    await saved(page);
    await says(page, 'Compared with the deductible');
    const { costs } = await page.evaluate(() => {
      const row = [...document.querySelectorAll('tr')].find(
        r => r.querySelector('th')?.textContent === 'Total',
      );
      return { costs: [...(row?.querySelectorAll('td') ?? [])].map(c => Number(c.textContent)) };
    });
    expect(costs[0]).toBeGreaterThan(550);
    expect(page.faults).toEqual([]);
    await closePage(page);
  }, 100_000);

  it('stand beside each other in what matters, ranked by the owner, without a score', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/weigh'));
    await press(page, 'what matters', 'radio');
    await says(page, 'Toughness and quietness need every plate struck');
    // two converters in three builds
    await page.waitForFunction(
      () => document.querySelectorAll('[aria-label="Converter shield"] tbody tr').length === 6,
    );
    const shields = await page.$$eval('[aria-label="Converter shield"] tbody tr', all =>
      all.map(r => (r as HTMLElement).innerText),
    );
    for (const s of shields) expect(s).toMatch(/\d+\s%/);
    await press(page, 'Cost matters more');
    await press(page, 'Cost matters more');
    await saved(page);
    expect((await storedPlan(server, page, 'bramble-winter')).priorities?.slice(0, 3)).toEqual([
      'weight',
      'cost',
      'toughness',
    ]);
    await page.waitForSelector('.apexcharts-bar-series');
    expect(page.faults).toEqual([]);
    await closePage(page);
  }, 100_000);

  it('keeps a note on a build, and takes wheel rates from heights measured before and after', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/weigh'));
    const note = await named(page, 'Note on build “1/4 aluminum”', 'textbox');
    await note?.click();
    await page.keyboard.type('light, for the long trip');
    await page.keyboard.press('Tab');
    await saved(page);
    await page.reload();
    await named(page, 'Note on build “1/4 aluminum”', 'textbox');
    expect(
      await page.$eval(
        'textarea[aria-label="Note on build “1/4 aluminum”"]',
        e => (e as HTMLTextAreaElement).value,
      ),
    ).toBe('light, for the long trip');
    await page.locator('::-p-text(Measured before and after)').click();
    await says(page, 'No rate yet');
    for (const [label, mm] of [
      ['Before, front', '850'],
      ['After, front', '840'],
    ] as const) {
      const field = await named(page, label, 'textbox');
      await field?.click({ count: 3 });
      await page.keyboard.type(mm);
      await page.keyboard.press('Enter');
    }
    await says(page, /front: \d+\.\d N\/mm a wheel/);
    await press(page, 'Use this rate for this vehicle');
    await saved(page);
    // the rig now sinks in front by what was measured
    await says(page, /−10(\.\d+)? mm|−10\.\d/);
    expect(page.faults).toEqual([]);
    await closePage(page);
  }, 100_000);
});
