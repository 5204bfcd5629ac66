import { checked as asked } from '@plate-fold/core/plan';
import type { Context } from 'koa';
import type * as yup from 'yup';
import { Refusal } from '../fault';

type Keys = Readonly<Record<string, unknown>>;

/** The JSON object that a request carries. A Refusal where it carries none, or something else. */
export function sent(ctx: Context): Keys {
  const body = ctx.request.body as unknown;
  if (ctx.request.length && !ctx.is('json'))
    throw new Refusal(415, 'Send JSON, with the content type application/json: nothing was saved.');
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    throw new Refusal(400, 'The request has no JSON object in its body: nothing was saved.');
  return body as Keys;
}

/** What was sent, as a schema asks; a Refusal that says what is wrong otherwise. */
export function checked<T>(schema: yup.Schema<T>, value: unknown, what: string): T {
  const read = asked(schema, value, what);
  if (!read.ok) throw new Refusal(422, read.fault);
  return read.value;
}
