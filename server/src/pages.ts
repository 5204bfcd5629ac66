import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { send } from '@koa/send';
import type { Middleware } from 'koa';
import helmet from 'koa-helmet';
import { Refusal } from './fault';

/** Headers of every answer: nothing is loaded from elsewhere, nobody frames the pages. `trusted`: the page comes from this machine. */
export const headers = (trusted: boolean): Middleware =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        // a strike's kernels are compiled from what the program itself ships; no text is ever run as a script
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
    },
    // with none at all a browser sends a form's Origin as null, and the guard would take it for another site's
    referrerPolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
    // elsewhere than on this machine, over plain http, browsers pass these over with a complaint
    crossOriginOpenerPolicy: trusted,
    originAgentCluster: trusted,
  }) as Middleware;

/** Whether an address is one of the API, however its letters are written. */
export const isApi = (path: string): boolean => /^\/*api(\/|$)/i.test(path);

/** No browser and no proxy keeps what the API answers, unless the answer itself says so. */
export const unkept: Middleware = async (ctx, next) => {
  if (isApi(ctx.path)) ctx.set('cache-control', 'no-store');
  await next();
};

/** The built interface: its files, and its one page under every other address. */
export const pages =
  (web: string | undefined): Middleware =>
  async ctx => {
    if (isApi(ctx.path)) throw new Refusal(404, 'There is nothing at this address.');
    if (!web || !existsSync(join(web, 'index.html')))
      throw new Refusal(404, 'The interface has not been built.');
    if (ctx.method !== 'GET' && ctx.method !== 'HEAD') throw new Refusal(405, 'Pages are only read.');
    // a page that was opened before the last build asks for parts that are gone: it hears so, and loads itself anew
    const asset = ctx.path.startsWith('/assets/') || /^\/[^/]+\.[a-z0-9]+$/i.test(ctx.path);
    const kept = ctx.path.startsWith('/assets/');
    await send(ctx, asset ? ctx.path : '/index.html', {
      root: web,
      maxAge: kept ? 365 * 24 * 3600 * 1000 : 0,
      immutable: kept,
    });
    if (!kept) ctx.set('cache-control', 'no-cache');
  };
