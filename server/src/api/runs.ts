import { randomUUID } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import Router from '@koa/router';
import type { LogEntry } from '@plate-fold/core';
import { and, asc, desc, eq } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, logEntries, photos, runs, ticks } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';

const tickSchema = yup.object({
  id: yup.string().required().max(64),
  stepId: yup.string().required().max(120),
  jointId: yup.string().nullable().max(120),
  kind: yup
    .string()
    .oneOf(['done', 'undone', 'deviation'] as const)
    .required(),
  torqueNm: yup.number().nullable().min(0).max(1000),
  note: yup.string().nullable().max(2000),
  who: yup.string().nullable().max(80),
  wrench: yup.string().nullable().max(80),
  photo: yup.string().nullable().max(64),
  at: yup.number().required().integer(),
  device: yup.string().required().max(64),
});

const bodySchema = yup.object({ ticks: yup.array().of(tickSchema.required()).required().max(500) });

const endSchema = yup.object({
  km: yup.number().min(0).max(5_000_000),
  minutes: yup.number().min(0).max(10_000),
});

const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'];
/** A phone makes its photos smaller before it sends them. */
const MOST_PHOTO = 3_000_000;

/** The first bytes by which each kind of picture is known. */
function looksLike(bytes: Buffer, type: string): boolean {
  if (type === 'image/jpeg') return bytes[0] === 0xff && bytes[1] === 0xd8;
  if (type === 'image/png') return bytes.subarray(1, 4).toString('latin1') === 'PNG';
  return (
    bytes.subarray(0, 4).toString('latin1') === 'RIFF' && bytes.subarray(8, 12).toString('latin1') === 'WEBP'
  );
}

/** All bytes of a request, no more than so many. What is over is read and dropped, or the sender would never hear why. */
async function upTo(request: IncomingMessage, most: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of request) {
    length += (part as Buffer).length;
    if (length <= most) parts.push(part as Buffer);
    if (length > 10 * most) break;
  }
  if (length > most)
    throw new Refusal(413, `The photo is larger than ${most / 1e6} MB: it was not kept. The note was.`);
  return Buffer.concat(parts);
}

export function runRoutes({ db, write }: Store): Router {
  const router = new Router({ prefix: '/api' });

  const runNamed = async (id: string) => {
    const [run] = await db.select().from(runs).where(eq(runs.id, id));
    if (!run) throw new Refusal(404, 'There is no such run.');
    return run;
  };
  const ticksOf = (id: string) =>
    db.select().from(ticks).where(eq(ticks.runId, id)).orderBy(asc(ticks.at), asc(ticks.id));

  router.get('/documents/:id/runs', async ctx => {
    ctx.body = await db
      .select({
        id: runs.id,
        buildId: runs.buildId,
        revision: runs.revision,
        service: runs.service,
        startedAt: runs.startedAt,
        endedAt: runs.endedAt,
      })
      .from(runs)
      .where(eq(runs.documentId, param(ctx.params, 'id')))
      .orderBy(desc(runs.startedAt));
  });

  router.post('/documents/:id/runs', async ctx => {
    const { buildId, service } = ctx.request.body as { buildId?: string; service?: string };
    const [doc] = await db
      .select()
      .from(documents)
      .where(eq(documents.id, param(ctx.params, 'id')));
    if (!doc) throw new Refusal(404, `There is no plan "${param(ctx.params, 'id')}".`);
    const { plan, rig } = JSON.parse(doc.body) as {
      plan: { builds: { id: string }[] };
      rig: { servicePoints: { id: string }[] };
    };
    if (service !== undefined && !rig.servicePoints.some(p => p.id === service))
      throw new Refusal(422, `There is no service "${service}" on this vehicle.`);
    if (!plan.builds.some(b => b.id === buildId))
      throw new Refusal(422, `There is no build "${buildId}" in this plan.`);
    const run = {
      id: randomUUID(),
      documentId: doc.id,
      revision: doc.revision,
      buildId: buildId as string,
      service: service ?? null,
      body: doc.body,
      startedAt: Date.now(),
    };
    await write(() => db.insert(runs).values(run));
    ctx.status = 201;
    ctx.body = { id: run.id };
  });

  router.get('/runs/:id', async ctx => {
    const { body, ...run } = await runNamed(param(ctx.params, 'id'));
    ctx.body = { ...run, document: JSON.parse(body), ticks: await ticksOf(run.id) };
  });

  /** Adds what a device has done. A tick sent twice is stored once, so a device may repeat until it hears back. */
  router.post('/runs/:id/ticks', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    let sent: yup.InferType<typeof bodySchema>;
    try {
      sent = bodySchema.validateSync(ctx.request.body, { strict: true });
    } catch (e) {
      throw new Refusal(422, `Not a tick: ${(e as Error).message}.`);
    }
    if (sent.ticks.length > 0)
      await write(() =>
        db
          .insert(ticks)
          .values(sent.ticks.map(t => ({ ...t, runId: run.id, receivedAt: Date.now() })))
          .onConflictDoNothing(),
      );
    ctx.body = { received: sent.ticks.map(t => t.id), ticks: await ticksOf(run.id) };
  });

  /** Keeps a photo, its id made on the device; sent again it is kept once. */
  router.put('/runs/:id/photos/:photo', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const type = ctx.get('content-type').split(';')[0]?.trim() ?? '';
    if (!PHOTO_TYPES.includes(type))
      throw new Refusal(415, `A photo is one of ${PHOTO_TYPES.join(', ')}, not "${type}".`);
    const id = param(ctx.params, 'photo');
    if (id.length > 64) throw new Refusal(422, 'The id of the photo is too long.');
    const bytes = await upTo(ctx.req, MOST_PHOTO);
    if (!looksLike(bytes, type)) throw new Refusal(422, `The photo is torn: its bytes are not ${type}.`);
    await write(() =>
      db
        .insert(photos)
        .values({ id, runId: run.id, type, bytes, receivedAt: Date.now() })
        .onConflictDoNothing(),
    );
    ctx.status = 201;
    ctx.body = { received: id };
  });

  router.get('/runs/:id/photos/:photo', async ctx => {
    const [photo] = await db
      .select()
      .from(photos)
      .where(and(eq(photos.runId, param(ctx.params, 'id')), eq(photos.id, param(ctx.params, 'photo'))));
    if (!photo) throw new Refusal(404, 'There is no such photo.');
    ctx.type = photo.type;
    ctx.set('cache-control', 'private, max-age=31536000, immutable');
    ctx.body = Buffer.from(photo.bytes);
  });

  /** Ends a run and writes it into the plan's log, once. */
  router.post('/runs/:id/end', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    let said: yup.InferType<typeof endSchema>;
    try {
      said = endSchema.validateSync(ctx.request.body ?? {}, { strict: true });
    } catch (e) {
      throw new Refusal(422, `Not an end of a run: ${(e as Error).message}.`);
    }
    const done = await ticksOf(run.id);
    const off = done.filter(t => t.kind === 'deviation').length;
    const entry: LogEntry = {
      id: `run-${run.id}`,
      kind: run.service === null ? 'install' : 'service',
      at: Date.now(),
      run: run.id,
      ...(said.km === undefined ? {} : { km: said.km }),
      ...(run.service === null ? {} : { point: run.service }),
      ...(said.minutes === undefined ? {} : { minutes: said.minutes }),
      ...(done.some(t => t.kind === 'done' && t.jointId !== null) ? { opened: true } : {}),
      ...(off > 0
        ? { note: `${off} ${off === 1 ? 'thing was' : 'things were'} off: see the record of the run.` }
        : {}),
    };
    await write(async () => {
      await db.update(runs).set({ endedAt: entry.at }).where(eq(runs.id, run.id));
      await db
        .insert(logEntries)
        .values({
          id: entry.id,
          documentId: run.documentId,
          kind: entry.kind,
          at: entry.at,
          body: JSON.stringify(entry),
          receivedAt: entry.at,
        })
        .onConflictDoNothing();
    });
    ctx.body = { ended: true };
  });
  return router;
}
