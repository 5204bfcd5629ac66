import { readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { LogEntry } from '@plate-fold/core/log';
import type { Page, Target } from 'puppeteer-core';
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
  savedFile,
  says,
  startRun,
  storedPlan,
  TestServer,
  ticksOf,
  walkUntil,
  words,
} from './browser';
import { it } from './fixtures';

const json = async (server: TestServer, path: string, init?: RequestInit): Promise<unknown> =>
  (await fetch(server.at(path), init)).json();
const post = (server: TestServer, path: string, body: unknown): Promise<unknown> =>
  json(server, path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const logOf = async (server: TestServer, plan: string): Promise<readonly LogEntry[]> =>
  (await json(server, `/api/documents/${plan}/log`)) as readonly LogEntry[];

/** Puts the simulated wrench on such a joint and reads it. */
async function pull(page: Page, mood: string): Promise<void> {
  await press(page, 'Simulated wrench on', 'combobox');
  await press(page, mood, 'option');
  await page
    .locator(
      '::-p-xpath(//section[@aria-label="Digital wrench"]//button[contains(., "Read the wrench") or contains(., "Pull again")])',
    )
    .click();
}
/** A picture as a phone's camera gives one: a small PNG. */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAoAAAAKCAYAAACNMs+9AAAAFUlEQVR42mNkYPhfz0AEYBxVSF+FAP5FDvcfRYWgAAAAAElFTkSuQmCC',
  'base64',
);

describe('an installation on the phone', () => {
  const PLAN = 'pebble-tray';
  let run: string;

  it('is read by the wrench: good, stripping, and a connection that breaks; what was off is offered to the plan', async ({
    browser,
    server,
  }) => {
    run = await startRun(server, PLAN);
    const page = await openPage(browser, PHONE, { units: 'metric', theme: 'dark' });
    await page.goto(server.at(`/run/${run}`));
    await says(page, 'Check that this is the vehicle planned for');
    await press(page, 'Who is working: who?');
    await fill(page, 'Name', 'Juniper');
    await press(page, 'Save');
    await says(page, 'Juniper');
    await onward(page);
    await says(page, 'Count the parts');
    await walkUntil(page, /Take off: /);
    await says(page, /Bag, keep:|Throw away:|Bag, used again:/);
    await walkUntil(page, /The jack carries|With its first two bolts in/);
    await goToStep(page, 'Plate B: tighten to 60 %');
    expect(await seriousFaults(page)).toEqual([]);

    // a good joint clicks, is recorded with its peak and its wrench, and the next one is up
    await pull(page, 'a good joint');
    await page.waitForSelector('[data-bolt="j-10"][data-look="done"]', { timeout: 90_000 });
    await press(page, 'Stop reading');
    // a figure that is typed instead
    await page.waitForSelector('[data-bolt="j-13"][data-look="now"]');
    const target = Number(await page.$eval('[aria-label="Torque"] .fig', e => e.textContent));
    await fill(page, 'Wrench reads', String(target));
    await says(page, 'on target');
    await onward(page);
    // the connection breaks: nothing is lost, and it is read again
    await page.waitForSelector('[data-bolt="j-11"][data-look="now"]');
    await pull(page, 'a connection that breaks');
    await says(page, 'The wrench stopped answering. Nothing is lost: pull again, or type');
    await press(page, 'Stop reading');
    // a rivet nut that strips is reported and stays open
    await pull(page, 'a rivet nut that strips');
    await says(page, 'the nut or its thread is stripping. Stop.');
    await says(page, 'Report bolt 3 as not sound');
    await onward(page);
    await page.waitForSelector('[data-bolt="j-11"][data-look="fault"]');
    const [joint, stripped] = ['j-10', 'j-11'];

    let ticks = await ticksOf(server, run);
    for (let i = 0; i < 50 && !ticks.some(t => t.kind === 'deviation'); i++) {
      await new Promise(d => setTimeout(d, 100));
      ticks = await ticksOf(server, run);
    }
    const of = (id: string | undefined) =>
      ticks.filter(t => t.jointId === id && t.stepId.startsWith('tighten'));
    expect(of(joint)[0]).toMatchObject({ kind: 'done', who: 'Juniper', wrench: 'digital wrench, simulated' });
    expect(of(joint)[0]?.torqueNm).toBeGreaterThan(0);
    expect(ticks.find(t => t.wrench === 'typed in')?.torqueNm).toBeCloseTo(target, 1);
    expect(of(stripped)).toEqual([
      expect.objectContaining({
        kind: 'deviation',
        fault: 'stripped',
        note: expect.stringContaining('stripping'),
      }),
    ]);

    // two taps and a photo
    const photo = join(tmpdir(), `plate-fold-photo-${process.pid}.png`);
    await writeFile(photo, PNG);
    await press(page, 'Problem');
    const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
      uploadFile(p: string): Promise<void>;
    };
    const torn = join(tmpdir(), `plate-fold-torn-${process.pid}.png`);
    await writeFile(torn, 'no picture');
    await input.uploadFile(torn);
    await says(page, 'cannot read that file as a picture');
    await input.uploadFile(photo);
    await says(page, /A photo of \d+ kB attached/);
    await press(page, 'Touches something above');
    await says(page, 'Touches something above');
    await page.waitForFunction(
      async id => {
        const r = (await (await fetch(`/api/runs/${id}`)).json()) as { ticks: { photo: string | null }[] };
        const kept = r.ticks.find(t => t.photo)?.photo;
        return kept !== undefined && (await fetch(`/api/runs/${id}/photos/${kept}`)).ok;
      },
      { polling: 500 },
      run,
    );

    await page.locator('header button').click();
    await press(page, 'To the end of the run');
    await says(page, /\d+ steps are still open/);
    await fill(page, `Why ${stripped} is left as it is`, 'no tool here');
    await press(page, 'Leave it as it is');
    await fill(page, 'Odometer, km', '60210');
    await press(page, 'End the run with steps open');
    await says(page, 'it stands in the log');
    await says(page, /As built .* revision 1 of the plan/);
    expect((await logOf(server, PLAN)).at(-1)).toMatchObject({
      kind: 'install',
      km: 60_210,
      run,
      opened: true,
    });
    expect(page.faults).toEqual([]);
    await closePage(page);

    // at the desk the torn thread is offered to the plan
    const desk = await openPage(browser, DESK);
    await desk.goto(server.at(`/plan/${PLAN}/run`));
    await says(desk, 'From the last run');
    // what is not wanted is dismissed for good
    const touches = await desk.waitForSelector(
      '[aria-label^="Dismiss: "][aria-label*="Touches something above"]',
    );
    await touches?.click();
    await desk.waitForFunction(
      () =>
        !/Touches something above/.test(
          document.querySelector('[aria-label="From the last run"]')?.textContent ?? '',
        ),
    );
    await desk.reload();
    await says(desk, 'From the last run');
    expect(await desk.$eval('[aria-label="From the last run"]', e => e.textContent)).not.toContain(
      'Touches something above',
    );
    await desk
      .locator('::-p-xpath(//button[contains(., "to stripped, so that Bolt offers its repairs")])')
      .click();
    const plan = await storedPlan(server, desk, PLAN);
    const mount = plan.joints.find(j => j.id === stripped)?.mount;
    const stored = (await json(server, `/api/documents/${PLAN}`)) as {
      document: { rig: { mounts: { id: string; condition: string }[] } };
    };
    expect(stored.document.rig.mounts.find(m => m.id === mount)?.condition).toBe('stripped');
    await closePage(desk);
  });

  it('goes on without the server once it was opened, through a reload, and with a clock that was set back', async ({
    browser,
  }) => {
    const own = await TestServer.open();
    const page = await openPage(browser, PHONE);
    try {
      const id = await startRun(own, PLAN);
      await page.goto(own.at(`/run/${id}`));
      await says(page, /1 of \d+ .*Done/);
      await page.evaluate(async () => {
        await navigator.serviceWorker.ready;
      });
      await own.stop();
      await onward(page);
      await says(page, /kept on this device/);
      await page.reload();
      await says(page, /1 kept on this device/);
      await says(page, /2 of \d+/);
      await page.evaluate(() => {
        const now = Date.now;
        Date.now = () => now() - 3_600_000;
      });
      await onward(page);
      await says(page, 'clock was set back');
      await says(page, /3 of \d+/);
      await own.start();
      await page.waitForFunction(() => !/kept on this device/.test(document.body.innerText), {
        timeout: 90_000,
      });
      const ticks = await ticksOf(own, id);
      expect(ticks.length).toBe(2);
      expect(ticks[1]?.at).toBeGreaterThan(ticks[0]?.at ?? 0);
      expect(page.faults).toEqual([]);
    } finally {
      await closePage(page);
      await own.remove();
    }
  });

  it('is shared by a one-time code from the desk, and both hands are kept', async ({ browser, server }) => {
    const id = await startRun(server, PLAN);
    const desk = await openPage(browser, DESK);
    await desk.goto(server.at(`/run/${id}`));
    await says(desk, /1 of \d+ .*Done/);
    await press(desk, 'Run on a phone');
    await press(desk, 'Share this run');
    await desk.waitForSelector('svg[aria-label="QR code that opens the run on a phone"]');
    const code = await desk.$eval('[data-code]', e => e.textContent ?? '');
    const address = /http:\/\/127\.0\.0\.1:\d+/.exec(await words(desk))?.[0] as string;
    const phone = await openPage(browser, PHONE);
    // without the code there is only the question for it
    await phone.goto(`${address}/run/${id}`);
    await says(phone, 'Code from the desk');
    await phone.locator('#code').fill('WRONGONE');
    await phone.locator('button').click();
    await says(phone, 'That is not the code.');
    // the QR code's address fills it in by itself
    await phone.goto(`${address}/#${code}`);
    await says(phone, /1 of \d+ .*Done/);
    expect(await words(phone)).not.toContain('Pause');
    await says(desk, '1 device has joined.');
    expect(await seriousFaults(desk)).toEqual([]);
    await onward(phone);
    await says(phone, /2 of \d+/);
    await press(desk, 'Close');
    // the focus is back on what opened it, where Space opens it again
    await desk.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Run on a phone');
    await desk.evaluate(() => (document.activeElement as HTMLElement).blur());
    await desk.keyboard.press('Space');
    // it has seen the phone's tick by itself: this is the one after
    await says(desk, /3 of \d+/);
    await desk.waitForFunction(
      async run =>
        ((await (await fetch(`/api/runs/${run}`)).json()) as { ticks: unknown[] }).ticks.length === 2,
      { polling: 300 },
      id,
    );
    expect(new Set((await ticksOf(server, id)).map(t => t.device)).size).toBe(2);
    await press(desk, 'Run on a phone');
    await press(desk, 'Stop sharing');
    await says(desk, 'Share this run');
    // the phone is told at once, before it has sent anything
    await says(phone, 'The desk stopped sharing');
    await onward(phone);
    await says(phone, 'kept on this device');
    expect(phone.faults.concat(desk.faults)).toEqual([]);
    await Promise.all([desk, phone].map(p => closePage(p)));
  });
});

const PLAN = 'bramble-winter';
/** One page for all that is done in the log. */
const onLog = it.extend<{ readonly $file: { readonly page: Awaited<ReturnType<typeof openPage>> } }>({
  page: [
    async ({ browser, server }, use) => {
      const page = await openPage(browser, DESK, { units: 'metric' });
      await page.goto(server.at(`/plan/${PLAN}/log`));
      await page.waitForSelector('[aria-label="Entries"]');
      await use(page);
      expect(page.faults).toEqual([]);
      await closePage(page);
    },
    { scope: 'file' },
  ],
});

describe('the log', () => {
  onLog('takes a hit where the map is touched, with what Strike foresees there', async ({ page, server }) => {
    const before = (await logOf(server, PLAN)).length;
    await press(page, 'Add an entry');
    await says(page, 'Tap the map where it hit.');
    // in the middle of plate C
    const spot = await page.$$eval('[aria-label^="Plate C"]', all => {
      // it stands in the keel and in the map: the larger of the two is the map's
      const boxes = all.map(e => e.getBoundingClientRect()).sort((a, b) => b.height - a.height);
      const [b] = boxes;
      return b ? ([b.x + b.width * 0.5, b.y + b.height * 0.3] as const) : ([0, 0] as const);
    });
    await page.mouse.click(spot[0], spot[1]);
    await says(page, /Marked on the map, plate C/);
    await fill(page, 'Dent depth, straightedge across it', '4');
    await page.keyboard.press('Tab');
    await says(page, /Strike predicts \d+\.\d mm of dent there/, 60_000);
    const picture = join(tmpdir(), `plate-fold-hit-${process.pid}.png`);
    await writeFile(picture, PNG);
    const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
      uploadFile(p: string): Promise<void>;
    };
    await input.uploadFile(picture);
    await says(page, /A photo of \d+ kB attached/);
    await fill(page, 'Note', 'boulder in the third crossing');
    await press(page, 'Save');
    await says(page, 'boulder in the third crossing');
    const log = await logOf(server, PLAN);
    expect(log.length).toBe(before + 1);
    expect(log.at(-1)).toMatchObject({
      kind: 'hit',
      panel: 'plate-c',
      dentMm: 4,
      note: 'boulder in the third crossing',
    });
    const kept = await fetch(server.at(`/api/documents/${PLAN}/log/photos/${log.at(-1)?.photo}`));
    expect(kept.headers.get('content-type')).toBe('image/jpeg');
    await page.waitForSelector('img[alt="Taken with this entry"]');
    expect(log.at(-1)?.foreseenMm).toBeGreaterThanOrEqual(0);
    await says(page, 'Check above the plate after the last hit');
  });

  onLog('is searched, sifted and struck from', async ({ page, server }) => {
    await fill(page, 'Search the log', 'crossing', 'searchbox');
    await says(page, /2 of \d+/);
    for (let i = 0; i < 8; i++) await page.keyboard.press('Backspace');
    await press(page, 'Kind of entry', 'combobox');
    await press(page, 'Re-torque', 'option');
    await says(page, /Re-torque: 13 bolts, most lost 28 %/);
    await press(page, 'Kind of entry', 'combobox');
    await press(page, 'all kinds', 'option');
    // the entry just kept is the chosen one: it is put right where it stands
    await press(page, 'edited');
    await fill(page, 'Dent depth, straightedge across it', '5');
    await page.keyboard.press('Tab');
    await press(page, 'Save');
    await says(page, /dent 5\.0 mm/);
    expect((await logOf(server, PLAN)).filter(e => e.note?.includes('third crossing'))).toEqual([
      expect.objectContaining({ kind: 'hit', dentMm: 5, panel: 'plate-c' }),
    ]);
    const count = (await logOf(server, PLAN)).length;
    const bin = await page.waitForSelector('[aria-label^="Delete: Hit"]');
    await bin?.click();
    expect((await logOf(server, PLAN)).length).toBe(count);
    await press(page, 'Delete: press again');
    await page.waitForFunction(n => document.body.innerText.includes(`${n} of ${n}`), {}, count - 1);
    expect((await logOf(server, PLAN)).length).toBe(count - 1);
  });

  onLog('keeps a re-torque with what each bolt lost, and shows it over time', async ({ page }) => {
    await press(page, 'Add an entry');
    await press(page, 'What happened', 'combobox');
    await press(page, 'Re-torque', 'option');
    await says(page, 'Still needed: the torque found on at least one bolt.');
    await fill(page, 'j07 moved at', '25');
    await press(page, 'Save');
    await says(page, /Re-torque: 1 bolt, most lost 50 %/);
    await press(page, 'Over time', 'tab');
    await says(page, 'Preload lost since tightening');
    await says(page, /j07 50 %/);
    await page.waitForSelector('.apexcharts-series path');
  });

  onLog('does an oil change as a run of its own, which comes into the log', async ({ page, server }) => {
    await press(page, 'Services', 'tab');
    await says(page, /Engine oil drain Through the opening oil-drain-hole; nothing comes down\./);
    await says(page, /Transfer case fill Plate C down: 6 bolts out, 1 of the neighbor loosened\./);
    await says(page, 'A door under it would save');
    await page
      .locator(
        '::-p-xpath(//ul[@aria-label="Services"]/li[contains(., "ngine oil drain")]//button[contains(., "Start")])',
      )
      .click();
    await says(page, 'Lay out what engine oil drain takes');
    await walkUntil(page, /drain the oil/);
    await says(page, 'Hot oil burns');
    await walkUntil(page, /Fill in new oil/);
    await walkUntil(page, /Look for leaks before anything is closed/);
    await walkUntil(page, /All done/);
    await fill(page, 'Odometer, km', '92400');
    await press(page, 'End the run');
    await says(page, 'it stands in the log');
    await page.locator('::-p-text(To the plan)').click();
    await says(page, /ngine oil drain/);
    expect((await logOf(server, PLAN)).find(e => e.km === 92_400)).toMatchObject({
      kind: 'service',
      point: 'oil-drain',
    });
  });

  onLog('brings a plate down and up again for a service behind it', async ({ browser, server }) => {
    const id = await startRun(server, PLAN, 'transfer-fill');
    const walk = await openPage(browser, PHONE);
    await walk.goto(server.at(`/run/${id}`));
    await walkUntil(walk, /Loosen 1 bolt by three turns/);
    await walkUntil(walk, /Take plate C, transfer case, down/);
    await walkUntil(walk, /look at the level/);
    await walkUntil(walk, /Raise plate C/);
    await walkUntil(walk, /repeat at full torque until no bolt moves/);
    await walkUntil(walk, /Bring the loosened bolts back/);
    await walkUntil(walk, /Take the stands away/);
    await walkUntil(walk, /All done/);
    expect(walk.faults).toEqual([]);
    await closePage(walk);
  });

  onLog('gives out reminders, tables and the build book', async ({ page, server }) => {
    await page.goto(server.at(`/plan/${PLAN}/log`));
    await page.waitForSelector('[aria-label="Export"]');
    const folder = await downloadsOf(page);
    const file = async (name: string): Promise<Buffer> => readFile(await savedFile(folder, name));
    await press(page, 'Reminders');
    const ics = (await file(`${PLAN}.ics`)).toString();
    expect(ics).toContain('BEGIN:VEVENT');
    expect(ics).toContain('engine oil drain: Bramble');
    await press(page, 'JSON');
    const log = JSON.parse((await file(`${PLAN}-log.json`)).toString()) as { entries: unknown[] };
    expect(log.entries).toEqual(await logOf(server, PLAN));
    await page.locator('::-p-xpath(//section[@aria-label="Export"]//button[contains(., "CSV")])').click();
    expect((await file(`${PLAN}-log.csv`)).toString().trim().split('\r\n').length).toBeGreaterThan(10);
    // read first, in a page of its own
    const opened = new Promise<Target>(done => page.browserContext().once('targetcreated', done));
    await press(page, 'Build book');
    const book = await opened;
    expect(book.type()).toBe('page');
    await (await book.page())?.close();
    await press(page, 'Save the build book');
    const pdf = await file(`${PLAN}-build-book.pdf`);
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.length).toBeGreaterThan(60_000);
    expect((pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length).toBeGreaterThan(10);
  });

  onLog('says what it cannot keep, and keeps it in the form', async ({ page, server }) => {
    await press(page, 'Add an entry');
    await press(page, 'What happened', 'combobox');
    await press(page, 'Coating', 'option');
    await press(page, 'Which plate', 'combobox');
    await press(page, 'E, converter shield', 'option');
    await fill(page, 'Note', 'second coat');
    await server.stop();
    await press(page, 'Save');
    await says(page, 'the entry is still here');
    await server.start();
    await press(page, 'Save');
    await page.waitForFunction(() =>
      /second coat/.test(document.querySelector('[aria-label="Entries"]')?.textContent ?? ''),
    );
  });
});

describe('the run and the log hold', () => {
  it.for([
    ['light', DESK],
    ['dark', PHONE],
  ] as const)(
    'without the page itself scrolling, in the %j theme',
    async ([theme, view], { browser, server }) => {
      const page = await openPage(browser, view, { theme });
      await page.goto(server.at('/run/demo-install'));
      await says(page, 'As built');
      // nothing hidden makes the page itself scroll, neither beside nor below
      const beyond = () =>
        page.evaluate(() => [
          document.documentElement.scrollWidth - innerWidth,
          document.documentElement.scrollHeight - innerHeight,
        ]);
      expect(await beyond()).toEqual([0, 0]);
      await page.goto(server.at('/plan/bramble-winter/log'));
      await press(page, 'Add an entry');
      await press(page, 'What happened', 'combobox');
      await press(page, 'Re-torque', 'option');
      await says(page, 'Moved at');
      expect(await beyond()).toEqual([0, 0]);
      expect(page.faults).toEqual([]);
      await closePage(page);
    },
  );

  it('offers no run, and a book that says so, where there is no plate yet', async ({ browser, server }) => {
    const { document } = (await json(server, '/api/documents/bramble-winter')) as {
      document: { plan: Record<string, unknown> };
    };
    const plan = {
      ...document.plan,
      phases: undefined,
      id: 'bare',
      name: 'bare',
      panels: [],
      joints: [],
      seams: [],
      crossbars: [],
      builds: [{ id: 'A', name: 'first', sheets: {} }],
      activeBuild: 'A',
    };
    await post(server, '/api/documents', { document: { ...document, plan } });
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bare/run'));
    await says(page, 'There are no plates yet');
    expect(await words(page)).not.toContain('Start a run');
    await page.goto(server.at('/plan/bare/log'));
    await says(page, 'Nothing is due until the plates are on');
    const folder = await downloadsOf(page);
    await press(page, 'Save the build book');
    const pdf = await readFile(await savedFile(folder, 'bare-build-book.pdf'));
    expect((pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length).toBe(1);
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('shows the order of the hands one bolt after another before anything starts', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/run'));
    await page
      .locator(
        '::-p-xpath(//button[contains(., "Start 6 bolts of plate D") or contains(., "Start 7 bolts of plate D") or contains(., "bolts of plate D by hand")])',
      )
      .click();
    await press(page, 'Show the order');
    const now = () =>
      page.evaluate(
        () =>
          [...document.querySelectorAll('svg[aria-label^="Where"] circle')].filter(
            c => c.getAttribute('fill') === 'var(--fluid)',
          ).length,
      );
    await page.waitForFunction(() =>
      [...document.querySelectorAll('svg[aria-label^="Where"] circle')].some(
        c => c.getAttribute('fill') === 'var(--ink2)',
      ),
    );
    expect(await now()).toBe(1);
    await press(page, 'Stop');
    expect(await now()).toBe(0);
    // an evening of the owner's own
    await fill(page, 'Minutes per evening', '600');
    await page.keyboard.press('Tab');
    await says(page, /Evening 1, \d+ steps/);
    await closePage(page);
  });
});
