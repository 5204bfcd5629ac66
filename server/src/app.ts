import { bodyParser } from '@koa/bodyparser';
import Router from '@koa/router';
import Koa from 'koa';
import { archiveRoutes } from './api/archive';
import { documentRoutes } from './api/documents';
import { doorRoutes } from './api/door';
import { logRoutes } from './api/log';
import { runRoutes } from './api/runs';
import { shareRoutes } from './api/share';
import { shelfRoutes } from './api/shelf';
import { surveyFileRoutes } from './api/survey-files';
import type { Backups } from './db/backups';
import type { Store } from './db/open';
import { answerFaults } from './fault';
import { guard } from './guard';
import { headers, pages, unkept } from './pages';
import type { Sharing } from './share/sharing';
import { quoteRoutes } from './stand-ins/quotes';
import { scalesRoutes } from './stand-ins/scales';
import { wrenchRoutes } from './stand-ins/wrench';

export interface AppOptions {
  readonly store: Store;
  readonly hosts: readonly string[];
  /** folder of the built interface; the API alone is served without it */
  readonly web?: string;
  readonly log: (e: unknown) => void;
  /** lets a phone on the local network take part in one run; not offered without it */
  readonly sharing?: Sharing;
  /** copies of the database that are made by themselves; none where it lies elsewhere */
  readonly backups?: Backups;
}

/** Every route of the API. */
export function apiRouters({
  store,
  sharing,
  backups,
}: Pick<AppOptions, 'store' | 'sharing' | 'backups'>): readonly Router[] {
  const health = new Router();
  health.get('/api/health', ctx => {
    ctx.body = { ok: true };
  });
  return [
    health,
    doorRoutes(store),
    documentRoutes(store),
    runRoutes(store),
    logRoutes(store),
    surveyFileRoutes(store),
    shelfRoutes(store),
    archiveRoutes(store, backups),
    scalesRoutes(),
    wrenchRoutes(),
    quoteRoutes(),
    ...(sharing ? [shareRoutes(store, sharing)] : []),
  ];
}

/** The whole server: faults, headers, guard, bodies, API, then the built interface. */
export function createApp({ store, hosts, web, log, sharing, backups }: AppOptions): Koa {
  const app = new Koa();
  // a reader that leaves in mid-answer is no fault of ours
  app.on('error', e => {
    if ((e as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') log(e);
  });
  app.use(answerFaults(log));
  app.use(headers(true));
  app.use(guard(hosts));
  app.use(unkept);
  app.use(bodyParser({ jsonLimit: '4mb', enableTypes: ['json'] }));
  for (const router of apiRouters({ store, sharing, backups })) app.use(router.routes());
  app.use(pages(web));
  return app;
}
