// Everything that must hold, in one run: lint, types, then unit, integration and browser tests.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureInstalled, ROOT } from './ensure.mjs';

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** Chromium for the browser tests, which come last: it is fetched beside all that comes before them. Whether it is there. */
function chromiumThere() {
  if (process.env.CHROMIUM || CHROMIUM.some(existsSync)) return true;
  const root = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');
  if (!root) {
    console.error(
      'The browser tests need Chromium: install the package "chromium", or name it in CHROMIUM=/path/to/chromium.',
    );
    process.exit(1);
  }
  console.log('Installing Chromium for the browser tests (once) ...');
  const fetching = spawn(
    'sh',
    ['-c', 'apt-get update -qq; apt-get install -y -qq --no-install-recommends chromium'],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    },
  );
  return new Promise(done => fetching.on('close', () => done(CHROMIUM.some(existsSync))));
}
const chromium = chromiumThere();
ensureInstalled();

let [passed, failed] = [0, 0];
/** What failed, said again at the end, where a long output is still read. */
const broken = [];
/** A program of a package: its own file, since looking for it takes longer than some of what they do. */
const bin = name => join(ROOT, 'node_modules', '.bin', name);
/** Several stages at once, two at a time; each says what it has to say when it is through. */
async function stages(all) {
  const waiting = [...all];
  const next = async () => {
    for (let one = waiting.shift(); one; one = waiting.shift()) {
      const [name, program, args] = one;
      const said = [];
      const child = spawn(process.execPath, [program, ...args], { cwd: ROOT });
      for (const out of [child.stdout, child.stderr]) out.on('data', d => said.push(d));
      const status = await new Promise(done => child.on('close', done));
      console.log(`\n== ${name}\n${Buffer.concat(said)}`);
      if (status === 0) passed++;
      else {
        failed++;
        broken.push(name);
      }
    }
  };
  await Promise.all([next(), next()]);
}
await stages([
  ['build', bin('vite'), ['build', 'web', '--logLevel', 'warn']],
  // what runs in Node and what drives a browser are each read once, with the core they share; one thread each, since two run
  ...['web', 'tsconfig.browser.json', 'tsconfig.node.json', 'core'].map(program => [
    `types ${program}`,
    bin('tsc'),
    ['-p', program, '--singleThreaded'],
  ]),
  ['lint', bin('biome'), ['check', '.']],
  ['rooms', join(ROOT, 'scripts', 'rooms.mjs'), []],
]);
const built = !broken.includes('build');
/** Runs some test files, and counts what held. */
function tests(args) {
  const report = join(tmpdir(), `plate-fold-tests-${process.pid}.json`);
  console.log('\n== tests');
  spawnSync(
    process.execPath,
    [bin('vitest'), 'run', ...args, '--reporter=default', '--reporter=json', `--outputFile=${report}`],
    { cwd: ROOT, stdio: 'inherit' },
  );
  count(report);
}
function count(report) {
  if (!existsSync(report)) {
    failed++;
    return;
  }
  const { numPassedTests, numFailedTests, numFailedTestSuites, numTotalTests, testResults } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  for (const file of testResults)
    for (const t of file.assertionResults.filter(x => x.status === 'failed'))
      broken.push(
        `${file.name.replace(`${ROOT}/`, '')}: ${t.fullName}\n${t.failureMessages.join('\n').slice(0, 3000)}`,
      );
  passed += numPassedTests;
  // a file that cannot be read has no tests that fail
  failed += numFailedTests || numFailedTestSuites || (numTotalTests === 0 ? 1 : 0);
  rmSync(report);
}
// Without a built interface there is nothing to drive.
const driven = built && (await chromium);
if (!(await chromium)) {
  failed++;
  broken.push('Chromium could not be installed by apt-get.');
}
// All in one go: what a file needs is read once by each worker, and no worker is idle while another kind of test is still to come. Three at a
// time: a page waits now and then, which the others use. A machine that is busy with others fails nothing.
tests([
  ...(driven ? [] : ['--exclude', 'e2e/**']),
  '--maxWorkers',
  '3',
  '--no-isolate',
  '--testTimeout',
  '300000',
]);
if (broken.length > 0) console.log(`\n== failed\n${broken.join('\n\n')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
