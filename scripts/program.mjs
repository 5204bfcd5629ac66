// Starts a program of ours that is written in TypeScript, as one file with its packages: read module by module through a loader, a start takes
// four times the processor time. The file is put together anew (a second or two) where anything that it is made of is newer.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './ensure.mjs';

/** Below node_modules, so that the packages that stay outside are found from there. */
const MADE = join(ROOT, 'node_modules', '.cache', 'plate-fold');
/** What programs are made of. */
const SOURCES = ['core', 'cli', 'server', 'demo'];
/** Packages with machine code or threads of their own, and those that a package asks for in a browser alone. */
const OUTSIDE = ['@libsql/client', 'libsql', 'pino', 'html2canvas', 'dompurify', 'canvg'];

/** Time of the newest file below a folder, ms. */
export const newest = folder =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(f => f.isFile())
    .reduce((t, f) => Math.max(t, statSync(join(f.parentPath ?? f.path, f.name)).mtimeMs), 0);

/** A module that asks where it lies is told where its source does. */
const whereItLies = {
  name: 'where-it-lies',
  setup(build) {
    build.onLoad({ filter: /\.ts$/ }, async ({ path }) => {
      const text = await readFile(path, 'utf8');
      return text.includes('import.meta.url')
        ? {
            contents: text.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href)),
            loader: 'ts',
          }
        : undefined;
    });
  },
};

/** One file of a program and all that it takes, written so that none that starts beside it reads half of it. */
async function put(entry, file) {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    entryPoints: [join(ROOT, entry)],
    absWorkingDir: ROOT,
    outfile: file,
    bundle: true,
    write: false,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    sourcemap: true,
    sourcesContent: false,
    external: OUTSIDE,
    plugins: [whereItLies],
    banner: {
      js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
    },
    logLevel: 'error',
  });
  mkdirSync(MADE, { recursive: true });
  for (const { path, contents } of outputFiles) {
    const half = `${path}.${process.pid}`;
    try {
      writeFileSync(half, contents);
      renameSync(half, path);
    } finally {
      rmSync(half, { force: true });
    }
  }
}

/**
 * Loads a program of the project and gives what it exports. Where nothing can be written beside the packages it is read module by module.
 * @param {string} entry its first module from the project's root, e.g. "server/src/main.ts"
 */
export async function load(entry) {
  const time = Math.max(
    statSync(join(ROOT, 'package-lock.json')).mtimeMs,
    ...SOURCES.map(s => newest(join(ROOT, s))),
  );
  // of this folder and of these sources: moved or changed, another
  const own = createHash('sha256').update(`${ROOT} ${time} ${OUTSIDE}`).digest('hex').slice(0, 16);
  const name = entry.replaceAll('/', '-').replace(/\.ts$/, '');
  const file = join(MADE, `${name}.${own}.mjs`);
  if (!existsSync(file)) {
    try {
      await put(entry, file);
      for (const old of readdirSync(MADE))
        if (old.startsWith(`${name}.`) && !old.startsWith(`${name}.${own}.`))
          rmSync(join(MADE, old), { force: true });
    } catch {
      // a place that cannot be written to is no fault; what is wrong with a source is told as it is read
    }
  }
  if (!existsSync(file)) {
    const { register } = await import('tsx/esm/api');
    register();
    return import(pathToFileURL(join(ROOT, entry)).href);
  }
  process.setSourceMapsEnabled(true);
  return import(pathToFileURL(file).href);
}
