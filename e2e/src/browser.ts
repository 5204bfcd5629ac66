import { existsSync } from 'node:fs';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Plan, type PlanDocument, panelsRemoved } from '@plate-fold/core/plan';
import type { Tick } from '@plate-fold/core/sequence';
import { demo } from '@plate-fold/demo';
import { BUILT_WEB, type RunningServer, startServer } from '@plate-fold/server';
import puppeteer, {
  type Browser,
  type ClickOptions,
  type ElementHandle,
  type Locator,
  type Page,
  TimeoutError,
} from 'puppeteer-core';

export const DESK = { width: 1280, height: 800 } as const;
export const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true } as const;

const CHROMIUM = [
  process.env.CHROMIUM,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/**
 * A real headless browser on a profile of its own. Pages are put together in plain memory, which takes half the time that simulated
 * graphics take; where a picture in space must not hold the page up it has to be `composited` as a reader's is.
 */
export async function openBrowser({ composited = false } = {}): Promise<Browser> {
  const executablePath = CHROMIUM.find(p => p !== undefined && existsSync(p));
  if (!executablePath) throw new Error('Chromium is missing: install it, or name it in CHROMIUM.');
  return puppeteer.launch({
    executablePath,
    headless: true,
    args: [
      '--headless=new',
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--font-render-hinting=none',
      ...(composited ? [] : ['--disable-gpu-compositing']),
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
      // what helpers would take off a thread they have to share with other tests costs more than it saves
      '--js-flags=--single-threaded-gc',
    ],
  });
}

/** Ports of servers that are gone: a page that has run the program from one starts it from there again in half the time. */
const freed: number[] = [];

/** A real server on a database file of its own, which can be stopped and started again on the same port. */
export class TestServer {
  private running: RunningServer | undefined;
  private port = 0;
  private constructor(readonly dataDir: string) {}

  static async open(): Promise<TestServer> {
    const server = new TestServer(await mkdtemp(join(tmpdir(), 'plate-fold-e2e-')));
    server.port = freed.pop() ?? 0;
    try {
      await server.start();
    } catch (e) {
      // another took the port meanwhile
      if (server.port === 0) throw e;
      server.port = 0;
      await server.start();
    }
    return server;
  }
  async start(): Promise<void> {
    this.running = await startServer({
      dataDir: this.dataDir,
      port: this.port,
      web: BUILT_WEB,
      quiet: true,
      // a shared run is tried without leaving this machine
      shareHost: '127.0.0.1',
    });
    this.port = this.running.port;
  }
  async stop(): Promise<void> {
    await this.running?.close();
    this.running = undefined;
  }
  async remove(): Promise<void> {
    await this.stop();
    freed.push(this.port);
    await rm(this.dataDir, { recursive: true, force: true });
  }
  at(path: string): string {
    return `http://127.0.0.1:${this.port}${path}`;
  }
}

/** How long a page may take for anything on a machine that is busy with others; nobody waits so long where it works. */
const PATIENCE_MS = 60_000;

/** How often a page is asked for what it says, ms: asked at every frame, reading it would be most of what the page does. */
export const LOOK_MS = 80;

export interface View {
  readonly width: number;
  readonly height: number;
  readonly isMobile?: boolean;
  readonly hasTouch?: boolean;
}

type Watched = Page & { faults: string[] };

/** Pages that were given back, by their browser: one that has run the program before starts it in half the time. */
const idle = new WeakMap<Browser, { readonly page: Watched; readonly unset: () => Promise<void> }[]>();
const takenBack = new WeakMap<Page, () => Promise<void>>();

/**
 * A page with a storage of its own that is empty, with preferences set, which keeps every script error. What pages before it have struck it
 * may know, by the hash of all it depends on, and the program's files may lie on the device as after an earlier run; but for one that has to
 * be `fresh`.
 */
export async function openPage(
  browser: Browser,
  view: View,
  { fresh = false, ...prefer }: { units?: 'inch' | 'metric'; theme?: 'light' | 'dark'; fresh?: boolean } = {},
): Promise<Watched> {
  const waiting = fresh ? undefined : idle.get(browser)?.pop();
  await waiting?.unset();
  const page = waiting?.page ?? (await newPage(browser));
  await page.setViewport(view);
  const { identifier } = await page.evaluateOnNewDocument(
    p => {
      if (!localStorage.getItem('plate-fold view'))
        localStorage.setItem('plate-fold view', JSON.stringify({ side: 'head-front', ...p }));
    },
    { units: 'inch', theme: 'light', ...prefer },
  );
  takenBack.set(page, () => page.removeScriptToEvaluateOnNewDocument(identifier));
  return page;
}

async function newPage(browser: Browser): Promise<Watched> {
  const page = await (await browser.createBrowserContext()).newPage();
  page.setDefaultTimeout(PATIENCE_MS);
  // a page that is asked at every frame draws every frame
  const wait = page.waitForFunction.bind(page);
  page.waitForFunction = (what, how = {}, ...told) => wait(what, { polling: LOOK_MS, ...how }, ...told);
  const faults: string[] = [];
  page.on('pageerror', e => faults.push((e as Error).message));
  // said by a build for development only: two of one key leave stale things on the page
  page.on('console', m => m.text().includes('same key') && faults.push(m.text()));
  return Object.assign(page, { faults });
}

/** Where a page keeps what it has struck, and how surely plans bolt up, by the hash of all it depends on. */
const KEPT = ['plate-fold-strikes', 'plate-fold-fits'];

/** Takes a page out of the program, which would go on writing, and empties its storage; false where it cannot be as new again. */
async function wiped(page: Watched): Promise<boolean> {
  const { origin } = new URL(page.url());
  if (page.faults.length > 0 || origin === 'null' || (await page.browserContext().pages()).length > 1)
    return false;
  try {
    await page.goto(`${origin}/api/health`);
    await page.evaluate(async kept => {
      sessionStorage.clear();
      for (const { name } of await indexedDB.databases())
        if (name && !kept.includes(name))
          await new Promise((done, fail) => {
            const gone = indexedDB.deleteDatabase(name);
            gone.onsuccess = done;
            gone.onblocked = fail;
            gone.onerror = fail;
          });
    }, KEPT);
    const cdp = await page.createCDPSession();
    await cdp.send('Storage.clearDataForOrigin', {
      origin,
      // the program's own files stay on the device: laid by anew, all of them are compiled again
      storageTypes: 'local_storage,cookies',
    });
    await cdp.detach();
    return true;
  } catch {
    // its server is gone
    return false;
  }
}

/**
 * Gives a page back: what it has stored is wiped but for what it has struck, so that the next that opens one finds it as new. Only for one
 * that was not tampered with.
 */
export async function closePage(page: Watched): Promise<void> {
  const unset = takenBack.get(page);
  const browser = page.browser();
  if (unset && (await wiped(page))) idle.set(browser, [...(idle.get(browser) ?? []), { page, unset }]);
  else await page.browserContext().close();
}

/** What may be of a role, where it is not said to be. */
const OF_ROLE: Readonly<Record<string, string>> = {
  button: 'button, summary, input[type=button], input[type=submit]',
  link: 'a[href]',
  textbox: 'input, textarea',
  searchbox: 'input[type=search]',
  combobox: 'select, input[list]',
  slider: 'input[type=range]',
  checkbox: 'input[type=checkbox]',
  radio: 'input[type=radio]',
};
/** The browser itself is asked for a name this often where nothing on the page looks like it, ms. */
const ASKED_MS = 1500;

/**
 * What bears this accessible name, as the browser tells it to a screen reader; waits until it is there. The browser makes out the names of
 * the whole page each time it is asked, so it is asked where something looks like it.
 */
export async function named(
  page: Page,
  name: string,
  role?: string,
  patience = PATIENCE_MS,
): Promise<ElementHandle<Element>> {
  const until = Date.now() + patience;
  const selector = `aria/${name}${role === undefined ? '' : `[role="${role}"]`}`;
  for (let left = patience; left > 0; left = until - Date.now()) {
    await page
      .waitForFunction(
        (bare, of) =>
          [...document.querySelectorAll(of)].some(e =>
            [
              e.getAttribute('aria-label'),
              (e.getAttribute('aria-labelledby') ?? '')
                .split(' ')
                .map(id => document.getElementById(id)?.textContent)
                .join(''),
              e.textContent,
              e.getAttribute('title'),
              e.getAttribute('placeholder'),
              ...[...((e as HTMLInputElement).labels ?? [])].map(l => l.textContent),
            ].some(s => s?.replace(/\s/g, '') === bare),
          ),
        { timeout: Math.min(ASKED_MS, left) },
        name.replace(/\s/g, ''),
        role === undefined
          ? '[aria-label], [aria-labelledby]'
          : [`[role="${role}"]`, OF_ROLE[role] ?? []].flat().join(),
      )
      .catch(e => {
        if (!(e instanceof TimeoutError)) throw e;
      });
    const found = await page.$(selector);
    if (found) return found;
    await new Promise(d => setTimeout(d, LOOK_MS));
  }
  throw new Error(
    `the page has no ${role ?? 'thing'} "${name}"; it says: ${(await words(page)).slice(0, 1500)}`,
  );
}

/** Tries on what bears a name until it is done, found anew where the page has put another in its place meanwhile. */
async function toNamed(
  page: Page,
  name: string,
  role: string,
  tried: (one: ElementHandle<Element>) => Promise<boolean>,
): Promise<void> {
  for (const until = Date.now() + PATIENCE_MS; ; ) {
    const found = await named(page, name, role, until - Date.now());
    const done = await tried(found);
    await found.dispose();
    if (done) return;
  }
}

/** Whether a thing can be pressed: there, not disabled, and standing still; brought into sight where it is out of it. */
async function steady(one: ElementHandle<Element>): Promise<boolean> {
  if (!(await one.isIntersectingViewport({ threshold: 0 }))) await one.scrollIntoView();
  return one.evaluate(async e => {
    const was = await new Promise<DOMRect>(d => requestAnimationFrame(() => d(e.getBoundingClientRect())));
    const is = await new Promise<DOMRect>(d => requestAnimationFrame(() => d(e.getBoundingClientRect())));
    return (
      e.isConnected &&
      !e.matches(':disabled') &&
      was.x === is.x &&
      was.y === is.y &&
      was.width === is.width &&
      was.height === is.height
    );
  });
}

/** Presses what bears this accessible name, once it can be pressed. */
export const press = (
  page: Page,
  name: string,
  role = 'button',
  how: Readonly<ClickOptions> = {},
): Promise<void> =>
  toNamed(page, name, role, async one => {
    try {
      if (!(await steady(one))) return false;
      await one.click(how);
      return true;
    } catch (e) {
      // gone or covered before it was pressed
      if (/not clickable|detached/i.test(String(e))) return false;
      throw e;
    }
  });

/** Fills the field that bears this accessible name. */
export const fill = (page: Page, name: string, text: string, role = 'textbox'): Promise<void> =>
  toNamed(page, name, role, one =>
    (one.asLocator() as Locator<HTMLInputElement>)
      .setTimeout(2 * ASKED_MS)
      .fill(text)
      .then(
        () => true,
        () => false,
      ),
  );

/** Takes back the last change, whatever its button says that it is. */
export const undo = (page: Page): Promise<void> => page.locator('button[aria-label^="Undo"]').click();

/** All text on the page, white space folded. */
export const words = (page: Page): Promise<string> =>
  page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));

/** Goes to another stage of the plan that is open, as a reader does: nothing is loaded anew. */
export async function toStage(page: Page, stage: string): Promise<void> {
  await page.locator(`nav[aria-label="Stages"] a[href$="/${stage}"]`).click();
  await page.waitForFunction(s => location.pathname.endsWith(`/${s}`), {}, stage);
}

/** Waits until the page says something. */
export async function says(page: Page, text: string | RegExp, timeout = PATIENCE_MS): Promise<void> {
  const { source, flags } =
    typeof text === 'string' ? { source: text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), flags: '' } : text;
  try {
    await page.waitForFunction(
      (s, f) => new RegExp(s, f).test(document.body.innerText.replace(/\s+/g, ' ')),
      { timeout },
      source,
      flags,
    );
  } catch {
    throw new Error(`the page never said ${text}; it says: ${(await words(page)).slice(0, 1500)}`);
  }
}

export const saved = (page: Page): Promise<unknown> => page.waitForSelector('[data-save="saved"]');

/** A plan as the server has it, once the page has saved. */
export async function storedPlan(server: TestServer, page: Page, id: string): Promise<Plan> {
  await saved(page);
  const r = await fetch(server.at(`/api/documents/${id}`));
  return ((await r.json()) as { document: PlanDocument }).document.plan;
}

/** A plan of a few plates of a demo's, as a plan of its own, by its id: what is true of a plate is not waited for on seven. */
export async function fewPlates(
  server: TestServer,
  of: Parameters<typeof demo>[0],
  plates: readonly string[],
): Promise<string> {
  const whole = demo(of);
  const gone = whole.plan.panels.filter(p => !plates.includes(p.id)).map(p => p.id);
  const { rig, plan, ...rest } = panelsRemoved(whole, gone);
  const id = `few-${plan.id}-${plates.map(p => p.replace('plate-', '')).join('-')}`;
  const r = await fetch(server.at('/api/documents'), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document: { ...rest, rig: { ...rig, id }, plan: { ...plan, id, rigId: id } } }),
  });
  // taken already where another test of the file asked for it
  if (r.status !== 201 && r.status !== 409) throw new Error(`the plan was not taken: ${await r.text()}`);
  return id;
}

/** Begins a run of build A without the page, of the installation or of a service; gives its id. */
export async function startRun(server: TestServer, plan: string, service?: string): Promise<string> {
  const r = await fetch(server.at(`/api/documents/${plan}/runs`), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ buildId: 'A', service }),
  });
  return ((await r.json()) as { id: string }).id;
}

/** What the server has kept of a run, oldest first. */
export const ticksOf = async (server: TestServer, run: string): Promise<readonly Tick[]> =>
  ((await (await fetch(server.at(`/api/runs/${run}`))).json()) as { ticks: readonly Tick[] }).ticks;

/** The large figure of an entry of the summary, as it stands there. */
export const summary = (page: Page, name: string): Promise<string> =>
  page.evaluate(n => {
    const entries = [...document.querySelectorAll('[aria-label="Summary"] button')];
    const entry = entries.find(e => e.firstElementChild?.textContent === n);
    return entry?.children[1]?.textContent ?? '';
  }, name);

/** Waits until the choice of that name is the one taken. */
export const chosen = (page: Page, name: string): Promise<unknown> =>
  page.waitForFunction(
    n =>
      [...document.querySelectorAll('[role="radio"][aria-checked="true"]')].some(
        e => (e.getAttribute('aria-label') ?? e.textContent) === n,
      ),
    {},
    name,
  );

/** Lets the page save its downloads, and returns the fresh folder they land in. */
export async function downloadsOf(page: Page): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'plate-fold-saved-'));
  const cdp = await page.createCDPSession();
  await cdp.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: folder,
    browserContextId: page.browserContext().id,
  });
  return folder;
}

/** Where a download of that name, or of the first such name, lies once it is there whole: its place is taken by an empty file first. */
export async function savedFile(folder: string, name: string | RegExp): Promise<string> {
  for (let waited = 0; waited < PATIENCE_MS; waited += LOOK_MS) {
    const found = (await readdir(folder)).find(f => (typeof name === 'string' ? f === name : name.test(f)));
    if (found && (await stat(join(folder, found))).size > 0) return join(folder, found);
    await new Promise(d => setTimeout(d, LOOK_MS));
  }
  throw new Error(`no file ${name} was saved; there are: ${(await readdir(folder)).join(', ')}`);
}

/**
 * Presses the great button of a run, or the named one beside it. The page's clock is put ahead a little first: two presses as near to one
 * another as a test makes them are taken for the bounce of one finger.
 */
export async function onward(page: Page, name?: RegExp): Promise<void> {
  await page.waitForSelector('footer button');
  await page.evaluate(
    (source, flags) => {
      const w = window as unknown as { ahead?: number };
      if (w.ahead === undefined) {
        const now = performance.now.bind(performance);
        w.ahead = 0;
        performance.now = () => now() + (w.ahead ?? 0);
      }
      w.ahead += 1000;
      const buttons = [...document.querySelectorAll<HTMLButtonElement>('footer button')];
      const found =
        source === undefined
          ? buttons[0]
          : buttons.find(b => new RegExp(source, flags).test(b.textContent ?? ''));
      found?.click();
    },
    name?.source,
    name?.flags,
  );
}

/** What a screen of a run itself says, without the button that names what comes after. */
const screenSays = (page: Page): Promise<string> =>
  page.evaluate(() => (document.querySelector('main')?.innerText ?? '').replace(/\s+/g, ' '));

/** Goes through the screens of a run, a tap each, until one says it; gives how many taps it took. */
export async function walkUntil(page: Page, what: RegExp, most = 200): Promise<number> {
  await page.waitForSelector('footer button');
  let taps = 0;
  for (; taps < most && !what.test(await screenSays(page)); taps++) {
    const all = await page.evaluate(() =>
      [...document.querySelectorAll('footer button')].some(b => /^All \d+/.test(b.textContent ?? '')),
    );
    await onward(page, all ? /^All \d+/ : undefined);
  }
  await says(page, what);
  return taps;
}

/** Goes to a step of a run by the words in its title, through the list of all steps. */
export async function goToStep(page: Page, title: string): Promise<void> {
  await page.locator('header button').click();
  await page.waitForSelector('[role=dialog]');
  await page.evaluate(t => {
    const found = [...document.querySelectorAll<HTMLButtonElement>('[role=dialog] li button')].find(b =>
      b.textContent?.includes(t),
    );
    if (!found) throw new Error(`no step "${t}"`);
    found.click();
  }, title);
  await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
}
