import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readShellCase, type ShellCase, type ShellModel, shellModel } from '@plate-fold/core/strike';

/** The folded and bolted tray of the solved cases (11S), meshed by elements of so many mm. */
export function tray(elementSize: number): ShellCase {
  const { cases } = JSON.parse(
    readFileSync(new URL('../../core/src/strike/solved-cases/plates.json', import.meta.url), 'utf8'),
  ) as { cases: readonly { readonly id: string }[] };
  const read = readShellCase(JSON.stringify(cases.find(c => c.id === '11S')));
  if (!read.ok) throw new Error(read.fault);
  return { ...read.value.shell, elementSize };
}

/** Size of elements at which a count of nodes comes nearest to the one wanted, found by halving. */
export function sizeFor(wanted: number, nodes: (size: number) => number): number {
  let [low, high] = [2, 60];
  for (let i = 0; i < 9; i++) {
    const middle = Math.sqrt(low * high);
    if (nodes(middle) > wanted) low = middle;
    else high = middle;
  }
  return high;
}

function meshOf(size: number): ShellModel {
  const made = shellModel(tray(size), []);
  if (!made.ok) throw new Error(made.fault);
  return made.value.model;
}
export const nodesOfTray = (size: number): number => meshOf(size).mesh.coordinates.length / 3;

/** Sides of the triangles, each with the number of its middle after the corners. */
function middles({ coordinates, triangles }: ShellModel['mesh']): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (let k = 0; k < triangles.length; k += 3)
    for (let s = 0; s < 3; s++) {
      const key = sideOf(triangles, k, s);
      if (!out.has(key)) out.set(key, coordinates.length / 3 + out.size);
    }
  return out;
}
const sideOf = (t: Int32Array, k: number, s: number): string =>
  [t[k + s] as number, t[k + ((s + 1) % 3)] as number].sort((a, b) => a - b).join(' ');

/** Nodes of the same tray meshed by triangles of second order. */
export const nodesOfSecond = (size: number): number => {
  const { mesh } = meshOf(size);
  return mesh.coordinates.length / 3 + middles(mesh).size;
};

/** The tray for CalculiX: triangles of second order (S6), the discs under the bolts held, stresses printed as we compute them. */
function deck(size: number): string {
  const shell = tray(size);
  const { mesh, held, load } = meshOf(size);
  const { coordinates: c, triangles: t } = mesh;
  const count = c.length / 3;
  const side = middles(mesh);
  const place = (n: number): readonly number[] => [
    c[3 * n] as number,
    c[3 * n + 1] as number,
    c[3 * n + 2] as number,
  ];
  const lines = Array.from({ length: count }, (_, n) => `${n + 1},${place(n).join()}`);
  const fixed = Array.from({ length: count }, (_, n) => n).filter(n => held[6 * n]);
  for (const [key, id] of side) {
    const [a, b] = key.split(' ').map(Number) as [number, number];
    lines.push(
      `${id + 1},${place(a)
        .map((v, k) => (v + (place(b)[k] as number)) / 2)
        .join()}`,
    );
    if (held[6 * a] && held[6 * b]) fixed.push(id);
  }
  const elements: string[] = [];
  for (let k = 0; k < t.length; k += 3)
    elements.push(
      [
        k / 3 + 1,
        ...[0, 1, 2].map(i => (t[k + i] as number) + 1),
        ...[0, 1, 2].map(s => (side.get(sideOf(t, k, s)) as number) + 1),
      ].join(),
    );
  const forces = Array.from({ length: count }, (_, n) => n).flatMap(n => {
    const f = load[6 * n + 2] as number;
    return f === 0 ? [] : [`${n + 1},3,${f}`];
  });
  return `*NODE,NSET=NALL\n${lines.join('\n')}\n*ELEMENT,TYPE=S6,ELSET=EALL\n${elements.join('\n')}\n*MATERIAL,NAME=M\n*ELASTIC\n${shell.material.E},${shell.material.nu}\n*SHELL SECTION,ELSET=EALL,MATERIAL=M\n${shell.thickness}\n*BOUNDARY\n${fixed.map(n => `${n + 1},1,6,0`).join('\n')}\n*STEP\n*STATIC\n*CLOAD\n${forces.join('\n')}\n*NODE FILE\nU\n*EL FILE\nS\n*END STEP\n`;
}

/** Processor time of a first solution in a fresh process, once its files are read, ms. */
export function coldTray(size: number): number {
  const file = join(dirname(fileURLToPath(import.meta.url)), 'cold-tray.ts');
  const said = execFileSync(process.execPath, ['--import', 'tsx', file, String(size)], { encoding: 'utf8' });
  return Number(said.trim());
}

/** Processor time of CalculiX, one thread, for the tray from its deck to its stresses, ms; undefined where it is not installed. */
export function calculixTray(size: number): number | undefined {
  if (spawnSync('ccx', ['-v']).error) return undefined;
  const dir = mkdtempSync(join(tmpdir(), 'plate-fold-tray-'));
  try {
    writeFileSync(join(dir, 'tray.inp'), deck(size));
    const said = execFileSync('sh', ['-c', 'ccx tray > ccx.log; times'], {
      cwd: dir,
      env: { ...process.env, OMP_NUM_THREADS: '1' },
      encoding: 'utf8',
    });
    // the second line is what the children took: minutes and seconds, in user and in system
    const taken = [...(said.trim().split('\n')[1] ?? '').matchAll(/(\d+)m([\d.]+)s/g)];
    return taken.reduce((sum, [, m, s]) => sum + 60_000 * Number(m) + 1000 * Number(s), 0);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}
