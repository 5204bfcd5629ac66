import type { Browser, Page } from 'puppeteer-core';
import { expect, test } from 'vitest';
import { closePage, DESK, openBrowser, openPage, PHONE, TestServer } from './browser';

type Watched = Page & { faults: string[] };

/**
 * What a test in the browser is given, made when it is first asked for: a `browser` for all files that one worker goes through, a `server`
 * for a whole file, `desk` and `phone` a page of its own for every test, which is closed after it. A page on which a script broke fails its test.
 */
export const it = test.extend<{
  readonly $worker: { readonly browser: Browser };
  readonly $file: { readonly server: TestServer };
  readonly $test: { readonly desk: Watched; readonly phone: Watched };
}>({
  browser: [
    // biome-ignore lint/correctness/noEmptyPattern: the first argument of a fixture has to be taken apart
    async ({}, use) => {
      const browser = await openBrowser();
      await use(browser);
      await browser.close();
    },
    { scope: 'worker' },
  ],
  server: [
    // biome-ignore lint/correctness/noEmptyPattern: the first argument of a fixture has to be taken apart
    async ({}, use) => {
      const server = await TestServer.open();
      await use(server);
      await server.remove();
    },
    { scope: 'file' },
  ],
  desk: async ({ browser }, use) => {
    const page = await openPage(browser, DESK);
    await use(page);
    expect(page.faults).toEqual([]);
    await closePage(page);
  },
  phone: async ({ browser }, use) => {
    const page = await openPage(browser, PHONE);
    await use(page);
    expect(page.faults).toEqual([]);
    await closePage(page);
  },
});
