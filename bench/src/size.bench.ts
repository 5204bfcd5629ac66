import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';

/* Compressed script of the first load: what index.html names, and what those files import at once. Limit: 300 kB. */
const LIMIT = 300_000;
const dist = fileURLToPath(new URL('../../web/dist/', import.meta.url));
if (!existsSync(`${dist}index.html`)) {
  console.log('size: build the interface first (npm run build)');
  process.exit(0);
}
const page = readFileSync(`${dist}index.html`, 'utf8');
/** A script with all that it imports at once, into a set. */
const take = (name: string, into: Set<string>): Set<string> => {
  if (into.has(name)) return into;
  into.add(name);
  const text = readFileSync(`${dist}assets/${name}`, 'utf8');
  for (const m of text.matchAll(/(?:^|;)import(?:[^"'(;]*?from)?["']\.\/([\w.-]+\.js)["']/g))
    take(m[1] as string, into);
  return into;
};
const first = new Set<string>();
for (const m of page.matchAll(/assets\/([\w.-]+\.js)/g)) take(m[1] as string, first);
const size = (name: string): number => gzipSync(readFileSync(`${dist}assets/${name}`)).length;
const say = (what: string, of: Iterable<string>): void => {
  const total = [...of].reduce((sum, n) => sum + size(n), 0);
  console.log(
    `${what.padEnd(52)} ${(total / 1000).toFixed(1).padStart(8)} kB   ${(total / LIMIT).toFixed(2).padStart(6)} × 300 kB`,
  );
};
console.log();
say('First load, compressed script', first);
const open = new Set(first);
for (const name of readdirSync(`${dist}assets`))
  if (/^(frame|cover-stage)-[\w-]+\.js$/.test(name)) take(name, open);
say('A plan open on Cover, all of it', open);
for (const name of readdirSync(`${dist}assets`).filter(n => n.endsWith('.js') && !first.has(n)))
  console.log(`  later: ${name.padEnd(43)} ${(size(name) / 1000).toFixed(1).padStart(8)} kB`);
