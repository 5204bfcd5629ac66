import { readdir, readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { gatherFacts } from '@plate-fold/core/derive';
import { type LogEntry, readLogEntry } from '@plate-fold/core/log';
import { describeFaults, type PlanDocument, readDocument } from '@plate-fold/core/plan';
import { installationOf, movesOf, type Tick, targetOf } from '@plate-fold/core/sequence';
import { eq, sql } from 'drizzle-orm';
import type { BatchItem } from 'drizzle-orm/batch';
import { columns } from './api/documents';
import { HEIGHTS_TYPE } from './api/photo';
import type { Store } from './db/open';
import { documents, logEntries, meta, runs, surveyFiles, ticks } from './db/schema';

const DEMO = fileURLToPath(new URL('../../demo/', import.meta.url));
const HANDS = ['Juniper', 'Moss'] as const;
const MINUTE = 60_000;

/** The demo's finished run, every move ticked one after another; readings swing about their target as hands do. Invented. */
function demoTicks(document: PlanDocument, endedAt: number): readonly Tick[] {
  const moves = movesOf(installationOf(gatherFacts(document)));
  return moves.flatMap((m, i): readonly Tick[] => {
    const at = endedAt - (moves.length - i) * 2 * MINUTE;
    const of = { stepId: m.step.id, jointId: m.joint ?? null, device: 'demo', who: HANDS[i % 2] ?? null };
    const target = targetOf(m);
    const torqueNm =
      m.joint === undefined || target === undefined
        ? null
        : Math.round(10 * target * (1 + 0.012 * Math.sin(7.1 * i))) / 10;
    const done: Tick = {
      ...of,
      id: `demo-${i}`,
      kind: 'done',
      torqueNm,
      wrench: torqueNm === null ? null : 'typed in',
      at,
    };
    return m.step.stage === 'repair' && m.step.id.includes('19')
      ? [
          {
            ...of,
            id: `demo-${i}-off`,
            kind: 'deviation',
            fault: 'other-bolt',
            note: 'Other bolt used',
            at: at - MINUTE,
          },
          done,
        ]
      : [done];
  });
}

type Statement = BatchItem<'sqlite'>;

/** What puts a demo log, and the run that its first installation names, beside its plan. */
function logStatements(db: Store['db'], document: PlanDocument, entries: readonly unknown[]): Statement[] {
  const plan = document.plan.id;
  const log = entries.map((e): LogEntry => {
    const r = readLogEntry(e);
    if (!r.ok) throw new Error(`demo log of ${plan}: ${r.fault}`);
    return r.entry;
  });
  const made: Statement[] = [];
  const installed = log.find(e => e.kind === 'install' && e.run !== undefined);
  if (installed?.run) {
    const run = {
      id: installed.run,
      documentId: plan,
      revision: 1,
      buildId: document.plan.activeBuild,
      body: JSON.stringify(document),
      startedAt: installed.at - 9 * 60 * MINUTE,
      endedAt: installed.at,
    };
    const done = demoTicks(document, installed.at).map(t => ({ ...t, runId: run.id, receivedAt: t.at }));
    made.push(db.insert(runs).values(run).onConflictDoNothing());
    made.push(db.insert(ticks).values(done).onConflictDoNothing());
  }
  made.push(
    db
      .insert(logEntries)
      .values(
        log.map(e => ({
          id: e.id,
          documentId: plan,
          kind: e.kind,
          at: e.at,
          body: JSON.stringify(e),
          receivedAt: e.at,
        })),
      )
      .onConflictDoNothing(),
  );
  return made;
}

/**
 * Loads the demo plans into an empty database, once, with what was logged of them; what the owner deletes is not brought back. All of it is
 * one transaction: a start that was killed in it has loaded nothing, and the next begins again. What an earlier version has left half loaded
 * is filled up.
 */
export async function loadDemo({ db, write, checkpoint }: Store): Promise<number> {
  const done = await db.select().from(meta).where(eq(meta.key, 'demo'));
  if (done.length > 0) return 0;
  const all = (await readdir(DEMO)).sort();
  const now = Date.now();
  const documentsOf = new Map<string, PlanDocument>();
  /** plans by the first word of their file's name, which their pictures have too */
  const planOf = new Map<string, string>();
  const statements: Statement[] = [];
  for (const file of all.filter(f => f.endsWith('.platefold.json'))) {
    const read = readDocument(await readFile(`${DEMO}${file}`, 'utf8'));
    if (!read.ok) throw new Error(`demo/${file}: ${describeFaults(read.faults)}`);
    const { plan } = read.document;
    documentsOf.set(plan.id, read.document);
    planOf.set(file.split('.')[0] ?? '', plan.id);
    const row = columns(read.document);
    statements.push(
      db
        .insert(documents)
        .values({ id: plan.id, ...row, revision: 1, updatedAt: now, example: true })
        .onConflictDoNothing(),
      // only where the plan was not there
      db.run(sql`insert into revisions (document_id, revision, kind, body, saved_at)
        select ${plan.id}, 1, 'saved', ${row.body}, ${now} where changes() = 1`),
    );
  }
  for (const file of all.filter(f => /\.(png|bin)$/.test(f))) {
    const [word = '', id = ''] = file.split('.');
    const documentId = planOf.get(word);
    if (documentId === undefined) throw new Error(`demo/${file}: there is no plan "${word}"`);
    const bytes = await readFile(`${DEMO}${file}`);
    statements.push(
      db
        .insert(surveyFiles)
        .values({
          id,
          documentId,
          type: file.endsWith('.png') ? 'image/png' : HEIGHTS_TYPE,
          bytes,
          receivedAt: now,
        })
        .onConflictDoNothing(),
    );
  }
  for (const file of all.filter(f => f.endsWith('.log.json'))) {
    const { plan, entries } = JSON.parse(await readFile(`${DEMO}${file}`, 'utf8')) as {
      plan: string;
      entries: readonly unknown[];
    };
    const document = documentsOf.get(plan);
    if (!document) throw new Error(`demo/${file}: there is no plan "${plan}"`);
    statements.push(...logStatements(db, document, entries));
  }
  statements.push(
    db
      .insert(meta)
      .values({ key: 'demo', value: new Date(now).toISOString() })
      .onConflictDoNothing(),
  );
  await write(() => db.batch(statements as [Statement, ...Statement[]]));
  await write(checkpoint);
  return documentsOf.size;
}
