import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { demoText } from '@plate-fold/demo';
import { describe, expect } from 'vitest';
import {
  chosen,
  closePage,
  DESK,
  downloadsOf,
  fill,
  goToStep,
  LOOK_MS,
  named,
  onward,
  openPage,
  PHONE,
  press,
  saved,
  savedFile,
  says,
  startRun,
  summary,
  TestServer,
  ticksOf,
} from './browser';
import { it } from './fixtures';

const number = (text: string): number => Number(text.replace('−', '-').replace(/[^\d.-]/g, ''));
const COVER = '/plan/bramble-winter/cover';

describe.each([
  ['at a desk', DESK],
  ['on a phone', PHONE],
] as const)('from the rig to the last torqued bolt, %s', (_, view) => {
  it('opens the demo pickup, changes a sheet, walks the torque sequence, and finds it all again', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    try {
      const page = await openPage(browser, view);
      await page.goto(own.at('/'));
      await page.locator('::-p-text(Bramble)').click();
      for (const mark of [
        'A, engine',
        'B, transmission',
        'C, transfer case',
        'D, fuel tank',
        'E, converter shield',
        'F, converter wall',
      ])
        await named(page, `Plate ${mark}`, 'button');
      expect(await summary(page, 'Net mass')).toBe('+168.3lb');

      await press(page, 'Plate A, engine');
      await says(page, 'Sheet in build “3/16 steel”');
      await press(page, 'Aluminum 5052-H32', 'radio');
      await chosen(page, '1/4″');
      const [mass, covered] = [number(await summary(page, 'Net mass')), await summary(page, 'Covered')];
      expect(mass).toBeGreaterThan(125);
      expect(mass).toBeLessThan(145);
      expect(covered).toBe('97%');
      await saved(page);

      await press(page, 'Weigh 1 findings', 'link');
      await says(page, 'Axles and ride height in build “3/16 steel”');
      await says(page, '1/4 in 5052');
      await page.goto(own.at('/plan/bramble-winter/bolt'));
      await says(page, 'captive nut');
      await page.goto(own.at('/plan/bramble-winter/run'));
      const why = await named(page, 'Why the run starts with parts missing', 'textbox');
      await why?.type('counted by hand');
      await press(page, 'Start a run');
      await says(page, /1 of \d+ .*Done/);
      await goToStep(page, 'Plate B: tighten to 30 %');
      await says(page, /Bolt 1, /);
      const target = number(
        await page.evaluate(() => document.querySelector('[aria-label="Torque"] .fig')?.textContent ?? ''),
      );
      await fill(page, 'Wrench reads', String(target + 5));
      await says(page, '5.0 ft·lb over');
      await fill(page, 'Wrench reads', String(target));
      await says(page, 'on target');
      await onward(page);
      await page.waitForSelector('[data-bolt="j11"][data-look="done"]');

      // the server goes away in the middle of it; ticks stay on the device, and arrive when it is back
      const kept = page.url().split('/').at(-1) as string;
      while (!(await ticksOf(own, kept)).some(t => t.jointId === 'j11'))
        await new Promise(d => setTimeout(d, LOOK_MS));
      await own.stop();
      await onward(page);
      await press(page, 'Problem');
      await press(page, 'Cross-threaded');
      await says(page, '2 kept on this device');
      await own.start();
      await page.waitForFunction(() => !/kept on this device/.test(document.body.innerText), {
        timeout: 90_000,
      });
      await page.reload();
      await goToStep(page, 'Plate B: tighten to 30 %');
      await page.waitForSelector('[data-look="fault"]');

      // closed and started again: the plan and the run are as they were left
      const run = page.url();
      await closePage(page);
      await own.stop();
      await own.start();
      const again = await openPage(browser, view);
      await again.goto(own.at(COVER));
      await press(again, 'Plate A, engine');
      await chosen(again, 'Aluminum 5052-H32');
      expect(number(await summary(again, 'Net mass'))).toBe(mass);
      await again.goto(run);
      await goToStep(again, 'Plate B: tighten to 30 %');
      await says(again, 'Cross-threaded');
      await press(again, 'Bolt 1, j11, done');
      expect(await again.$eval('#reading', e => Number((e as HTMLInputElement).placeholder))).toBe(target);
      expect([...page.faults, ...again.faults]).toEqual([]);
      await closePage(again);
    } finally {
      await own.remove();
    }
  });
});

describe('the run', () => {
  it('is one record from two devices, and ends with what was off', async ({ browser, server }) => {
    const id = await startRun(server, 'bramble-winter');
    const [desk, phone] = [await openPage(browser, DESK), await openPage(browser, PHONE)];
    await Promise.all([desk, phone].map(p => p.goto(server.at(`/run/${id}`))));
    await Promise.all([desk, phone].map(p => says(p, 'Check that this is the vehicle planned for')));
    await desk.keyboard.press('Space');
    await says(desk, 'Count the parts');
    // the other device hears of it by itself
    await says(phone, 'Count the parts');
    await press(phone, 'Problem');
    await press(phone, 'Part missing');
    await says(phone, 'Part missing');
    await says(desk, 'Part missing');
    await desk.keyboard.press('Backspace');
    await says(desk, 'Done.');
    await press(desk, 'Not done after all');
    await desk.reload();
    await says(desk, 'Check that this is the vehicle planned for');
    await desk.locator('header button').click();
    await press(desk, 'To the end of the run');
    await says(desk, 'Part missing');
    await press(desk, 'End the run with steps open');
    await says(desk, 'This run is ended');
    expect(desk.faults.concat(phone.faults)).toEqual([]);
    await Promise.all([desk, phone].map(p => closePage(p)));
  });
});

describe('edits', () => {
  it('survive a reload while the server is away', async ({ browser }) => {
    const own = await TestServer.open();
    const page = await openPage(browser, DESK);
    await page.goto(own.at(COVER));
    await press(page, 'Plate D, fuel tank');
    await says(page, 'Sheet in build “3/16 steel”');
    await own.stop();
    await press(page, 'Aluminum 5052-H32', 'radio');
    await page.waitForSelector('[data-save="offline"]');
    const mass = await summary(page, 'Net mass');
    await own.start();
    await page.reload();
    await page.waitForSelector('[aria-label="Summary"]');
    expect(await summary(page, 'Net mass')).toBe(mass);
    await saved(page);
    const { document } = (await (await fetch(own.at('/api/documents/bramble-winter'))).json()) as {
      document: { plan: { builds: { sheets: Record<string, { material: string }> }[] } };
    };
    expect(document.plan.builds[0]?.sheets['plate-d']?.material).toBe('al-5052-h32');
    await closePage(page);
    await own.remove();
  });

  it('in two tabs at once are told apart, and neither is lost', async ({ browser, server }) => {
    const [one, two] = [await openPage(browser, DESK), await openPage(browser, DESK)];
    await Promise.all([one, two].map(p => p.goto(server.at(COVER))));
    await Promise.all([one, two].map(p => p.waitForSelector('[aria-label="Summary"]')));
    await one.keyboard.press('b');
    await saved(one);
    await press(two, 'Plate C, transfer case');
    await press(two, 'Stainless steel 304, annealed', 'radio');
    await says(two, 'This plan was changed somewhere else');
    await two.locator('::-p-text(Take theirs)').click();
    await saved(two);
    expect(await two.$eval('[role="radio"][aria-checked="true"]', e => e.textContent)).toContain(
      '1/4 aluminum',
    );
    await two.keyboard.down('Control');
    await two.keyboard.press('z');
    await two.keyboard.up('Control');
    await says(two, '12 ga stainless');
    await saved(two);
    await Promise.all([one, two].map(p => closePage(p)));
  });

  it('undo, redo, builds, units and sides go by keyboard', async ({ browser, server }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at(COVER));
    await page.waitForSelector('[aria-label="Summary"]');
    const first = await summary(page, 'Net mass');
    await page.keyboard.press('b');
    const second = await summary(page, 'Net mass');
    expect(second).not.toBe(first);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    expect(await summary(page, 'Net mass')).toBe(first);
    await page.keyboard.down('Shift');
    await page.keyboard.press('z');
    await page.keyboard.up('Shift');
    await page.keyboard.up('Control');
    expect(await summary(page, 'Net mass')).toBe(second);
    await page.keyboard.press('u');
    expect(await summary(page, 'Net mass')).toContain('kg');
    await page.keyboard.press('v');
    await says(page, 'On your back, head to rear');
    await page.keyboard.press(']');
    await says(page, 'protects oil pan');
    await page.keyboard.press('5');
    await says(page, 'Axles and ride height');
    await page.keyboard.press('?');
    await says(page, 'plate after');
    await closePage(page);
  });

  it('refuse a thickness and a torque that cannot be meant, where they are typed', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at(COVER));
    await press(page, 'Plate B, transmission');
    await fill(page, 'Another thickness', '4.8 kg');
    await page.keyboard.press('Enter');
    await says(page, '"kg" is not a unit of length');
    await fill(page, 'Another thickness', '19 ga');
    await page.keyboard.press('Enter');
    await says(page, 'gauge: give the thickness');
    await page.goto(server.at('/plan/bramble-winter/bolt'));
    const torque = 'The vehicle maker’s value, if there is one, comes first';
    await fill(page, torque, '30 furlongs');
    await press(page, 'Enter');
    await says(page, '"furlongs" is not a unit of torque');
    await fill(page, torque, '30 ft-lb');
    await press(page, 'Enter');
    await says(page, 'Limited by: value entered');
    await saved(page);
    await closePage(page);
  });
});

describe('files', () => {
  it('a torn plan is refused with its place; a sound one opens; lists come out as CSV', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    const folder = await downloadsOf(page);
    const text = demoText('bramble');
    const torn = join(folder, 'torn.platefold.json');
    const other = join(folder, 'spring.platefold.json');
    await writeFile(torn, text.slice(0, text.length / 2));
    await writeFile(
      other,
      text.replaceAll('bramble-winter', 'bramble-spring').replace('winter set', 'spring set'),
    );
    await page.goto(server.at('/'));
    await says(page, 'Bramble');
    const input = await page.waitForSelector('input[type=file]');
    await (input as import('puppeteer-core').ElementHandle<HTMLInputElement>).uploadFile(torn);
    await says(page, /torn\.platefold\.json was not opened\. Nothing was changed\. line \d+/);
    await (input as import('puppeteer-core').ElementHandle<HTMLInputElement>).uploadFile(other);
    await says(page, 'spring set');
    await page.goto(server.at('/plan/bramble-spring/bolt'));
    await page.locator('::-p-text(Hardware list)').click();
    await page.locator('::-p-text(CSV)').click();
    const bag = await savedFile(folder, 'Bramble-spring-3-16-steel-hardware-list.csv');
    expect(await readFile(bag, 'utf8')).toMatch(
      /^part,count,what I have,missing,packs to buy,in a pack\r\n"flange bolt M10x1\.5/,
    );
    await closePage(page);
  });
});
