import Router from '@koa/router';
import { type LogEntry, readLogEntry } from '@plate-fold/core/log';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Store } from '../db/open';
import { documents, logEntries, logPhotos } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';
import { answerPhoto, sentPhoto } from './photo';
import { sent } from './sent';

const MOST = 500;

/** What happened to a plan's vehicle: read, added, put right, struck out. */
export function logRoutes({ db, write }: Store): Router {
  const router = new Router({ prefix: '/api/documents/:id/log' });

  const known = async (id: string): Promise<void> => {
    const found = await db.select({ id: documents.id }).from(documents).where(eq(documents.id, id));
    if (found.length === 0) throw new Refusal(404, `There is no plan "${id}".`);
  };
  const entriesOf = async (id: string): Promise<LogEntry[]> =>
    (
      await db
        .select({ body: logEntries.body })
        .from(logEntries)
        .where(and(eq(logEntries.documentId, id), isNull(logEntries.struckAt)))
        .orderBy(asc(logEntries.at), asc(logEntries.id))
    ).map(r => JSON.parse(r.body) as LogEntry);
  const checked = (value: unknown): LogEntry => {
    const r = readLogEntry(value);
    if (!r.ok) throw new Refusal(422, r.fault);
    return r.entry;
  };
  const rowOf = (documentId: string, e: LogEntry) => ({
    id: e.id,
    documentId,
    kind: e.kind,
    at: e.at,
    body: JSON.stringify(e),
    receivedAt: Date.now(),
  });

  router.get('/', async ctx => {
    const id = param(ctx.params, 'id');
    await known(id);
    ctx.body = await entriesOf(id);
  });

  /** Adds entries. One that is sent twice is kept once, so a device may repeat until it hears back. */
  router.post('/', async ctx => {
    const id = param(ctx.params, 'id');
    await known(id);
    const { entries } = sent(ctx);
    if (!Array.isArray(entries) || entries.length > MOST)
      throw new Refusal(422, `entries must be a list of at most ${MOST}.`);
    const rows = entries.map(e => rowOf(id, checked(e)));
    if (rows.length > 0) await write(() => db.insert(logEntries).values(rows).onConflictDoNothing());
    ctx.status = 201;
    ctx.body = await entriesOf(id);
  });

  /** Keeps a photo of an entry, its id made on the device; sent again it is kept once. */
  router.put('/photos/:photo', async ctx => {
    const id = param(ctx.params, 'id');
    await known(id);
    const photo = await sentPhoto(ctx, param(ctx.params, 'photo'));
    await write(() =>
      db
        .insert(logPhotos)
        .values({ ...photo, documentId: id })
        .onConflictDoNothing(),
    );
    ctx.status = 201;
    ctx.body = { received: photo.id };
  });

  router.get('/photos/:photo', async ctx => {
    const [photo] = await db
      .select()
      .from(logPhotos)
      .where(
        and(eq(logPhotos.documentId, param(ctx.params, 'id')), eq(logPhotos.id, param(ctx.params, 'photo'))),
      );
    answerPhoto(ctx, photo);
  });

  router.put('/:entry', async ctx => {
    const [id, entry] = [param(ctx.params, 'id'), param(ctx.params, 'entry')];
    const made = checked(sent(ctx));
    if (made.id !== entry)
      throw new Refusal(422, `The entry calls itself "${made.id}", its address "${entry}".`);
    const row = rowOf(id, made);
    const done = await write(() =>
      db
        .update(logEntries)
        .set(row)
        .where(and(eq(logEntries.documentId, id), eq(logEntries.id, entry)))
        .returning({ id: logEntries.id }),
    );
    if (done.length === 0) throw new Refusal(404, 'There is no such entry.');
    ctx.body = await entriesOf(id);
  });

  /** Strikes an entry out; it stays in the database. */
  router.delete('/:entry', async ctx => {
    const [id, entry] = [param(ctx.params, 'id'), param(ctx.params, 'entry')];
    const done = await write(() =>
      db
        .update(logEntries)
        .set({ struckAt: Date.now() })
        .where(and(eq(logEntries.documentId, id), eq(logEntries.id, entry)))
        .returning({ id: logEntries.id }),
    );
    if (done.length === 0) throw new Refusal(404, 'There is no such entry.');
    ctx.body = await entriesOf(id);
  });
  return router;
}
