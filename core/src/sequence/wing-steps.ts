import { HAND_TOOLS } from '../bolt';
import type { FoldedPanel } from '../fold';
import { panelWord, stackedIn, tiesWing, wingsOf } from '../plan';
import { CAUTIONS } from './cautions';
import type { HoleWork } from './hole-work';
import { addTools, isHeavy, type Job, lifted, spotOf, toolsOf, wingsOn } from './job';
import { tighteningOrder } from './order';

/** Bolts a wing to the plate that carries it; gives the id of the step. */
function joinWing(job: Job, p: FoldedPanel, on: FoldedPanel, needs: readonly string[]): string {
  const mine = job.joints.filter(
    j => tiesWing(job.doc.plan, j.joint) && [p, on].every(x => j.joint.panels.includes(x.panel.id)),
  );
  const torques = Object.fromEntries(mine.map(j => [j.id, j.torqueNm]));
  const over = mine.some(j => j.joint.panels[0] === on.panel.id) ? 'on top of' : 'under';
  return job.add(
    {
      id: `join-${p.panel.id}`,
      stage: 'bench',
      title: `Bolt ${panelWord(p.panel)}, ${p.panel.name}, to ${panelWord(on.panel)}`,
      why: 'They go up as one: nobody reaches behind these bolts under the vehicle.',
      hows: [
        `Lay it ${over} ${panelWord(on.panel)}, both FRONT marks the same way, and start every bolt by hand.`,
        'From the middle bolt out, to full torque. Hold what lies behind with a second wrench.',
      ],
      panels: [p.panel.id, on.panel.id],
      joints: tighteningOrder(mine.map(spotOf)),
      torqueNm: Math.min(...Object.values(torques)),
      torques,
      pass: 1,
      passes: 1,
      share: 1,
      needs: [...new Set(needs)],
      tools: addTools(toolsOf(mine, HAND_TOOLS), toolsOf(mine, ['torque'])),
      cautions: [CAUTIONS.maker],
      impact: 'never',
      people: isHeavy(job, lifted(job, on)) ? 2 : 1,
    },
    mine.length,
  );
}

/** What bolting wings to their plates leaves to do. */
export interface WingSteps {
  /** the rest, which wait for what the vehicle marks or for nuts that are set; told what each waits for */
  readonly late: (needs: (wing: string, host: string) => readonly string[]) => void;
  /** steps that a plate waits for before it goes up, by plate */
  readonly carriedBy: ReadonlyMap<string, readonly string[]>;
}

/**
 * Wings are bolted to their plates before the vehicle is raised, but where a nut between them has to be set first, or where the plate is held up
 * to mark holes through it: it is lighter without. `works`: what each joint's hole takes.
 */
export function wingSteps(job: Job, works: ReadonlyMap<string, HoleWork>): WingSteps {
  const { plan } = job.doc;
  const carriers = wingsOf(plan);
  const carriedBy = new Map<string, string[]>();
  const join = (wing: string, needs: (host: string) => readonly string[]): void => {
    const host = carriers.get(wing) as string;
    const [p, on] = [wing, host].map(id => job.panels.find(x => x.panel.id === id));
    if (!p || !on || !job.joints.some(j => tiesWing(plan, j.joint) && j.joint.panels.includes(wing))) return;
    const id = joinWing(job, p, on, needs(host));
    // who carries the carrier waits as well
    for (let up: string | undefined = host; up !== undefined; up = carriers.get(up))
      carriedBy.set(up, [...(carriedBy.get(up) ?? []), id]);
  };
  const waits = (wing: string): boolean =>
    job.joints.some(j => {
      const work = works.get(j.id);
      const host = carriers.get(wing) as string;
      return (
        (tiesWing(plan, j.joint) && j.joint.panels.includes(wing) && work?.setsNut) ||
        (work?.marked && stackedIn(j.joint).at(-1) === host) ||
        (work?.toFit && j.joint.panels.includes(host))
      );
    });
  // what is carried furthest out comes first
  const all = [...carriers.keys()].sort((a, b) => wingsOn(job, a).length - wingsOn(job, b).length);
  for (const w of all) if (!waits(w)) join(w, host => [`bench-${w}`, `bench-${host}`]);
  return { late: needs => all.filter(waits).forEach(w => join(w, host => needs(w, host))), carriedBy };
}
