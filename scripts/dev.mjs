import { spawn } from 'node:child_process';
import { ROOT } from './ensure.mjs';

const commands = [
  [
    process.execPath,
    ['--import', 'tsx', '--watch', 'server/src/main.ts'],
    { PORT: process.env.PORT ?? '4173' },
  ],
  ['npx', ['vite', 'web', '--port', '5173', '--strictPort'], {}],
];
const children = commands.map(([command, args, env]) =>
  spawn(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } }),
);
const stop = () => children.forEach(c => c.kill());
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
