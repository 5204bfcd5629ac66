import { mkdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Page } from 'puppeteer-core';
import {
  DESK,
  goToStep,
  named,
  onward,
  openBrowser,
  openPage,
  PHONE,
  press,
  says,
  TestServer,
  type View,
} from './browser';

const OUT = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));

interface Shot {
  readonly name: string;
  readonly path: string;
  readonly view: View;
  readonly theme?: 'light' | 'dark';
  readonly before?: (page: Page) => Promise<unknown>;
}

/** Goes to the last torque of plate A, two of its bolts clicked. */
async function toTorque(page: Page): Promise<void> {
  const why = await named(page, 'Why the run starts with parts missing', 'textbox');
  await why?.type('counted by hand');
  await press(page, 'Start a run');
  await says(page, /1 of \d+ .*Done/);
  await goToStep(page, 'Plate A: tighten to 100 %');
  await onward(page);
  await onward(page);
  await page.waitForFunction(() => document.querySelectorAll('[data-look="done"]').length === 2);
}

/** Pictures in space take a moment in software. */
const still = (): Promise<void> => new Promise(done => setTimeout(done, 2500));

/** Every plate has been struck, and what would help has been tried. */
async function struck(page: Page): Promise<void> {
  await page.waitForFunction(
    () => document.body.innerText.includes('Deflection') && !/striking|trying/i.test(document.body.innerText),
    { timeout: 240_000 },
  );
  await still();
}

const PLAN = '/plan/bramble-winter';
const SHOTS: readonly Shot[] = [
  { name: 'plans', path: '/', view: DESK },
  { name: 'rig', path: '/plan/heron-autumn/rig', view: DESK, before: p => press(p, 'Oil pan underside') },
  {
    name: 'survey',
    path: `${PLAN}/rig`,
    view: DESK,
    before: async p => {
      await press(p, 'Survey', 'tab');
      await says(p, 'What the readings say');
      await p
        .locator('section[aria-label="Under the map"] [role="radio"] ::-p-text(from the rear right)')
        .click();
      await p.waitForSelector('[data-ground]');
      await p.$eval('section[aria-label="What the readings say"]', e => e.scrollIntoView({ block: 'start' }));
    },
  },
  {
    name: 'fit',
    path: '/plan/pebble-tray/bolt',
    view: DESK,
    before: async p => {
      await press(p, 'Will it bolt up', 'tab');
      await says(p, 'is the chance that every bolt');
    },
  },
  {
    name: 'propose',
    path: '/plan/wren-sliders/cover',
    view: DESK,
    before: async p => {
      await press(p, 'Suggest plates');
      await press(p, 'Suggest');
      await says(p, /Add \d of \d plates/, 60_000);
    },
  },
  { name: 'cover', path: `${PLAN}/cover`, view: DESK, before: p => press(p, 'Plate B, transmission') },
  { name: 'fold', path: `${PLAN}/fold`, view: DESK, before: still },
  {
    name: 'fold-bracket',
    path: '/plan/wren-sliders/fold',
    view: DESK,
    before: async p => {
      await p.locator('::-p-text(K1)').click();
      await still();
    },
  },
  {
    name: 'nest',
    path: `${PLAN}/fold`,
    view: DESK,
    before: async p => {
      await press(p, 'On stock sheets', 'radio');
      await says(p, /\d sheets, \d+ % used/);
    },
  },
  { name: 'strike', path: `${PLAN}/strike`, view: DESK, before: struck },
  { name: 'weigh', path: `${PLAN}/weigh`, view: DESK },
  {
    name: 'ladder',
    path: `${PLAN}/weigh`,
    view: DESK,
    before: async p => {
      await press(p, 'every sheet for a plate', 'radio');
      await press(p, 'B transmission', 'radio');
      await p.waitForFunction(
        () =>
          document.querySelector('.apexcharts-canvas') &&
          !/striking|preparing/i.test(document.body.innerText),
        { timeout: 200_000 },
      );
      await still();
    },
  },
  { name: 'bolt', path: `${PLAN}/bolt`, view: DESK, before: p => p.locator('::-p-text(j07)').click() },
  {
    name: 'bolt-choose',
    path: '/plan/heron-autumn/bolt',
    view: DESK,
    before: async p => {
      await press(p, 'Choose for me', 'tab');
      await still();
    },
  },
  {
    name: 'run',
    path: `${PLAN}/run`,
    view: DESK,
    before: p => p.locator('::-p-text(bolts of plate D by hand)').click(),
  },
  { name: 'log', path: `${PLAN}/log`, view: DESK, before: still },
  { name: 'run-phone', path: `${PLAN}/run`, view: PHONE, theme: 'dark', before: toTorque },
  {
    name: 'bench-phone',
    path: '/plan/wren-sliders/run',
    view: PHONE,
    before: async p => {
      const why = await named(p, 'Why the run starts with parts missing', 'textbox');
      await why?.type('counted by hand');
      await press(p, 'Start a run');
      await says(p, /1 of \d+ .*Done/);
      await goToStep(p, 'Hold bracket K1, L bracket');
    },
  },
  // last, since it changes the plan
  {
    name: 'bracket',
    path: `${PLAN}/cover`,
    view: DESK,
    before: async p => {
      await press(p, 'Add a bracket');
      // a free hole of the rail, then the tank's plate beside it
      const map = await p.waitForSelector('[aria-label="Map of the underside"]');
      const ring = await p.waitForSelector('[aria-label="Map of the underside"] circle[r="9"][cx^="555"]');
      const [hole, box] = [await ring?.boundingBox(), await map?.boundingBox()];
      if (!hole || !box) return;
      const at = [hole.x + hole.width / 2, hole.y + hole.height / 2] as const;
      await p.mouse.click(...at);
      await says(p, 'Tap the plate');
      await p.mouse.click(at[0], at[1] + 19);
      await says(p, 'Z bracket');
    },
  },
];

/** Makes the pictures of the main views from the demo data. Names given as arguments are made alone. */
async function main(only: readonly string[]): Promise<void> {
  await mkdir(OUT, { recursive: true });
  const [browser, server] = await Promise.all([openBrowser({ composited: true }), TestServer.open()]);
  try {
    for (const shot of SHOTS.filter(s => only.length === 0 || only.includes(s.name))) {
      const page = await openPage(browser, shot.view, { theme: shot.theme ?? 'light' });
      await page.goto(server.at(shot.path), { waitUntil: 'networkidle0' });
      await shot.before?.(page);
      await page.evaluate(() => document.fonts.ready);
      await new Promise(done => setTimeout(done, 350));
      await page.screenshot({ path: `${OUT}${shot.name}.png` });
      console.log(`docs/screenshots/${shot.name}.png`);
      await page.browserContext().close();
    }
  } finally {
    await browser.close();
    await server.remove();
  }
}

await main(process.argv.slice(2));
