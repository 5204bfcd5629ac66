import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { chosen, closePage, DESK, named, openPage, press, saved, says, summary, words } from './browser';
import { it } from './fixtures';

interface Plan {
  readonly builds: { readonly id: string; readonly name: string }[];
  readonly activeBuild: string;
  readonly method: { readonly start: string; readonly people: number };
  readonly joints: { readonly id: string; readonly lube: string }[];
}
const stored = async (
  page: Page,
  id: string,
): Promise<{ plan: Plan; rig: { components: { id: string; footprint: number[][] }[] } }> => {
  await saved(page);
  return (
    (await (await fetch(new URL(`/api/documents/${id}`, page.url()))).json()) as {
      document: { plan: Plan; rig: never };
    }
  ).document;
};
const choose = async (page: Page, label: string, option: string): Promise<void> => {
  await press(page, label, 'combobox');
  await press(page, option, 'option');
};

describe('Weigh', () => {
  it('builds are copied, renamed, compared against one another, and taken away', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/weigh'));
    await says(page, 'difference from build “3/16 steel”');
    await press(page, 'Duplicate build “1/4 aluminum”');
    await says(page, '1/4 aluminum, copy');
    const name = (await named(
      page,
      'Name of build “1/4 aluminum, copy”',
      'textbox',
    )) as ElementHandle<HTMLInputElement>;
    await name.click({ count: 3 });
    await page.keyboard.type('for the second winter');
    await page.keyboard.press('Enter');
    let doc = await stored(page, 'bramble-winter');
    expect(doc.plan.builds.map(b => b.name)).toContain('for the second winter');
    expect(doc.plan.activeBuild).toBe(doc.plan.builds.at(-1)?.id);
    // a build that is the same as B shows no difference against it
    const compare = await page.$$('::-p-text(Make baseline)');
    expect(compare).toHaveLength(3);
    await compare[1]?.click();
    await says(page, 'difference from build “1/4 aluminum”');
    const last = await page.$eval(
      '::-p-xpath(//tbody/tr[th[starts-with(., "Net mass")]]/td[last()])',
      e => e.textContent,
    );
    expect(last).toContain('=');
    await press(page, 'Delete build “for the second winter”');
    doc = await stored(page, 'bramble-winter');
    expect(doc.plan.builds.map(b => b.id)).toEqual(['A', 'B', 'C']);
    // put in another order by the keyboard, as by a drag
    await (await named(page, 'Move build “mixed”', 'button')).focus();
    const heads = () =>
      page.$$eval('[aria-label^="Name of build"]', all => all.map(e => (e as HTMLInputElement).value));
    for (const key of ['Space', 'ArrowLeft', 'Space'] as const) {
      await page.keyboard.press(key);
      await new Promise(done => setTimeout(done, 300));
    }
    await expect.poll(heads).toEqual(['3/16 steel', 'mixed', '1/4 aluminum']);
    doc = await stored(page, 'bramble-winter');
    expect(doc.plan.builds.map(b => b.id)).toEqual(['A', 'C', 'B']);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('the summary leads to where its figures come from', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/bolt'));
    await says(page, 'captive nut');
    await page.locator('[aria-label="Summary"] button::-p-text(Net mass)').click();
    await says(page, 'Axles and ride height');
    await page.locator('[aria-label="Summary"] button::-p-text(Covered)').click();
    await says(page, 'The whole set');
    await closePage(page);
  });
});

describe('Bolt', () => {
  it('anti-seize lowers the torque for the same clamp; the stack pulls apart and goes together', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/bolt'));
    await page.locator('::-p-text(j10)').click();
    await says(page, '88 N·m');
    await choose(page, 'On the threads', 'anti-seize');
    await says(page, 'K = 0.12, anti-seize');
    const after = Number(/(\d+) N·m How this was computed/.exec(await words(page))?.[1]);
    expect(after).toBeLessThan(60);
    expect((await stored(page, 'bramble-winter')).plan.joints.find(j => j.id === 'j10')?.lube).toBe(
      'anti-seize',
    );
    await press(page, 'Explode');
    await says(page, 'Assemble');
    await press(page, 'Tools', 'tab');
    await says(page, 'Anti-seize');
    await closePage(page);
  });
});

describe('Run', () => {
  it('the school of starting changes the order of the hands', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/run'));
    await says(page, 'Install “');
    const order = (): Promise<string> => page.$eval('main', m => m.textContent ?? '');
    const before = await order();
    await choose(page, 'Bolts are started', 'front to rear');
    await page.waitForFunction(b => document.querySelector('main')?.textContent !== b, {}, before);
    await choose(page, 'Hands', 'two people');
    expect((await stored(page, 'bramble-winter')).plan.method).toMatchObject({
      start: 'front-to-rear',
      people: 2,
    });
    await closePage(page);
  });
});

describe('the frame', () => {
  it('the side one looks from and the theme stay with the device', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/wren-sliders/cover'));
    await page.waitForSelector('[aria-label="Summary"]');
    await page.keyboard.press('v');
    await page.keyboard.press('u');
    await page.reload();
    await says(page, 'On your back, head to rear');
    expect(await summary(page, 'Net mass')).toContain('kg');
    await press(page, 'Menu');
    await press(page, 'Dark theme', 'menuitem');
    expect(await page.$eval('html', e => e.dataset.theme)).toBe('dark');
    await closePage(page);
  });

  it('folds to lines, reads another tape, and tells how a figure was computed', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/cover'));
    await page.waitForSelector('[aria-label="Summary"]');
    const high = (what: string): Promise<number> => page.$eval(what, e => e.getBoundingClientRect().height);
    const work = async (): Promise<number> =>
      (await high('[aria-label="Map of the underside"]')) / DESK.height;
    const before = await work();
    await press(page, 'Fold the side view');
    await press(page, 'Fold the summary');
    expect(await high('[aria-label="Summary"]')).toBeLessThan(40);
    expect(await work()).toBeGreaterThan(Math.max(0.5, before + 0.15));
    // kept, for this stage alone
    await page.reload();
    await page.waitForSelector('[aria-label="Show the summary in full"]');
    await press(page, 'Bolt 1 findings', 'link');
    await page.waitForSelector('[aria-label="Fold the summary"]');
    await page.goto(server.at('/plan/bramble-winter/cover'));
    // nothing moves while it saves, and no build is cut
    const left = (): Promise<number> =>
      page.$eval('[aria-label="Menu"]', e => e.getBoundingClientRect().left);
    await page.waitForSelector('[aria-label="Menu"]');
    const stood = await left();
    await page.keyboard.press('b');
    expect(await left()).toBe(stood);
    await saved(page);
    expect(await left()).toBe(stood);
    // a plate's edge in sixteenths, then in decimals
    await press(page, 'Plate A, engine');
    await says(page, '29 1/2 in');
    await press(page, 'Menu');
    await press(page, 'Tape: sixteenths', 'menuitem');
    await press(page, 'Tape: 32nds', 'menuitem');
    await says(page, '29.53 in');
    await page.keyboard.press('Escape');
    await press(page, 'Plate A, engine');
    await page.locator('::-p-xpath(//dt/button[.="Mass"])').click();
    await says(page, 'Mass of a plate: how this was computed');
    await says(page, 'neutral fiber');
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('prints a stage as one page, black on white, with what it is of', async ({ browser, server }) => {
    const page = await openPage(browser, DESK, { theme: 'dark' });
    await page.goto(server.at('/plan/bramble-winter/cover'));
    await page.waitForSelector('[aria-label="Summary"]');
    await page.waitForSelector('[aria-label="Map of the underside"]');
    const pdf = Buffer.from(
      await page.pdf({
        format: 'letter',
        margin: { top: '12mm', left: '12mm', right: '12mm', bottom: '12mm' },
      }),
    );
    expect((pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length).toBe(1);
    expect(await page.$eval('html', e => e.dataset.theme)).toBe('dark');
    await page.emulateMediaType('print');
    const said = await words(page);
    expect(said).toMatch(/Bramble, winter set, build “.+”: Cover\. Printed/);
    expect(said).toContain('estimates, not certificates');
    expect(said).not.toContain('Suggest plates');
    await page.browserContext().close();
  });

  it('a plan that does not exist is said to be none', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/nowhere/cover'));
    await says(page, 'There is no plan "nowhere".');
    await closePage(page);
  });

  it('a part dragged on the rig’s map moves for good, and a sheet chosen for all is on all', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/pebble-tray/rig'));
    await press(page, 'Map', 'tab');
    const tank = await page.waitForSelector('[aria-label="Part fuel tank"]');
    const at = async (): Promise<number> =>
      (await stored(page, 'pebble-tray')).rig.components.find(c => c.id === 'tank')?.footprint[0]?.[0] ?? 0;
    const before = await at();
    await tank?.evaluate(e => (e as unknown as HTMLElement).focus());
    await page.keyboard.down('Shift');
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.up('Shift');
    expect((await at()) - before).toBeCloseTo(30, 6);
    await page.goto(server.at('/plan/pebble-tray/cover'));
    await press(page, 'Plate A, engine and transmission');
    await press(page, 'Aluminum 6061-T6', 'radio');
    await press(page, 'Use this sheet for every plate');
    await press(page, 'Plate B, side skirt, left');
    await chosen(page, 'Aluminum 6061-T6');
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});
