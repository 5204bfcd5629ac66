// Every screen of every example read as a reader would, in both units, also behind every tab: a soak. What `npm test` reads is in views.test.ts.
import { describe, expect } from 'vitest';
import { closePage, DESK, openPage, says, toStage } from './browser';
import { it } from './fixtures';
import { behindTabs, oddOnPage } from './read-page';

const PLANS = ['bramble-winter', 'heron-autumn', 'pebble-tray', 'wren-sliders'] as const;
const STAGES: readonly (readonly [stage: string, says: RegExp])[] = [
  ['rig', /Wheelbase|The vehicle/],
  ['cover', /The whole set/],
  ['fold', /Blank|Bends|bend/],
  ['weigh', /Net mass/],
  ['bolt', /torque/i],
  ['run', /Time, estimate/],
  ['log', /Add an entry/],
];

describe.runIf(process.env.SOAK_WORDS).each(['inch', 'metric'] as const)('every screen in %s', units => {
  it.for(PLANS)(
    'of %s is in plain words and those units',
    { timeout: 180_000 },
    async (plan, { browser, server }) => {
      const page = await openPage(browser, DESK, { units });
      const found: string[] = [];
      const read = async (where: string): Promise<void> => {
        found.push(...(await oddOnPage(page, units)).map(f => `${where}: ${f}`));
      };
      await page.goto(server.at(`/plan/${plan}/rig`));
      for (const [stage, said] of STAGES) {
        await toStage(page, stage);
        await says(page, said);
        await read(stage);
        await behindTabs(page, tab => read(`${stage}, ${tab}`));
      }
      // a plate chosen, then the list of plans
      await toStage(page, 'cover');
      await page.keyboard.press(']');
      await read('a plate');
      await behindTabs(page, tab => read(`a plate, ${tab}`));
      await page.goto(server.at('/'));
      await says(page, 'net');
      await read('the list');
      expect([...new Set(found)]).toEqual([]);
      expect(page.faults).toEqual([]);
      await closePage(page);
    },
  );
});
