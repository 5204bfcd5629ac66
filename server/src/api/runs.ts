import { randomUUID } from 'node:crypto';
import Router from '@koa/router';
import { openFaults, phaseIn, readTick, type Tick } from '@plate-fold/core/sequence';
import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, kits, logEntries, photos, runs, ticks } from '../db/schema';
import { eventStream } from '../event-stream';
import { Refusal } from '../fault';
import { param } from './param';
import { answerPhoto, sentPhoto } from './photo';
import { documentOf } from './revisions';
import { carriedOver, logOf } from './run-end';
import { checked, sent } from './sent';
import { readTicks } from './ticks';

const MOST_TICKS = 500;

const endSchema = yup.object({
  km: yup.number().min(0).max(5_000_000),
  minutes: yup.number().min(0).max(10_000),
});

export function runRoutes(store: Store): Router {
  const { db, write, events } = store;
  const router = new Router({ prefix: '/api' });

  const runNamed = async (id: string) => {
    const [run] = await db.select().from(runs).where(eq(runs.id, id));
    if (!run) throw new Refusal(404, 'There is no such run.');
    return run;
  };

  router.get('/documents/:id/runs', async ctx => {
    ctx.body = await db
      .select({
        id: runs.id,
        buildId: runs.buildId,
        revision: runs.revision,
        service: runs.service,
        startedAt: runs.startedAt,
        endedAt: runs.endedAt,
        setAsideAt: runs.setAsideAt,
      })
      .from(runs)
      .where(eq(runs.documentId, param(ctx.params, 'id')))
      .orderBy(desc(runs.startedAt));
  });

  /** Begins a run. Bolts that the last one left unsound are reported in it from the start. */
  router.post('/documents/:id/runs', async ctx => {
    const { buildId, service } = sent(ctx) as { buildId?: string; service?: string };
    const [doc] = await db
      .select()
      .from(documents)
      .where(eq(documents.id, param(ctx.params, 'id')));
    if (!doc) throw new Refusal(404, `There is no plan "${param(ctx.params, 'id')}".`);
    const document = await documentOf(store, doc);
    const { plan, rig } = document;
    const phase = service === undefined ? undefined : phaseIn(service);
    if (phase !== undefined && !plan.phases?.some(f => f.id === phase))
      throw new Refusal(422, `There is no phase "${phase}" in this plan.`);
    if (service !== undefined && phase === undefined && !rig.servicePoints.some(p => p.id === service))
      throw new Refusal(422, `There is no service "${service}" on this vehicle.`);
    if (!plan.builds.some(b => b.id === buildId))
      throw new Refusal(422, `There is no build "${buildId}" in this plan.`);
    const run = {
      id: randomUUID(),
      documentId: doc.id,
      revision: doc.revision,
      buildId: buildId as string,
      service: service ?? null,
      body: JSON.stringify(document),
      startedAt: Date.now(),
    };
    const [last] = await db
      .select({ id: runs.id, endedAt: runs.endedAt })
      .from(runs)
      .where(and(eq(runs.documentId, doc.id), isNotNull(runs.endedAt), isNull(runs.setAsideAt)))
      .orderBy(desc(runs.endedAt))
      .limit(1);
    // a hole that the plan now knows as bad has its repair in the steps
    const known = new Set(
      [...rig.mounts, ...(plan.holes ?? [])].filter(m => m.condition !== 'good').map(m => m.id),
    );
    const joints = new Set(plan.joints.filter(j => !(j.mount && known.has(j.mount))).map(j => j.id));
    const carried = last
      ? carriedOver((await readTicks(store, last.id)).ticks, last.endedAt as number, joints, run.startedAt)
      : [];
    const begun = db.insert(runs).values(run);
    await write(() =>
      db.batch([
        begun,
        ...carried.map(t => db.insert(ticks).values({ ...t, runId: run.id, receivedAt: run.startedAt })),
      ]),
    );
    ctx.status = 201;
    ctx.body = { id: run.id };
  });

  router.get('/runs/:id', async ctx => {
    const { body, ...run } = await runNamed(param(ctx.params, 'id'));
    const [kit] = await db
      .select({ body: kits.body })
      .from(kits)
      .where(and(eq(kits.documentId, run.documentId), eq(kits.buildId, run.buildId)));
    ctx.body = {
      ...run,
      document: JSON.parse(body),
      ...(await readTicks(store, run.id)),
      // what was counted before the run began: a step says what of it is missing
      kit: kit ? JSON.parse(kit.body) : null,
    };
  });

  /** What is new in a run, as it happens: `ticks` with those that were added, `ended` when it is over. */
  router.get('/runs/:id/events', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const stream = eventStream(ctx, () => leave());
    const beat = setInterval(() => stream.say('beat', {}), 15_000);
    const stop = events.listen(run.id, stream.say);
    const leave = (): void => {
      clearInterval(beat);
      stop();
    };
    stream.say('listening', { run: run.id });
  });

  /**
   * Adds what a device has done. A tick sent twice is stored once, so a device may repeat until it hears back. One that is no tick is refused
   * alone, with what is wrong with it; the others are kept.
   */
  router.post('/runs/:id/ticks', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const { ticks: all } = sent(ctx);
    if (!Array.isArray(all) || all.length > MOST_TICKS)
      throw new Refusal(422, `ticks must be a list of at most ${MOST_TICKS}: nothing was saved.`);
    const good: Tick[] = [];
    const refused: { readonly id: unknown; readonly fault: string }[] = [];
    for (const one of all as readonly unknown[]) {
      const read = readTick(one);
      if (read.ok) good.push(read.tick);
      else refused.push({ id: (one as { id?: unknown } | null)?.id ?? null, fault: read.fault });
    }
    if (good.length > 0) {
      const receivedAt = Date.now();
      await write(() =>
        db
          .insert(ticks)
          .values(good.map(t => ({ ...t, runId: run.id, receivedAt })) as (typeof ticks.$inferInsert)[])
          .onConflictDoNothing(),
      );
      events.tell(run.id, 'ticks', { ticks: good });
    }
    if (refused.length > 0 && good.length === 0) ctx.status = 422;
    ctx.body = {
      received: good.map(t => t.id),
      ...(refused.length > 0 ? { refused, fault: refused[0]?.fault } : {}),
      ...(await readTicks(store, run.id)),
    };
  });

  /** Keeps a photo, its id made on the device; sent again it is kept once. */
  router.put('/runs/:id/photos/:photo', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const photo = await sentPhoto(ctx, param(ctx.params, 'photo'));
    await write(() =>
      db
        .insert(photos)
        .values({ ...photo, runId: run.id })
        .onConflictDoNothing(),
    );
    ctx.status = 201;
    ctx.body = { received: photo.id };
  });

  router.get('/runs/:id/photos/:photo', async ctx => {
    const [photo] = await db
      .select()
      .from(photos)
      .where(and(eq(photos.runId, param(ctx.params, 'id')), eq(photos.id, param(ctx.params, 'photo'))));
    answerPhoto(ctx, photo);
  });

  /** Sets a run aside that was begun by mistake, or takes it up again. */
  router.post('/runs/:id/set-aside', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const { aside } = sent(ctx) as { aside?: boolean };
    if (run.endedAt !== null) throw new Refusal(409, 'This run is ended: it stands in the log.');
    await write(() =>
      db
        .update(runs)
        .set({ setAsideAt: aside === false ? null : Date.now() })
        .where(eq(runs.id, run.id)),
    );
    ctx.body = { aside: aside !== false };
  });

  /** Ends a run and writes it into the plan's log, once. Bolts that are not sound keep it open unless they were left with a reason. */
  router.post('/runs/:id/end', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    const said = checked(endSchema, ctx.request.body ?? {}, 'an end of a run');
    if (run.endedAt !== null) {
      ctx.body = { ended: true };
      return;
    }
    await write(async () => {
      const done = (await readTicks(store, run.id)).ticks;
      const open = openFaults(done);
      if (open.length > 0)
        throw new Refusal(
          409,
          `${open.map(f => f.joint).join(', ')} ${open.length === 1 ? 'is' : 'are'} not sound: repair ${open.length === 1 ? 'it' : 'them'}, or say why ${open.length === 1 ? 'it is' : 'they are'} left so.`,
        );
      // a clock that was set back ends no run before it began
      const at = Math.max(Date.now(), run.startedAt);
      await db.batch([
        // what stands in the log already is not written again: whoever ends a run second changes nothing
        ...logOf(run, done, said, at).map(e =>
          db
            .insert(logEntries)
            .values({
              id: e.id,
              documentId: run.documentId,
              kind: e.kind,
              at: e.at,
              body: JSON.stringify(e),
              receivedAt: at,
            })
            .onConflictDoNothing(),
        ),
        db
          .update(runs)
          .set({ endedAt: at })
          .where(and(eq(runs.id, run.id), isNull(runs.endedAt))),
      ] as unknown as Parameters<typeof db.batch>[0]);
    });
    events.tell(run.id, 'ended', {});
    ctx.body = { ended: true };
  });
  return router;
}
