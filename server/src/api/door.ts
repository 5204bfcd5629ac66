import Router from '@koa/router';
import { type Glance, glanceOf } from '@plate-fold/core/checks';
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import * as yup from 'yup';
import { binOf } from '../archive';
import type { Store } from '../db/open';
import { documents } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';
import { documentOf } from './revisions';
import { checked, sent } from './sent';

const archivedSchema = yup.object({ archived: yup.boolean().required() });

/** The list of plans and what is done there: a glance at each, archived or not, deleted and brought back. */
export function doorRoutes(store: Store): Router {
  const { db, write } = store;
  const router = new Router({ prefix: '/api' });
  const bin = binOf(store);
  const glances = new Map<string, Glance & { readonly revision: number }>();

  router.get('/documents', async ctx => {
    const lastRun = sql<number | null>`(select max(runs.started_at) from runs
      where runs.document_id = documents.id and runs.set_aside_at is null)`;
    ctx.body = await db
      .select({
        id: documents.id,
        name: documents.name,
        rigName: documents.rigName,
        bodyKind: documents.bodyKind,
        revision: documents.revision,
        updatedAt: documents.updatedAt,
        archivedAt: documents.archivedAt,
        example: documents.example,
        lastRunAt: lastRun,
      })
      .from(documents)
      .orderBy(desc(documents.updatedAt));
  });

  const rowOf = async (id: string) => {
    const [row] = await db.select().from(documents).where(eq(documents.id, id));
    if (!row) throw new Refusal(404, `There is no plan "${id}".`);
    return row;
  };

  router.get('/documents/:id/glance', async ctx => {
    const id = param(ctx.params, 'id');
    const row = await rowOf(id);
    const known = glances.get(id);
    const glance =
      known?.revision === row.revision
        ? known
        : { ...glanceOf(await documentOf(store, row)), revision: row.revision };
    glances.set(id, glance);
    ctx.body = glance;
  });

  router.put('/documents/:id/archived', async ctx => {
    const id = param(ctx.params, 'id');
    await rowOf(id);
    const { archived } = checked(archivedSchema, sent(ctx), 'whether it is archived');
    await write(() =>
      db
        .update(documents)
        .set({ archivedAt: archived ? Date.now() : null })
        .where(and(eq(documents.id, id), ...(archived ? [isNull(documents.archivedAt)] : []))),
    );
    ctx.body = { id, archived };
  });

  router.delete('/documents/:id', async ctx => {
    const id = param(ctx.params, 'id');
    ctx.body = await bin.put(id);
    glances.delete(id);
  });
  router.get('/deleted', async ctx => {
    ctx.body = await bin.list();
  });
  router.post('/deleted/:key', async ctx => {
    ctx.body = await bin.back(param(ctx.params, 'key'));
  });
  return router;
}
