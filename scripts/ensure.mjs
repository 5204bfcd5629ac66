// Installs what is missing, with the versions of the lock file and install scripts off. Plain Node, no packages.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');

export function needNode() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20) {
    console.error(`Plate Fold needs Node 20 or newer; this is Node ${process.versions.node}.`);
    process.exit(1);
  }
}

/** Runs a command in the project's root; ends this process with its code when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: 'inherit',
    shell: process.platform === 'win32',
    ...options,
  });
  if (done.error) {
    console.error(`${command} could not be started: ${done.error.message}`);
    process.exit(1);
  }
  if (done.status !== 0) process.exit(done.status ?? 1);
}

export function ensureInstalled() {
  needNode();
  const stamp = join(ROOT, 'node_modules', '.plate-fold-installed');
  const files = ['package-lock.json', 'package.json'].map(f => readFileSync(join(ROOT, f)));
  const want = createHash('sha256').update(Buffer.concat(files)).digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === want) return;
  console.log('Installing what is missing (once) ...');
  run('npm', ['install', '--no-audit', '--no-fund', '--ignore-scripts', '--loglevel=error']);
  mkdirSync(dirname(stamp), { recursive: true });
  const after = ['package-lock.json', 'package.json'].map(f => readFileSync(join(ROOT, f)));
  writeFileSync(stamp, createHash('sha256').update(Buffer.concat(after)).digest('hex'));
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) ensureInstalled();
