import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import Database from 'libsql';

/*
 * A small stand-in for a libSQL server, for tests: the Hrana protocol over HTTP, version 2 (its published specification), as far as the
 * client speaks it. Each stream has a connection of its own to one database file.
 */
type Value =
  | { readonly type: 'null' }
  | { readonly type: 'integer'; readonly value: string }
  | { readonly type: 'float'; readonly value: number }
  | { readonly type: 'text'; readonly value: string }
  | { readonly type: 'blob'; readonly base64: string };
interface Stmt {
  readonly sql?: string;
  readonly sql_id?: number;
  readonly args?: readonly Value[];
  readonly named_args?: readonly { readonly name: string; readonly value: Value }[];
}
interface Cond {
  readonly type: 'ok' | 'error' | 'not' | 'and' | 'or' | 'is_autocommit';
  readonly step?: number;
  readonly cond?: Cond;
  readonly conds?: readonly Cond[];
}
interface Asked {
  readonly type: string;
  readonly stmt?: Stmt;
  readonly sql?: string;
  readonly sql_id?: number;
  readonly batch?: { readonly steps: readonly { readonly condition?: Cond | null; readonly stmt: Stmt }[] };
}
interface Stream {
  readonly db: Database.Database;
  readonly texts: Map<number, string>;
}
interface Fault {
  readonly message: string;
  readonly code: string;
}

const given = (v: Value): unknown =>
  v.type === 'null'
    ? null
    : v.type === 'integer'
      ? BigInt(v.value)
      : v.type === 'blob'
        ? Buffer.from(v.base64, 'base64')
        : v.value;
const told = (v: unknown): Value => {
  if (v === null || v === undefined) return { type: 'null' };
  if (typeof v === 'bigint') return { type: 'integer', value: String(v) };
  if (typeof v === 'number')
    return Number.isInteger(v) ? { type: 'integer', value: String(v) } : { type: 'float', value: v };
  if (typeof v === 'string') return { type: 'text', value: v };
  return { type: 'blob', base64: Buffer.from(v as Uint8Array).toString('base64') };
};
const wrong = (e: unknown): Fault => ({
  message: (e as Error).message,
  code: (e as { code?: string }).code ?? 'SQLITE_ERROR',
});
const pause = (): Promise<unknown> => new Promise(done => setTimeout(done, 5));

async function run({ db, texts }: Stream, s: Stmt) {
  const sql = s.sql ?? texts.get(s.sql_id ?? -1) ?? '';
  const args = s.named_args?.length
    ? [Object.fromEntries(s.named_args.map(a => [a.name.replace(/^[:@$]/, ''), given(a.value)]))]
    : (s.args ?? []).map(given);
  for (let tries = 0; ; tries++)
    try {
      const stmt = db.prepare(sql);
      stmt.safeIntegers(true);
      if (stmt.reader) {
        const rows = stmt.raw(true).all(...args) as unknown[][];
        const cols = stmt.columns().map(c => ({ name: c.name, decltype: c.type }));
        return {
          cols,
          rows: rows.map(r => r.map(told)),
          affected_row_count: Number((db.prepare('select changes() as n').get() as { n: number }).n),
          last_insert_rowid: null,
        };
      }
      const info = stmt.run(...args);
      return {
        cols: [],
        rows: [],
        affected_row_count: info.changes,
        last_insert_rowid: String(info.lastInsertRowid),
      };
    } catch (e) {
      // another stream writes: it waits, and the others go on
      if (tries > 2000 || !/BUSY|locked/i.test(`${(e as Error).message} ${(e as { code?: string }).code}`))
        throw e;
      await pause();
    }
}

async function answer(stream: Stream, asked: Asked): Promise<unknown> {
  const { db, texts } = stream;
  switch (asked.type) {
    case 'execute':
      return { type: 'execute', result: await run(stream, asked.stmt as Stmt) };
    case 'batch': {
      const results: unknown[] = [];
      const errors: (Fault | null)[] = [];
      const holds = (c: Cond): boolean => {
        switch (c.type) {
          case 'ok':
            return results[c.step ?? -1] != null;
          case 'error':
            return errors[c.step ?? -1] != null;
          case 'not':
            return !holds(c.cond as Cond);
          case 'and':
            return (c.conds ?? []).every(holds);
          case 'or':
            return (c.conds ?? []).some(holds);
          default:
            return !db.inTransaction;
        }
      };
      for (const { condition, stmt } of asked.batch?.steps ?? []) {
        if (condition && !holds(condition)) {
          results.push(null);
          errors.push(null);
          continue;
        }
        try {
          results.push(await run(stream, stmt));
          errors.push(null);
        } catch (e) {
          results.push(null);
          errors.push(wrong(e));
        }
      }
      return { type: 'batch', result: { step_results: results, step_errors: errors } };
    }
    case 'sequence':
      db.exec(asked.sql ?? texts.get(asked.sql_id ?? -1) ?? '');
      return { type: 'sequence' };
    case 'store_sql':
      texts.set(asked.sql_id as number, asked.sql as string);
      return { type: 'store_sql' };
    case 'close_sql':
      texts.delete(asked.sql_id as number);
      return { type: 'close_sql' };
    case 'get_autocommit':
      return { type: 'get_autocommit', is_autocommit: !db.inTransaction };
    case 'close':
      return { type: 'close' };
    default:
      throw new Error(`the stand-in does not know ${asked.type}`);
  }
}

const read = async (request: IncomingMessage): Promise<string> => {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts).toString();
};

/** Serves a database file at an `http:` address of this machine. */
export async function libsqlServer(
  file: string,
): Promise<{ readonly url: string; readonly close: () => Promise<void> }> {
  const streams = new Map<string, Stream>();
  const first = new Database(file);
  first.pragma('journal_mode = WAL');
  const server = createServer((request, response) => {
    void (async () => {
      if (request.method === 'GET') {
        response.writeHead(request.url === '/v2' ? 200 : 404).end();
        return;
      }
      const { baton, requests } = JSON.parse(await read(request)) as {
        baton: string | null;
        requests: readonly Asked[];
      };
      const stream = (baton && streams.get(baton)) || {
        db: new Database(file, { timeout: 0 } as never),
        texts: new Map(),
      };
      if (baton) streams.delete(baton);
      const results: unknown[] = [];
      for (const asked of requests)
        try {
          results.push({ type: 'ok', response: await answer(stream, asked) });
        } catch (e) {
          results.push({ type: 'error', error: wrong(e) });
        }
      const over = requests.some(r => r.type === 'close');
      const next = over ? null : randomUUID();
      if (next) streams.set(next, stream);
      else {
        if (stream.db.inTransaction) stream.db.exec('ROLLBACK');
        stream.db.close();
      }
      response
        .writeHead(200, { 'content-type': 'application/json' })
        .end(JSON.stringify({ baton: next, base_url: null, results }));
    })().catch(e => response.writeHead(500).end(String(e)));
  });
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: async () => {
      server.closeAllConnections();
      await new Promise(done => server.close(done));
      for (const s of streams.values()) s.db.close();
      first.close();
    },
  };
}
