import { resolve } from 'node:path';
import { BUILT_WEB, startServer } from './server';

const port = Number(process.env.PORT ?? 4173);
const dataDir = resolve(process.env.DATA_DIR ?? 'data');

/** What keeps the server from starting, as one line for people. */
function reason(e: unknown): string {
  const { code, message, cause } = e as NodeJS.ErrnoException & { cause?: { message?: string } };
  const text = `${message} ${cause?.message ?? ''}`;
  if (code === 'EADDRINUSE') return `Port ${port} is already in use. Choose another: PORT=4180 npm start`;
  if (code === 'EACCES' && /listen/.test(text))
    return `Port ${port} may not be used by you. Choose another: PORT=4180 npm start`;
  if (
    /EACCES|EROFS|ENOTDIR|EEXIST|EPERM|SQLITE_CANTOPEN|SQLITE_READONLY|ConnectionFailed|unable to open/i.test(
      text,
    )
  )
    return `The data folder ${dataDir} cannot be written to. Choose another: DATA_DIR=~/plate-fold npm start`;
  if (/SQLITE_FULL|ENOSPC/.test(text)) return `The disk that holds ${dataDir} is full.`;
  if (/SQLITE_CORRUPT|SQLITE_NOTADB/.test(text))
    return `${dataDir}/plate-fold.db is damaged or not a database. Move it aside; a new one is made on the next start.`;
  return `Plate Fold could not start: ${message}`;
}

if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`PORT must be a number from 1 to 65535, not "${process.env.PORT}".`);
  process.exit(1);
}
try {
  const server = await startServer({
    port,
    dataDir,
    databaseUrl: process.env.DATABASE_URL,
    host: process.env.HOST,
    shareHost: process.env.SHARE_HOST,
    sharePort: process.env.SHARE_PORT === undefined ? undefined : Number(process.env.SHARE_PORT),
    web: BUILT_WEB,
  });
  console.log(`Plate Fold is ready: ${server.address}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      server.close().then(() => process.exit(0));
    });
} catch (e) {
  console.error(reason(e));
  process.exit(1);
}
