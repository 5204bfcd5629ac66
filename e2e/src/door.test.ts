// The door: the list of plans and what is done there, the tour, the palette and the help, by hand and by keyboard.
import { readFile } from 'node:fs/promises';
import { demoPath } from '@plate-fold/demo';
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
  savedFile,
  says,
  storedPlan,
  summary,
  TestServer,
} from './browser';
import { it } from './fixtures';

const menuOf = async (page: Page, plan: string, item: string): Promise<void> => {
  await press(page, `Menu of ${plan}`);
  await press(page, item, 'menuitem');
};
const names = (page: Page): Promise<readonly string[]> =>
  page.$$eval('[data-plan]', all => all.map(e => e.textContent ?? ''));
const typeIn = async (page: Page, label: string, text: string): Promise<void> => {
  const field = await named(page, label, 'textbox');
  await field?.click({ count: 3 });
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
const control = async (page: Page, key: 'k'): Promise<void> => {
  await page.keyboard.down('Control');
  await page.keyboard.press(key);
  await page.keyboard.up('Control');
};

describe('the list of plans', () => {
  it('renames, duplicates, exports, archives and deletes with undo; examples hide and come back', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    const page = await openPage(browser, DESK);
    try {
      const folder = await downloadsOf(page);
      await page.goto(own.at('/'));
      await says(page, /lb net · 6 plates/);
      expect(await names(page)).toHaveLength(4);
      await menuOf(page, 'Pebble tray and skirts', 'Duplicate');
      await says(page, 'tray and skirts, copy');
      await menuOf(page, 'Pebble tray and skirts, copy', 'Rename');
      const field = await page.waitForSelector('::-p-xpath(//label[contains(., "Plan")]//input)');
      await field?.click({ count: 3 });
      await page.keyboard.type('rally set');
      await press(page, 'Save');
      await says(page, 'rally set');
      // own before examples, found by a few letters, sorted by name
      expect((await names(page))[0]).toBe('Pebble rally set');
      await (await named(page, 'Search plans', 'searchbox')).type('rally');
      await expect.poll(() => names(page)).toEqual(['Pebble rally set']);
      await (await named(page, 'Search plans', 'searchbox')).click({ count: 3 });
      await page.keyboard.press('Backspace');
      await press(page, 'Sort plans', 'combobox');
      await press(page, 'by name', 'option');
      await expect.poll(() => names(page).then(n => n[1])).toBe('Bramble winter set');
      await menuOf(page, 'Pebble rally set', 'Export plan file');
      await menuOf(page, 'Pebble rally set', 'Archive');
      await says(page, 'Archived (1)');
      await page.locator('::-p-text(Archived (1))').click();
      await menuOf(page, 'Pebble rally set', 'Back to the list');
      await page.waitForFunction(() => !document.body.innerText.includes('Archived'));
      await menuOf(page, 'Pebble rally set', 'Delete');
      await says(page, 'Deleted: rally set');
      await expect.poll(() => names(page)).not.toContain('Pebble rally set');
      await press(page, 'Undo');
      await expect.poll(() => names(page)).toContain('Pebble rally set');
      await menuOf(page, 'Pebble rally set', 'Delete');
      await says(page, 'Recently deleted (1)');
      await press(page, 'Dismiss');
      await page.locator('::-p-text(Recently deleted (1))').click();
      await press(page, 'Restore rally set');
      await expect.poll(() => names(page)).toContain('Pebble rally set');
      await press(page, 'Hide examples');
      await expect.poll(() => names(page)).toEqual(['Pebble rally set']);
      await page.reload();
      await says(page, 'Show examples');
      expect(await names(page)).toEqual(['Pebble rally set']);
      expect(await seriousFaults(page)).toEqual([]);
      // the file that was saved is here already: it asks
      const file = await savedFile(folder, /\.json$/);
      const saved = JSON.parse(await readFile(file, 'utf8'));
      expect(saved.plan.name).toBe('rally set');
      const input = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(file);
      await says(page, 'You already have this plan');
      await press(page, 'Cancel');
      await input.uploadFile(file);
      await press(page, 'Keep both');
      await page.waitForFunction(() => location.pathname.startsWith('/plan/'));
      await says(page, 'rally set, from file');
      expect(page.faults).toEqual([]);
    } finally {
      await closePage(page);
      await own.remove();
    }
  });

  it('takes a plan file that is here already in place of it when that is said', async ({ browser }) => {
    const own = await TestServer.open();
    const page = await openPage(browser, PHONE, { theme: 'dark' });
    try {
      await page.goto(own.at('/'));
      await says(page, /net · 3 plates/);
      const input = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(demoPath('pebble'));
      await press(page, 'Replace mine: its runs and log stay');
      await page.waitForFunction(() => location.pathname === '/plan/pebble-tray/cover');
      const { revision } = await (await fetch(own.at('/api/documents/pebble-tray'))).json();
      expect(revision).toBe(2);
      expect(page.faults).toEqual([]);
    } finally {
      await closePage(page);
      await own.remove();
    }
  });
});

describe('an own SUV, taped in inches', () => {
  it('goes from the empty list to a suggested set, typed in fractions', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/'));
    await press(page, 'SUV');
    await says(page, 'Wheelbase');
    for (const [label, value] of [
      ['Wheelbase', '112 3/16'],
      ['Axle height', '15 3/8'],
      ['Across the rails', '3 ft 2 1/4 in'],
      ['Oil pan ends', '11 13/16'],
      ['Oil pan underside', '14 3/16'],
      ['Gearbox ends', '40'],
    ] as const)
      await typeIn(page, label, value);
    await typeIn(page, 'Track', '1600');
    await says(page, /Track is 1600 in; plausible is 53 1\/8 in to 72 13\/16 in/);
    const id = new URL(page.url()).pathname.split('/')[2]!;
    const { rig } = await storedPlan(server, page, id).then(
      async () =>
        (
          (await (await fetch(server.at(`/api/documents/${id}`))).json()) as {
            document: { rig: { measures: Record<string, number> } };
          }
        ).document,
    );
    expect(rig.measures.wheelbase).toBeCloseTo(112.1875 * 25.4, 6);
    expect(rig.measures.panHeight).toBeCloseTo(14.1875 * 25.4, 6);
    // by the palette to the suggestion
    await control(page, 'k');
    await page.waitForSelector('[cmdk-input]');
    await page.keyboard.type('suggest');
    await page.keyboard.press('Enter');
    await press(page, 'Suggest');
    await says(page, /Add \d of \d plates/);
    await page.locator('::-p-xpath(//button[starts-with(., "Add ") and contains(., "plates")])').click();
    await says(page, 'The whole set');
    expect(Number((await summary(page, 'Covered')).replace('%', ''))).toBeGreaterThan(80);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('by keyboard', () => {
  it('the palette goes to a stage, a plate, a bolt and a finding, and does a command', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/cover'));
    await says(page, 'The whole set');
    const pick = async (text: string): Promise<void> => {
      await control(page, 'k');
      await page.waitForSelector('[cmdk-input]');
      await page.keyboard.type(text);
      await page.waitForFunction(() => document.querySelector('[cmdk-item][data-selected=true]'));
      await page.keyboard.press('Enter');
      await page.waitForFunction(() => !document.querySelector('[cmdk-input]'));
    };
    await control(page, 'k');
    await page.waitForSelector('[cmdk-input]');
    expect(await seriousFaults(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await pick('transmission');
    await says(page, /Plate B/);
    await pick('go to fold');
    await page.waitForFunction(() => location.pathname.endsWith('/fold'));
    await pick('bolt j10');
    await page.waitForFunction(() => location.pathname.endsWith('/bolt'));
    await pick('light or dark');
    await page.waitForFunction(() => document.documentElement.matches('.dark, [data-theme=dark]'));
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('the tour goes through eight stages, a sentence each, and is skipped by Escape; the help opens and is searched', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/'));
    await page.locator('a::-p-text(New here)').click();
    for (const stage of ['Rig', 'Cover', 'Fold', 'Strike', 'Weigh', 'Bolt', 'Run', 'Log']) {
      await page.waitForFunction(
        s => document.querySelector('[aria-label="Tour"]')?.textContent?.includes(`${s}:`),
        {},
        stage,
      );
      if (stage !== 'Log') await page.keyboard.press('ArrowRight');
    }
    expect(await seriousFaults(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[aria-label="Tour"]'));
    await press(page, 'Menu');
    await press(page, 'Help and glossary', 'menuitem');
    await says(page, 'The eight stages');
    await (await named(page, 'Search the glossary', 'searchbox')).type('rivet');
    await page.waitForFunction(() => document.querySelectorAll('#glossary li').length === 1);
    expect(await seriousFaults(page)).toEqual([]);
    await page.goto(server.at('/'));
    await says(page, /Tour/);
    expect(await page.evaluate(() => document.body.innerText.includes('New here'))).toBe(false);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});
