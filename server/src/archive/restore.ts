import { randomUUID } from 'node:crypto';
import type { Archive, ArchivedPlan } from '@plate-fold/core/formats';
import type { LogEntry } from '@plate-fold/core/log';
import type { PlanDocument } from '@plate-fold/core/plan';
import { eq, inArray } from 'drizzle-orm';
import type { BatchItem } from 'drizzle-orm/batch';
import { columns } from '../api/documents';
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
  ticks,
} from '../db/schema';
import { Refusal } from '../fault';

/** What becomes of a plan that is here already under the id of one in the archive. */
export const EXISTING = ['replace', 'both'] as const;
export type Existing = (typeof EXISTING)[number];
type Statement = BatchItem<'sqlite'>;

export interface Restored {
  /** ids under which the plans now are, in the order of the archive */
  readonly plans: readonly string[];
  readonly runs: number;
  readonly photos: number;
}

const renamed = (doc: PlanDocument, id: string, name: string): PlanDocument => ({
  ...doc,
  plan: { ...doc.plan, id, name },
});

/** The first id that is taken neither here nor in the archive. */
function freeId(id: string, taken: Set<string>): string {
  for (let n = 2; ; n++) {
    const free = `${id.slice(0, 110)}-${n}`;
    if (!taken.has(free)) return free;
  }
}

/** A plan under another id, with all that speaks of it. */
function asAnother(plan: ArchivedPlan, id: string): ArchivedPlan {
  const name = `${plan.document.plan.name}, restored`;
  const doc = (d: PlanDocument): PlanDocument => renamed(d, id, d === plan.document ? name : d.plan.name);
  return {
    ...plan,
    document: doc(plan.document),
    versions: plan.versions.map(v => ({ ...v, document: doc(v.document) })),
    runs: plan.runs.map(r => ({ ...r, document: doc(r.document) })),
  };
}

/** A plan whose runs have other ids, where theirs are taken; the log goes on naming them. */
function withOtherRuns(plan: ArchivedPlan, taken: ReadonlySet<string>): ArchivedPlan {
  const other = new Map(plan.runs.filter(r => taken.has(r.id)).map(r => [r.id, randomUUID() as string]));
  if (other.size === 0) return plan;
  const entryOf = (e: LogEntry): LogEntry => {
    const run = e.run === undefined ? undefined : other.get(e.run);
    if (run === undefined || e.run === undefined) return e;
    return {
      ...e,
      run,
      id: e.id.startsWith(`run-${e.run}`) ? `run-${run}${e.id.slice(4 + e.run.length)}` : e.id,
    };
  };
  return {
    ...plan,
    runs: plan.runs.map(r => ({ ...r, id: other.get(r.id) ?? r.id })),
    log: plan.log.map(l => ({ ...l, entry: entryOf(l.entry) })),
  };
}

function planStatements({ db }: Store, p: ArchivedPlan): Statement[] {
  const { id } = p.document.plan;
  const versions = p.versions.some(v => v.kind === 'saved' && v.revision === p.revision)
    ? p.versions
    : [
        ...p.versions,
        { revision: p.revision, kind: 'saved' as const, savedAt: p.updatedAt, document: p.document },
      ];
  return [
    db.insert(documents).values({ id, ...columns(p.document), revision: p.revision, updatedAt: p.updatedAt }),
    ...versions.map(v =>
      db.insert(revisions).values({
        documentId: id,
        revision: v.revision,
        kind: v.kind,
        savedAt: v.savedAt,
        body: JSON.stringify(v.document),
      }),
    ),
    ...p.runs.flatMap(({ ticks: done, photos: kept, document, ...run }): Statement[] => [
      db.insert(runs).values({ ...run, documentId: id, body: JSON.stringify(document) }),
      ...done.map(t => db.insert(ticks).values({ ...t, runId: run.id } as typeof ticks.$inferInsert)),
      ...kept.map(photo =>
        db.insert(photos).values({ ...photo, bytes: Buffer.from(photo.bytes), runId: run.id }),
      ),
    ]),
    ...p.log.map(l =>
      db.insert(logEntries).values({
        id: l.entry.id,
        documentId: id,
        kind: l.entry.kind,
        at: l.entry.at,
        body: JSON.stringify(l.entry),
        struckAt: l.struckAt,
        receivedAt: l.receivedAt,
      }),
    ),
    ...p.logPhotos.map(photo =>
      db.insert(logPhotos).values({ ...photo, bytes: Buffer.from(photo.bytes), documentId: id }),
    ),
    ...p.surveyFiles.map(photo =>
      db.insert(surveyFiles).values({ ...photo, bytes: Buffer.from(photo.bytes), documentId: id }),
    ),
    ...p.kits.map(k =>
      db.insert(kits).values({
        documentId: id,
        buildId: k.buildId,
        body: JSON.stringify(k.kit),
        updatedAt: k.updatedAt,
      }),
    ),
  ];
}

/** What takes a plan out with all that belongs to it, whether or not the connection cascades. */
function removal({ db }: Store, id: string, itsRuns: readonly string[]): Statement[] {
  return [
    ...(itsRuns.length > 0
      ? [
          db.delete(ticks).where(inArray(ticks.runId, [...itsRuns])),
          db.delete(photos).where(inArray(photos.runId, [...itsRuns])),
        ]
      : []),
    ...[runs, revisions, logEntries, logPhotos, surveyFiles, kits].map(table =>
      db.delete(table).where(eq(table.documentId, id)),
    ),
    db.delete(documents).where(eq(documents.id, id)),
  ];
}

/** Takes a plan out with its runs, log, photos and versions, in one transaction. */
export const removePlan = (store: Store, id: string): Promise<void> =>
  store.write(async () => {
    const its = await store.db.select({ id: runs.id }).from(runs).where(eq(runs.documentId, id));
    const statements = removal(
      store,
      id,
      its.map(r => r.id),
    );
    await store.db.batch(statements as [Statement, ...Statement[]]);
  });

/**
 * Puts an archive in, all of it or nothing, in one transaction. Where a plan of it is here already and nothing was said about that, a Refusal
 * names those plans; `replace` puts the archive's in their place, `both` beside them under another id.
 */
export async function restore(store: Store, archive: Archive, existing?: Existing): Promise<Restored> {
  const { db, write } = store;
  return write(async () => {
    const here = await db
      .select({ id: documents.id, name: documents.name, updatedAt: documents.updatedAt })
      .from(documents);
    const known = new Set(here.map(d => d.id));
    const clash = here.filter(d => archive.plans.some(p => p.document.plan.id === d.id));
    if (clash.length > 0 && existing === undefined)
      throw new Refusal(
        409,
        `${clash.map(d => `"${d.name}"`).join(', ')} ${clash.length === 1 ? 'is' : 'are'} here already: replace, keep both, or cancel. Nothing was changed.`,
        { existing: clash },
      );
    const runsHere = await db.select({ id: runs.id, documentId: runs.documentId }).from(runs);
    const replaced = new Set(existing === 'replace' ? clash.map(d => d.id) : []);
    const takenRuns = new Set(runsHere.filter(r => !replaced.has(r.documentId)).map(r => r.id));
    const taken = new Set([...known, ...archive.plans.map(p => p.document.plan.id)]);
    const plans: ArchivedPlan[] = [];
    for (const p of archive.plans) {
      const { id } = p.document.plan;
      let named = p;
      if (known.has(id) && existing === 'both') {
        const free = freeId(id, taken);
        taken.add(free);
        named = asAnother(p, free);
      }
      const made = withOtherRuns(named, takenRuns);
      for (const r of made.runs) takenRuns.add(r.id);
      plans.push(made);
    }
    const statements: Statement[] = [
      ...[...replaced].flatMap(id =>
        removal(
          store,
          id,
          runsHere.filter(r => r.documentId === id).map(r => r.id),
        ),
      ),
      ...plans.flatMap(p => planStatements(store, p)),
      ...(archive.shelf ?? []).map(s => {
        const insert = db.insert(shelf).values(s);
        return existing === 'replace'
          ? insert.onConflictDoUpdate({ target: [shelf.kind, shelf.name], set: s })
          : insert.onConflictDoNothing();
      }),
    ];
    if (statements.length > 0) await db.batch(statements as [Statement, ...Statement[]]);
    return {
      plans: plans.map(p => p.document.plan.id),
      runs: plans.reduce((n, p) => n + p.runs.length, 0),
      photos: plans.reduce(
        (n, p) =>
          n +
          p.logPhotos.length +
          p.surveyFiles.filter(f => f.type.startsWith('image/')).length +
          p.runs.reduce((m, r) => m + r.photos.length, 0),
        0,
      ),
    };
  });
}
