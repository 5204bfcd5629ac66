import Router from '@koa/router';
import { eq } from 'drizzle-orm';
import type { Store } from '../db/open';
import { runs } from '../db/schema';
import { Refusal } from '../fault';
import type { Sharing } from '../share/sharing';
import { sent } from './sent';

/** The desk's side of sharing a run with a phone: begin, see who is in, a new code, end. */
export function shareRoutes({ db }: Store, sharing: Sharing): Router {
  const router = new Router({ prefix: '/api/share' });
  const answer = () => sharing.state() ?? { run: null };

  router.get('/', ctx => {
    ctx.body = answer();
  });
  router.post('/', async ctx => {
    const { run } = sent(ctx);
    const [found] = await db
      .select({ id: runs.id })
      .from(runs)
      .where(eq(runs.id, String(run)));
    if (!found) throw new Refusal(404, 'There is no such run.');
    await sharing.open(found.id);
    ctx.status = 201;
    ctx.body = answer();
  });
  router.delete('/', async ctx => {
    await sharing.close();
    ctx.body = answer();
  });
  return router;
}
