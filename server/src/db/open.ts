import { readFileSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type Client, createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { type RunEvents, runEvents } from '../run-events';
import { writeQueue } from './queue';
import * as schema from './schema';

export interface Store {
  readonly db: LibSQLDatabase<typeof schema>;
  /** every write goes through here */
  readonly write: ReturnType<typeof writeQueue>;
  /** tells who is connected what is new in a run */
  readonly events: RunEvents;
  /** the database's own file; undefined where it lies elsewhere */
  readonly file?: string;
  /** brings what is still in the write-ahead log into the file, so that the file copied alone is whole */
  readonly checkpoint: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** What keeps a database from being used, as one line for people. */
export class DatabaseFault extends Error {}

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

/** When the newest migration that this version knows was made. */
const newestKnown = (): number =>
  Math.max(
    ...(
      JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
        entries: readonly { when: number }[];
      }
    ).entries.map(e => e.when),
  );

/** Refuses a database that a newer version has changed: writing into it could lose what that version keeps. */
async function refuseNewer(client: Client, place: string): Promise<void> {
  const { rows } = await client.execute("select name from sqlite_master where name = '__drizzle_migrations'");
  if (rows.length === 0) return;
  const last = await client.execute('select max(created_at) as at from __drizzle_migrations');
  if (Number(last.rows[0]?.at ?? 0) > newestKnown())
    throw new DatabaseFault(
      `${place} was made by a newer version of Plate Fold: start that version, or choose another folder with DATA_DIR. Nothing was changed.`,
    );
}

/**
 * Opens the database in a folder, or at `url`, creating and migrating it; one of an earlier version is brought up to this one. Throws when
 * the place is not writable, and a `DatabaseFault` when it cannot be used.
 */
export async function openStore(dataDir: string, url?: string): Promise<Store> {
  if (!url) await mkdir(dataDir, { recursive: true });
  const address = url ?? `file:${join(dataDir, 'plate-fold.db')}`;
  const file = address.startsWith('file:') ? address.slice('file:'.length) : undefined;
  const client = createClient({ url: address, timeout: 5000 });
  try {
    if (file !== undefined) {
      await client.execute('PRAGMA journal_mode = WAL');
      await client.execute('PRAGMA foreign_keys = ON');
    }
    await refuseNewer(client, file ?? address);
    const db = drizzle(client, { schema });
    await migrate(db, { migrationsFolder: MIGRATIONS });
    const checkpoint = async (): Promise<void> => {
      if (file !== undefined) await client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
    };
    const write = writeQueue();
    return {
      db,
      write,
      events: runEvents(),
      ...(file === undefined ? {} : { file }),
      checkpoint,
      close: async () => {
        // what is being written is finished first
        await write(checkpoint).catch(() => undefined);
        client.close();
      },
    };
  } catch (e) {
    client.close();
    throw e;
  }
}
