import type { PlanDocument } from '@plate-fold/core/plan';
import { and, asc, desc, eq, gt, isNull, lte, type SQL, sql } from 'drizzle-orm';
import type { Store } from '../db/open';
import { revisions } from '../db/schema';
import { changedBy } from './change';

/** Saved revisions kept per plan at least, and as many of those that came too late at most. */
export const KEEP = 60;
/** Every so many revisions one is kept whole; the others say what changed since the one before. */
const WHOLE_EACH = 20;

/** Whether a revision is kept whole: each twentieth, plans one after another, so that many that are edited at once do not pay for it together. */
export const keptWhole = (id: string, revision: number): boolean =>
  (revision + [...id].reduce((n, c) => n + c.charCodeAt(0), 0)) % WHOLE_EACH === 0;

/** A plan as it stood at a saved revision; undefined where that is no longer kept. */
export async function documentAt(
  { db }: Store,
  id: string,
  revision: number,
): Promise<PlanDocument | undefined> {
  const saved = and(eq(revisions.documentId, id), eq(revisions.kind, 'saved'));
  const [whole] = await db
    .select({ revision: revisions.revision, body: revisions.body })
    .from(revisions)
    .where(and(saved, isNull(revisions.patch), lte(revisions.revision, revision)))
    .orderBy(desc(revisions.revision))
    .limit(1);
  if (!whole) return undefined;
  const changes = await db
    .select({ patch: revisions.patch })
    .from(revisions)
    .where(and(saved, gt(revisions.revision, whole.revision), lte(revisions.revision, revision)))
    .orderBy(asc(revisions.revision));
  // one that is missing in between would make another plan of it
  if (changes.length !== revision - whole.revision) return undefined;
  return changes.reduce<unknown>(
    (doc, { patch }) => changedBy(doc, JSON.parse(patch as string)),
    JSON.parse(whole.body),
  ) as PlanDocument;
}

/** A plan as it stands, from its row. */
export async function documentOf(
  store: Store,
  row: {
    readonly id: string;
    readonly revision: number;
    readonly bodyRevision: number | null;
    readonly body: string;
  },
): Promise<PlanDocument> {
  if (row.bodyRevision === null) return JSON.parse(row.body) as PlanDocument;
  const document = await documentAt(store, row.id, row.revision);
  if (!document) throw new Error(`revision ${row.revision} of plan ${row.id} cannot be put together`);
  return document;
}

/** Drops what is older than is kept, down to the whole one that the oldest kept is made from. */
export const prunedRevisions = (id: string, newest: number): SQL =>
  sql`delete from revisions where document_id = ${id} and kind = 'saved' and revision <
    (select max(revision) from revisions where document_id = ${id} and kind = 'saved' and patch is null
      and revision <= ${newest - KEEP + 1})`;
