import Router from '@koa/router';
import { checkDocument, type PlanDocument } from '@plate-fold/core/plan';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Store } from '../db/open';
import { documents, revisions } from '../db/schema';
import { Refusal } from '../fault';
import { changedBy } from './change';
import { param } from './param';
import { documentAt, documentOf, KEEP, keptWhole, prunedRevisions } from './revisions';
import { sent } from './sent';

/** Documents held as objects, so that a change of a few bytes need not read the whole again. */
const HELD = 16;

/** A document as a row. */
export const columns = (doc: PlanDocument) => ({
  ...heading(doc),
  body: JSON.stringify(doc),
  bodyRevision: null,
});

/** What the list of plans shows of a document. */
const heading = (doc: PlanDocument) => ({
  name: doc.plan.name,
  rigName: doc.rig.name,
  bodyKind: doc.rig.body,
});

/** Checks what was sent; faults go back with their paths. `before`: a document accepted earlier, whose parts need no second look. */
export function accepted(value: unknown, before?: PlanDocument): PlanDocument {
  const read = checkDocument(value, before);
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

/** The documents that were saved last, as the objects that they are. Never changed in place. */
function heldDocuments() {
  const held = new Map<string, { readonly revision: number; readonly document: PlanDocument }>();
  return {
    of: (id: string, revision: number): PlanDocument | undefined => {
      const h = held.get(id);
      return h?.revision === revision ? h.document : undefined;
    },
    hold: (id: string, revision: number, document: PlanDocument): void => {
      held.delete(id);
      held.set(id, { revision, document });
      const oldest = held.keys().next().value;
      if (held.size > HELD && oldest !== undefined) held.delete(oldest);
    },
  };
}

export function documentRoutes(store: Store): Router {
  const { db, write } = store;
  const held = heldDocuments();
  const router = new Router({ prefix: '/api/documents' });

  const stored = async (id: string) => {
    const [row] = await db.select().from(documents).where(eq(documents.id, id));
    if (!row) throw new Refusal(404, `There is no plan "${id}".`);
    return { ...row, document: held.of(id, row.revision) ?? (await documentOf(store, row)) };
  };

  router.get('/:id', async ctx => {
    const row = await stored(param(ctx.params, 'id'));
    ctx.body = { revision: row.revision, updatedAt: row.updatedAt, document: row.document };
  });

  router.post('/', async ctx => {
    const doc = accepted(sent(ctx).document);
    await addDocument(store, doc);
    ctx.status = 201;
    ctx.body = { id: doc.plan.id, revision: 1 };
  });

  const atRevision = async (id: string, revision: number): Promise<PlanDocument | undefined> =>
    held.of(id, revision) ?? documentAt(store, id, revision);

  /**
   * Saves a document over the revision that it was made from, in one transaction; where that is no longer the newest, what was sent is kept
   * beside it and both go back.
   */
  const save = async (id: string, baseRevision: number, doc: PlanDocument, patch?: unknown) => {
    const now = Date.now();
    const revision = baseRevision + 1;
    const short = patch !== undefined && !keptWhole(id, revision) ? JSON.stringify(patch) : null;
    // a change is written as a change: of the whole plan some hundred kilobytes would be written twice
    const next =
      short === null
        ? columns(doc)
        : { ...heading(doc), bodyRevision: sql`coalesce(body_revision, ${baseRevision})` };
    const [done] = await write(() =>
      db.batch([
        db
          .update(documents)
          .set({ ...next, revision, updatedAt: now })
          .where(and(eq(documents.id, id), eq(documents.revision, baseRevision)))
          .returning({ revision: documents.revision }),
        // only where the statement before has changed a row
        db.run(sql`insert into revisions (document_id, revision, kind, body, patch, saved_at)
          select ${id}, ${revision}, 'saved', ${short === null ? (next as { body: string }).body : ''}, ${short}, ${now}
          where changes() = 1`),
        ...(keptWhole(id, revision) ? [db.run(prunedRevisions(id, revision))] : []),
      ]),
    );
    if (done.length === 1) {
      held.hold(id, revision, doc);
      return { status: 200, body: { revision, updatedAt: now } };
    }
    const row = await stored(id);
    const [kept] = await write(() =>
      db.batch([
        db
          .insert(revisions)
          .values({
            documentId: id,
            revision: baseRevision,
            kind: 'refused',
            body: JSON.stringify(doc),
            savedAt: now,
          })
          .returning({ id: revisions.id }),
        db.run(sql`delete from revisions where document_id = ${id} and kind = 'refused' and id not in
          (select id from revisions where document_id = ${id} and kind = 'refused' order by id desc limit ${KEEP})`),
      ]),
    );
    return {
      status: 409,
      body: {
        fault: 'This plan was changed somewhere else meanwhile. Both versions are kept.',
        revision: row.revision,
        document: row.document,
        refusedId: kept[0]?.id,
      },
    };
  };

  const base = (value: unknown): number => {
    if (!Number.isSafeInteger(value)) throw new Refusal(400, 'baseRevision is missing: nothing was saved.');
    return value as number;
  };

  router.put('/:id', async ctx => {
    const { baseRevision, document } = sent(ctx);
    const id = param(ctx.params, 'id');
    const from = base(baseRevision);
    const doc = accepted(document);
    if (doc.plan.id !== id)
      throw new Refusal(422, `The plan inside is "${doc.plan.id}", not "${id}": nothing was saved.`);
    const { status, body } = await save(id, from, doc);
    ctx.status = status;
    ctx.body = body;
  });

  /** A change alone: the operations of RFC 6902 on the document as it stood at `baseRevision`. */
  router.patch('/:id', async ctx => {
    const { baseRevision, patch } = sent(ctx);
    const id = param(ctx.params, 'id');
    const from = base(baseRevision);
    const before = await atRevision(id, from);
    if (!before) {
      await stored(id);
      throw new Refusal(
        410,
        `Revision ${from} of this plan is no longer kept: send the whole plan. Nothing was saved.`,
      );
    }
    // only what differs from what was accepted before is gone over again
    const doc = accepted(changedBy(before, patch), before);
    if (doc.plan.id !== id)
      throw new Refusal(422, `The plan inside is "${doc.plan.id}", not "${id}": nothing was saved.`);
    const { status, body } = await save(id, from, doc, patch);
    ctx.status = status;
    ctx.body = body;
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
    const rowId = Number(param(ctx.params, 'rowId'));
    const [row] = Number.isSafeInteger(rowId)
      ? await db
          .select()
          .from(revisions)
          .where(and(eq(revisions.documentId, param(ctx.params, 'id')), eq(revisions.id, rowId)))
      : [];
    if (!row) throw new Refusal(404, 'There is no such revision.');
    const document =
      row.patch === null ? JSON.parse(row.body) : await documentAt(store, row.documentId, row.revision);
    const { id, revision, kind, savedAt } = row;
    ctx.body = { id, revision, kind, savedAt, document };
  });
  return router;
}
