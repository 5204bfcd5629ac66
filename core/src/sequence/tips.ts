import { needsNewNut, type ResolvedJoint } from '../bolt';
import { isBracket } from '../plan';
import type { Job } from './job';
import { RAISING } from './raise';
import type { Step, Tip } from './step';

/** What a tip is judged by. */
interface Asked {
  readonly step: Step;
  /** the joints of the step */
  readonly joints: readonly ResolvedJoint[];
  readonly job: Pick<Job, 'doc' | 'rig' | 'panels'>;
}

interface Known extends Tip {
  readonly helps: (asked: Asked) => boolean;
}

const starts = ({ stage }: Step): boolean => stage === 'start';
const fed = new Set(['nut-plate', 'nut-strip', 'flange-serrated', 'hex', 'nylon-lock', 'all-metal-lock']);

/** Tricks of the hands, each with the step where it helps; common practice, no source. */
const KNOWN: readonly Known[] = [
  {
    id: 'feed-nut',
    text: 'A nut behind a plate: lay it in the box end of a wrench with a dab of grease, or hold it on a magnet stick, and feed it in through the opening.',
    helps: ({ step, joints }) =>
      starts(step) && joints.some(j => j.mount?.nutReach === 'slot' && fed.has(j.nut?.kind ?? '')),
  },
  {
    id: 'carriage-tape',
    text: 'A strip of tape over the heads of the carriage bolts keeps them from falling back while the plate goes up.',
    helps: ({ step, joints }) =>
      step.stage === 'bench' &&
      joints.some(j => j.joint.fastener.head === 'carriage' || j.joint.headSide === 'above'),
  },
  {
    id: 'boxed-member',
    text: 'A bolt through a boxed member goes through both walls: look that it comes out before the nut goes on, and do not crush the box.',
    helps: ({ step, joints }) =>
      starts(step) &&
      joints.some(
        j => j.mount?.hole.kind === 'through' && j.member?.kind !== 'crossmember' && j.nut !== undefined,
      ),
  },
  {
    id: 'line-up',
    text: 'A hole that does not line up: all bolts loose, one far bolt started, then a drift punch through the next hole, or a pry bar between rail and crossmember. Never force a bolt that goes in crooked.',
    helps: ({ step, joints }) => starts(step) && joints.length > 3,
  },
  {
    id: 'tap-first',
    text: 'A dirty or painted thread: run a factory thread-cutting bolt or a tap in first.',
    helps: ({ step, joints }) =>
      (step.stage === 'inspect' || starts(step)) &&
      joints.some(j => j.mount?.hole.kind === 'captive-nut' || j.mount?.hole.kind === 'threaded'),
  },
  {
    id: 'self-drilling',
    text: 'One self-drilling screw holds the panel in its place while the others go in.',
    helps: ({ step, joints }) => starts(step) && joints.some(j => j.joint.fastener.head === 'self-drilling'),
  },
  {
    id: 'hook-edge',
    text: 'Where the edge laps, look along it before the first bolt goes in: an edge on the wrong side costs the whole plate once more.',
    helps: ({ step, job }) =>
      step.stage === 'hang' &&
      job.doc.plan.seams.some(s => step.panels.includes(s.front) || step.panels.includes(s.rear)),
  },
  {
    id: 'block-lip',
    text: 'A wooden block on the jack presses a lip up to its tube while the clamp goes on.',
    helps: ({ step, joints, job }) =>
      (starts(step) || step.stage === 'hang') &&
      job.doc.plan.method.lift !== 'side' &&
      // a bracket needs no jack
      step.panels.some(id => job.panels.some(p => p.panel.id === id && !isBracket(p.panel))) &&
      (job.rig.rig.body === 'side-by-side' || joints.some(j => j.nut?.kind === 'tube-clamp')),
  },
  {
    id: 'axle-up',
    text: 'Little room above a bolt: jack the axle a little, the vehicle still on its stands or the lift, and the drive shaft moves away from it.',
    helps: ({ step, joints, job }) =>
      (starts(step) || step.stage === 'hang') &&
      RAISING[job.doc.plan.method.lift].wheelsFree &&
      job.rig.components.some(
        c =>
          c.kind === 'drive-shaft' &&
          joints.some(j => c.footprint.some(q => Math.hypot(q[0] - j.at[0], q[1] - j.at[1]) < 250)),
      ),
  },
  {
    id: 'loosen-bracket',
    text: 'A line bracket, a ground lead or a strap in the way: loosen it, lay it aside, and hang a rag on the wrench so that it is put back.',
    helps: ({ step, job }) => step.stage === 'remove' && job.rig.components.some(c => c.kind === 'lines'),
  },
  {
    id: 'hooks-and-tabs',
    text: 'Hooks and tabs of a factory cover lift off before it comes down: look for them when the last bolt is out and it still holds.',
    helps: ({ step }) => step.stage === 'remove' && step.part !== undefined,
  },
  {
    id: 'cover-notch',
    text: 'A cover that stays on may need a notch: mark along the molded line, cut, and take the burr off.',
    helps: ({ step, job }) =>
      step.stage === 'inspect' && job.rig.factoryParts.length > 0 && step.joints.length === 0,
  },
  {
    id: 'rivet-nut-tool',
    text: 'Clamp a wrench to the work or the tool, so that both hands push it square and turn; stop as it firms up.',
    helps: ({ step, joints }) => step.id.startsWith('set-') && joints.some(j => j.nut?.kind === 'rivet-nut'),
  },
  {
    id: 'proud-nut',
    text: 'Where a nut stands proud of its member a washer or a spacer goes round it; else the bolt is stretched and the joint never closes.',
    helps: ({ step, joints }) =>
      step.stage === 'inspect' && joints.some(j => needsNewNut(j.mount) || j.nut?.kind === 'weld-tab'),
  },
  {
    id: 'rub-strip',
    text: 'A strip of rubber where a member or the plate could rub the tank.',
    helps: ({ step, job }) =>
      step.stage === 'hang' &&
      job.panels.some(
        p =>
          step.panels.includes(p.panel.id) &&
          p.panel.guards.some(g => job.rig.components.some(c => c.id === g && c.kind === 'fuel-tank')),
      ),
  },
  {
    id: 'square-cutouts',
    text: 'Line the openings up by eye with what they open for, then measure left and right: equal, or it is not home.',
    helps: ({ step, job }) =>
      step.stage === 'home' &&
      job.panels.some(p => step.panels.includes(p.panel.id) && p.panel.openings.length > 0),
  },
  {
    id: 'loosen-neighbor',
    text: 'It will not go home: loosen the neighbor\u2019s fasteners a turn, shift both, and tighten the neighbor again with the rest.',
    helps: ({ step }) => step.stage === 'home',
  },
  {
    id: 'leftovers',
    text: 'Leftover hardware is normal where a kit serves several engines: lay aside what is not on the list before you begin, so that a leftover at the end means something.',
    helps: ({ step, job }) => step.id === 'kit' && job.rig.rig.options.length > 0,
  },
  {
    id: 'steer-reach',
    text: 'Turn the wheels to one side to reach a clamp behind the tire.',
    helps: ({ step, joints, job }) =>
      starts(step) &&
      job.rig.rig.body === 'side-by-side' &&
      joints.some(j => j.at[0] < job.rig.rig.tyreRadius && j.nut?.kind === 'tube-clamp'),
  },
];

/** Every trick by its id, for drawings and tests. */
export const TIPS: readonly Tip[] = KNOWN.map(({ id, text }) => ({ id, text }));

/**
 * Gives each step the one trick that helps it most: of those that apply the one that was given least often so far, the more particular
 * first. A trick stands at two steps at most, so that it is read.
 */
export function withTips(
  steps: readonly Step[],
  job: Pick<Job, 'doc' | 'rig' | 'panels' | 'joints'>,
): readonly Step[] {
  const byId = new Map(job.joints.map(j => [j.id, j]));
  const given = new Map<string, number>();
  return steps.map(step => {
    const joints = step.joints.flatMap(id => byId.get(id) ?? []);
    const fits = KNOWN.filter(k => (given.get(k.id) ?? 0) < 2 && k.helps({ step, joints, job }));
    const best = fits.reduce<Known | undefined>(
      (a, b) => (a === undefined || (given.get(b.id) ?? 0) < (given.get(a.id) ?? 0) ? b : a),
      undefined,
    );
    if (!best) return step;
    given.set(best.id, (given.get(best.id) ?? 0) + 1);
    return { ...step, tip: { id: best.id, text: best.text } };
  });
}
