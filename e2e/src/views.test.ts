// Every main view, one test each, at a desk by day and on a phone by night: what a screen reader and a weak eye meet, its words and units, and its edges.

import type { UnitSystem } from '@plate-fold/core/units';
import type { Page } from 'puppeteer-core';
import { afterAll, describe, expect } from 'vitest';
import { seriousFaults } from './axe';
import { closePage, DESK, fewPlates, named, openPage, PHONE, press, says, toStage } from './browser';
import { it } from './fixtures';
import { oddOnPage } from './read-page';

/** What is looked at: where, what it says when it is there, and what is opened on it one after another. */
interface View {
  readonly path: string;
  readonly says: string | RegExp;
  /** what stands there in the other units on purpose: a torque wrench has the scale it has */
  readonly bothUnits?: RegExp;
  readonly open?: readonly {
    readonly press: string;
    readonly role?: string;
    /** where it is, where its name changes */
    readonly at?: string;
    readonly says?: string | RegExp;
  }[];
}

const tabs = (...names: string[]) => names.map(press => ({ press, role: 'tab' }));
const radios = (...names: [string, string?][]) =>
  names.map(([press, says]) => ({ press, role: 'radio', ...(says ? { says } : {}) }));

const VIEWS: Readonly<Record<string, View>> = {
  'all plans': { path: '/', says: 'Bramble' },
  'the measures and tables of a vehicle': {
    path: '/plan/wren-sliders/rig',
    says: 'Wheelbase',
    open: tabs('Measure', 'Map', 'Survey', 'Holes', 'Parts'),
  },
  'a proposed set': {
    path: '/plan/wren-sliders/cover',
    says: 'Suggest plates',
    open: [{ press: 'Suggest plates' }, { press: 'Suggest', says: /Add \d of \d plates/ }],
  },
  'a photo of the survey': {
    path: '/plan/bramble-winter/rig',
    says: 'Wheelbase',
    open: [
      { press: 'Survey', role: 'tab' },
      { press: 'a photo', at: 'section[aria-label="Photos"] li button', says: 'Mark on it' },
    ],
  },
  'a plate of Cover': {
    path: '/plan/bramble-winter/cover',
    says: 'Suggest plates',
    open: [{ press: 'Plate A, engine', role: 'button' }, ...tabs('Shape', 'Bolts')],
  },
  Fold: { path: '/plan/bramble-winter/fold', says: /\d mm|\d in/ },
  'Weigh, builds': { path: '/plan/bramble-winter/weigh', says: 'Build' },
  'Run at the desk': { path: '/plan/bramble-winter/run', says: 'Time, estimate' },
  Log: { path: '/plan/bramble-winter/log', says: 'Add an entry' },
  Strike: {
    path: '/plan/few-pebble-tray-1/strike',
    says: 'Deflection',
    open: radios(['in space'], ['as a map'], ['as a table']),
  },
  Weigh: {
    path: '/plan/few-pebble-tray-1/weigh',
    says: 'Build',
    open: radios(
      ['every sheet for a plate', 'invented defaults'],
      ['best build', 'invented defaults'],
      ['what matters', 'There is no single score'],
      ['cost', 'Extras and comparison'],
    ),
  },
  Bolt: {
    path: '/plan/heron-autumn/bolt',
    says: /torque/i,
    open: tabs(
      'Choose for me',
      'Will it bolt up',
      'Torques',
      'Drilling',
      'Factory parts',
      'Hardware list',
      'Tools',
      'Kit check',
    ),
  },
  'a run on the floor, ended': {
    path: '/run/demo-install',
    says: 'As built',
    bothUnits: /: [\d.]+ (?:N·m|ft·lb)$/,
  },
};

/** How far the page runs out of its window: to the side, and down. */
const beyond = (page: Page): Promise<readonly [number, number]> =>
  page.evaluate(
    () =>
      new Promise<[number, number]>(done =>
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            const { scrollWidth, scrollHeight } = document.documentElement;
            done([scrollWidth - innerWidth, scrollHeight - innerHeight]);
          }),
        ),
      ),
  );

/** What the page does wrong as it stands. */
async function faultsOf(
  page: Page,
  units: UnitSystem,
  { bothUnits }: View,
  opened: boolean,
): Promise<readonly string[]> {
  const [aside] = await beyond(page);
  return [
    ...(await seriousFaults(page, { within: opened })),
    ...(await oddOnPage(page, units)).filter(f => !bothUnits?.test(f)),
    ...(aside > 0 ? [`runs out of the page sideways by ${aside}`] : []),
  ];
}

/** A page and all that is opened on it, each looked at. */
async function sweep(page: Page, view: View, units: UnitSystem): Promise<readonly string[]> {
  const found: string[] = [];
  const look = async (where?: string): Promise<void> => {
    const faults = await faultsOf(page, units, view, where !== undefined);
    found.push(...faults.map(f => `${where ?? 'as it opens'}: ${f}`));
  };
  await says(page, view.says, 90_000);
  await look();
  for (const o of view.open ?? []) {
    // a button of a page that folds its head as it scrolls is pressed where it is, not where it was
    if (o.role) await press(page, o.press, o.role);
    else
      await (o.at ? await page.waitForSelector(o.at) : await named(page, o.press, 'button'))?.evaluate(e =>
        (e as HTMLElement).click(),
      );
    if (o.says) await says(page, o.says, 90_000);
    await look(o.press);
  }
  return found;
}

/** Windows that a desk has besides the usual one; the smallest is 1280 by 800 with all twice as large. */
const WINDOWS = [
  { width: 768, height: 1024 },
  { width: 2560, height: 1300 },
  { width: 640, height: 400 },
];

describe.each([
  ['at a desk by day, in inches', DESK, 'light', 'inch'],
  ['on a phone by night, in millimeters', PHONE, 'dark', 'metric'],
] as const)('nothing is wrong for a screen reader, odd, or cut off %s', (_, view, theme, units) => {
  /** one page for all views; from stage to stage of a plan it goes as a reader does, with what was struck */
  let page: Awaited<ReturnType<typeof openPage>> | undefined;
  afterAll(() => page && closePage(page));
  it.for(Object.keys(VIEWS))('in %s', { timeout: 180_000 }, async (name, { browser, server }) => {
    const { path } = VIEWS[name]!;
    page ??= await openPage(browser, view, { theme, units });
    if (path.includes('/few-')) await fewPlates(server, 'pebble', ['plate-1']);
    const [, , plan, stage] = path.split('/');
    const here = new URL(page.url() === 'about:blank' ? server.at('/none') : page.url()).pathname;
    if (stage !== undefined && here.startsWith(`/plan/${plan}/`)) await toStage(page, stage);
    else await page.goto(server.at(path));
    expect(await sweep(page, VIEWS[name]!, units)).toEqual([]);
    if (view === DESK && !name.includes('photo') && !name.includes('set')) {
      for (const w of WINDOWS) {
        await page.setViewport(w);
        const [aside, down] = await beyond(page);
        expect(aside, `sideways at ${w.width}`).toBeLessThanOrEqual(0);
        if (w.height < 500 && stage !== undefined) expect(down, `down at ${w.width}`).toBe(0);
      }
      await page.setViewport(view);
    }
    expect(page.faults).toEqual([]);
  });
});

describe('the sweep itself', () => {
  it('finds a button without a name', async ({ desk, server }) => {
    await desk.goto(server.at('/'));
    await says(desk, 'Bramble');
    await desk.evaluate(() =>
      document.querySelector('main, #root')?.append(document.createElement('button')),
    );
    expect((await seriousFaults(desk)).join()).toMatch(/button-name/);
  });
});
