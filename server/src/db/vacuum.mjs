// Writes a database into a new file while others go on using it; a thread of its own, since it reads all of it.
import { parentPort, workerData } from 'node:worker_threads';
import { createClient } from '@libsql/client';

const client = createClient({ url: `file:${workerData.from}`, timeout: 20_000 });
try {
  await client.execute({ sql: 'VACUUM INTO ?', args: [workerData.to] });
  parentPort.postMessage({ ok: true });
} catch (e) {
  parentPort.postMessage({ ok: false, why: e instanceof Error ? e.message : String(e) });
} finally {
  client.close();
}
