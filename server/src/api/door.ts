import Router from '@koa/router';
import { check } from '@plate-fold/core/checks';
import { gatherFacts } from '@plate-fold/core/derive';
import { facetInSpace } from '@plate-fold/core/fold';
import type { Polygon } from '@plate-fold/core/geometry';
import type { PlanDocument } from '@plate-fold/core/plan';
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import * as yup from 'yup';
import { binOf } from '../archive';
import type { Store } from '../db/open';
import { documents } from '../db/schema';
import { Refusal } from '../fault';
import { param } from './param';
import { documentOf } from './revisions';
import { checked, sent } from './sent';

/** What the list of plans shows of one: its underside from below, how heavy it is, what is found. Outlines in mm, x to the rear, y right. */
export interface Glance {
  readonly revision: number;
  readonly members: readonly Polygon[];
  readonly components: readonly { readonly kind: string; readonly outline: Polygon }[];
  /** a plate's flats and flanges */
  readonly plates: readonly { readonly mark: string; readonly outlines: readonly Polygon[] }[];
  /** where the axles are, mm, and half the track */
  readonly wheels: { readonly front: number; readonly rear: number; readonly half: number };
  readonly netKg: number;
  readonly findings: { readonly stop: number; readonly fix: number; readonly note: number };
}

/** Outlines are told to this, mm: a picture as large as a thumb shows no more. */
const ROUND = 1;
const rounded = (p: readonly (readonly number[])[]): Polygon =>
  p.map(([x = 0, y = 0]) => [Math.round(x / ROUND) * ROUND, Math.round(y / ROUND) * ROUND] as const);

function glanceOf(document: PlanDocument, revision: number): Glance {
  const facts = gatherFacts(document);
  const findings = check(facts);
  const count = (s: string): number => findings.filter(f => f.severity === s).length;
  const { rig } = document;
  return {
    revision,
    members: rig.members.map(m => rounded(m.footprint)),
    components: facts.rig.components.map(c => ({ kind: c.kind, outline: rounded(c.footprint) })),
    plates: facts.panels.map(p => ({
      mark: p.panel.mark,
      outlines: p.facets.map(f => rounded(facetInSpace(f))),
    })),
    wheels: { front: 0, rear: rig.wheelbase, half: rig.trackWidth / 2 },
    netKg: facts.weight.netKg,
    findings: { stop: count('stop'), fix: count('fix'), note: count('note') },
  };
}

const archivedSchema = yup.object({ archived: yup.boolean().required() });

/** The list of plans and what is done there: a glance at each, archived or not, deleted and brought back. */
export function doorRoutes(store: Store): Router {
  const { db, write } = store;
  const router = new Router({ prefix: '/api' });
  const bin = binOf(store);
  const glances = new Map<string, Glance>();

  router.get('/documents', async ctx => {
    const lastRun = sql<number | null>`(select max(runs.started_at) from runs
      where runs.document_id = documents.id and runs.set_aside_at is null)`;
    ctx.body = await db
      .select({
        id: documents.id,
        name: documents.name,
        rigName: documents.rigName,
        bodyKind: documents.bodyKind,
        revision: documents.revision,
        updatedAt: documents.updatedAt,
        archivedAt: documents.archivedAt,
        example: documents.example,
        lastRunAt: lastRun,
      })
      .from(documents)
      .orderBy(desc(documents.updatedAt));
  });

  const rowOf = async (id: string) => {
    const [row] = await db.select().from(documents).where(eq(documents.id, id));
    if (!row) throw new Refusal(404, `There is no plan "${id}".`);
    return row;
  };

  router.get('/documents/:id/glance', async ctx => {
    const id = param(ctx.params, 'id');
    const row = await rowOf(id);
    const known = glances.get(id);
    const glance =
      known?.revision === row.revision ? known : glanceOf(await documentOf(store, row), row.revision);
    glances.set(id, glance);
    ctx.body = glance;
  });

  router.put('/documents/:id/archived', async ctx => {
    const id = param(ctx.params, 'id');
    await rowOf(id);
    const { archived } = checked(archivedSchema, sent(ctx), 'whether it is archived');
    await write(() =>
      db
        .update(documents)
        .set({ archivedAt: archived ? Date.now() : null })
        .where(and(eq(documents.id, id), ...(archived ? [isNull(documents.archivedAt)] : []))),
    );
    ctx.body = { id, archived };
  });

  router.delete('/documents/:id', async ctx => {
    const id = param(ctx.params, 'id');
    ctx.body = await bin.put(id);
    glances.delete(id);
  });
  router.get('/deleted', async ctx => {
    ctx.body = await bin.list();
  });
  router.post('/deleted/:key', async ctx => {
    ctx.body = await bin.back(param(ctx.params, 'key'));
  });
  return router;
}
