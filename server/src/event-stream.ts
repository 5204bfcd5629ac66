import { PassThrough } from 'node:stream';
import type { Context } from 'koa';

/** A stream of server-sent events as an answer. */
export interface EventStream {
  readonly say: (event: string, data: unknown) => void;
  readonly end: () => void;
}

/** Answers with server-sent events; `onLeave` is called when the reader goes away, or after the end. */
export function eventStream(ctx: Context, onLeave: () => void): EventStream {
  const out = new PassThrough();
  ctx.req.on('close', () => {
    onLeave();
    out.destroy();
  });
  ctx.set('cache-control', 'no-store');
  ctx.type = 'text/event-stream';
  ctx.body = out;
  return {
    say: (event, data) => void out.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`),
    end: () => void out.end(),
  };
}
