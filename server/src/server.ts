import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { createApp } from './app';
import { dailyBackups } from './db/backups';
import { openStore, type Store } from './db/open';
import { loadDemo } from './demo';
import { hostNames } from './guard';
import { shareApp } from './share/app';
import { Sharing } from './share/sharing';

export interface ServerOptions {
  readonly dataDir: string;
  readonly databaseUrl?: string;
  readonly port: number;
  readonly host?: string;
  readonly web?: string;
  readonly demo?: boolean;
  readonly quiet?: boolean;
  /** where a shared run listens on the local network */
  readonly shareHost?: string;
  readonly sharePort?: number;
}

export interface RunningServer {
  readonly address: string;
  readonly port: number;
  readonly close: () => Promise<void>;
}

/** After the start, ms. */
const FIRST_BACKUP_MS = 20_000;

export const BUILT_WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

const listening = (server: Server, port: number, host: string): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, host, () => {
      server.off('error', fail);
      done();
    });
  });

/** Opens the database, loads the demo on first run and listens, on the loopback address unless told otherwise. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const store = await openStore(options.dataDir, options.databaseUrl);
  try {
    return await serve(options, store);
  } catch (e) {
    await store.close();
    throw e;
  }
}

async function serve(options: ServerOptions, store: Store): Promise<RunningServer> {
  const host = options.host ?? '127.0.0.1';
  const log = pino({ level: options.quiet ? 'silent' : 'warn' });
  if (options.demo ?? true) await loadDemo(store);
  const mistake = (e: unknown): void => log.error(e);
  const sharing = new Sharing({
    host: options.shareHost ?? '0.0.0.0',
    port: options.sharePort ?? (options.port > 0 ? options.port + 1 : 0),
    app: s => shareApp(store, options.web, mistake, s),
    onEnd: run => store.events.tell(run, 'share-ended', {}),
  });
  store.events.whenever('ended', run => sharing.runEnded(run));
  const backups = store.file === undefined ? undefined : dailyBackups(store.file, { log: mistake });
  const app = createApp({
    store,
    hosts: hostNames(host),
    web: options.web,
    log: mistake,
    sharing,
    backups,
  });
  const server = createServer(app.callback());
  await listening(server, options.port, host);
  // whoever waits for the first page does not wait for this
  const first = backups && setTimeout(() => void backups.look(), FIRST_BACKUP_MS);
  first?.unref();
  const { port } = server.address() as AddressInfo;
  return {
    address: `http://${host}:${port}`,
    port,
    close: async () => {
      await sharing.close();
      clearTimeout(first);
      await backups?.stop();
      server.closeAllConnections();
      await new Promise(done => server.close(done));
      await store.close();
    },
  };
}
