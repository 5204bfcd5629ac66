// The planning stages on phones: the work has most of the screen, the frame folds away, and nothing is pushed out of the page.
import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { closePage, openPage, press, startRun, toStage } from './browser';
import { it } from './fixtures';

const STAGES = ['rig', 'cover', 'fold', 'strike', 'weigh', 'bolt', 'run', 'log'] as const;
const SIZES = [
  { width: 390, height: 844, stages: STAGES },
  { width: 360, height: 640, stages: ['cover', 'bolt', 'weigh'] },
  { width: 844, height: 390, stages: ['cover', 'bolt', 'log'] },
] as const;

/** Share of the screen that the work has: what fills the stage, less the side view that is still in sight above it. */
const workShare = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const box = document.querySelector('[data-stage-scroll]')?.getBoundingClientRect();
    const sideView = document.querySelector('[data-side-view]')?.getBoundingClientRect();
    if (!box) return 0;
    const above = Math.max(0, (sideView?.bottom ?? 0) - Math.max(box.top, sideView?.top ?? 0));
    return ((box.height - above) * box.width) / (innerWidth * innerHeight);
  });
const beyond = (page: Page): Promise<readonly number[]> =>
  page.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
    Math.max(document.documentElement.scrollTop, document.body.scrollTop),
    document.querySelector('header')?.getBoundingClientRect().top ?? -1,
  ]);
/** A finger that swipes up over the middle of the page. */
async function swipeUp(page: Page, { width, height }: { width: number; height: number }): Promise<void> {
  const touch = await page.touchscreen.touchStart(width / 2, height * 0.66);
  for (let i = 1; i <= 6; i++) await touch.move(width / 2, height * (0.66 - 0.07 * i));
  await touch.end();
}

/** Back to the top, however far a swipe still carries. */
const toTop = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () => {
      document.querySelector('[data-stage-scroll]')?.scrollTo(0, 0);
      return document.querySelector('[data-folded]') === null;
    },
    { polling: 200 },
  );

describe('on the screens of small phones', () => {
  it('every stage has 60 % of it at rest, more as it is scrolled, and stays in its page after eight swipes', async ({
    browser,
    server,
  }) => {
    const touched = { isMobile: true, hasTouch: true };
    const page = await openPage(browser, { ...SIZES[0], ...touched });
    await page.goto(server.at('/plan/bramble-winter/rig'));
    for (const stage of STAGES) {
      await toStage(page, stage);
      for (const { stages, ...size } of SIZES.filter(s => s.stages.some(t => t === stage))) {
        const where = `${stage} at ${size.width} by ${size.height}`;
        await page.setViewport({ ...size, ...touched });
        await page.waitForSelector('[data-stage-scroll]');
        await page.waitForSelector('[aria-label="Summary"] button');
        // the bench is drawn anew a moment after its page has another size
        await expect
          .poll(() => workShare(page), { message: `${where}, at rest` })
          .toBeGreaterThanOrEqual(0.6);
        const atRest = await workShare(page);
        // where long lists scroll
        if (stage === 'bolt' || stage === 'log') for (let i = 0; i < 8; i++) await swipeUp(page, size);
        expect(await beyond(page), where).toEqual([0, 0, 0, 0]);
        await toTop(page);
        await page.evaluate(() => document.querySelector('[data-stage-scroll]')?.scrollTo(0, 400));
        await page.waitForFunction(() => document.querySelector('[data-folded]') !== null);
        expect(await workShare(page), `${where}, scrolled`).toBeGreaterThan(Math.min(0.75, atRest));
        await toTop(page);
      }
    }
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('two fingers on the map', () => {
  it('zoom it, and never move the corner that one of them came down on', async ({ browser, server }) => {
    const page = await openPage(browser, { width: 390, height: 844, isMobile: true, hasTouch: true });
    await page.goto(server.at('/plan/bramble-winter/cover'));
    await press(page, 'Plate A, engine');
    const corner = await page.waitForSelector('[aria-label^="Corner 2 "], [aria-label*="orner 2"]');
    const box = await corner?.boundingBox();
    const plan = async () =>
      (await (await fetch(server.at('/api/documents/bramble-winter'))).json()) as { revision: number };
    const before = await plan();
    const [x, y] = [(box?.x ?? 0) + (box?.width ?? 0) / 2, (box?.y ?? 0) + (box?.height ?? 0) / 2];
    const one = await page.touchscreen.touchStart(x, y);
    const two = await page.touchscreen.touchStart(x + 40, y + 40);
    for (let i = 1; i <= 8; i++) {
      await one.move(x - 4 * i, y - 3 * i);
      await two.move(x + 40 + 8 * i, y + 40 + 3 * i);
    }
    await two.end();
    for (let i = 1; i <= 4; i++) await one.move(x - 32 - 5 * i, y - 24);
    await one.end();
    await page.waitForSelector('[aria-label="Whole vehicle"]');
    await new Promise(d => setTimeout(d, 1500));
    expect((await plan()).revision).toBe(before.revision);
    expect(await page.$eval('[aria-label^="Undo"]', e => (e as HTMLButtonElement).disabled)).toBe(true);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('text twice as large', () => {
  it('leaves the run readable: nothing runs out of the page sideways, and the great button is in reach', async ({
    browser,
    server,
  }) => {
    // a desk of 1280 by 800 at 200 %
    const page = await openPage(browser, { width: 640, height: 400 });
    await page.goto(server.at('/run/demo-install'));
    await page.waitForSelector('h1');
    expect((await beyond(page)).slice(0, 2), 'run').toEqual([0, 0]);
    // and text alone twice as large on a phone, as its owner sets it
    const phone = await openPage(browser, { width: 390, height: 844, isMobile: true, hasTouch: true });
    const id = await startRun(server, 'bramble-winter');
    await phone.goto(server.at(`/run/${id}`));
    await phone.waitForSelector('footer button');
    const large = await phone.evaluate(() => {
      const all = [...document.querySelectorAll<HTMLElement>('#root *')];
      const sizes = all.map(el => Number.parseFloat(getComputedStyle(el).fontSize));
      for (const [i, el] of all.entries()) el.style.fontSize = `${2 * (sizes[i] as number)}px`;
      const cut = [...document.querySelectorAll<HTMLElement>('footer button, h1, main p, main li')].filter(
        el => el.scrollWidth > el.clientWidth + 1 && getComputedStyle(el).overflow !== 'visible',
      );
      const great = document.querySelector('footer button')?.getBoundingClientRect();
      return {
        cut: cut.map(e => e.textContent),
        bottom: great?.bottom ?? 0,
        wide: document.documentElement.scrollWidth,
      };
    });
    expect(large.cut).toEqual([]);
    expect(large.wide).toBe(390);
    expect(large.bottom).toBeLessThanOrEqual(844);
    await Promise.all([page, phone].map(p => closePage(p)));
  });
});
