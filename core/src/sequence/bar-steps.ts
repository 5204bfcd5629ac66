import { HAND_TOOLS, type ResolvedJoint } from '../bolt';
import { CAUTIONS } from './cautions';
import { drillStep, holeWork, mendHole, setNutStep } from './hole-work';
import { count, type Job, spotOf, toolsOf } from './job';
import { startOrder } from './order';
import { tightenSteps } from './tighten-steps';

/** Bolts that hold a crossbar alone, with no plate under their heads. */
export const barJoints = (job: Pick<Job, 'joints'>, mounts: readonly string[]): readonly ResolvedJoint[] =>
  job.joints.filter(j => j.joint.panels.length === 0 && j.mount !== undefined && mounts.includes(j.mount.id));

/**
 * Puts the crossbars in before any plate goes up: their holes marked through the bar, drilled, the nuts set, then bolted up and made fast.
 * A bar that shares all of its bolts with a plate goes up with that plate. Gives back the last steps, `needs` where there is no bar.
 */
export function barSteps(job: Job, needs: readonly string[]): readonly string[] {
  const { add, doc } = job;
  let last = needs;
  for (const bar of doc.plan.crossbars) {
    const mine = barJoints(job, bar.mounts);
    if (mine.length === 0) continue;
    const works = new Map(mine.map(j => [j.id, holeWork(job, j)]));
    const fresh = mine.filter(j => works.get(j.id)?.fresh);
    const ready: string[] = [...last];
    const marked =
      fresh.length > 0
        ? [
            add(
              {
                id: `mark-bar-${bar.id}`,
                stage: 'drill',
                title: `Hold the ${bar.name} in its place and mark its ${count(fresh.length, 'hole')}`,
                why: 'Its own holes are the template. Measure both ends from the rails before marking.',
                hows: [
                  'Clamp it, or have somebody hold it.',
                  'Mark round the inside of its holes, and take it down again.',
                ],
                joints: fresh.map(j => j.id),
                makes: ['marked'],
                needs: last,
                tools: ['clamps', 'marker', 'tape measure'],
                people: 2,
              },
              fresh.length,
            ),
          ]
        : last;
    for (const j of mine) {
      const work = works.get(j.id) as ReturnType<typeof holeWork>;
      const mended = work.fresh ? marked : mendHole(job, j, work, last);
      const drilled = work.drilled ? [drillStep(job, j, mended, false)] : mended;
      ready.push(...setNutStep(job, j, drilled));
    }
    const start = add(
      {
        id: `start-bar-${bar.id}`,
        stage: 'start',
        title: `Bolt the ${bar.name} up: ${count(mine.length, 'bolt')} by hand, all loose`,
        why: 'Plates bolt to it, so it goes up first.',
        hows: ['Clamps hold it until a bolt is in at each end.'],
        joints: startOrder(mine.map(spotOf), doc.plan.method.start),
        needs: [...new Set(ready)],
        tools: ['clamps', ...toolsOf(mine, HAND_TOOLS)],
        cautions: [CAUTIONS.hand],
        impact: 'never',
      },
      mine.length,
    );
    last = tightenSteps(
      job,
      [{ id: `bar-${bar.id}`, name: `The ${bar.name}`, panels: [], joints: mine }],
      [start],
      '',
    );
  }
  return last;
}
