import { readFile } from 'node:fs/promises';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { seriousFaults } from './axe';
import {
  closePage,
  DESK,
  downloadsOf,
  fill,
  goToStep,
  onward,
  openPage,
  PHONE,
  press,
  saved,
  savedFile,
  says,
  startRun,
  TestServer,
  ticksOf,
  undo,
  walkUntil,
} from './browser';
import { it } from './fixtures';

const COVER = '/plan/bramble-winter/cover';

const stored = async (at: TestServer, plan: string): Promise<PlanDocument> =>
  ((await (await fetch(at.at(`/api/documents/${plan}`))).json()) as { document: PlanDocument }).document;
/** Another sheet for plate D, as one press. */
async function anotherSheet(page: Page): Promise<void> {
  await press(page, 'Plate D, fuel tank');
  await says(page, 'Sheet in build “3/16 steel”');
  await press(page, 'Aluminum 5052-H32', 'radio');
}
const done = (page: Page): Promise<number> =>
  page.$eval('[role="progressbar"]', e => Number(e.getAttribute('aria-valuenow')));
/** Leaves no room in the store of a page for keys that begin so. */
const fillStore = (page: Page, prefix: string): Promise<void> =>
  page.evaluate(p => {
    const set = Storage.prototype.setItem;
    Storage.prototype.setItem = function (key: string, value: string) {
      if (key.startsWith(p)) throw new DOMException('full', 'QuotaExceededError');
      set.call(this, key, value);
    };
  }, prefix);

describe('a run', () => {
  it('loaded again while the server is away shows every tick, and a tick without a reading wipes none', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    try {
      const id = await startRun(own, 'pebble-tray');
      const page = await openPage(browser, PHONE, { units: 'metric' });
      await page.goto(own.at(`/run/${id}`));
      await walkUntil(page, /Plate B: tighten to 60 %/);
      const target = Number(await page.$eval('[aria-label="Torque"] .fig', e => e.textContent));
      // no wrench reads that: told where it is typed, and not taken
      await fill(page, 'Wrench reads', '1200');
      await says(page, 'not above 1000');
      await fill(page, 'Wrench reads', String(target));
      await says(page, 'on target');
      await onward(page);
      await page.waitForSelector('[data-bolt="j-10"][data-look="done"]');
      await page.waitForFunction(
        async run => {
          const r = (await (await fetch(`/api/runs/${run}`)).json()) as { ticks: { jointId: string }[] };
          return r.ticks.some(t => t.jointId === 'j-10');
        },
        { polling: 200 },
        id,
      );
      const before = await done(page);
      expect(before).toBeGreaterThan(6);
      // the service worker has the page by now
      await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active !== null);
      await own.stop();
      await page.reload();
      await page.waitForSelector('[role="progressbar"]');
      expect(await done(page)).toBe(before);
      await goToStep(page, 'Plate B: tighten to 60 %');
      await page.waitForSelector('[data-bolt="j-10"][data-look="done"]');
      await own.start();
      await page.reload();
      await page.waitForSelector('[role="progressbar"]');
      // ticked once more from another device, without a figure
      const of = (await ticksOf(own, id)).find(t => t.jointId === 'j-10' && t.torqueNm);
      await fetch(own.at(`/api/runs/${id}/ticks`), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ticks: [{ ...of, id: 'later', torqueNm: null, at: (of?.at ?? 0) + 1000 }] }),
      });
      await page.reload();
      await goToStep(page, 'Plate B: tighten to 60 %');
      await press(page, 'Bolt 1, j-10, done');
      expect(await page.$eval('#reading', e => Number((e as HTMLInputElement).placeholder))).toBe(target);
      expect(page.faults).toEqual([]);
      await closePage(page);
    } finally {
      await own.remove();
    }
  });

  it('on a device whose store is full goes on, says what only the page has, and sends it', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    try {
      const id = await startRun(own, 'pebble-tray');
      const page = await openPage(browser, PHONE);
      await page.goto(own.at(`/run/${id}`));
      await page.waitForSelector('footer button');
      await fillStore(page, 'plate-fold tick');
      await own.stop();
      await onward(page);
      await says(page, '1 tick is only on this page: this device’s storage is full');
      await onward(page);
      await says(page, '2 ticks are only on this page');
      // leaving asks first; staying keeps them
      const asked = new Promise<string>(said =>
        page.once('dialog', d => {
          said(d.type());
          void d.dismiss();
        }),
      );
      await page.evaluate(() => setTimeout(() => location.reload(), 0));
      expect(await asked).toBe('beforeunload');
      await own.start();
      await page.waitForFunction(() => !/only on this page/.test(document.body.innerText), {
        timeout: 90_000,
      });
      expect(await ticksOf(own, id)).toHaveLength(2);
      await closePage(page);
    } finally {
      await own.remove();
    }
  });

  it('with a tick that the server will not take sets it aside, says so, and sends the others', async ({
    browser,
    server,
  }) => {
    const id = await startRun(server, 'pebble-tray');
    const page = await openPage(browser, PHONE);
    await page.goto(server.at(`/run/${id}`));
    await page.waitForSelector('footer button');
    await page.evaluate(run => {
      const bad = {
        id: 'bad',
        stepId: 'kit',
        jointId: null,
        kind: 'done',
        torqueNm: 1200,
        at: 5,
        device: 'x',
      };
      localStorage.setItem(`plate-fold tick ${run} bad`, JSON.stringify(bad));
    }, id);
    await onward(page);
    await says(page, /One tick was not taken: the torque reading is not between 0 and 1000 N·m .* set aside/);
    expect((await ticksOf(server, id)).map(t => t.stepId)).toEqual(['options']);
    expect(
      await page.evaluate(
        run => Object.keys(localStorage).filter(k => k.includes(run) && !k.startsWith('plate-fold run')),
        id,
      ),
    ).toEqual([`plate-fold aside ${id} bad`]);
    await onward(page);
    await says(page, /3 of \d+/);
    await closePage(page);
  });
});

describe('edits', () => {
  it('followed at once by another plan are saved', async ({ browser }) => {
    const own = await TestServer.open();
    try {
      const page = await openPage(browser, DESK);
      await page.goto(own.at(COVER));
      await press(page, 'Plate D, fuel tank');
      await says(page, 'Sheet in build “3/16 steel”');
      await page.evaluate(() => {
        const radio = [...document.querySelectorAll<HTMLElement>('[role="radio"], input[type="radio"]')].find(
          e =>
            /Aluminum 5052-H32/.test(
              e.getAttribute('aria-label') ?? e.textContent ?? e.closest('label')?.textContent ?? '',
            ),
        );
        radio?.click();
        document.querySelector<HTMLElement>('a[aria-label="Plate Fold, all plans"]')?.click();
      });
      await page.waitForSelector('a[href="/plan/heron-belly/cover"], a[href^="/plan/pebble"]');
      await page.evaluate(() => document.querySelector<HTMLElement>('a[href^="/plan/pebble"]')?.click());
      await page.waitForSelector('[aria-label="Summary"]');
      await page.waitForFunction(
        async () => {
          const r = (await (await fetch('/api/documents/bramble-winter')).json()) as {
            document: { plan: { builds: { sheets: Record<string, { material: string }> }[] } };
          };
          return r.document.plan.builds[0]?.sheets['plate-d']?.material === 'al-5052-h32';
        },
        { polling: 200 },
      );
      await page.waitForFunction(
        () => !Object.keys(localStorage).some(k => k.startsWith('plate-fold draft')),
      );
      expect((await stored(own, 'pebble-tray')).plan.id).toBe('pebble-tray');
      expect(page.faults).toEqual([]);
      await closePage(page);
    } finally {
      await own.remove();
    }
  });

  it('on a device whose store is full are still saved, and called what they are while they are not', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    try {
      const page = await openPage(browser, DESK);
      await page.goto(own.at(COVER));
      await page.waitForSelector('[aria-label="Summary"]');
      await fillStore(page, 'plate-fold draft');
      await own.stop();
      await anotherSheet(page);
      await says(page, 'offline: only on this page, keep it open');
      await own.start();
      await page.waitForSelector('[data-save="saved"]', { timeout: 90_000 });
      expect((await stored(own, 'bramble-winter')).plan.builds[0]?.sheets['plate-d']?.material).toBe(
        'al-5052-h32',
      );
      await closePage(page);
    } finally {
      await own.remove();
    }
  });

  it('of a tab and of one that was made as its copy are two drafts', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at(COVER));
    await page.waitForSelector('[aria-label="Summary"]');
    const name = await page.evaluate(() => sessionStorage.getItem('plate-fold tab'));
    const opened = new Promise<Page>(found =>
      page.browserContext().once('targetcreated', t => void t.page().then(p => p && found(p))),
    );
    // a window that a page opens gets a copy of its session's store, as a doubled tab does
    await page.evaluate(() => void window.open(location.href, '_blank'));
    const copy = await opened;
    await copy.waitForSelector('[aria-label="Summary"]');
    const other = await copy.evaluate(() => sessionStorage.getItem('plate-fold tab'));
    expect([name, other].every(n => typeof n === 'string' && n.length > 4)).toBe(true);
    expect(other).not.toBe(name);
    await page.reload();
    await page.waitForSelector('[aria-label="Summary"]');
    expect(await page.evaluate(() => sessionStorage.getItem('plate-fold tab'))).toBe(name);
    await closePage(page);
  });
});

describe('versions', () => {
  it('are seen, told apart in words, and brought back; one that came too late as well', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    try {
      const page = await openPage(browser, DESK, { units: 'metric' });
      await page.goto(own.at(COVER));
      const before = (await stored(own, 'bramble-winter')).plan;
      await anotherSheet(page);
      await saved(page);
      // somebody else comes too late
      const late = { ...(await stored(own, 'bramble-winter')) };
      await fetch(own.at('/api/documents/bramble-winter'), {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          baseRevision: 1,
          document: { ...late, plan: { ...late.plan, name: 'late' } },
        }),
      });
      await press(page, 'Menu');
      await press(page, 'Versions', 'menuitem');
      await says(page, 'Not saved in time, made from revision 1');
      await page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('[role=dialog] li button')]
          .find(b => b.textContent?.includes('Not saved in time'))
          ?.click(),
      );
      await says(page, /The plan is called/i);
      await page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('[role=dialog] li button')]
          .find(b => /^Revision 1/.test(b.textContent ?? ''))
          ?.click(),
      );
      await says(page, /build “3\/16 steel”: plate D of .*5052/i);
      expect(await seriousFaults(page)).toEqual([]);
      await press(page, 'Restore this version');
      await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
      const builds = async () => (await stored(own, 'bramble-winter')).plan.builds;
      await expect.poll(builds).toEqual(before.builds);
      await undo(page);
      await expect.poll(builds).not.toEqual(before.builds);
      expect(page.faults).toEqual([]);
      await closePage(page);
    } finally {
      await own.remove();
    }
  });
});

describe('an archive', () => {
  it('of a plan is saved and taken in again: cancel, keep both, replace', async ({ browser }) => {
    const own = await TestServer.open();
    try {
      const page = await openPage(browser, DESK);
      const folder = await downloadsOf(page);
      await page.goto(own.at(COVER));
      await press(page, 'Menu');
      await press(page, 'Save with runs, log and photos (zip)', 'menuitem');
      const path = await savedFile(folder, /^bramble-winter-.*\.platefold\.zip$/);
      expect((await readFile(path)).subarray(0, 2).toString()).toBe('PK');
      const plans = async () =>
        ((await (await fetch(own.at('/api/documents'))).json()) as { id: string }[]).map(d => d.id);
      const take = async (): Promise<void> => {
        await page.goto(own.at('/'));
        const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
          uploadFile(p: string): Promise<void>;
        };
        await input.uploadFile(path);
        await says(page, 'You already have this plan');
      };
      await take();
      expect(await seriousFaults(page)).toEqual([]);
      await press(page, 'Cancel');
      expect(await plans()).toHaveLength(4);
      await take();
      await press(page, 'Keep both');
      await page.waitForSelector('[aria-label="Summary"]');
      expect(page.url()).toContain('/plan/bramble-winter-2/cover');
      expect(await plans()).toHaveLength(5);
      await page.goto(own.at(COVER));
      await anotherSheet(page);
      await saved(page);
      await take();
      await press(page, 'Replace mine: its runs and log are deleted');
      await page.waitForSelector('[aria-label="Summary"]');
      expect((await stored(own, 'bramble-winter')).plan.builds[0]?.sheets['plate-d']?.material).not.toBe(
        'al-5052-h32',
      );
      expect(page.faults).toEqual([]);
      await closePage(page);
    } finally {
      await own.remove();
    }
  });
});

describe('a page older than the build', () => {
  it.for([
    ['loads itself anew when a part of it is gone', 'new', false],
    ['stays as it is when the server is only away', 'away', true],
  ] as const)('%s', async ([, how, stays], { browser, server }) => {
    // no file of the program lies on the device
    const page = await openPage(browser, DESK, { fresh: true });
    await page.goto(server.at(COVER));
    await page.waitForSelector('[aria-label="Summary"]');
    await page.evaluate(() => Object.assign(window, { mark: true }));
    await page.setRequestInterception(true);
    let asked = 0;
    page.on('request', r => {
      const { pathname } = new URL(r.url());
      const fetched = r.resourceType() === 'fetch';
      if (/^\/assets\/fold-stage/.test(pathname) && asked === 0)
        void (how === 'away' ? r.abort() : r.respond({ status: 404, body: '' }));
      else if (pathname === '/' && fetched) {
        asked++;
        void (how === 'away'
          ? r.abort()
          : r.respond({
              contentType: 'text/html',
              body: '<script type="module" src="/assets/later.js"></script>',
            }));
      } else void r.continue();
    });
    await page.evaluate(() => document.querySelector<HTMLElement>('a[href$="/fold"]')?.click());
    if (stays) {
      await says(page, 'Something went wrong on this page');
      expect(await page.evaluate(() => 'mark' in window)).toBe(true);
    } else {
      await page.waitForFunction(() => !('mark' in window));
      await page.waitForSelector('[aria-label="Summary"]');
    }
    expect(asked).toBeGreaterThan(0);
    await page.browserContext().close();
  });
});
