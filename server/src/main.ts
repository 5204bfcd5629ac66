import { resolve } from 'node:path';
import type { RunningServer } from './server';

/* Signals are heard from the first line: what is under way is a transaction, so a start may end at any point of it. */
let running: RunningServer | undefined;
let ending = false;
const end = (): void => {
  if (ending || !running) process.exit(0);
  ending = true;
  running.close().then(
    () => process.exit(0),
    () => process.exit(1),
  );
};
process.on('SIGINT', end);
process.on('SIGTERM', end);

const port = Number(process.env.PORT ?? 4173);
const dataDir = resolve(process.env.DATA_DIR ?? 'data');
const databaseUrl = process.env.DATABASE_URL || undefined;

const { DatabaseFault } = await import('./db/open');
const { placeFault, wordsOf } = await import('./fault');
const { BUILT_WEB, startServer } = await import('./server');

/** What is wrong with the data folder, and what helps. */
const PLACES = {
  full: `The disk that holds ${dataDir} is full. Make room and start again: nothing is lost.`,
  damaged: `${dataDir}/plate-fold.db is damaged or not a database. Move it aside; a new one is made on the next start, and the newest backup lies in ${dataDir}/backups.`,
  failing: `The disk that holds ${dataDir} is full or failing: the database cannot be read or written.`,
  held: `${dataDir}/plate-fold.db is held by another program. End that, then start again.`,
  closed: `The data folder ${dataDir} cannot be written to. Choose another: DATA_DIR=~/plate-fold npm start`,
} as const;

/** What keeps the server from starting, as one line for people. */
function reason(e: unknown): string {
  const { code, message } = e as NodeJS.ErrnoException;
  const text = wordsOf(e);
  if (e instanceof DatabaseFault) return message;
  if (code === 'EADDRINUSE') return `Port ${port} is already in use. Choose another: PORT=4180 npm start`;
  if (code === 'EACCES' && /listen/.test(text))
    return `Port ${port} may not be used by you. Choose another: PORT=4180 npm start`;
  if (/URL_INVALID|URL_SCHEME|URL_PARAM|not supported|Invalid URL/i.test(text))
    return `DATABASE_URL is "${databaseUrl}", which is no address of a database. It is file:, libsql:, http: or https:.`;
  if (databaseUrl && !databaseUrl.startsWith('file:'))
    return `The database at ${databaseUrl} does not answer: ${text.trim().split('\n')[0]}.`;
  const place = placeFault(e);
  if (place !== undefined && place !== 'away') return PLACES[place];
  return `Plate Fold could not start: ${message}`;
}

if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`PORT must be a number from 1 to 65535, not "${process.env.PORT}".`);
  process.exit(1);
}
try {
  running = await startServer({
    port,
    dataDir,
    databaseUrl,
    host: process.env.HOST,
    shareHost: process.env.SHARE_HOST,
    sharePort: process.env.SHARE_PORT === undefined ? undefined : Number(process.env.SHARE_PORT),
    web: BUILT_WEB,
  });
  console.log(`Plate Fold is ready: ${running.address}`);
} catch (e) {
  console.error(reason(e));
  process.exit(1);
}
