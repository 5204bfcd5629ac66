import { mkdir, open, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { eq } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents } from '../db/schema';
import { Refusal } from '../fault';
import { collect } from './collect';
import { packed, unpacked } from './pack';
import { removePlan, restore } from './restore';

/** How long a deleted plan can be brought back, days. */
export const KEPT_DAYS = 30;
const DAY_MS = 24 * 3600_000;
const KEY = /^[\w-]+$/;

const labelSchema = yup.object({
  id: yup.string().required(),
  name: yup.string().required(),
  at: yup.number().required(),
  archivedAt: yup.number().nullable().defined(),
  example: yup.boolean().required(),
});
type Label = yup.InferType<typeof labelSchema>;

/** A plan that was deleted, and the key it is brought back by. */
export interface Deleted extends Pick<Label, 'id' | 'name' | 'at'> {
  readonly key: string;
}

/** Writes a file and has it on the disk before anything else happens. */
async function written(path: string, bytes: Uint8Array): Promise<void> {
  await writeFile(path, bytes);
  const file = await open(path, 'r');
  await file.sync();
  await file.close();
}

/**
 * Deleted plans with all that belongs to them, as archives in the folder `deleted` beside the database: a plan is taken out of the database
 * only once its archive is on the disk. After KEPT_DAYS an archive is deleted for good.
 */
export function binOf(store: Store, now: () => number = Date.now) {
  const { db, write, file } = store;
  const folder = (): string => {
    if (!file) throw new Refusal(409, 'This database has no folder of its own to keep deleted plans in.');
    return join(dirname(file), 'deleted');
  };
  const labelOf = async (key: string): Promise<Label> => {
    if (!KEY.test(key)) throw new Refusal(404, 'There is no such deleted plan.');
    const text = await readFile(join(folder(), `${key}.json`), 'utf8').catch(() => undefined);
    if (text === undefined) throw new Refusal(404, 'That plan cannot be brought back any more.');
    return labelSchema.validateSync(JSON.parse(text));
  };
  const forget = async (key: string): Promise<void> => {
    for (const ending of ['json', 'zip']) await rm(join(folder(), `${key}.${ending}`), { force: true });
  };
  return {
    /** Takes a plan out. A Refusal where there is none. */
    put: async (id: string): Promise<Deleted> => {
      const [row] = await db.select().from(documents).where(eq(documents.id, id));
      if (!row) throw new Refusal(404, `There is no plan "${id}".`);
      const at = now();
      const key = `${id.replace(/[^\w-]+/g, '-')}-${at.toString(36)}`;
      const label: Label = {
        id,
        name: row.name,
        at,
        archivedAt: row.archivedAt,
        example: row.example,
      };
      await mkdir(folder(), { recursive: true });
      await written(
        join(folder(), `${key}.zip`),
        await packed(await collect(store, { plan: id, versions: true })),
      );
      await written(join(folder(), `${key}.json`), Buffer.from(JSON.stringify(label)));
      await removePlan(store, id);
      return { key, id, name: row.name, at };
    },
    /** Brings one back as it was, under its own id; a Refusal where that is taken meanwhile. */
    back: async (key: string): Promise<{ readonly id: string }> => {
      const { id, archivedAt, example } = await labelOf(key);
      await restore(store, await unpacked(await readFile(join(folder(), `${key}.zip`))));
      await write(() => db.update(documents).set({ archivedAt, example }).where(eq(documents.id, id)));
      await forget(key);
      return { id };
    },
    /** Those that can be brought back, newest first; what is older than KEPT_DAYS goes. */
    list: async (): Promise<readonly Deleted[]> => {
      if (!file) return [];
      const keys = (await readdir(folder()).catch(() => []))
        .filter(n => n.endsWith('.json'))
        .map(n => n.slice(0, -'.json'.length));
      const all: Deleted[] = [];
      for (const key of keys) {
        const label = await labelOf(key).catch(() => undefined);
        if (!label) continue;
        if (now() - label.at > KEPT_DAYS * DAY_MS) await forget(key);
        else all.push({ key, id: label.id, name: label.name, at: label.at });
      }
      return all.sort((a, b) => b.at - a.at);
    },
  };
}
