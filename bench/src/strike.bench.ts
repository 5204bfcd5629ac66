import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Assembly, assemble } from '@plate-fold/core/derive';
import { isBracket } from '@plate-fold/core/plan';
import {
  linearSolver,
  type ShellModel,
  solveShell,
  strikeForce,
  strikePlate,
  useKernels,
  wishOf,
} from '@plate-fold/core/strike';
import { fourZ } from '@plate-fold/core/testing';
import { demo } from '@plate-fold/demo';
import { cpuMedian, line } from './measure';
import { calculixTray, coldTray, nodesOfSecond, nodesOfTray, sizeFor, tray } from './tray';

/** A clamped square plate, 500 mm, struck in its middle; as many nodes as second-order shells on an N × N grid have. */
const SIDE = 500;
const THICKNESS = 4.7625;
const FORCE = 1000;

/** Our triangles on a grid of about so many nodes. */
function model(nodes: number): ShellModel {
  const n = Math.round(Math.sqrt(nodes)) - 1;
  const id = (i: number, j: number): number => j * (n + 1) + i;
  const coordinates: number[] = [];
  const triangles: number[] = [];
  for (let j = 0; j <= n; j++)
    for (let i = 0; i <= n; i++) coordinates.push((i * SIDE) / n, (j * SIDE) / n, 0);
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      const [a, b, c, d] = [id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)];
      if ((i + j) % 2) triangles.push(a, b, c, a, c, d);
      else triangles.push(a, b, d, b, c, d);
    }
  const count = coordinates.length / 3;
  const held = new Uint8Array(6 * count);
  for (let j = 0; j <= n; j++)
    for (let i = 0; i <= n; i++)
      if (i === 0 || j === 0 || i === n || j === n) held.fill(1, 6 * id(i, j), 6 * id(i, j) + 6);
  const load = new Float64Array(6 * count);
  load[6 * id(n >> 1, n >> 1) + 2] = FORCE;
  return {
    mesh: {
      coordinates: Float64Array.from(coordinates),
      triangles: Int32Array.from(triangles),
      flatOf: new Int32Array(triangles.length / 3),
    },
    thickness: THICKNESS,
    elastic: { E: 200_000, nu: 0.3 },
    held,
    extra: [],
    load,
  };
}

/** The same plate for CalculiX, second-order shells. */
function input(n: number): { readonly text: string; readonly nodes: number } {
  const ids = new Map<string, number>();
  const lines: string[] = [];
  for (let j = 0; j <= 2 * n; j++)
    for (let i = 0; i <= 2 * n; i++) {
      if (i % 2 && j % 2) continue;
      ids.set(`${i} ${j}`, ids.size + 1);
      lines.push(`${ids.size},${(i * SIDE) / (2 * n)},${(j * SIDE) / (2 * n)},0`);
    }
  const at = (i: number, j: number): number => ids.get(`${i} ${j}`) ?? 0;
  const elements: string[] = [];
  for (let j = 0; j < 2 * n; j += 2)
    for (let i = 0; i < 2 * n; i += 2)
      elements.push(
        [
          elements.length + 1,
          at(i, j),
          at(i + 2, j),
          at(i + 2, j + 2),
          at(i, j + 2),
          at(i + 1, j),
          at(i + 2, j + 1),
          at(i + 1, j + 2),
          at(i, j + 1),
        ].join(),
      );
  const edge = [...ids]
    .filter(([k]) => k.split(' ').some(v => v === '0' || v === String(2 * n)))
    .map(([, v]) => v);
  const middle = at(n, n) || at(n + 1, n);
  const text = `*NODE,NSET=NALL\n${lines.join('\n')}\n*ELEMENT,TYPE=S8R,ELSET=EALL\n${elements.join('\n')}\n*MATERIAL,NAME=M\n*ELASTIC\n200000,0.3\n*SHELL SECTION,ELSET=EALL,MATERIAL=M\n${THICKNESS}\n*BOUNDARY\n${edge.map(e => `${e},1,6,0`).join('\n')}\n*STEP\n*STATIC\n*CLOAD\n${middle},3,${FORCE}\n*NODE PRINT,NSET=NALL,FREQUENCY=0\nU\n*END STEP\n`;
  return { text, nodes: ids.size };
}

/** Wall time of a linear solution by CalculiX with one thread, ms; undefined where it is not installed. */
function calculix(n: number): number | undefined {
  if (spawnSync('ccx', ['-v']).error) return undefined;
  const dir = mkdtempSync(join(tmpdir(), 'plate-fold-ccx-'));
  try {
    writeFileSync(join(dir, 'plate.inp'), input(n).text);
    const from = performance.now();
    execFileSync('ccx', ['plate'], {
      cwd: dir,
      env: { ...process.env, OMP_NUM_THREADS: '1' },
      stdio: 'ignore',
    });
    return performance.now() - from;
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** Our wall time for the same: planned, assembled, taken apart and solved. */
function own(nodes: number): number {
  const m = model(nodes);
  const from = performance.now();
  const solver = linearSolver(m);
  if ('mechanism' in solver) throw new Error('not held');
  solver.solve(m.load);
  return performance.now() - from;
}

console.log('Linear shells: a clamped plate under a point load, one thread');
// compiled before anything is timed, as a plan's later plates find it
for (let i = 0; i < 4; i++) own(1500);
const times: { nodes: number; ms: number }[] = [];
for (const n of [31, 57]) {
  const { nodes } = input(n);
  // the best of some runs of either, turn about, since the machine is never quite idle
  let ms = Infinity;
  let theirs: number | undefined;
  for (let i = 0; i < 3; i++) {
    ms = Math.min(ms, own(nodes), own(nodes));
    const other = calculix(n);
    if (other !== undefined) theirs = Math.min(theirs ?? Infinity, other);
  }
  times.push({ nodes, ms });
  if (theirs === undefined)
    console.log(`${nodes} nodes: ${ms.toFixed(0)} ms; CalculiX is not installed here`);
  else line(`${nodes} nodes`, ms, ms / theirs, `CalculiX, ${theirs.toFixed(0)} ms`);
}
const [a, b] = times as [{ nodes: number; ms: number }, { nodes: number; ms: number }];
console.log(`growth: nodes to the power ${(Math.log(b.ms / a.ms) / Math.log(b.nodes / a.nodes)).toFixed(2)}`);

/** The same for a folded and bolted tray, from the case to the stresses, by processor time of both programs. */
console.log(
  'A folded tray on six bolts, from the case to the stresses, processor time (goal: 0.33 warm, 1.0 cold)',
);
for (const wanted of [3000, 10_000]) {
  const size = sizeFor(wanted, nodesOfTray);
  const solve = (): void => {
    const made = solveShell(tray(size), []);
    if (!made.ok) throw new Error(made.fault);
  };
  const cold = coldTray(size);
  const warm = cpuMedian(solve, 3, 2);
  useKernels(false);
  const plain = cpuMedian(solve, 3, 1);
  useKernels(true);
  const other = calculixTray(sizeFor(wanted, nodesOfSecond));
  const of =
    other === undefined ? 'CalculiX, which is not installed here' : `CalculiX, ${other.toFixed(0)} ms`;
  const share = (ms: number): number => (other === undefined ? Number.NaN : ms / other);
  line(`${nodesOfTray(size)} nodes, warm`, warm, share(warm), of);
  line(`${nodesOfTray(size)} nodes, cold`, cold, share(cold), of);
  line(`${nodesOfTray(size)} nodes, warm, without the kernels`, plain, share(plain), of);
}

/** Every plate of the demos, struck once each: set down on a rock, as the page strikes it unless told, and with 20 kN, which folds half of them; and what the kernels save. */
const CASES = [
  ['set down, half the heavier axle', (facts: Assembly): number => strikeForce(facts.rig.rig, 'set-down')],
  ['20 kN', (): number => 20_000],
] as const;
for (const [what, force] of CASES) {
  console.log(
    `A demo plate with worst place, dent and vibration, ${what}, processor time (goal: 0.3 s median, 1 s at most)`,
  );
  const plates: number[] = [];
  for (const name of ['bramble', 'heron', 'pebble', 'wren'] as const) {
    const facts = assemble(demo(name));
    let [belly, plain] = [0, 0];
    for (const folded of facts.panels) {
      if (isBracket(folded.panel)) continue;
      const strike = (): void => {
        const r = strikePlate(wishOf(facts, folded, force(facts)));
        if (!r.ok) throw new Error(r.fault);
      };
      const ms = cpuMedian(strike, 1, 0);
      useKernels(false);
      plain += cpuMedian(strike, 1, 0);
      useKernels(true);
      plates.push(ms);
      belly += ms;
    }
    line(
      `${name}: its belly (goal: 2 s)`,
      belly,
      belly / plain,
      `without the kernels, ${(plain / 1000).toFixed(1)} s`,
    );
  }
  const sorted = plates.sort((a, b) => a - b);
  console.log(
    `${sorted.length} plates: median ${sorted[sorted.length >> 1]?.toFixed(0)} ms, most ${sorted.at(-1)?.toFixed(0)} ms`,
  );
}

/** A fresh strike of a plate as it hangs, and of the same with its bolts held by the vehicle, each with nothing known from before. */
function hungBy(brackets: boolean): () => void {
  const document = fourZ(demo('bramble'));
  return () => {
    const facts = assemble(structuredClone(document));
    const folded = facts.panels.find(p => !isBracket(p.panel));
    if (!folded) throw new Error('no plate');
    const { brackets: own, ...wish } = wishOf(facts, folded, FORCE * 5, { at: [60, 20] });
    const r = strikePlate({ ...wish, ...(brackets && own ? { brackets: own } : {}) });
    if (!r.ok) throw new Error(r.fault);
  };
}
console.log('A plate on four brackets, struck as one with them (goal: under twice the plate alone)');
const [alone, together] = [cpuMedian(hungBy(false), 5, 2), cpuMedian(hungBy(true), 5, 2)];
line('plate and four Z-brackets', together, together / alone, `the plate held fast, ${alone.toFixed(0)} ms`);
