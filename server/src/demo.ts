import { readdir, readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { describeFaults, readDocument } from '@plate-fold/core';
import { eq } from 'drizzle-orm';
import { addDocument } from './api/documents';
import type { Store } from './db/open';
import { meta } from './db/schema';

const DEMO = fileURLToPath(new URL('../../demo/', import.meta.url));

/** Loads the demo plans into an empty database, once; plans the owner deletes or changes are not brought back. */
export async function loadDemo(store: Store): Promise<number> {
  const done = await store.db.select().from(meta).where(eq(meta.key, 'demo'));
  if (done.length > 0) return 0;
  const files = (await readdir(DEMO)).filter(f => f.endsWith('.platefold.json')).sort();
  for (const file of files) {
    const read = readDocument(await readFile(`${DEMO}${file}`, 'utf8'));
    if (!read.ok) throw new Error(`demo/${file}: ${describeFaults(read.faults)}`);
    await addDocument(store, read.document);
  }
  await store.write(() => store.db.insert(meta).values({ key: 'demo', value: new Date().toISOString() }));
  return files.length;
}
