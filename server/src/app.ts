import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bodyParser } from '@koa/bodyparser';
import Router from '@koa/router';
import { send } from '@koa/send';
import Koa from 'koa';
import helmet from 'koa-helmet';
import { documentRoutes } from './api/documents';
import { runRoutes } from './api/runs';
import { shelfRoutes } from './api/shelf';
import type { Store } from './db/open';
import { answerFaults, Refusal } from './fault';
import { guard } from './guard';
import { quoteRoutes } from './stand-ins/quotes';
import { scalesRoutes } from './stand-ins/scales';

export interface AppOptions {
  readonly store: Store;
  readonly hosts: readonly string[];
  /** folder of the built interface; the API alone is served without it */
  readonly web?: string;
  readonly log: (e: unknown) => void;
}

/** The whole server: faults, headers, guard, bodies, API, then the built interface. */
export function createApp({ store, hosts, web, log }: AppOptions): Koa {
  const app = new Koa();
  // a reader that leaves in mid-answer is no fault of ours
  app.on('error', e => {
    if ((e as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') log(e);
  });
  app.use(answerFaults(log));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
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
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  app.use(guard(hosts));
  app.use(bodyParser({ jsonLimit: '4mb', enableTypes: ['json'] }));
  const health = new Router();
  health.get('/api/health', ctx => {
    ctx.body = { ok: true };
  });
  for (const router of [
    health,
    documentRoutes(store),
    runRoutes(store),
    shelfRoutes(store),
    scalesRoutes(),
    quoteRoutes(),
  ])
    app.use(router.routes());
  app.use(async ctx => {
    if (ctx.path.startsWith('/api/')) throw new Refusal(404, 'There is nothing at this address.');
    if (!web || !existsSync(join(web, 'index.html')))
      throw new Refusal(404, 'The interface has not been built.');
    if (ctx.method !== 'GET' && ctx.method !== 'HEAD') throw new Refusal(405, 'Pages are only read.');
    const asset = /\.[a-z0-9]+$/i.test(ctx.path);
    await send(ctx, asset ? ctx.path : '/index.html', {
      root: web,
      maxAge: ctx.path.startsWith('/assets/') ? 365 * 24 * 3600 * 1000 : 0,
      immutable: ctx.path.startsWith('/assets/'),
    });
  });
  return app;
}
