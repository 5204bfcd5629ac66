import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createClient } from '@libsql/client';
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
  readonly close: () => void;
}

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

/** Opens the database in a folder, or at `url`, creating and migrating it. Throws when the place is not writable. */
export async function openStore(dataDir: string, url?: string): Promise<Store> {
  if (!url) await mkdir(dataDir, { recursive: true });
  const client = createClient({ url: url ?? `file:${join(dataDir, 'plate-fold.db')}`, timeout: 5000 });
  if (!url || url.startsWith('file:')) {
    await client.execute('PRAGMA journal_mode = WAL');
    await client.execute('PRAGMA foreign_keys = ON');
  }
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: MIGRATIONS });
  return { db, write: writeQueue(), events: runEvents(), close: () => client.close() };
}
