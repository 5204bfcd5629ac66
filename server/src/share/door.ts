import Router from '@koa/router';
import type { Context } from 'koa';
import { param } from '../api/param';
import { Refusal } from '../fault';
import { isApi } from '../pages';

/** All that a device which was let in may ask of the server, besides pages. Everything that is not listed is closed. */
export const OPEN: readonly (readonly [method: 'get' | 'post' | 'put', path: string])[] = [
  ['get', '/api/runs/:id'],
  ['get', '/api/runs/:id/events'],
  ['post', '/api/runs/:id/ticks'],
  ['get', '/api/runs/:id/photos/:photo'],
  ['put', '/api/runs/:id/photos/:photo'],
  ['post', '/api/runs/:id/end'],
  ['get', '/api/devices/wrench'],
  ['get', '/api/devices/wrench/readings'],
];

/**
 * The door: addresses are read by the very router that serves them, so that what it lets through and what is then served are the same thing
 * however the address is written. Whatever it has not opened goes no further than the pages.
 */
export function door(run: () => string | undefined): Router {
  const router = new Router();
  for (const [method, path] of OPEN)
    router[method](path, async (ctx, next) => {
      if (path.includes(':id') && param(ctx.params, 'id') !== run())
        throw new Refusal(403, 'Only the shared run is open to this device.');
      ctx.state.opened = true;
      await next();
    });
  return router;
}

/** What the door has not opened is not served, but for pages. */
export const onlyOpened = async (ctx: Context, next: () => Promise<unknown>): Promise<void> => {
  if (ctx.state.opened !== true && isApi(ctx.path))
    throw new Refusal(403, 'Only the shared run is open to this device.');
  await next();
};
