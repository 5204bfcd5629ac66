// What a screen reader and a weak eye meet: every main view, at a desk by day and on a phone by night, one test a view.
import type { Page } from 'puppeteer-core';
import { afterAll, describe, expect } from 'vitest';
import { seriousFaults } from './axe';
import { DESK, openPage, PHONE, press, says, toStage } from './browser';
import { it } from './fixtures';

/** What is looked at: where, what it says when it is there, and what is opened on it one after another. */
interface View {
  readonly path: string;
  readonly says: string | RegExp;
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
    path: '/plan/pebble-tray/strike',
    says: 'Deflection',
    open: radios(['in space'], ['as a map'], ['as a table']),
  },
  Weigh: {
    path: '/plan/pebble-tray/weigh',
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
  'a run on the floor, ended': { path: '/run/demo-install', says: 'As built' },
};

/** A page and all that is opened on it, each swept. */
async function sweep(page: Page, view: View): Promise<readonly string[]> {
  await says(page, view.says, 90_000);
  const found = (await seriousFaults(page)).map(f => `as it opens: ${f}`);
  for (const o of view.open ?? []) {
    // a button of a page that folds its head as it scrolls is pressed where it is, not where it was
    if (o.role) await press(page, o.press, o.role);
    else
      await (await page.waitForSelector(o.at ?? `aria/${o.press}[role="button"]`))?.evaluate(e =>
        (e as HTMLElement).click(),
      );
    if (o.says) await says(page, o.says, 90_000);
    found.push(...(await seriousFaults(page)).map(f => `${o.press}: ${f}`));
  }
  return found;
}

describe.each([
  ['at a desk by day', DESK, 'light'],
  ['on a phone by night', PHONE, 'dark'],
] as const)('axe finds nothing serious %s', (_, view, theme) => {
  /** one page for all views; from stage to stage of a plan it goes as a reader does, with what was struck */
  let page: Awaited<ReturnType<typeof openPage>> | undefined;
  afterAll(() => page?.browserContext().close());
  it.for(Object.keys(VIEWS))('in %s', { timeout: 180_000 }, async (name, { browser, server }) => {
    const { path } = VIEWS[name]!;
    page ??= await openPage(browser, view, { theme });
    const [, , plan, stage] = path.split('/');
    const here = new URL(page.url() === 'about:blank' ? server.at('/none') : page.url()).pathname;
    if (stage !== undefined && here.startsWith(`/plan/${plan}/`)) await toStage(page, stage);
    else await page.goto(server.at(path));
    expect(await sweep(page, VIEWS[name]!)).toEqual([]);
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
