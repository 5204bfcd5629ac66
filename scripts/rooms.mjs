// The order of the rooms, held: data flows one way, a core room is entered by its index, no two files import each other in a ring.
// Run by `npm run lint`; the judgment itself is tried in scripts/rooms.test.ts.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

/** From first to last: a room may import those before it. Names in one list stand side by side and never import one another. */
export const ORDER = {
  'core/src': [
    'units',
    'geometry',
    'sheet',
    'rig',
    'plan',
    'survey',
    'fold',
    'cover',
    'scan',
    'bolt',
    'bracket',
    'strike',
    'weigh',
    'sequence',
    'service',
    'log',
    'derive',
    'fitup',
    'checks',
    'compare',
    'propose',
    'formats',
    'book',
    'explain',
    'testing',
  ],
  'web/src': [
    'testing',
    'ui',
    'work',
    'picture',
    'state',
    'shared',
    [
      'stages/rig',
      'stages/cover',
      'stages/fold',
      'stages/strike',
      'stages/weigh',
      'stages/bolt',
      'stages/run',
      'stages/log',
    ],
    'app',
    'main.tsx',
  ],
};

/** Packages that a part of the house does not know: where (a pattern of paths), what is imported (a pattern), and why not. */
const STRANGERS = [
  [
    'core/src',
    /^(node:|react|@reduxjs|koa|@koa|drizzle-orm|@libsql)/,
    'core knows neither Node, React nor the server',
  ],
  ['core/src/', /^@plate-fold\//, 'core imports its rooms by their folders'],
  [
    'web/src',
    /^(node:|koa|@koa|drizzle-orm|@libsql|@plate-fold\/(server|cli))/,
    'the page runs in a browser',
  ],
  ['', /^@plate-fold\/[^/]+\/src\//, 'a package is entered by its own doors'],
];

const IMPORT = /(?:\bfrom|\bimport)\s*\(?\s*'([^']+)'|new URL\(\s*'(\.[^']+)',\s*import\.meta\.url\)/g;
/** What a text imports, types and workers too. */
const imported = text => [...text.matchAll(IMPORT)].map(m => m[1] ?? m[2]);

const isTest = path => /\.test\.tsx?$/.test(path);

/** Which root a file lies below, its room there, and the room's place in the order. */
function placeOf(path) {
  const root = Object.keys(ORDER).find(r => path.startsWith(`${r}/`));
  if (!root) return undefined;
  const inside = path.slice(root.length + 1);
  const place = ORDER[root].findIndex(r =>
    [r].flat().some(one => inside === one || inside.startsWith(`${one}/`)),
  );
  const room = [ORDER[root][place] ?? inside]
    .flat()
    .find(one => inside === one || inside.startsWith(`${one}/`));
  return { root, room: room ?? inside, place };
}

/** The first ring of files that import one another, beginning with its first name; undefined where there is none. */
function ringOf(graph) {
  const state = new Map();
  const way = [];
  const visit = file => {
    if (state.get(file) === 'done') return undefined;
    if (state.get(file) === 'open') return way.slice(way.indexOf(file));
    state.set(file, 'open');
    way.push(file);
    for (const next of graph.get(file) ?? []) {
      const ring = visit(next);
      if (ring) return ring;
    }
    way.pop();
    state.set(file, 'done');
    return undefined;
  };
  for (const file of [...graph.keys()].sort()) {
    const ring = visit(file);
    if (ring) return ring;
  }
  return undefined;
}

/**
 * What is wrong with how files import one another.
 * @param files text by path from the project's root, with forward slashes
 * @returns one sentence a fault, each naming the file
 */
export function roomFaults(files) {
  const faults = [];
  const graph = new Map();
  for (const [path, text] of files) {
    const from = placeOf(path);
    if (from?.place === -1) faults.push(`${path}: this room has no place in the order (scripts/rooms.mjs)`);
    for (const what of imported(text)) {
      for (const [below, pattern, why] of isTest(path) ? [] : STRANGERS)
        if (new RegExp(`^${below}`).test(path) && pattern.test(what))
          faults.push(`${path}: imports ${what}: ${why}`);
      if (!what.startsWith('.')) continue;
      const bare = normalize(join(dirname(path), what))
        .split('\\')
        .join('/');
      const target = [bare, `${bare}.ts`, `${bare}.tsx`, `${bare}/index.ts`].find(c => files.has(c));
      if (!target) continue;
      if (!isTest(path)) graph.set(path, [...(graph.get(path) ?? []), target]);
      const to = placeOf(target);
      if (!from || !to || isTest(path)) continue;
      if (from.root !== to.root) {
        faults.push(`${path}: imports ${target}: a package is entered by its own doors`);
        continue;
      }
      if (from.room === to.room) continue;
      if (to.place > from.place)
        faults.push(`${path}: imports ${target}, but ${from.room} comes before ${to.room}`);
      else if (to.place === from.place)
        faults.push(`${path}: imports ${target}, but ${from.room} and ${to.room} never import each other`);
      else if (from.root === 'core/src' && target !== `core/src/${to.room}/index.ts`)
        faults.push(`${path}: imports ${target}, past the door of ${to.room} (its index.ts)`);
    }
  }
  const ring = ringOf(graph);
  if (ring) faults.push(`${ring[0]}: these import one another in a ring: ${[...ring, ring[0]].join(' → ')}`);
  return faults;
}

/** All sources below the packages' src folders, by path from `root`. */
export function sources(root) {
  const files = new Map();
  for (const pack of ['core', 'cli', 'server', 'web', 'e2e', 'bench'])
    for (const f of readdirSync(join(root, pack, 'src'), { recursive: true, withFileTypes: true })) {
      if (!f.isFile() || !/\.tsx?$/.test(f.name)) continue;
      const path = join(f.parentPath ?? f.path, f.name);
      files.set(relative(root, path).split('\\').join('/'), readFileSync(path, 'utf8'));
    }
  return files;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const files = sources(join(dirname(fileURLToPath(import.meta.url)), '..'));
  const faults = roomFaults(files);
  for (const f of faults) console.error(f);
  console.log(`${files.size} files, ${faults.length} out of order`);
  if (faults.length > 0) process.exit(1);
}
