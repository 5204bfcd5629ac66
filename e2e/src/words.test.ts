// Every screen of every example read as a reader would: in plain words, and in the units that were chosen, also behind every tab and choice.
import { foreignUnit, oddWords } from '@plate-fold/core/testing';
import type { UnitSystem } from '@plate-fold/core/units';
import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { DESK, openPage, says, toStage } from './browser';
import { it } from './fixtures';

const PLANS = ['bramble-winter', 'heron-autumn', 'pebble-tray', 'wren-sliders'] as const;
const STAGES: readonly (readonly [stage: string, says: RegExp])[] = [
  ['rig', /Wheelbase|The vehicle/],
  ['cover', /The whole set/],
  ['fold', /Blank|Bends|bend/],
  ['weigh', /Net mass/],
  ['bolt', /torque/i],
  ['run', /Time, estimate/],
  ['log', /Add an entry/],
];

/** What stands on the page: lines of text, names that a screen reader says, and what fields hold with their placeholders. */
const linesOf = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const out = document.body.innerText.split('\n');
    for (const e of document.querySelectorAll('[aria-label]')) out.push(e.getAttribute('aria-label') ?? '');
    for (const e of document.querySelectorAll('input'))
      out.push(e.placeholder, e.type === 'text' ? e.value : '');
    for (const e of document.querySelectorAll('svg text, svg title')) out.push(e.textContent ?? '');
    return [...new Set(out.map(l => l.trim()).filter(Boolean))];
  });
/** What is named as it was bought, alone on its line: a stock length of a bolt or spacer, a sheet. */
const BOUGHT = /^(?:other: )?[\d.\s]+(?:\/\d+\s)?(?:mm|in|ga)$/;
/** Tables of the rig, where rows are known by their ids. */
const BY_ID = /^rig, (?:Parts|Frame|Holes|Service|Factory parts)$/;

async function faultsOn(page: Page, where: string, units: UnitSystem): Promise<readonly string[]> {
  return (await linesOf(page)).flatMap(line => {
    const unit = BOUGHT.test(line) ? undefined : foreignUnit(line, units);
    return [
      ...(BY_ID.test(where) ? [] : oddWords(line, { figures: false })),
      ...(unit === undefined ? [] : [unit]),
    ].map(f => `${where}: "${f}" in: ${line.slice(0, 160)}`);
  });
}

/** Reads a page as it opens and behind each of its tabs and choices. */
async function read(page: Page, where: string, units: UnitSystem): Promise<readonly string[]> {
  const found = [...(await faultsOn(page, where, units))];
  const count = (await page.$$('[role="tab"]')).length;
  for (let i = 0; i < count; i++) {
    const tab = (await page.$$('[role="tab"]'))[i];
    if (!tab) continue;
    const name = await tab.evaluate(e => e.textContent);
    await tab.evaluate(e => {
      (e as HTMLElement).focus();
      e.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 }));
    });
    await new Promise(done => setTimeout(done, 120));
    found.push(...(await faultsOn(page, `${where}, ${name}`, units)));
  }
  return found;
}

/** Two examples are read each time, one of them in both units; all of them in both where a soak asks for it. */
const READ: Readonly<Record<UnitSystem, readonly string[]>> = {
  inch: ['bramble-winter', 'wren-sliders'],
  metric: ['bramble-winter'],
};

describe.each(['inch', 'metric'] as const)('every screen in %s', units => {
  it.for(process.env.SOAK_WORDS ? PLANS : READ[units])(
    'of %s is in plain words and those units',
    { timeout: 180_000 },
    async (plan, { browser, server }) => {
      const page = await openPage(browser, DESK, { units });
      const found: string[] = [];
      await page.goto(server.at(`/plan/${plan}/rig`));
      for (const [stage, said] of STAGES) {
        await toStage(page, stage);
        await says(page, said);
        found.push(...(await read(page, stage, units)));
      }
      // a plate chosen, then the list of plans
      await toStage(page, 'cover');
      await page.keyboard.press(']');
      found.push(...(await read(page, 'a plate', units)));
      await page.goto(server.at('/'));
      await says(page, 'net');
      found.push(...(await faultsOn(page, 'the list', units)));
      expect([...new Set(found)]).toEqual([]);
      expect(page.faults).toEqual([]);
      await page.browserContext().close();
    },
  );
});
