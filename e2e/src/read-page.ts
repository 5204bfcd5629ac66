// A page read as its reader would, in plain words and in the units that were chosen.
import { foreignUnit, oddWords } from '@plate-fold/core/testing';
import type { UnitSystem } from '@plate-fold/core/units';
import type { Page } from 'puppeteer-core';

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
const BY_ID = ['Parts', 'Frame', 'Holes', 'Service', 'Factory parts'];

/** Odd words and foreign units on the page as it stands, as lines for people. */
export async function oddOnPage(page: Page, units: UnitSystem): Promise<readonly string[]> {
  const tab = await page.evaluate(() =>
    location.pathname.endsWith('/rig')
      ? (document.querySelector('[role="tab"][aria-selected="true"]')?.textContent ?? '')
      : '',
  );
  return (await linesOf(page)).flatMap(line => {
    const unit = BOUGHT.test(line) ? undefined : foreignUnit(line, units);
    return [
      ...(BY_ID.includes(tab) ? [] : oddWords(line, { figures: false })),
      ...(unit === undefined ? [] : [unit]),
    ].map(f => `"${f}" in: ${line.slice(0, 160)}`);
  });
}

/** Does something behind each tab of the page. */
export async function behindTabs(page: Page, act: (tab: string) => Promise<void>): Promise<void> {
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
    await act(name);
  }
}
