import { readdir, readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import {
  describeFaults,
  gatherFacts,
  installationOf,
  type LogEntry,
  movesOf,
  type PlanDocument,
  readDocument,
  readLogEntry,
  type Tick,
  targetOf,
} from '@plate-fold/core';
import { eq } from 'drizzle-orm';
import { addDocument } from './api/documents';
import type { Store } from './db/open';
import { logEntries, meta, runs, ticks } from './db/schema';

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

/** Puts a demo log, and the run that its first installation names, beside its plan. */
async function loadDemoLog(store: Store, text: string): Promise<void> {
  const { plan, entries } = JSON.parse(text) as { plan: string; entries: readonly unknown[] };
  const { db, write } = store;
  const log = entries.map((e): LogEntry => {
    const r = readLogEntry(e);
    if (!r.ok) throw new Error(`demo log of ${plan}: ${r.fault}`);
    return r.entry;
  });
  const installed = log.find(e => e.kind === 'install' && e.run !== undefined);
  const files = (await readdir(DEMO)).filter(f => f.endsWith('.platefold.json'));
  for (const file of files) {
    const read = readDocument(await readFile(`${DEMO}${file}`, 'utf8'));
    if (!read.ok || read.document.plan.id !== plan) continue;
    const { document } = read;
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
      const done = demoTicks(document, installed.at);
      await write(async () => {
        await db.insert(runs).values(run).onConflictDoNothing();
        await db
          .insert(ticks)
          .values(done.map(t => ({ ...t, runId: run.id, receivedAt: t.at })))
          .onConflictDoNothing();
      });
    }
    await write(() =>
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
  }
}

/** Loads the demo plans into an empty database, once, with what was logged of them; what the owner deletes is not brought back. */
export async function loadDemo(store: Store): Promise<number> {
  const done = await store.db.select().from(meta).where(eq(meta.key, 'demo'));
  if (done.length > 0) return 0;
  const all = (await readdir(DEMO)).sort();
  const files = all.filter(f => f.endsWith('.platefold.json'));
  for (const file of files) {
    const read = readDocument(await readFile(`${DEMO}${file}`, 'utf8'));
    if (!read.ok) throw new Error(`demo/${file}: ${describeFaults(read.faults)}`);
    await addDocument(store, read.document);
  }
  for (const file of all.filter(f => f.endsWith('.log.json')))
    await loadDemoLog(store, await readFile(`${DEMO}${file}`, 'utf8'));
  await store.write(() => store.db.insert(meta).values({ key: 'demo', value: new Date().toISOString() }));
  return files.length;
}
