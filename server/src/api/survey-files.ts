import Router from '@koa/router';
import { and, eq } from 'drizzle-orm';
import * as yup from 'yup';
import type { Store } from '../db/open';
import { documents, surveyFiles } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';
import { answerPhoto, sentHeights, sentPhoto } from './photo';
import { checked, sent } from './sent';

const fromSchema = yup.object({ from: yup.string().required() });

/** Pictures of a vehicle on which its survey is marked, and its scan: kept beside the plan, and never changed. */
export function surveyFileRoutes({ db, write }: Store): Router {
  const router = new Router({ prefix: '/api/documents/:id' });
  const known = async (id: string): Promise<void> => {
    const found = await db.select({ id: documents.id }).from(documents).where(eq(documents.id, id));
    if (found.length === 0) throw new Refusal(404, `There is no plan "${id}".`);
  };

  for (const [list, read] of [
    ['photos', sentPhoto],
    ['scans', sentHeights],
  ] as const) {
    /** Keeps a picture, or the heights of a scan, its id made on the device; sent again it is kept once. */
    router.put(`/${list}/:file`, async ctx => {
      const id = param(ctx.params, 'id');
      await known(id);
      const file = await read(ctx, param(ctx.params, 'file'));
      await write(() =>
        db
          .insert(surveyFiles)
          .values({ ...file, documentId: id })
          .onConflictDoNothing(),
      );
      ctx.status = 201;
      ctx.body = { received: file.id };
    });

    router.get(`/${list}/:file`, async ctx => {
      const [file] = await db
        .select()
        .from(surveyFiles)
        .where(
          and(
            eq(surveyFiles.documentId, param(ctx.params, 'id')),
            eq(surveyFiles.id, param(ctx.params, 'file')),
          ),
        );
      answerPhoto(ctx, file);
    });
  }

  /** A plan that was made from another takes its pictures and its scan along. */
  router.post('/photos', async ctx => {
    const id = param(ctx.params, 'id');
    await known(id);
    const { from } = checked(fromSchema, sent(ctx), 'the plan to take pictures from');
    await known(from);
    const its = await db.select().from(surveyFiles).where(eq(surveyFiles.documentId, from));
    for (const photo of its)
      await write(() =>
        db
          .insert(surveyFiles)
          .values({ ...photo, documentId: id })
          .onConflictDoNothing(),
      );
    ctx.status = 201;
    ctx.body = { received: its.map(p => p.id) };
  });
  return router;
}
