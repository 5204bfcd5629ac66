import { describe, expect } from 'vitest';
import {
  closePage,
  DESK,
  named,
  onward,
  openPage,
  PHONE,
  press,
  saved,
  says,
  startRun,
  storedPlan,
  walkUntil,
  words,
} from './browser';
import { it } from './fixtures';

describe('a plan fitted in phases', () => {
  it('has plates moved to a later phase, tells what each costs and which bolts are bought twice, and each has its own run', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/heron-autumn/weigh'));
    await press(page, 'phases', 'radio');
    await says(page, 'All plates are fitted at once');
    await press(page, 'Fit in phases');
    await says(page, 'No plate yet: move one here');

    await page.goto(server.at('/plan/bramble-winter/weigh'));
    await press(page, 'phases', 'radio');
    await press(page, 'Phase of plate C', 'combobox');
    await press(page, 'fuel tank and converters', 'option');
    await page.waitForSelector(
      '[aria-label="Phase 2, fuel tank and converters"] [aria-label="Phase of plate C"]',
    );
    await says(page, 'with the bolts bought twice');
    await saved(page);
    const plan = await storedPlan(server, page, 'bramble-winter');
    expect(plan.phases?.map(f => f.panels.length)).toEqual([2, 4]);
    const field = await page.waitForSelector('[aria-label="Name of phase 2"]');
    await field?.click({ count: 3 });
    await field?.type('spring');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Phase 2, spring"]');

    await page.goto(server.at('/plan/bramble-winter/run'));
    await press(page, 'What is fitted', 'combobox');
    await press(page, 'phase “spring”', 'option');
    await says(page, /Raise plate C/);
    expect(await words(page)).not.toMatch(/Raise plate A/);
    // what it takes is counted, without what only a later phase takes
    await says(page, /[1-9]\d* parts missing, \d+ tools not checked/);
    await (await named(page, 'Why the run starts with parts missing', 'textbox')).type('counted in the shed');
    await press(page, 'Start a run');
    await page.waitForFunction(() => location.pathname.startsWith('/run/'));
    expect(page.faults).toEqual([]);
    await closePage(page);

    // its bolts are changed one by one, on the phone under the vehicle
    const phone = await openPage(browser, PHONE);
    const id = await startRun(server, 'bramble-winter', `phase:${plan.phases?.[1]?.id}`);
    await phone.goto(server.at(`/run/${id}`));
    await onward(phone);
    await walkUntil(phone, /One bolt out, the new one in/);
    expect(phone.faults).toEqual([]);
    await closePage(phone);
  });

  it('refuses a run of a phase that the plan does not have', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/heron-autumn/run'));
    const answer = await page.evaluate(async () => {
      const r = await fetch('/api/documents/heron-autumn/runs', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ buildId: 'A', service: 'phase:none' }),
      });
      return [r.status, await r.text()];
    });
    expect(answer[0]).toBe(422);
    expect(answer[1]).toContain('There is no phase');
    await closePage(page);
  });
});
