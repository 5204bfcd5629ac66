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

const FULL = /SQLITE_FULL|ENOSPC|database or disk is full/i;
const READONLY = /SQLITE_READONLY|SQLITE_CANTOPEN|EROFS|EACCES|SQLITE_IOERR/i;

/** Turns whatever goes wrong into one clear answer; nothing is half-written, since writes are transactions. */
export const answerFaults = (log: (e: unknown) => void) => async (ctx: Context, next: Next) => {
  try {
    await next();
  } catch (e) {
    const seen = e as { status?: number; message?: string; cause?: { message?: string } };
    const text = `${seen.message ?? ''} ${seen.cause?.message ?? ''}`;
    if (e instanceof Refusal) {
      ctx.status = e.status;
      ctx.body = { fault: e.message, ...e.more };
    } else if (FULL.test(text)) {
      ctx.status = 507;
      ctx.body = {
        fault: 'The disk that holds the data folder is full: nothing was saved. Make room, then save again.',
      };
    } else if (READONLY.test(text)) {
      ctx.status = 507;
      ctx.body = { fault: 'The data folder cannot be written to: nothing was saved.' };
    } else if (seen.status === 413) {
      ctx.status = 413;
      ctx.body = { fault: 'That is larger than 4 MB: nothing was saved.' };
    } else if (seen.status === 400) {
      ctx.status = 400;
      ctx.body = { fault: 'The request is not whole JSON: nothing was saved.' };
    } else {
      log(e);
      ctx.status = 500;
      ctx.body = { fault: 'The server made a mistake and has written it down. Nothing was saved.' };
    }
  }
};
