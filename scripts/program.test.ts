import { execFile } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** A small project of the same form, with the packages of this one. */
let folder = '';
const start = (): Promise<{ readonly out: string; readonly code: number }> =>
  new Promise(done => {
    const script = `const { load } = await import(${JSON.stringify(pathToFileURL(join(folder, 'scripts/program.mjs')).href)}); const m = await load('core/src/main.ts'); console.log(m.said());`;
    execFile(process.execPath, ['--input-type=module', '-e', script], (e, out, err) =>
      done({ out: `${out}${err}`, code: e ? 1 : 0 }),
    );
  });
const made = (): readonly string[] => {
  const at = join(folder, 'node_modules/.cache/plate-fold');
  return existsSync(at) ? readdirSync(at).filter(f => f.endsWith('.mjs')) : [];
};

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'platefold-program-'));
  for (const room of ['core/src', 'cli', 'server', 'demo', 'scripts', 'node_modules'])
    mkdirSync(join(folder, room), { recursive: true });
  for (const f of ['ensure.mjs', 'program.mjs']) cpSync(join(ROOT, 'scripts', f), join(folder, 'scripts', f));
  for (const p of ['esbuild', 'tsx', 'yup', 'get-tsconfig', 'resolve-pkg-maps', '@esbuild'])
    if (existsSync(join(ROOT, 'node_modules', p)))
      symlinkSync(join(ROOT, 'node_modules', p), join(folder, 'node_modules', p));
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
  writeFileSync(join(folder, 'package-lock.json'), '{}');
  writeFileSync(join(folder, 'core/src/word.ts'), "export const word: string = 'first';\n");
  writeFileSync(
    join(folder, 'core/src/main.ts'),
    "import { number } from 'yup';\nimport { word } from './word';\nexport const said = (): string => [word, number().isValidSync(3), import.meta.url].join(' ');\n",
  );
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('a program that is put together as it starts', () => {
  it('is what its sources say, made once, and anew when one of them is changed', async () => {
    const first = await start();
    expect(first.out.trim()).toBe(`first true ${pathToFileURL(join(folder, 'core/src/main.ts')).href}`);
    const files = made();
    expect(files).toHaveLength(1);
    expect((await start()).out).toBe(first.out);
    expect(made()).toEqual(files);
    writeFileSync(join(folder, 'core/src/word.ts'), "export const word: string = 'second';\n");
    expect((await start()).out).toContain('second true');
    expect(made()).toHaveLength(1);
    expect(made()).not.toEqual(files);
  });

  it('says where a source is wrong', async () => {
    writeFileSync(join(folder, 'core/src/word.ts'), 'export const word = ;\n');
    const { out, code } = await start();
    expect(code).toBe(1);
    expect(out).toMatch(/word\.ts:1:20/);
  });

  it('starts where nothing can be written beside the packages, and when several start at once', async () => {
    // a file where the folder would be
    writeFileSync(join(folder, 'node_modules/.cache'), '');
    expect((await start()).out).toContain('first true');
    expect(made()).toEqual([]);
    rmSync(join(folder, 'node_modules/.cache'));
    const all = await Promise.all([start(), start(), start()]);
    expect(all.map(a => a.out.slice(0, 10))).toEqual(['first true', 'first true', 'first true']);
    expect(made()).toHaveLength(1);
  });
});
