import { randomUUID } from 'node:crypto';
import Router from '@koa/router';
import { MATERIAL_IDS } from '@plate-fold/core/sheet';
import type { UnitSystem } from '@plate-fold/core/units';
import { type QuoteAnswer, type QuoteRequest, quote } from '@plate-fold/core/weigh';
import * as yup from 'yup';
import { param } from '../api/param';
import { checked } from '../api/sent';
import { Refusal } from '../fault';

/*
 * A simulated fabricator: takes blanks, bends and finish, thinks for a while, answers with a price and days, or refuses
 * with its reasons. The interface is the one a real one would have (docs/devices.md).
 */
const THINKS_MS = 1800;
/** Answers kept at most; older ones are forgotten, as an offer that has run out. */
const KEPT = 200;

const positive = (): yup.NumberSchema<number> => yup.number().required().moreThan(0).max(1e7);
const bend = yup.object({
  id: yup.string().required().max(80),
  angle: yup.number().required().min(-180).max(180),
  insideRadius: positive(),
  width: yup.number().required().min(0),
  flange: yup.number().required().min(0),
});
const requestSchema = yup.object({
  units: yup.mixed<UnitSystem>().oneOf(['inch', 'metric'] as const),
  blanks: yup
    .array()
    .of(
      yup.object({
        mark: yup.string().required().max(20),
        name: yup.string().required().max(200),
        material: yup
          .string()
          .oneOf([...MATERIAL_IDS])
          .required(),
        thickness: positive(),
        finish: yup.string().oneOf(['raw', 'powder', 'paint', 'zinc']).required(),
        size: yup.tuple([positive(), positive()]).required(),
        areaMm2: positive(),
        cutMm: positive(),
        bends: yup.array().of(bend).required().max(100),
      }),
    )
    .required()
    .min(1)
    .max(100),
  shop: yup
    .object({
      id: yup.string().required(),
      name: yup.string().required(),
      brake: yup.object({ length: positive(), force: positive() }).required(),
      dies: yup.array().of(positive()).required(),
      sheets: yup
        .array()
        .of(yup.tuple([positive(), positive()]).required())
        .required()
        .min(1),
    })
    .required(),
});

interface Kept {
  readonly readyAt: number;
  readonly answer: QuoteAnswer;
}

export function quoteRoutes(thinksMs: number = THINKS_MS): Router {
  const router = new Router({ prefix: '/api/services/quotes' });
  const kept = new Map<string, Kept>();

  router.get('/', ctx => {
    ctx.body = { name: 'fabricator, simulated', currency: '$', simulated: true };
  });

  router.post('/', ctx => {
    const asked = checked(
      requestSchema,
      ctx.request.body,
      'a request for a quote',
    ) as unknown as QuoteRequest;
    const id = randomUUID();
    kept.set(id, { readyAt: Date.now() + thinksMs, answer: quote(asked) });
    for (const old of [...kept.keys()].slice(0, Math.max(0, kept.size - KEPT))) kept.delete(old);
    ctx.status = 202;
    ctx.body = { id, state: 'working', simulated: true };
  });

  router.get('/:id', ctx => {
    const found = kept.get(param(ctx.params, 'id'));
    if (!found) throw new Refusal(404, 'There is no such quote, or it has run out: ask again.');
    const { answer, readyAt } = found;
    if (Date.now() < readyAt) ctx.body = { state: 'working', simulated: true };
    else if (answer.ok)
      ctx.body = {
        state: 'offered',
        price: answer.price,
        days: answer.days,
        lines: answer.lines,
        simulated: true,
      };
    else ctx.body = { state: 'refused', reasons: answer.reasons, simulated: true };
  });
  return router;
}
