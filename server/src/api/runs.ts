import { randomUUID } from 'node:crypto';
import Router from '@koa/router';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, runs, ticks } from '../db/schema';
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
  at: yup.number().required().integer(),
  device: yup.string().required().max(64),
});

const bodySchema = yup.object({ ticks: yup.array().of(tickSchema.required()).required().max(500) });

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
        startedAt: runs.startedAt,
        endedAt: runs.endedAt,
      })
      .from(runs)
      .where(eq(runs.documentId, param(ctx.params, 'id')))
      .orderBy(desc(runs.startedAt));
  });

  router.post('/documents/:id/runs', async ctx => {
    const { buildId } = ctx.request.body as { buildId?: string };
    const [doc] = await db
      .select()
      .from(documents)
      .where(eq(documents.id, param(ctx.params, 'id')));
    if (!doc) throw new Refusal(404, `There is no plan "${param(ctx.params, 'id')}".`);
    const builds = (JSON.parse(doc.body) as { plan: { builds: { id: string }[] } }).plan.builds;
    if (!builds.some(b => b.id === buildId))
      throw new Refusal(422, `There is no build "${buildId}" in this plan.`);
    const run = {
      id: randomUUID(),
      documentId: doc.id,
      revision: doc.revision,
      buildId: buildId as string,
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

  router.post('/runs/:id/end', async ctx => {
    const run = await runNamed(param(ctx.params, 'id'));
    await write(() =>
      db
        .update(runs)
        .set({ endedAt: Date.now() })
        .where(inArray(runs.id, [run.id])),
    );
    ctx.body = { ended: true };
  });
  return router;
}
