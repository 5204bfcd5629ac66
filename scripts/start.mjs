import { spawn } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, ROOT, run } from './ensure.mjs';
import { newest } from './program.mjs';

ensureInstalled();

const page = join(ROOT, 'web/dist/index.html');
const sources = Math.max(newest(join(ROOT, 'web/src')), newest(join(ROOT, 'core/src')));
if (!existsSync(page) || statSync(page).mtimeMs < sources) {
  console.log('Building the interface ...');
  run('npx', ['vite', 'build', 'web', '--logLevel', 'warn']);
}
const server = spawn(process.execPath, ['server/bin/server.js'], { cwd: ROOT, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', code => process.exit(code ?? 0));
