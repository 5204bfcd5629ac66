import { drillingCard, HAND_TOOLS, type ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { panelWord } from '../plan';
import { laps } from './hang-order';
import { holeWork, isReady } from './hole-work';
import { addTools, count, isFastFirst, isHeavy, type Job, spotOf, toolsOf, weightCaution } from './job';
import { startOrder } from './order';
import { propOf } from './prop';

/** Hangs a plate on the holes that are there, marks the others through it and takes it down again; gives the last step. */
export function markSteps(
  job: Job,
  p: FoldedPanel,
  mine: readonly ResolvedJoint[],
  needs: readonly string[],
): string {
  const { add, doc, joints } = job;
  const { id } = p.panel;
  const what = panelWord(p.panel);
  const heavy = isHeavy(job, p);
  const there = joints.filter(
    j => j.joint.panels.includes(id) && j.mount && isReady(holeWork(job, j)) && !isFastFirst(doc, j),
  );
  const card = drillingCard(mine[0] as ResolvedJoint, joints, doc.plan.method);
  const chosen = (card?.fitFirst ?? []).filter(x => there.some(j => j.id === x));
  const first = startOrder(
    there.filter(j => chosen.length === 0 || chosen.includes(j.id)).map(spotOf),
    doc.plan.method.start,
  );
  const inner = new Set(laps(doc).flatMap(([i, o]) => (o === id && i !== id ? [i] : [])));
  const under = job.panels.filter(x => inner.has(x.panel.id));
  const prop = propOf(doc.plan.method.lift);
  const held = prop.name(what);
  const hang = add(
    {
      id: `mark-hang-${id}`,
      stage: 'hang',
      title:
        first.length > 0
          ? `Hang ${what} on ${first.length === 1 ? 'its bolt' : `${first.length} of its bolts`}, to mark the new holes`
          : `Hold ${what} in its place, to mark its holes`,
      why:
        first.length > 1
          ? 'The existing holes locate it.'
          : 'No hole locates it: measure from both sides and from the front, twice.',
      hows: [
        ...prop.hows,
        ...(under.length > 0
          ? [
              `Lay a strip as thick as plate ${under.map(x => x.panel.mark).join(' and ')} in the lap: that plate is not up yet.`,
            ]
          : []),
        ...(first.length > 0 ? ['Start the bolts by hand, slide it into place, center it, snug them.'] : []),
      ],
      panels: [id],
      joints: first,
      needs,
      puts: [held],
      tools: addTools(
        prop.tools,
        toolsOf(
          there.filter(j => first.includes(j.id)),
          HAND_TOOLS,
        ),
      ),
      cautions: weightCaution(job, p),
      people: heavy || first.length < 2 ? 2 : 1,
    },
    first.length,
  );
  const marked = add(
    {
      id: `mark-${id}`,
      stage: 'drill',
      title: `Mark ${count(mine.length, 'hole')} through ${what}`,
      why: 'Inside the plate\u2019s own holes, with a thin marker or a transfer punch.',
      panels: [id],
      joints: mine.map(j => j.id),
      makes: ['marked'],
      needs: [hang],
      tools: ['marker', 'transfer punch'],
    },
    mine.length,
  );
  return add({
    id: `mark-down-${id}`,
    stage: 'remove',
    title: `Take ${what} down again`,
    why: 'Drilling through it tears its finish and leaves chips between.',
    panels: [id],
    joints: [...first].reverse(),
    needs: [marked],
    takes: [held],
    tools: toolsOf(
      there.filter(j => first.includes(j.id)),
      HAND_TOOLS,
    ),
    cautions: weightCaution(job, p),
    people: heavy ? 2 : 1,
  });
}
