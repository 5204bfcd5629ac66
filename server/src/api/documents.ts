import Router from '@koa/router';
import { checkDocument, type PlanDocument } from '@plate-fold/core';
import { and, desc, eq, lte } from 'drizzle-orm';
import type { Store } from '../db/open';
import { documents, revisions } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';

/** Saved revisions kept per plan; refused ones are always kept. */
const KEEP = 60;

const columns = (doc: PlanDocument) => ({
  name: doc.plan.name,
  rigName: doc.rig.name,
  bodyKind: doc.rig.body,
  body: JSON.stringify(doc),
});

/** Checks what was sent; faults go back with their paths. */
export function accepted(value: unknown): PlanDocument {
  const read = checkDocument(value);
  if (read.ok) return read.document;
  const first = read.faults[0];
  throw new Refusal(422, `The plan was not saved: ${first?.path} ${first?.fault}.`, { faults: read.faults });
}

/** Puts a new plan into the database as revision 1. */
export async function addDocument({ db, write }: Store, doc: PlanDocument): Promise<void> {
  const now = Date.now();
  await write(() =>
    db.transaction(async tx => {
      const taken = await tx
        .select({ id: documents.id })
        .from(documents)
        .where(eq(documents.id, doc.plan.id));
      if (taken.length > 0) throw new Refusal(409, `There is already a plan "${doc.plan.id}".`);
      const row = columns(doc);
      await tx.insert(documents).values({ id: doc.plan.id, ...row, revision: 1, updatedAt: now });
      await tx
        .insert(revisions)
        .values({ documentId: doc.plan.id, revision: 1, kind: 'saved', body: row.body, savedAt: now });
    }),
  );
}

export function documentRoutes(store: Store): Router {
  const { db, write } = store;
  const router = new Router({ prefix: '/api/documents' });

  router.get('/', async ctx => {
    ctx.body = await db
      .select({
        id: documents.id,
        name: documents.name,
        rigName: documents.rigName,
        bodyKind: documents.bodyKind,
        revision: documents.revision,
        updatedAt: documents.updatedAt,
      })
      .from(documents)
      .orderBy(desc(documents.updatedAt));
  });

  router.get('/:id', async ctx => {
    const [row] = await db
      .select()
      .from(documents)
      .where(eq(documents.id, param(ctx.params, 'id')));
    if (!row) throw new Refusal(404, `There is no plan "${param(ctx.params, 'id')}".`);
    ctx.body = { revision: row.revision, updatedAt: row.updatedAt, document: JSON.parse(row.body) };
  });

  router.post('/', async ctx => {
    const doc = accepted((ctx.request.body as { document?: unknown }).document);
    await addDocument(store, doc);
    ctx.status = 201;
    ctx.body = { id: doc.plan.id, revision: 1 };
  });

  router.put('/:id', async ctx => {
    const { baseRevision, document } = ctx.request.body as { baseRevision?: unknown; document?: unknown };
    const id = param(ctx.params, 'id');
    if (!Number.isInteger(baseRevision))
      throw new Refusal(400, 'baseRevision is missing: nothing was saved.');
    const doc = accepted(document);
    if (doc.plan.id !== id)
      throw new Refusal(422, `The plan inside is "${doc.plan.id}", not "${id}": nothing was saved.`);
    const now = Date.now();
    ctx.body = await write(() =>
      db.transaction(async tx => {
        const [row] = await tx.select().from(documents).where(eq(documents.id, id));
        if (!row) throw new Refusal(404, `There is no plan "${id}".`);
        const next = columns(doc);
        if (row.revision !== baseRevision) {
          const [kept] = await tx
            .insert(revisions)
            .values({
              documentId: id,
              revision: baseRevision as number,
              kind: 'refused',
              body: next.body,
              savedAt: now,
            })
            .returning({ id: revisions.id });
          ctx.status = 409;
          return {
            fault: 'This plan was changed somewhere else meanwhile. Both versions are kept.',
            revision: row.revision,
            document: JSON.parse(row.body),
            refusedId: kept?.id,
          };
        }
        const revision = row.revision + 1;
        await tx
          .update(documents)
          .set({ ...next, revision, updatedAt: now })
          .where(eq(documents.id, id));
        await tx
          .insert(revisions)
          .values({ documentId: id, revision, kind: 'saved', body: next.body, savedAt: now });
        await tx
          .delete(revisions)
          .where(
            and(
              eq(revisions.documentId, id),
              eq(revisions.kind, 'saved'),
              lte(revisions.revision, revision - KEEP),
            ),
          );
        return { revision, updatedAt: now };
      }),
    );
  });

  router.get('/:id/revisions', async ctx => {
    ctx.body = await db
      .select({
        id: revisions.id,
        revision: revisions.revision,
        kind: revisions.kind,
        savedAt: revisions.savedAt,
      })
      .from(revisions)
      .where(eq(revisions.documentId, param(ctx.params, 'id')))
      .orderBy(desc(revisions.id));
  });

  router.get('/:id/revisions/:rowId', async ctx => {
    const [row] = await db
      .select()
      .from(revisions)
      .where(
        and(
          eq(revisions.documentId, param(ctx.params, 'id')),
          eq(revisions.id, Number(param(ctx.params, 'rowId'))),
        ),
      );
    if (!row) throw new Refusal(404, 'There is no such revision.');
    ctx.body = { ...row, body: undefined, document: JSON.parse(row.body) };
  });
  return router;
}
