import Router from '@koa/router';
import { changedKit, EMPTY_KIT, type KitChange, type KitState, MOST_PIECES } from '@plate-fold/core/bolt';
import { and, asc, eq } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, kits, shelf } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';
import { checked, sent } from './sent';

const KINDS = ['part', 'wrench'] as const;

const entrySchema = yup.object({
  kind: yup.string().oneOf(KINDS).required(),
  name: yup.string().required().max(200),
  count: yup.number().required().integer().min(0).max(MOST_PIECES),
  low: yup.number().nullable().min(0).max(1000),
  high: yup
    .number()
    .nullable()
    .min(0)
    .max(1000)
    .test('above', 'high must be above low', (v, { parent }) => v == null || v > (parent.low ?? 0)),
});

const counts = (least: number) =>
  yup
    .object()
    .optional()
    .default(undefined)
    .test(
      'counts',
      'must give a whole number of every part',
      v =>
        v === undefined ||
        (Object.keys(v).length <= 500 &&
          Object.entries(v).every(
            ([k, n]) =>
              k.length <= 200 &&
              Number.isInteger(n) &&
              (n as number) >= least &&
              (n as number) <= MOST_PIECES,
          )),
    );

/** A change of a kit: pieces found or put back, parts counted through, tools tried or not. */
const kitSchema = yup.object({
  add: counts(-MOST_PIECES),
  set: counts(0),
  tried: yup
    .object()
    .optional()
    .default(undefined)
    .test(
      'tools',
      'tried must say true or false of every tool',
      v =>
        v === undefined ||
        (Object.keys(v).length <= 500 &&
          Object.entries(v).every(([k, on]) => k.length <= 200 && typeof on === 'boolean')),
    ),
});

/** What lies in the garage, and how far the kit of a build has been gone through. */
export function shelfRoutes({ db, write }: Store): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/shelf', async ctx => {
    ctx.body = await db.select().from(shelf).orderBy(asc(shelf.kind), asc(shelf.name));
  });

  /** Sets how many of a part there are, or a wrench with its range; a count of 0 takes it off the shelf. */
  router.put('/shelf', async ctx => {
    const entry = checked(entrySchema, sent(ctx), 'an entry of the shelf');
    const row = { ...entry, low: entry.low ?? null, high: entry.high ?? null, updatedAt: Date.now() };
    await write(async () => {
      if (entry.count === 0)
        await db.delete(shelf).where(and(eq(shelf.kind, entry.kind), eq(shelf.name, entry.name)));
      else
        await db
          .insert(shelf)
          .values(row)
          .onConflictDoUpdate({ target: [shelf.kind, shelf.name], set: row });
    });
    ctx.body = row;
  });

  router.get('/documents/:id/kits/:build', async ctx => {
    const [row] = await db
      .select()
      .from(kits)
      .where(and(eq(kits.documentId, param(ctx.params, 'id')), eq(kits.buildId, param(ctx.params, 'build'))));
    ctx.body = row ? { ...JSON.parse(row.body), updatedAt: row.updatedAt } : { counted: {}, tried: [] };
  });

  /** Changes a kit by what was counted and tried; nobody's count is written over by another's. */
  router.patch('/documents/:id/kits/:build', async ctx => {
    const [id, buildId] = [param(ctx.params, 'id'), param(ctx.params, 'build')];
    if (buildId.length > 120) throw new Refusal(422, 'The id of the build is too long.');
    const change = checked(kitSchema, sent(ctx), 'a change of a kit');
    const known = await db.select({ id: documents.id }).from(documents).where(eq(documents.id, id));
    if (known.length === 0) throw new Refusal(404, `There is no plan "${id}".`);
    const updatedAt = Date.now();
    const kit = await write(() =>
      db.transaction(async tx => {
        const [row] = await tx
          .select({ body: kits.body })
          .from(kits)
          .where(and(eq(kits.documentId, id), eq(kits.buildId, buildId)));
        const next = changedKit(row ? (JSON.parse(row.body) as KitState) : EMPTY_KIT, change as KitChange);
        const made = { documentId: id, buildId, body: JSON.stringify(next), updatedAt };
        await tx
          .insert(kits)
          .values(made)
          .onConflictDoUpdate({ target: [kits.documentId, kits.buildId], set: made });
        return next;
      }),
    );
    ctx.body = { ...kit, updatedAt };
  });
  return router;
}
