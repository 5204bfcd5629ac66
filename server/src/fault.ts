import type { Context, Next } from 'koa';

/** A refusal with a sentence for people; anything else that is thrown is our own mistake. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

/** What can be wrong with the place where data are kept. */
export type PlaceFault = 'full' | 'damaged' | 'held' | 'failing' | 'closed' | 'away';

const PLACE: readonly (readonly [PlaceFault, RegExp])[] = [
  ['full', /SQLITE_FULL|ENOSPC|EFBIG|database or disk is full/i],
  ['damaged', /SQLITE_CORRUPT|SQLITE_NOTADB|malformed/i],
  ['held', /SQLITE_BUSY|database is locked/i],
  ['failing', /SQLITE_IOERR|disk I\/O error/i],
  [
    'closed',
    /SQLITE_READONLY|SQLITE_CANTOPEN|EROFS|EACCES|ENOTDIR|EEXIST|EPERM|ConnectionFailed|unable to open/i,
  ],
  ['away', /fetch failed|ECONNREFUSED|ECONNRESET|ENOTFOUND|HRANA|SERVER_ERROR/i],
];

/** What an error says of the place where data are kept; undefined where it says nothing of it. */
export function placeFault(e: unknown): PlaceFault | undefined {
  const text = wordsOf(e);
  return PLACE.find(([, pattern]) => pattern.test(text))?.[0];
}

/** What statuses that a request brings on itself mean, as sentences. */
const SAID: Readonly<Record<number, string>> = {
  400: 'The request is not whole JSON, or its address is not one: nothing was saved.',
  403: 'That is not to be had here.',
  404: 'There is nothing at this address.',
  413: 'That is larger than 4 MB: nothing was saved.',
  415: 'The request comes in an encoding or a kind that is not read here: nothing was saved.',
};

/** Everything that an error says of itself, and what it was caused by. */
export function wordsOf(e: unknown): string {
  const words: string[] = [];
  for (let at = e as { message?: string; code?: string; cause?: unknown } | undefined; at; ) {
    words.push(at.message ?? '', at.code ?? '');
    at = words.length < 12 ? (at.cause as typeof at) : undefined;
  }
  return words.join(' ');
}

/** What is answered where the place is at fault. */
const ANSWERS: Readonly<Record<PlaceFault, readonly [status: number, fault: string]>> = {
  full: [507, 'The disk that holds the data folder is full: nothing was saved. Make room, then save again.'],
  damaged: [
    500,
    'The database is damaged: nothing was saved. Stop the server, and put back a backup (docs/running.md).',
  ],
  held: [503, 'Another program holds the database: nothing was saved. Try again.'],
  failing: [507, 'The data folder cannot be written to: nothing was saved.'],
  closed: [507, 'The data folder cannot be written to: nothing was saved.'],
  away: [503, 'The database does not answer: nothing was saved. Try again.'],
};

/** Turns whatever goes wrong into one clear answer; nothing is half-written, since writes are transactions. */
export const answerFaults = (log: (e: unknown) => void) => async (ctx: Context, next: Next) => {
  try {
    await next();
  } catch (e) {
    const { status = 0 } = e as { status?: number };
    const place = placeFault(e);
    if (e instanceof Refusal) {
      ctx.status = e.status;
      ctx.body = { fault: e.message, ...e.more };
    } else if (place) {
      log(e);
      const [code, fault] = ANSWERS[place];
      ctx.status = code;
      ctx.body = { fault };
    } else if (e instanceof URIError || SAID[status] !== undefined) {
      ctx.status = e instanceof URIError ? 400 : status;
      ctx.body = { fault: SAID[ctx.status] };
    } else {
      log(e);
      ctx.status = 500;
      ctx.body = { fault: 'The server made a mistake and has written it down. Nothing was saved.' };
    }
    ctx.set('cache-control', 'no-store');
  }
};
