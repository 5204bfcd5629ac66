import type { PlanDocument } from '@plate-fold/core/plan';
import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { named, press, saved, says, storedPlan, type TestServer, undo } from './browser';
import { it } from './fixtures';

const COVER = '/plan/bramble-winter/cover';
const stored = (server: TestServer, page: Page) => storedPlan(server, page, 'bramble-winter');
/** The plan as the server has it now. */
const whole = async (server: TestServer): Promise<PlanDocument> =>
  ((await (await fetch(server.at('/api/documents/bramble-winter'))).json()) as { document: PlanDocument })
    .document;
const undoLabel = (page: Page): Promise<string | null> =>
  page.$eval('button[aria-label^="Undo"]', e => e.getAttribute('aria-label'));
/** Middle of what matches, on the screen. */
async function middle(page: Page, selector: string): Promise<readonly [number, number]> {
  const box = await (await page.waitForSelector(selector))?.boundingBox();
  if (!box) throw new Error(`nothing to be seen of ${selector}`);
  return [box.x + box.width / 2, box.y + box.height / 2];
}
const CORNER = '[aria-label^="Corner 1 of plate B"]';
const place = (page: Page): Promise<string | null> => page.$eval(CORNER, e => e.getAttribute('aria-label'));

describe('a corner that is dragged', () => {
  it('is shown where it is held, is put back by Escape, and is one change when it is let go', async ({
    desk: page,
    server,
  }) => {
    await page.goto(server.at(COVER));
    await press(page, 'Plate B, transmission');
    const [x, y] = await middle(page, CORNER);
    const before = await place(page);
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 30, y + 12, { steps: 6 });
    await page.waitForFunction(
      (s, was) => document.querySelector(s)?.getAttribute('aria-label') !== was,
      {},
      CORNER,
      before,
    );
    // nothing has been done yet
    expect(await undoLabel(page)).toBe('Undo');
    expect(await page.$('[data-save="saved"]')).not.toBeNull();
    await page.keyboard.press('Escape');
    await page.waitForFunction(
      (s, was) => document.querySelector(s)?.getAttribute('aria-label') === was,
      {},
      CORNER,
      before,
    );
    await page.mouse.move(x + 50, y + 20, { steps: 3 });
    await page.mouse.up();
    expect(await place(page)).toBe(before);
    expect(await undoLabel(page)).toBe('Undo');
    // the plate is still chosen: Escape dropped what was held, and no more
    const [again, there] = await middle(page, CORNER);
    const held = await stored(server, page);
    await page.mouse.move(again, there);
    await page.mouse.down();
    await page.mouse.move(again + 30, there + 12, { steps: 8 });
    await page.mouse.up();
    await page.waitForFunction(
      () =>
        document.querySelector('button[aria-label^="Undo"]')?.getAttribute('aria-label') ===
        'Undo: move a corner of plate B',
    );
    await saved(page);
    const after = await stored(server, page);
    expect(after).not.toEqual(held);
    // one step, whatever the way was
    await undo(page);
    await page.waitForFunction(
      (s, was) => document.querySelector(s)?.getAttribute('aria-label') === was,
      {},
      CORNER,
      before,
    );
    expect(await undoLabel(page)).toBe('Undo');
    await page.waitForFunction(
      () =>
        document.querySelector('button[aria-label^="Redo"]')?.getAttribute('aria-label') ===
        'Redo: move a corner of plate B',
    );
  });
});

describe('the wheel over the map', () => {
  it('zooms the sheet and neither scrolls nor zooms the page, with Ctrl and without', async ({
    desk: page,
    server,
  }) => {
    await page.goto(server.at(COVER));
    const [x, y] = await middle(page, '[aria-label="Map of the underside"]');
    await page.evaluate(() => {
      const seen: boolean[] = [];
      Object.assign(window, { seen });
      window.addEventListener('wheel', e => void seen.push(e.defaultPrevented));
    });
    await page.mouse.move(x, y);
    await page.mouse.wheel({ deltaY: -240 });
    await page.waitForSelector('[aria-label="Whole vehicle"]:not([disabled])');
    await page.keyboard.down('Control');
    await page.mouse.wheel({ deltaY: -240 });
    await page.keyboard.up('Control');
    await page.waitForFunction(() => (window as unknown as { seen: boolean[] }).seen.length >= 2);
    const { seen, scale, scrolled } = await page.evaluate(() => ({
      seen: (window as unknown as { seen: boolean[] }).seen,
      scale: window.visualViewport?.scale,
      scrolled: document.querySelector('[data-stage-scroll]')?.scrollTop ?? 0,
    }));
    expect(seen.every(Boolean)).toBe(true);
    expect(scale).toBe(1);
    expect(scrolled).toBe(0);
  });
});

describe('fields', () => {
  it('a name that was typed and undone is not written back when its field is left', async ({
    desk: page,
    server,
  }) => {
    await page.goto(server.at('/plan/bramble-winter/rig'));
    const name = await named(page, 'Name', 'textbox');
    const old = await name?.evaluate(e => (e as HTMLInputElement).value);
    await name?.click({ count: 3 });
    await page.keyboard.type('Thistle');
    await page.keyboard.press('Enter');
    await says(page, 'Thistle');
    await name?.click({ count: 3 });
    await page.keyboard.type('Nettle');
    // undone while it is still being typed over
    await page.$eval('button[aria-label^="Undo"]', e => {
      (e as HTMLButtonElement).click();
    });
    await page.waitForFunction((e, was) => (e as HTMLInputElement).value === was, {}, name, old);
    await page.keyboard.press('Tab');
    expect(await undoLabel(page)).toBe('Undo');
    await saved(page);
    expect(((await stored(server, page)) as unknown as { rig: { name: string } }).rig?.name ?? old).toBe(old);
  });
  it('one cell of a table in inches changes that figure and nothing else of the plan', async ({
    desk: page,
    server,
  }) => {
    await page.goto(server.at('/plan/bramble-winter/rig'));
    const read = () => whole(server);
    const before = await read();
    await press(page, 'Parts', 'tab');
    const cell = await named(page, 'clearance of pan-six', 'textbox');
    await cell?.click({ count: 3 });
    await page.keyboard.type('1.5');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () =>
        document.querySelector('button[aria-label^="Undo"]')?.getAttribute('aria-label') ===
        'Undo: enter the clearance of pan-six',
    );
    await saved(page);
    const after = await read();
    const [part] = after.rig.components.filter(c => c.id === 'pan-six');
    expect(part?.keepOut).toBeCloseTo(38.1, 9);
    expect({
      ...after,
      rig: {
        ...after.rig,
        components: after.rig.components.map(c =>
          c.id === 'pan-six' ? { ...c, keepOut: before.rig.components.find(x => x.id === c.id)?.keepOut } : c,
        ),
      },
    }).toEqual(before);
  });
});
