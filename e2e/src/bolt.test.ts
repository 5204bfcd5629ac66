import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import {
  closePage,
  DESK,
  fewPlates,
  named,
  openPage,
  PHONE,
  press,
  says,
  storedPlan,
  type TestServer,
  undo,
  words,
} from './browser';
import { it } from './fixtures';

const stored = (server: TestServer, page: Page) => storedPlan(server, page, 'heron-autumn');
const jointOf = async (server: TestServer, page: Page, id: string) =>
  (await stored(server, page)).joints.find(j => j.id === id);
const choose = async (page: Page, label: string, option: string): Promise<void> => {
  await press(page, label, 'combobox');
  await press(page, option, 'option');
};

/** One page for what follows: what is chosen in it stays. */
const onHeron = it.extend<{ readonly $file: { readonly page: Awaited<ReturnType<typeof openPage>> } }>({
  page: [
    async ({ browser, server }, use) => {
      const page = await openPage(browser, DESK, { units: 'metric' });
      await page.goto(server.at('/plan/heron-autumn/bolt'));
      await page.waitForSelector('[aria-label="Joints"]');
      await use(page);
      expect(page.faults).toEqual([]);
      await closePage(page);
    },
    { scope: 'file' },
  ],
});

describe('Bolt chooses the hardware of the lifted SUV', () => {
  onHeron('one joint changed by hand is locked, and what it bears is told', async ({ page, server }) => {
    // what hangs on the axle is lower than the belly: both are told
    await says(page, /Lowest point ?283 ?mm ?plate E; belly 297/);
    await page.locator('::-p-xpath(//ul[@aria-label="Joints"]//button[starts-with(., "j-3")])').click();
    await says(page, 'Strength');
    await says(page, /Pulled \d+\.\d kN \(.*\), sheared/);
    await page.locator('::-p-text(Change its hardware)').click();
    await choose(page, 'Class', '10.9');
    expect(await jointOf(server, page, 'j-3')).toMatchObject({ fastener: { class: '10.9' }, lock: true });
    await choose(page, 'Washers, from the head', 'fender washer');
    expect((await jointOf(server, page, 'j-3'))?.washers).toEqual(['fender']);
  });

  onHeron(
    'what cannot be put together is named in the drawn section, and mended from the finding',
    async ({ page, server }) => {
      await choose(page, 'Nut', 'hex nut');
      await page.waitForSelector('svg[aria-label*="Cannot be: a nut behind a hole that has its own thread"]');
      await press(page, 'Leave the nut out.');
      await page.waitForFunction(() => !document.querySelector('svg[aria-label*="Cannot be"]'));
      expect((await jointOf(server, page, 'j-3'))?.nut).toBe('none');
    },
  );

  onHeron(
    'a broken nut has its repairs, the weldable one with its caution, and one is planned',
    async ({ page, server }) => {
      await page.locator('::-p-xpath(//ul[@aria-label="Joints"]//button[starts-with(., "j-5")])').click();
      const repairs = await page.waitForSelector('[aria-label="Repair of the hole"]');
      const said = await repairs?.evaluate(e => (e as HTMLElement).innerText);
      expect(said).toMatch(/licensed shop/);
      expect(said).toMatch(/Rivet nut from below[\s\S]*\d+ % of sound/);
      await page
        .locator(
          '::-p-xpath(//section[@aria-label="Repair of the hole"]//li[contains(., "Rivet nut")]//button)',
        )
        .click();
      expect(await jointOf(server, page, 'j-5')).toMatchObject({ nut: 'rivet-nut', lock: true });
      await says(page, 'planned');
    },
  );

  onHeron(
    'all others are chosen at once with their reasons, in one step of undo; what is locked stays',
    async ({ page, server }) => {
      await press(page, 'Choose for me', 'tab');
      const before = await stored(server, page);
      await says(page, 'Your own choice, kept.');
      await says(page, 'rivet nut from below, since the captive nut is broken');
      await page.locator('::-p-xpath(//button[starts-with(., "Apply all")])').click();
      await says(page, 'Every bolt already has the hardware suggested.');
      const after = await stored(server, page);
      expect(after.joints.find(j => j.id === 'j-3')).toEqual(before.joints.find(j => j.id === 'j-3'));
      expect(after.joints.find(j => j.id === 'j-11')?.nut).toBe('rivet-nut');
      await press(page, 'Lock j-3');
      await says(page, 'Apply all 1 changes');
      await press(page, 'Lock j-3');
      await undo(page);
      await undo(page);
      await undo(page);
      expect((await stored(server, page)).joints).toEqual(before.joints);
    },
  );

  onHeron(
    'drilling cards warn and name bits and neighbors; torques stand in a table; the bag follows',
    async ({ page }) => {
      await press(page, 'Drilling', 'tab');
      await says(page, 'eye and face protection');
      await says(page, /Fit first: j-\d+/);
      await says(page, 'step bit to 11 mm');
      await press(page, 'Factory parts', 'tab');
      await says(page, 'Lift its center pin first');
      await press(page, 'Torques', 'tab');
      const rows = await page.$$eval('[role=tabpanel][data-state=active] tbody tr', all =>
        all.map(r => (r as HTMLElement).innerText),
      );
      expect(rows.length).toBe(30);
      for (const r of rows) expect(r).toMatch(/N·m/);
      await press(page, 'Hardware list', 'tab');
      expect(await words(page)).toMatch(/rivet nut M8x1.25/);
    },
  );
});

describe('the kit', () => {
  it('is counted against the bag list; a missing bit stops the run until it is said why; the shelf says what to buy', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/pebble-tray/bolt'));
    await page.waitForSelector('[aria-label="Joints"]');
    await press(page, 'Hardware list', 'tab');
    await says(page, /\d+ packs to buy/);
    const first = await page.waitForSelector('input[aria-label^="What I have"], tbody input');
    await first?.click({ count: 3 });
    await page.keyboard.type('100');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() =>
      /none/.test(
        (document.querySelector('[role=tabpanel][data-state=active] tbody tr') as HTMLElement).innerText,
      ),
    );
    await press(page, 'Tools', 'tab');
    for (const [label, text] of [
      ['Name of the wrench', 'the small one'],
      ['From, N·m', '5'],
      ['To, N·m', '12'],
    ] as const) {
      const field = await named(page, label, 'textbox');
      await field?.type(text);
    }
    await press(page, 'Add');
    await says(page, /None of them covers \d+/);
    await press(page, 'Kit check', 'tab');
    await says(page, /\d+ parts missing, \d+ tools not checked/);
    for (const all of await page.$$('[aria-label="Parts to count"] li button:last-child')) await all.click();
    const ticks = await page.$$('[aria-label="Tools to check"] input');
    for (const t of ticks.slice(1)) await t.click();
    await says(page, /^(?!.*parts missing).*1 tools not checked/);
    await page.reload();
    await press(page, 'Kit check', 'tab');
    await says(page, '1 tools not checked');
    // a missing bit stops the run
    await page.locator('a[href$="/run"]').click();
    await says(page, '0 parts missing, 1 tools not checked');
    const start = () =>
      page.$eval('::-p-xpath(//button[contains(., "Start a run")])', e => (e as HTMLButtonElement).disabled);
    expect(await start()).toBe(true);
    await (await named(page, 'Why the run starts with parts missing', 'textbox')).type(
      'the bit is in the post',
    );
    expect(await start()).toBe(false);
    await press(page, 'Start a run');
    await page.waitForFunction(() => location.pathname.startsWith('/run/'));
    const run = page.url().split('/').at(-1);
    await expect
      .poll(async () => (await (await fetch(server.at(`/api/runs/${run}`))).json()).ticks, {
        timeout: 90_000,
      })
      .toMatchObject([
        {
          stepId: 'kit',
          kind: 'deviation',
          note: 'Started with parts or tools missing: the bit is in the post',
        },
      ]);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('Bolt, struck', () => {
  it('shows what share of a joint a strike asks', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    const plan = await fewPlates(server, 'wren', ['plate-1', 'plate-2']);
    await page.goto(server.at(`/plan/${plan}/strike`));
    await page.waitForFunction(
      () => /Deflection/.test(document.body.innerText) && !/striking/.test(document.body.innerText),
      { polling: 200, timeout: 120_000 },
    );
    await page.locator('a[href$="/bolt"]').click();
    await page.waitForSelector('[role="meter"]');
    await says(page, /A strike uses \d+ %/);
    expect(page.faults).toEqual([]);
    await closePage(page);
  }, 180_000);
});

describe('Bolt on a phone', () => {
  it('shows every tab without scrolling sideways', async ({ browser, server }) => {
    const page = await openPage(browser, PHONE, { theme: 'dark' });
    await page.goto(server.at('/plan/heron-autumn/bolt'));
    await page.waitForSelector('[aria-label="Joints"]');
    for (const tab of ['Torques', 'Drilling', 'Factory parts', 'Hardware list', 'Tools', 'Kit check']) {
      await press(page, tab, 'tab');
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
        tab,
      ).toBeLessThanOrEqual(0);
    }
    await closePage(page);
  });
});
