import { readFile } from 'node:fs/promises';
import { readDxf } from '@plate-fold/core/formats';
import { blankPlan } from '@plate-fold/core/plan';
import { stiffened } from '@plate-fold/core/testing';
import { demo } from '@plate-fold/demo';
import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import {
  closePage,
  DESK,
  downloadsOf,
  openPage,
  PHONE,
  press,
  saved,
  savedFile,
  says,
  startRun,
  storedPlan,
  toStage,
  undo,
  walkUntil,
} from './browser';
import { it } from './fixtures';

const COVER = '/plan/bramble-winter/cover';
/** Presses a place on the map of the underside, mm behind the front axle and right of the middle. */
async function tap(page: Page, x: number, y: number): Promise<void> {
  // the map's scale from two of its figures: 0 and 100 inches
  const at = await page.$eval(
    '[aria-label="Map of the underside"]',
    (svg, [mx, my]) => {
      const marks = [...svg.querySelectorAll('text')].filter(t => /^[−\d]+$/.test(t.textContent ?? ''));
      const px = (label: string): number =>
        Number(marks.find(t => t.textContent === label)?.getAttribute('x')) - 3;
      const box = svg.getBoundingClientRect();
      const k = (px('100') - px('0')) / 2540;
      // seen from below, head to the front: the driver's left is up
      return [
        box.left + px('0') + (mx as number) * k,
        box.top + box.height / 2 + (my as number) * k,
      ] as const;
    },
    [x, y],
  );
  await page.mouse.click(at[0], at[1]);
}

describe('a bracket', () => {
  it('is hung between a free hole and a plate by two presses, seen from the front, made thicker, and cut', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at(COVER));
    await press(page, 'Add a bracket');
    await says(page, 'Tap a free hole of the vehicle');
    await tap(page, 2100, -435);
    await says(page, 'Tap the plate where the bracket is bolted');
    await tap(page, 2100, -335);
    await says(page, 'Z bracket');
    await says(page, /from the driver’s side frame rail to plate D/);
    await page.waitForSelector('[aria-label^="Cut across the vehicle 82.6"]');
    await saved(page);
    let plan = await storedPlan(server, page, 'bramble-winter');
    // beside the three hangers that are there
    let bracket = plan.panels.filter(p => p.role === 'bracket').at(-1);
    expect(bracket?.mark).toBe('K4');
    expect(
      plan.joints
        .filter(j => j.panels.includes(bracket?.id ?? ''))
        .map(j => j.nut)
        .sort(),
    ).toEqual(['clinch', 'flange-serrated']);
    await press(page, 'Bracket’s thickness', 'combobox');
    await press(page, '1/4 in', 'option');
    await saved(page);
    plan = await storedPlan(server, page, 'bramble-winter');
    bracket = plan.panels.filter(p => p.role === 'bracket').at(-1);
    expect(bracket?.sheet?.thickness).toBeCloseTo(6.35, 6);
    // no twin where no plate lies
    await press(page, 'Twin on the other side');
    await says(page, 'No plate lies opposite');
    // it goes to the shop with its two holes
    await page.goto(server.at('/plan/bramble-winter/fold'));
    await press(page, 'K4 Z bracket', 'radio');
    const folder = await downloadsOf(page);
    await press(page, 'Blank, DXF');
    const read = readDxf(await readFile(await savedFile(folder, /\.dxf$/), 'utf8'));
    expect(read.ok && read.value.plates).toHaveLength(1);
    expect(read.ok && read.value.plates[0]?.holes.length).toBe(2);
    // and up before the plate that hangs on it
    await page.goto(server.at('/plan/bramble-winter/run'));
    await says(page, 'Hold bracket K4, Z bracket, at its hole');
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('that cannot be made is refused with the reason, on a phone too, and nothing is lost', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, PHONE);
    await page.goto(server.at(COVER));
    await saved(page);
    const before = await storedPlan(server, page, 'bramble-winter');
    await press(page, 'Add a bracket');
    await tap(page, 1300, -435);
    await says(page, 'Tap the plate where the bracket is bolted');
    await tap(page, 1300, -300);
    await says(page, /transfer case is in the way/i);
    expect(await storedPlan(server, page, 'bramble-winter')).toEqual(before);
    await press(page, 'Stop');
    await closePage(page);
  });

  it('is a hat where two holes are pressed, with a bolt in each and one in the plate', async ({
    browser,
    server,
  }) => {
    const made = stiffened(demo('bramble'));
    const document = {
      ...made,
      rig: { ...made.rig, id: 'stiffened' },
      plan: { ...made.plan, id: 'stiffened', rigId: 'stiffened' },
    };
    const sent = await fetch(server.at('/api/documents'), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document }),
    });
    expect(sent.status).toBe(201);
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/stiffened/cover'));
    await saved(page);
    await press(page, 'Add a bracket');
    await tap(page, 1400, -40);
    await says(page, 'or a second hole for a hat between both');
    await tap(page, 1400, -200);
    await says(page, 'Hat bracket');
    const stored = await storedPlan(server, page, 'stiffened');
    const hat = stored.panels.filter(p => p.role === 'bracket').at(-1);
    expect(stored.joints.filter(j => j.panels.includes(hat?.id ?? '')).map(j => j.mount)).toEqual([
      'in-1',
      'out-1',
      undefined,
    ]);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('is a plate with threads on top of a member where a bolt is told to go through, and its hole is tapped', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK, { units: 'metric' });
    await page.goto(server.at('/plan/bramble-winter/bolt'));
    await page.locator('::-p-xpath(//button[starts-with(normalize-space(.), "j28")])').click();
    await says(page, 'into the third crossmember');
    await page.locator('::-p-text(Change its hardware)').click();
    await press(page, 'Thread in a top plate on the third crossmember');
    await says(page, /through the third crossmember into top plate K\d/);
    await page.waitForSelector('[aria-label*="3/8 in steel, tapped"]');
    await saved(page);
    const { panels, joints } = await storedPlan(server, page, 'bramble-winter');
    const top = panels.find(p => p.name === 'top plate');
    expect(joints.find(j => j.id === 'j28')).toMatchObject({ threadIn: top?.id, nut: 'none' });
    await toStage(page, 'fold');
    await press(page, `${top?.mark} top plate`, 'radio');
    await says(page, /⌀6\.8 mm tapped M8x1\.25/);
    await toStage(page, 'cover');
    await undo(page);
    await page.waitForFunction(() => !document.body.innerText.includes('top plate'));
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('comes with a suggested set whose crossmember is too high for spacers, is made ready on the bench and hung as the run says', async ({
    browser,
    server,
  }) => {
    // Bramble with its fourth crossmember as high as some have it, and nothing under it yet
    const { rig } = demo('bramble');
    const up = 100;
    const bare = blankPlan(
      {
        ...rig,
        id: 'high-crossmember',
        members: rig.members.map(m =>
          m.id === 'cross-4' ? { ...m, zBottom: m.zBottom + up, zTop: m.zTop + up } : m,
        ),
        mounts: rig.mounts.map(h =>
          h.member === 'cross-4' ? { ...h, at: [h.at[0], h.at[1], h.at[2] + up] as const } : h,
        ),
      },
      'high-crossmember',
      'high crossmember',
    );
    const sent = await fetch(server.at('/api/documents'), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: bare }),
    });
    expect(sent.status).toBe(201);
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/high-crossmember/cover'));
    await press(page, 'Suggest plates');
    await press(page, 'Suggest');
    await says(page, /Hung by (a bracket|\d brackets) from/);
    await says(page, /Add 5 of 5 plates/);
    await page.locator('::-p-text(Add 5 of 5 plates)').click();
    await says(page, 'The whole set');
    await saved(page);
    const plan = await storedPlan(server, page, 'high-crossmember');
    const brackets = plan.panels.filter(p => p.role === 'bracket');
    expect(brackets.length).toBeGreaterThan(1);
    await page.goto(server.at('/plan/high-crossmember/run'));
    for (const b of brackets) {
      await says(page, new RegExp(`Prepare brackets? [^.]*${b.mark}\\b[^.]* on the bench`));
      await says(page, `Hold bracket ${b.mark}`);
    }
    expect(page.faults).toEqual([]);
    await closePage(page);

    const phone = await openPage(browser, PHONE);
    const id = await startRun(server, 'high-crossmember');
    await phone.goto(server.at(`/run/${id}`));
    await walkUntil(phone, /Prepare brackets? .*K1\b.* on the bench/);
    await walkUntil(phone, /On the underside of the .* comes .* lower/);
    expect(phone.faults).toEqual([]);
    await closePage(phone);
  });
});
