import { readFile } from 'node:fs/promises';
import { gatherFacts } from '@plate-fold/core/derive';
import { readDocument, upToPhase } from '@plate-fold/core/plan';
import { type Heights, heightsFrom } from '@plate-fold/core/scan';
import type { UnitSystem } from '@plate-fold/core/units';
import { ARCHIVE_USAGE, runArchive } from './archive';
import { EXPORTS, exportFiles } from './export';
import { readOptions } from './options';
import { runShell } from './shell';
import type { Streams } from './streams';
import { runSurvey } from './survey';
import { VERBS } from './verbs';

const KINDS = Object.keys(EXPORTS).join('|');
/** No more trials than this: minutes. */
const MOST_TRIALS = 100_000;
/** Verbs that read other files than a plan, or write some. */
const OTHERS = ['export', 'shell', 'survey'];
const USAGE = `platefold VERB FILE [--build NAME] [--phase NAME] [--trials N] [--together] [--heights FILE] [--units inch|metric] [--json]   verbs: ${Object.keys(VERBS).join(', ')}, survey, shell, export --as ${KINDS} --out DIR; ${ARCHIVE_USAGE}`;

interface Call {
  readonly verb: string;
  readonly file: string;
  readonly build?: string;
  readonly phase?: string;
  readonly json: boolean;
  readonly as?: string;
  readonly out?: string;
  readonly units: UnitSystem;
  readonly trials?: number;
  /** which holes together make it bolt up is looked for as well */
  readonly together: boolean;
  /** a file of a scan's heights, as the server keeps them beside the plan */
  readonly heights?: string;
}

function parseCall(args: readonly string[]): Call | string {
  const call = readOptions(args, {
    words: ['build', 'phase', 'as', 'out', 'units', 'trials', 'heights'],
    flags: ['json', 'together'],
  });
  if (typeof call === 'string') return call;
  const { words, given, flags } = call;
  const [verb, file, ...rest] = words;
  if (!verb) return `no verb given. ${USAGE}`;
  if (!VERBS[verb] && !OTHERS.includes(verb)) return `there is no verb "${verb}". ${USAGE}`;
  if (!file) return `${verb} needs a file. ${USAGE}`;
  if (rest.length > 0) return `one file at a time: "${rest.join(' ')}" is too much`;
  const { build, phase, as, out, units = 'metric', heights } = given;
  const trials = given.trials === undefined ? undefined : Number(given.trials);
  if (
    trials !== undefined &&
    (verb !== 'fitup' || !(Number.isInteger(trials) && trials >= 1 && trials <= MOST_TRIALS))
  )
    return verb === 'fitup'
      ? `--trials is "${given.trials}", but must be a whole number from 1 to ${MOST_TRIALS}`
      : `--trials belongs to fitup, not to ${verb}`;
  const together = flags.has('together');
  if (together && verb !== 'fitup') return `--together belongs to fitup, not to ${verb}`;
  if (units !== 'inch' && units !== 'metric') return `--units is "${units}", but must be inch or metric`;
  if (heights !== undefined && verb !== 'cover' && verb !== 'strike')
    return `--heights belongs to cover and strike, not to ${verb}`;
  if (verb === 'export') {
    if (as === undefined || !EXPORTS[as]) return `--as must be one of ${Object.keys(EXPORTS).join(', ')}`;
    if (out === undefined) return 'export needs --out DIR';
  } else if (as !== undefined || out !== undefined) return `--as and --out belong to export, not to ${verb}`;
  return { verb, file, build, phase, json: flags.has('json'), as, out, units, trials, together, heights };
}

/** Runs the command line. Returns the exit code: 0, 1 with findings of severity "stop", 2 for a bad file or call. */
export async function main(args: readonly string[], { out, err }: Streams): Promise<number> {
  const fail = (why: string): number => {
    err(`platefold: ${why}\n`);
    return 2;
  };
  if (args.includes('--help') || args.includes('-h')) {
    out(`${USAGE}\n`);
    return 0;
  }
  if (args[0] === 'backup' || args[0] === 'restore') return runArchive(args, { out, err });
  const call = parseCall(args);
  if (typeof call === 'string') return fail(call);
  let text: string;
  try {
    text = await readFile(call.file, 'utf8');
  } catch (e) {
    const code = (e as NodeJS.ErrnoException).code;
    return fail(
      code === 'ENOENT' ? `there is no file ${call.file}` : `${call.file} cannot be read (${code})`,
    );
  }
  if (call.verb === 'shell' || call.verb === 'survey') {
    const made = call.verb === 'shell' ? runShell(text, call.json) : runSurvey(text, call.json, call.units);
    if ('fault' in made) return fail(`${call.file}: ${made.fault}`);
    out(`${made.out}\n`);
    return made.code ?? 0;
  }
  const read = readDocument(text);
  if (!read.ok) {
    const [first, ...more] = read.faults;
    const others = more.length > 0 ? ` (and ${more.length} more)` : '';
    return fail(`${call.file}: ${first?.path} ${first?.fault}${others}`);
  }
  const { builds } = read.document.plan;
  const build = builds.find(b => b.id === call.build) ?? builds.find(b => b.name === call.build);
  if (call.build !== undefined && !build)
    return fail(
      `there is no build "${call.build}"; this plan has ${builds.map(b => `${b.id} (${b.name})`).join(', ')}`,
    );
  const { phases = [] } = read.document.plan;
  const at = phases.findIndex(f => f.id === call.phase || f.name === call.phase);
  if (call.phase !== undefined && at < 0)
    return fail(
      `there is no phase "${call.phase}"; this plan has ${phases.map(f => `${f.id} (${f.name})`).join(', ') || 'none'}`,
    );
  // a phase is the plan as it stands once it is fitted
  const until = (i: number) => gatherFacts(upToPhase(read.document, phases[i]?.id ?? ''), build?.id);
  const facts = at < 0 ? gatherFacts(read.document, build?.id) : until(at);
  if (call.as !== undefined && call.out !== undefined) {
    try {
      const files = await exportFiles(facts, call.as, call.out, call.units);
      out(call.json ? `${JSON.stringify({ files }, null, 1)}\n` : `${files.join('\n')}\n`);
      return 0;
    } catch (e) {
      return fail(
        `${call.out} cannot be written to (${(e as NodeJS.ErrnoException).code ?? (e as Error).message})`,
      );
    }
  }
  let heights: Heights | undefined;
  if (call.heights !== undefined) {
    const { scan } = read.document.rig;
    if (!scan) return fail('this plan has no scan that --heights could belong to');
    try {
      const made = heightsFrom(scan, await readFile(call.heights));
      if (!made.ok) return fail(`${call.heights}: ${made.fault}`);
      heights = made.value;
    } catch (e) {
      return fail(`${call.heights} cannot be read (${(e as NodeJS.ErrnoException).code})`);
    }
  }
  const answer = VERBS[call.verb]?.(facts, call.units, {
    ...(at > 0 ? { before: until(at - 1) } : {}),
    ...(call.trials === undefined ? {} : { trials: call.trials }),
    ...(call.together ? { together: true } : {}),
    ...(heights ? { heights } : {}),
  });
  if (!answer) return fail(USAGE);
  out(`${call.json ? JSON.stringify(answer.json, null, 1) : answer.text}\n`);
  return answer.code;
}
