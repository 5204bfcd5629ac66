import type { KitState } from '@plate-fold/core/bolt';
import type { Archive, ArchivedPhoto, ArchivedPlan } from '@plate-fold/core/formats';
import type { LogEntry } from '@plate-fold/core/log';
import type { PlanDocument } from '@plate-fold/core/plan';
import { asc, eq } from 'drizzle-orm';
import { documentAt, documentOf } from '../api/revisions';
import { readTicks } from '../api/ticks';
import type { Store } from '../db/open';
import {
  documents,
  kits,
  logEntries,
  logPhotos,
  photos,
  revisions,
  runs,
  shelf,
  surveyFiles,
} from '../db/schema';
import { Refusal } from '../fault';

const photoOf = (p: { id: string; type: string; bytes: Buffer; receivedAt: number }): ArchivedPhoto => ({
  id: p.id,
  type: p.type,
  bytes: new Uint8Array(p.bytes),
  receivedAt: p.receivedAt,
});

async function collectPlan(store: Store, id: string, withVersions: boolean): Promise<ArchivedPlan> {
  const { db } = store;
  const [row] = await db.select().from(documents).where(eq(documents.id, id));
  if (!row) throw new Refusal(404, `There is no plan "${id}".`);
  const versions = [];
  if (withVersions)
    for (const v of await db
      .select()
      .from(revisions)
      .where(eq(revisions.documentId, id))
      .orderBy(asc(revisions.id))) {
      const document =
        v.patch === null ? (JSON.parse(v.body) as PlanDocument) : await documentAt(store, id, v.revision);
      if (document) versions.push({ revision: v.revision, kind: v.kind, savedAt: v.savedAt, document });
    }
  const kept = [];
  for (const { body, documentId: _, ...run } of await db
    .select()
    .from(runs)
    .where(eq(runs.documentId, id))
    .orderBy(asc(runs.startedAt), asc(runs.id))) {
    const { ticks } = await readTicks(store, run.id);
    kept.push({
      ...run,
      document: JSON.parse(body) as PlanDocument,
      // the run's own id stands above them
      ticks: ticks.map(
        t => ({ ...t, runId: undefined }) as unknown as ArchivedPlan['runs'][number]['ticks'][number],
      ),
      photos: (await db.select().from(photos).where(eq(photos.runId, run.id)).orderBy(asc(photos.id))).map(
        photoOf,
      ),
    });
  }
  return {
    revision: row.revision,
    updatedAt: row.updatedAt,
    document: await documentOf(store, row),
    versions,
    runs: kept,
    log: (
      await db
        .select()
        .from(logEntries)
        .where(eq(logEntries.documentId, id))
        .orderBy(asc(logEntries.at), asc(logEntries.id))
    ).map(l => ({ entry: JSON.parse(l.body) as LogEntry, struckAt: l.struckAt, receivedAt: l.receivedAt })),
    logPhotos: (
      await db.select().from(logPhotos).where(eq(logPhotos.documentId, id)).orderBy(asc(logPhotos.id))
    ).map(photoOf),
    surveyFiles: (
      await db.select().from(surveyFiles).where(eq(surveyFiles.documentId, id)).orderBy(asc(surveyFiles.id))
    ).map(photoOf),
    kits: (await db.select().from(kits).where(eq(kits.documentId, id)).orderBy(asc(kits.buildId))).map(k => ({
      buildId: k.buildId,
      kit: JSON.parse(k.body) as KitState,
      updatedAt: k.updatedAt,
    })),
  };
}

/** Everything that is kept of one plan, or of all and of the shelf. A Refusal when there is no such plan. */
export async function collect(
  store: Store,
  { plan, versions = false }: { readonly plan?: string; readonly versions?: boolean } = {},
): Promise<Archive> {
  const { db } = store;
  const ids =
    plan === undefined
      ? (await db.select({ id: documents.id }).from(documents).orderBy(asc(documents.id))).map(d => d.id)
      : [plan];
  const plans: ArchivedPlan[] = [];
  for (const id of ids) plans.push(await collectPlan(store, id, versions));
  return {
    madeAt: Date.now(),
    plans,
    ...(plan === undefined
      ? { shelf: await db.select().from(shelf).orderBy(asc(shelf.kind), asc(shelf.name)) }
      : {}),
  };
}
