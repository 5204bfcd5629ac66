import Router from '@koa/router';
import { collect, EXISTING, type Existing, packed, restore, unpacked } from '../archive';
import type { Backups } from '../db/backups';
import type { Store } from '../db/open';
import { Refusal } from '../fault';
import { upTo } from './photo';

/** Bytes of an archive that is sent. */
const MOST = 300_000_000;

const nameOf = (plan: string | undefined): string => {
  const day = new Date().toISOString().slice(0, 10);
  return `${(plan ?? 'all-plans').replace(/[^\w.-]+/g, '-')}-${day}.platefold.zip`;
};

/** Everything taken out as one file and put back, and the backups that are made by themselves. */
export function archiveRoutes(store: Store, backups: Backups | undefined): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/archive', async ctx => {
    const plan = typeof ctx.query.plan === 'string' ? ctx.query.plan : undefined;
    const archive = await collect(store, { plan, versions: ctx.query.versions === '1' });
    ctx.type = 'application/zip';
    ctx.attachment(nameOf(plan));
    ctx.body = Buffer.from(await packed(archive));
  });

  router.post('/archive', async ctx => {
    const { existing } = ctx.query;
    if (existing !== undefined && !EXISTING.includes(existing as Existing))
      throw new Refusal(400, `existing is "${existing}", but must be ${EXISTING.join(' or ')}.`);
    if (!ctx.is('application/zip', 'application/octet-stream'))
      throw new Refusal(415, 'An archive is sent with the content type application/zip.');
    const bytes = await upTo(ctx.req, MOST, 'The archive');
    ctx.body = await restore(store, await unpacked(bytes), existing as Existing | undefined);
  });

  router.get('/backups', async ctx => {
    ctx.body = backups ? await backups.state() : { folder: null, kept: [] };
  });
  return router;
}
