import type { Middleware } from 'koa';
import { Refusal } from './fault';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/** Host names under which the server answers: the loopback ones, and the one it was told to listen on. */
export const hostNames = (listen: string): readonly string[] =>
  LOOPBACK.includes(listen) || listen === '::1' || listen === '0.0.0.0' ? LOOPBACK : [...LOOPBACK, listen];

/**
 * Refuses a foreign Host (another name pointed at this machine) and any request another site's page has sent
 * (Origin, or Sec-Fetch-Site where there is no Origin). Another port of this machine is another site.
 */
export const guard =
  (names: readonly string[] | (() => readonly string[])): Middleware =>
  async (ctx, next) => {
    const host = ctx.get('host');
    const name = host.replace(/:\d+$/, '');
    const known = typeof names === 'function' ? names() : names;
    if (!known.includes(name)) throw new Refusal(403, 'This server answers under its own address only.');
    const origin = ctx.get('origin');
    const site = ctx.get('sec-fetch-site');
    const foreign =
      origin !== '' ? origin !== `http://${host}` : site === 'cross-site' || site === 'same-site';
    const walkingIn = ctx.method === 'GET' && ctx.get('sec-fetch-mode') === 'navigate';
    if (foreign && !walkingIn) throw new Refusal(403, 'Requests from other sites are refused.');
    await next();
  };
