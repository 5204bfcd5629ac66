import { readFile } from 'node:fs/promises';
import { gatherFacts, readDocument } from '@plate-fold/core';
import { VERBS } from './verbs';

export interface Streams {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

const USAGE = `platefold VERB FILE [--build ID] [--json]   verbs: ${Object.keys(VERBS).join(', ')}`;

interface Call {
  readonly verb: string;
  readonly file: string;
  readonly build?: string;
  readonly json: boolean;
}

function parseCall(args: readonly string[]): Call | string {
  const words: string[] = [];
  let build: string | undefined;
  let json = false;
  for (let i = 0; i < args.length; i++) {
    const a = args[i] as string;
    if (a === '--json') json = true;
    else if (a === '--build') {
      build = args[++i];
      if (build === undefined) return '--build needs a build id';
    } else if (a.startsWith('-')) return `unknown option ${a}`;
    else words.push(a);
  }
  const [verb, file, ...rest] = words;
  if (!verb) return `no verb given. ${USAGE}`;
  if (!VERBS[verb]) return `there is no verb "${verb}". ${USAGE}`;
  if (!file) return `${verb} needs a file. ${USAGE}`;
  if (rest.length > 0) return `one file at a time: "${rest.join(' ')}" is too much`;
  return { verb, file, build, json };
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
  const read = readDocument(text);
  if (!read.ok) {
    const [first, ...more] = read.faults;
    const others = more.length > 0 ? ` (and ${more.length} more)` : '';
    return fail(`${call.file}: ${first?.path} ${first?.fault}${others}`);
  }
  const { builds } = read.document.plan;
  if (call.build !== undefined && !builds.some(b => b.id === call.build))
    return fail(`there is no build "${call.build}"; this plan has ${builds.map(b => b.id).join(', ')}`);
  const answer = VERBS[call.verb]?.(gatherFacts(read.document, call.build));
  if (!answer) return fail(USAGE);
  out(`${call.json ? JSON.stringify(answer.json, null, 1) : answer.text}\n`);
  return answer.code;
}
