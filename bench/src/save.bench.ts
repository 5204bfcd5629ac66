/*
 * Saving a small change in a plan of 100 kB, as the page sends it (RFC 6902), by one client and by eight at once, while another asks for
 * something else all the time. Processor time is that of the server's own process.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { PlanDocument } from '@plate-fold/core/plan';
import { demo as demoPlan } from '@plate-fold/demo';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const demo = demoPlan('bramble');
const SIZE = 100_000;
/** Bytes of a change: so many bolts get another torque at once. */
const CHANGE = 5000;
const SAVERS = 8;
const SECONDS = 6;
/** Clock ticks of the kernel in a second (man 5 proc). */
const TICKS = 100;

/** The demo plan with plates and bolts repeated until it is as large as wanted. */
function grown(id: string): PlanDocument {
  const doc = structuredClone(demo) as PlanDocument & {
    plan: { panels: unknown[]; joints: unknown[]; id: string };
  };
  (doc.plan as { id: string }).id = id;
  for (let n = 0; JSON.stringify(doc).length < SIZE; n++) {
    const panels = doc.plan.panels as { id: string }[];
    for (const p of demo.plan.panels) {
      const copy = { ...structuredClone(p), id: `${p.id}-${n}` };
      panels.push(copy);
      for (const b of doc.plan.builds) (b.sheets as Record<string, unknown>)[copy.id] = b.sheets[p.id];
    }
    for (const j of demo.plan.joints)
      (doc.plan.joints as { id: string }[]).push({ ...structuredClone(j), id: `${j.id}-${n}` });
  }
  return doc;
}

const cpuSeconds = (pid: number): number => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
  return (Number(fields[11]) + Number(fields[12])) / TICKS;
};
const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

const data = mkdtempSync(join(tmpdir(), 'platefold-bench-'));
const child = spawn(process.execPath, [join(ROOT, 'server/bin/server.js')], {
  env: { ...process.env, DATA_DIR: data, PORT: '0' },
  cwd: ROOT,
});
const address = await new Promise<string>((done, fail) => {
  child.stdout.on('data', d => {
    const found = /http:\/\/\S+/.exec(String(d))?.[0];
    if (found) done(found);
  });
  child.on('exit', () => fail(new Error('the server did not start')));
});
const pid = child.pid as number;
const send = async (path: string, method: string, body: unknown): Promise<{ revision: number }> => {
  const r = await fetch(`${address}/api/documents${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!r.ok) throw new Error(`${r.status} ${await r.text()}`);
  return (await r.json()) as { revision: number };
};

/** Some bolts with another torque: a change of about so many bytes. */
function change(doc: PlanDocument, n: number): { op: string; path: string; value: unknown }[] {
  const ops: { op: string; path: string; value: unknown }[] = [];
  for (let i = 0; JSON.stringify(ops).length < CHANGE && i < doc.plan.joints.length; i++)
    ops.push({ op: 'replace', path: `/plan/joints/${i}/torque`, value: 20 + ((n + i) % 30) });
  return ops;
}

async function saver(id: string, doc: PlanDocument, until: number, took: number[], way: 'patch' | 'whole') {
  let revision = ((await (await fetch(`${address}/api/documents/${id}`)).json()) as { revision: number })
    .revision;
  for (let n = 0; performance.now() < until; n++) {
    const begun = performance.now();
    const body =
      way === 'patch'
        ? { baseRevision: revision, patch: change(doc, n) }
        : { baseRevision: revision, document: { ...doc, plan: { ...doc.plan, notes: `n ${n}` } } };
    revision = (await send(`/${id}`, way === 'patch' ? 'PATCH' : 'PUT', body)).revision;
    took.push(performance.now() - begun);
  }
}

const docs = Array.from({ length: SAVERS }, (_, i) => grown(`bench-${i}`));
for (const d of docs) await send('', 'POST', { document: d });

/** The reference: reading and writing the same document once as JSON, in this process. */
const text = JSON.stringify(docs[0]);
const before = process.cpuUsage();
const REPEAT = 300;
for (let i = 0; i < REPEAT; i++) JSON.stringify(JSON.parse(text));
const used = process.cpuUsage(before);
const reference = (used.user + used.system) / 1000 / REPEAT;

console.log(
  `Saving a change of ${(CHANGE / 1000).toFixed(0)} kB in a plan of ${(text.length / 1000).toFixed(0)} kB`,
);
console.log(
  `  reference: the plan read and written once as JSON takes ${reference.toFixed(2)} ms of processor time`,
);
async function round(savers: number, way: 'patch' | 'whole'): Promise<void> {
  const took: number[] = [];
  const waits: number[] = [];
  const until = performance.now() + SECONDS * 1000;
  const cpu = cpuSeconds(pid);
  const others = (async () => {
    while (performance.now() < until) {
      const begun = performance.now();
      await (await fetch(`${address}/api/health`)).text();
      waits.push(performance.now() - begun);
      await new Promise(done => setTimeout(done, 10));
    }
  })();
  await Promise.all(docs.slice(0, savers).map(d => saver(d.plan.id, d, until, took, way)));
  await others;
  const ms = (1000 * (cpuSeconds(pid) - cpu)) / took.length;
  took.sort((a, b) => a - b);
  waits.sort((a, b) => a - b);
  console.log(
    `  ${savers} at once, ${way === 'patch' ? 'the change alone' : 'the whole plan'}: ${took.length} saved in ${SECONDS} s, ${ms.toFixed(2)} ms of the server's processor time each (${(ms / reference).toFixed(1)} times the reference, ${Math.round(1000 / ms)} a second on one core)`,
  );
  console.log(
    `      answered after ${at(took, 0.5).toFixed(1)} ms in the middle, ${at(took, 0.99).toFixed(1)} ms at the 99th of a hundred; another request waited ${at(waits, 0.5).toFixed(1)} ms in the middle, ${at(waits, 0.99).toFixed(1)} at the 99th, ${at(waits, 1).toFixed(1)} at most`,
  );
}
await round(1, 'patch');
await round(SAVERS, 'patch');
await round(SAVERS, 'whole');
child.kill('SIGTERM');
await new Promise(done => child.on('exit', done));
rmSync(data, { recursive: true });
