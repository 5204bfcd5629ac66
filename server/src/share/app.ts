import { bodyParser } from '@koa/bodyparser';
import Koa, { type Context, type Middleware } from 'koa';
import compose from 'koa-compose';
import { runRoutes } from '../api/runs';
import type { Store } from '../db/open';
import { answerFaults, Refusal } from '../fault';
import { guard } from '../guard';
import { headers, isApi, pages, unkept } from '../pages';
import { wrenchRoutes } from '../stand-ins/wrench';
import { door, onlyOpened } from './door';
import { JOIN_SCRIPT, joinPage } from './join-page';
import type { Sharing } from './sharing';

export const COOKIE = 'plate-fold-phone';
const WHY = {
  wrong: 'That is not the code.',
  expired: 'That code has expired: ask for a new one at the desk.',
  spent: 'That code is spent: ask for a new one at the desk.',
  often: 'Too many wrong codes from this device: ask for a new one at the desk.',
  stopped: 'Too many wrong codes were tried: ask for a new one at the desk.',
} as const;

const page = (ctx: Context, status: number, text: string): void => {
  ctx.status = status;
  ctx.type = 'html';
  ctx.set('cache-control', 'no-store');
  ctx.body = text;
};

/** Without a session there is the page that asks for the code, and nothing else. */
const gate =
  (sharing: Sharing): Middleware =>
  async (ctx, next) => {
    if (ctx.path === '/join.js' && ctx.method === 'GET') {
      ctx.type = 'js';
      ctx.body = JOIN_SCRIPT;
      return;
    }
    if (ctx.path === '/join' && ctx.method === 'POST') {
      const { code } = (ctx.request.body ?? {}) as { code?: unknown };
      const from = ctx.req.socket.remoteAddress ?? '';
      const answer = sharing.enter(typeof code === 'string' ? code.slice(0, 40) : '', from);
      if ('why' in answer)
        return page(
          ctx,
          answer.why === 'often' || answer.why === 'stopped' ? 429 : 401,
          joinPage(WHY[answer.why]),
        );
      ctx.cookies.set(COOKIE, answer.token, {
        httpOnly: true,
        sameSite: 'strict',
        overwrite: true,
        signed: false,
      });
      // for the page itself, which then leads nowhere but to the run
      ctx.cookies.set(`${COOKIE}-page`, '1', {
        httpOnly: false,
        sameSite: 'strict',
        overwrite: true,
        signed: false,
      });
      ctx.redirect(`/run/${sharing.run}`);
      ctx.status = 303;
      return;
    }
    if (sharing.letIn(ctx.cookies.get(COOKIE))) return next();
    if (isApi(ctx.path))
      throw new Refusal(401, 'This device is not let in, or the desk has ended the sharing.');
    page(ctx, 401, joinPage());
  };

/** What a phone on the local network reaches: the page for the code, then the one run that is shared. */
export function shareApp(
  store: Store,
  web: string | undefined,
  log: (e: unknown) => void,
  sharing: Sharing,
): Koa {
  const app = new Koa();
  app.on('error', e => {
    if ((e as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') log(e);
  });
  app.use(answerFaults(log));
  app.use(headers(false));
  app.use(guard(() => sharing.hosts));
  app.use(unkept);
  app.use(bodyParser({ jsonLimit: '4mb', formLimit: '1kb', enableTypes: ['json', 'form'] }));
  app.use(gate(sharing));
  app.use(door(() => sharing.run).routes());
  app.use(onlyOpened);
  // only what the door has opened gets as far as these
  const api = compose([runRoutes(store).routes(), wrenchRoutes().routes()] as Middleware[]);
  app.use((ctx, next) => (ctx.state.opened === true ? api(ctx, next) : next()));
  app.use(pages(web));
  return app;
}
