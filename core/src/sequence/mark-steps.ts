import { drillingCard, drillName, HAND_TOOLS, type ResolvedJoint, toolCode } from '../bolt';
import { type FoldedPanel, holeWidth } from '../fold';
import { isBracket, panelWord } from '../plan';
import { CAUTIONS } from './cautions';
import { laps } from './hang-order';
import { holeWork, isReady } from './hole-work';
import { addTools, count, isFastFirst, isHeavy, type Job, spotOf, toolsOf, weightCaution } from './job';
import { startOrder } from './order';
import { pilotsOf } from './pilots';
import { propOf } from './prop';

/**
 * Hangs a plate on the holes that are there, marks the others through it, has the vehicle's holes in `back` mark the plate, takes it down
 * again and drills what was marked on it; gives the last step.
 */
export function markSteps(
  job: Job,
  p: FoldedPanel,
  mine: readonly ResolvedJoint[],
  needs: readonly string[],
  back: readonly ResolvedJoint[] = [],
): string {
  const { add, doc, joints } = job;
  const { id } = p.panel;
  const what = panelWord(p.panel);
  const heavy = isHeavy(job, p);
  const there = joints.filter(
    j => j.joint.panels.includes(id) && j.mount && isReady(holeWork(job, j)) && !isFastFirst(doc, j),
  );
  const card = mine[0] && drillingCard(mine[0], joints, doc.plan.method);
  const chosen = (card?.fitFirst ?? []).filter(x => there.some(j => j.id === x));
  const first = startOrder(
    there.filter(j => chosen.length === 0 || chosen.includes(j.id)).map(spotOf),
    doc.plan.method.start,
  );
  const inner = new Set(laps(doc).flatMap(([i, o]) => (o === id && i !== id ? [i] : [])));
  const under = job.panels.filter(x => inner.has(x.panel.id));
  // a bracket is held in the hand, a plate stands on a prop
  const bracket = isBracket(p.panel);
  const prop = bracket ? undefined : propOf(doc.plan.method.lift);
  const held = prop ? [prop.name(what)] : [];
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
          : first.length === 1
            ? 'One hole holds it, and it still turns: measure from both sides before you snug it.'
            : 'No hole locates it: measure from both sides and from the front, twice.',
      hows: [
        ...(prop?.hows ?? ['Clamp it where it belongs, and measure again before marking.']),
        ...(under.length > 0
          ? [
              `Lay a strip as thick as plate ${under.map(x => x.panel.mark).join(' and ')} in the lap: that plate is not up yet.`,
            ]
          : []),
        ...(back.length > 0
          ? [
              `First screw a transfer screw, its point toward the plate, into the hole of ${back.map(j => j.id).join(', ')}: a set screw ground to a point does.`,
            ]
          : []),
        ...(first.length > 0 ? ['Start the bolts by hand, slide it into place, center it, snug them.'] : []),
      ],
      panels: [id],
      joints: first,
      needs,
      ...(held.length > 0 ? { puts: held } : {}),
      tools: addTools(
        prop?.tools ?? ['locking pliers'],
        back.length > 0 ? ['transfer screws'] : [],
        toolsOf(
          there.filter(j => first.includes(j.id)),
          HAND_TOOLS,
        ),
      ),
      cautions: weightCaution(job, p),
      people: !bracket && (heavy || first.length < 2) ? 2 : 1,
    },
    first.length,
  );
  const pressed =
    back.length === 0
      ? hang
      : add(
          {
            id: `fit-mark-${id}`,
            stage: 'drill',
            title: `Mark ${count(back.length, 'hole')} on ${what} from the vehicle`,
            why: 'The hole that is there says where the bolt goes; no measure can be truer.',
            hows: ['Strike the plate once, sharply, under each point with a soft hammer.'],
            panels: [id],
            joints: back.map(j => j.id),
            needs: [hang],
            tools: ['soft hammer'],
          },
          back.length,
        );
  const marked =
    mine.length === 0
      ? pressed
      : add(
          {
            id: `mark-${id}`,
            stage: 'drill',
            title: `Mark ${count(mine.length, 'hole')} through ${what}`,
            why: 'Inside the plate\u2019s own holes, with a thin marker or a transfer punch.',
            panels: [id],
            joints: mine.map(j => j.id),
            makes: ['marked'],
            needs: [pressed],
            tools: ['marker', 'transfer punch'],
          },
          mine.length,
        );
  const down = add({
    id: `mark-down-${id}`,
    stage: 'remove',
    title: `Take ${what} down again`,
    why: 'Drilling through it tears its finish and leaves chips between.',
    panels: [id],
    joints: [...first].reverse(),
    needs: [marked],
    ...(held.length > 0 ? { takes: held } : {}),
    tools: toolsOf(
      there.filter(j => first.includes(j.id)),
      HAND_TOOLS,
    ),
    cautions: weightCaution(job, p),
    people: heavy ? 2 : 1,
  });
  const pilots = pilotsOf(job, p, true);
  const opened =
    pilots.joints.length === 0
      ? down
      : add(
          {
            id: `open-${id}`,
            stage: 'drill',
            title: `Open ${count(pilots.joints.length, 'pilot')} in ${what}`,
            why: 'They have marked the vehicle; now the bolts have to pass.',
            hows: [
              ...pilots.sizes.map(s => `On the bench: ${s}.`),
              'Take the burr off both faces, and touch up the bare edge.',
            ],
            panels: [id],
            joints: pilots.joints,
            needs: [down],
            tools: addTools(pilots.tools, ['deburring tool', 'cold zinc or paint']),
            cautions: [CAUTIONS.bench],
          },
          pilots.joints.length,
        );
  if (back.length === 0) return opened;
  return add(
    {
      id: `fit-drill-${id}`,
      stage: 'drill',
      title: `Drill ${count(back.length, 'hole')} in ${what} where ${back.length === 1 ? 'it is' : 'they are'} marked`,
      why: 'On the bench, through the plate alone.',
      hows: [
        ...back.map(j => `${j.id}: ${drillName(finalWidth(p, j), job.units)}, after a pilot.`),
        'Take the transfer screws out, the burr off both faces, and touch up the bare edge.',
      ],
      panels: [id],
      joints: back.map(j => j.id),
      needs: [opened],
      tools: addTools(
        ['center punch', 'deburring tool', 'cold zinc or paint'],
        back.map(j => toolCode('drill', finalWidth(p, j))),
      ),
      cautions: [CAUTIONS.bench],
    },
    back.length,
  );
}

/** How wide a bolt's hole in a plate is when all is done, mm. */
function finalWidth(p: FoldedPanel, j: ResolvedJoint): number {
  const final = p.holes.find(h => h.joint === j.id)?.final;
  return final ? holeWidth(final) : j.thread.clearance;
}
