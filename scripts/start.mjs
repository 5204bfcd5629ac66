import { spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, ROOT, run } from './ensure.mjs';

ensureInstalled();

/** Time of the newest file below a folder, ms. */
const newest = folder =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(f => f.isFile())
    .reduce((t, f) => Math.max(t, statSync(join(f.parentPath ?? f.path, f.name)).mtimeMs), 0);

const page = join(ROOT, 'web/dist/index.html');
const sources = Math.max(newest(join(ROOT, 'web/src')), newest(join(ROOT, 'core/src')));
if (!existsSync(page) || statSync(page).mtimeMs < sources) {
  console.log('Building the interface ...');
  run('npx', ['vite', 'build', 'web', '--logLevel', 'warn']);
}
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
  cwd: ROOT,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', code => process.exit(code ?? 0));
