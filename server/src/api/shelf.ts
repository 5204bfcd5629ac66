import Router from '@koa/router';
import { and, asc, eq } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, kits, shelf } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';

const KINDS = ['part', 'wrench'] as const;
const MOST = 100_000;

const entrySchema = yup.object({
  kind: yup.string().oneOf(KINDS).required(),
  name: yup.string().required().max(200),
  count: yup.number().required().integer().min(0).max(MOST),
  low: yup.number().nullable().min(0).max(1000),
  high: yup
    .number()
    .nullable()
    .min(0)
    .max(1000)
    .test('above', 'high must be above low', (v, { parent }) => v == null || v > (parent.low ?? 0)),
});

const kitSchema = yup.object({
  counted: yup
    .mixed<Record<string, number>>()
    .required()
    .test(
      'counts',
      'counted must give a whole number of every part',
      v =>
        typeof v === 'object' &&
        !Array.isArray(v) &&
        Object.values(v).every(n => Number.isInteger(n) && n >= 0 && n <= MOST),
    ),
  tried: yup.array().of(yup.string().required().max(200)).required().max(500),
});

function checked<T>(schema: yup.Schema<T>, value: unknown, what: string): T {
  try {
    return schema.validateSync(value, { strict: true });
  } catch (e) {
    throw new Refusal(422, `Not ${what}: ${(e as Error).message}.`);
  }
}

/** What lies in the garage, and how far the kit of a build has been gone through. */
export function shelfRoutes({ db, write }: Store): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/shelf', async ctx => {
    ctx.body = await db.select().from(shelf).orderBy(asc(shelf.kind), asc(shelf.name));
  });

  /** Sets how many of a part there are, or a wrench with its range; a count of 0 takes it off the shelf. */
  router.put('/shelf', async ctx => {
    const entry = checked(entrySchema, ctx.request.body, 'an entry of the shelf');
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

  router.put('/documents/:id/kits/:build', async ctx => {
    const [id, buildId] = [param(ctx.params, 'id'), param(ctx.params, 'build')];
    const kit = checked(kitSchema, ctx.request.body, 'a kit');
    const known = await db.select({ id: documents.id }).from(documents).where(eq(documents.id, id));
    if (known.length === 0) throw new Refusal(404, `There is no plan "${id}".`);
    const row = { documentId: id, buildId, body: JSON.stringify(kit), updatedAt: Date.now() };
    await write(() =>
      db
        .insert(kits)
        .values(row)
        .onConflictDoUpdate({ target: [kits.documentId, kits.buildId], set: row }),
    );
    ctx.body = { ...kit, updatedAt: row.updatedAt };
  });
  return router;
}
