import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';

/** How many are kept. */
const KEEP = 7;
const DAY_MS = 24 * 3600_000;
const LOOK_MS = 3600_000;
const NAME = /^plate-fold-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})\.db$/;

export interface BackupState {
  /** where they lie */
  readonly folder: string;
  /** newest first */
  readonly kept: readonly { readonly name: string; readonly at: number; readonly bytes: number }[];
  /** why the last one could not be made */
  readonly fault?: string;
}

/** Copies of the database that are made once a day by themselves. */
export interface Backups {
  readonly state: () => Promise<BackupState>;
  /** makes one now if the newest is a day old; whether one was made */
  readonly look: () => Promise<boolean>;
  readonly stop: () => Promise<void>;
}

export interface BackupOptions {
  readonly now?: () => number;
  readonly log: (e: unknown) => void;
}

/** Copies a database whole, also while it is in use. Throws with what the database says. */
function copyInto(from: string, to: string): Promise<void> {
  return new Promise((done, fail) => {
    const worker = new Worker(new URL('./vacuum.mjs', import.meta.url), { workerData: { from, to } });
    worker.once('message', (m: { ok: boolean; why?: string }) =>
      m.ok ? done() : fail(new Error(m.why ?? 'the copy failed')),
    );
    worker.once('error', fail);
  });
}

/** Keeps a week of copies of a database file, in the folder `backups` beside it. A copy counts only when it is whole. */
export function dailyBackups(file: string, { now = Date.now, log }: BackupOptions): Backups {
  const folder = join(dirname(file), 'backups');
  let fault: string | undefined;
  let making: Promise<boolean> = Promise.resolve(false);
  const kept = async () => {
    const names = (await readdir(folder).catch(() => [])).filter(n => NAME.test(n));
    const all = await Promise.all(
      names.map(async name => {
        const [day = '', clock = ''] = name.slice('plate-fold-'.length, -'.db'.length).split('T');
        return {
          name,
          at: Date.parse(`${day}T${clock.replaceAll('-', ':')}Z`),
          bytes: (await stat(join(folder, name))).size,
        };
      }),
    );
    return all.sort((a, b) => b.at - a.at);
  };
  const make = async (): Promise<boolean> => {
    const before = await kept();
    const at = now();
    // one that a fast clock has dated ahead does not keep others from being made for ever
    if (before[0] && at - before[0].at < DAY_MS && before[0].at - at < DAY_MS) return false;
    const stamp = new Date(at).toISOString().slice(0, 19).replaceAll(':', '-');
    const part = join(folder, `unfinished-${process.pid}.db`);
    try {
      await mkdir(folder, { recursive: true });
      await rm(part, { force: true });
      await copyInto(file, part);
      await rename(part, join(folder, `plate-fold-${stamp}.db`));
      fault = undefined;
    } catch (e) {
      fault = `The last backup could not be made: ${(e as Error).message}.`;
      log(e);
      await rm(part, { force: true }).catch(() => undefined);
      return false;
    }
    for (const old of (await kept()).slice(KEEP)) await rm(join(folder, old.name), { force: true });
    return true;
  };
  const look = (): Promise<boolean> => {
    making = making.then(make, make);
    return making;
  };
  const timer = setInterval(() => void look(), LOOK_MS);
  timer.unref();
  return {
    state: async () => ({ folder, kept: await kept(), ...(fault ? { fault } : {}) }),
    look,
    stop: async () => {
      clearInterval(timer);
      await making.catch(() => undefined);
    },
  };
}
