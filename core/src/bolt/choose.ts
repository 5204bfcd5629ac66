import type { FoldedPanel } from '../fold';
import type { Joint, NutKind, WasherKind } from '../plan';
import type { PresentRig } from '../rig';
import { sentence } from '../units';
import { goesRound, needsNewNut } from './drill';
import { fewestThreads } from './fewest';
import type { ResolvedJoint } from './joint';
import { washerFor } from './pressure';
import { repairOptions } from './repair';
import { THREADS, type Thread, threadNamed } from './thread';

/** What was chosen for a joint, and why, in a sentence. */
export interface HardwareChoice {
  readonly id: string;
  readonly joint: Joint;
  readonly why: string;
  /** the owner's own choice was kept */
  readonly kept: boolean;
  readonly changed: boolean;
}

/** Parts at hand: bolts by thread, counted. */
export type Shelf = Readonly<Record<string, number>>;

/** A bolt asked for more than this share of what it bears gets the next class. */
const TOO_MUCH = 0.8;

const own = (text: string | undefined): Thread | undefined => {
  if (text === undefined) return undefined;
  const t = threadNamed(text);
  return t.ok ? t.value : undefined;
};

/**
 * Threads a joint may take where its hole leaves the choice, the best first: of the largest size that passes a plain hole, what lies
 * on the shelf and then the coarse one before the fine; in a new hole the usual one of this job or the coarse ones of its size.
 */
function threadOptions(
  j: ResolvedJoint,
  system: Thread['system'],
  usual: string,
  shelf: Shelf,
): readonly string[] {
  const hole = j.mount?.hole;
  if (own(hole?.thread)) return [];
  const onShelf = (t: Thread): number => shelf[t.designation] ?? 0;
  const best = (list: readonly Thread[]): string[] =>
    [...list].sort((a, b) => onShelf(b) - onShelf(a) || b.pitch - a.pitch).map(t => t.designation);
  if (hole?.kind === 'through' || hole?.kind === 'slot') {
    const { diameter } = hole;
    if (diameter === undefined) return [];
    const fits = THREADS.filter(t => t.system === system && t.clearance <= diameter + 0.1);
    const largest = Math.max(...fits.map(t => t.d));
    return best(fits.filter(t => t.d === largest));
  }
  if (hole?.kind !== 'drill' && hole) return [];
  const size = own(usual)?.d ?? j.thread.d;
  return [
    ...new Set([
      usual,
      ...best(THREADS.filter(t => t.system === system && t.d >= size && t.d <= 1.3 * size)),
    ]),
  ];
}

/** The value most of a list has. */
function mostOf<T>(list: readonly T[]): T | undefined {
  const counts = new Map<T, number>();
  for (const x of list) counts.set(x, (counts.get(x) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

interface Asked {
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  readonly shelf?: Shelf;
  /** share of what each joint bears that a strike asks of it, by joint id; unknown joints are taken as asked for little */
  readonly shares?: Readonly<Record<string, number>>;
}

/**
 * Chooses the hardware of every joint that is not locked: the thread from the hole, the nut from who reaches it, washers from the sheet,
 * the class from what Strike asks, and for the rest what most joints have already, so that few different parts and tools are needed.
 * Threads that the hole gives are not changed, torques that were entered stay. Common practice where no source stands beside a rule.
 */
export function chooseHardware(
  joints: readonly ResolvedJoint[],
  { rig, panels, shelf = {}, shares = {} }: Asked,
): readonly HardwareChoice[] {
  const given = joints.flatMap(j => own(j.mount?.hole.thread) ?? []);
  const system = mostOf(given.map(t => t.system)) ?? mostOf(joints.map(j => j.thread.system)) ?? 'metric';
  const usual =
    mostOf(given.map(t => t.designation)) ?? mostOf(joints.map(j => j.thread.designation)) ?? 'M8x1.25';
  const free = joints.filter(j => !j.joint.lock && !needsNewNut(j.mount));
  const options = new Map(free.map(j => [j.id, threadOptions(j, system, usual, shelf)]));
  const dictated = new Set([
    ...given.map(t => t.designation),
    ...joints.filter(j => j.joint.lock).map(j => j.thread.designation),
  ]);
  const threads = fewestThreads(
    dictated,
    free.map(j => ({ id: j.id, options: options.get(j.id) ?? [] })),
  );
  return joints.map(j => {
    if (j.joint.lock)
      return { id: j.id, joint: j.joint, why: 'Your own choice, kept.', kept: true, changed: false };
    const { joint, why } = chosen(j, { rig, panels, shares, pick: threads.get(j.id) });
    const changed = JSON.stringify(joint) !== JSON.stringify(j.joint);
    return { id: j.id, joint, why, kept: false, changed };
  });
}

function chosen(
  j: ResolvedJoint,
  { rig, panels, shares, pick }: Required<Omit<Asked, 'shelf'>> & { readonly pick: string | undefined },
): { joint: Joint; why: string } {
  const why: string[] = [];
  const { mount } = j;
  const hole = mount?.hole;
  const sheets = j.joint.panels.flatMap(id => panels.find(p => p.panel.id === id) ?? []);
  const plastic = sheets.some(p => p.material.family === 'plastic');
  const [softest] = sheets
    .filter(p => p.material.family === 'aluminum')
    .sort((a, b) => a.material.yield - b.material.yield);
  const soft = softest !== undefined;
  const slotted = j.joint.panels.some(p => j.joint.slots?.[p] !== undefined);

  // thread
  const fixed = own(hole?.thread);
  let thread = fixed?.designation ?? j.thread.designation;
  if (fixed) why.push(`the hole is tapped ${fixed.designation}`);
  else if (pick !== undefined) {
    thread = pick;
    why.push(
      hole?.kind === 'drill' || !hole
        ? `${pick}, for the fewest different threads`
        : `${own(pick)?.size} is the largest that fits the hole`,
    );
  }

  // what it screws into
  let base: Joint = j.joint;
  let nut: NutKind = 'none';
  if (needsNewNut(mount)) {
    const [best] = repairOptions(j, rig, panels).filter(o => o.id !== 'weld-tab');
    if (best) {
      base = best.joint;
      nut = best.joint.nut;
      why.push(
        `${best.name.toLowerCase()}, since the ${mount?.condition === 'stripped' ? 'thread is stripped' : 'captive nut is broken'}: ${Math.round(100 * best.ofOriginal)} % of the sound hole`,
      );
    }
  } else if (goesRound(j.joint)) {
    nut = j.joint.nut;
    why.push('it goes round its tube: nothing is drilled');
  } else if (j.joint.nut === 'post' && fixed) {
    nut = 'post';
    why.push('its threaded post stays');
  } else if (hole?.kind === 'through' || hole?.kind === 'slot') {
    nut = mount?.nutReach === 'none' ? 'rivet-nut' : 'flange-serrated';
    why.push(
      mount?.nutReach === 'none'
        ? 'a rivet nut, since the back cannot be reached'
        : 'a serrated flange nut, held with a wrench through the opening; it does not shake loose',
    );
  } else if (hole?.kind === 'drill') {
    const cuts = j.joint.fastener.head === 'thread-cutting' || j.joint.fastener.head === 'self-drilling';
    nut = cuts ? 'none' : 'rivet-nut';
    why.push(cuts ? 'it cuts its own thread' : 'a rivet nut set in the new hole');
  }

  // a nut that gives before its bolt is changed for one that holds, where it can be put behind
  const asked = shares[j.id] ?? 0;
  if (
    asked > TOO_MUCH &&
    nut === 'rivet-nut' &&
    hole?.kind !== 'rivet-nut' &&
    mount &&
    mount.nutReach !== 'none'
  ) {
    nut = mount.nutReach === 'open' ? 'flange-serrated' : 'nut-plate';
    why.push(
      `a ${nut === 'nut-plate' ? 'nut plate through the slot' : 'flange nut behind'} in place of a rivet nut, since a strike uses ${Math.round(100 * asked)} % of its strength`,
    );
  }

  // washers spread the head on what is soft
  const keepsHead = ['countersunk', 't-bolt', 'carriage'].includes(base.fastener.head);
  const spread: WasherKind | undefined = keepsHead
    ? undefined
    : plastic
      ? 'fender'
      : soft
        ? // as wide as it takes for the sheet not to sink in
          (washerFor(j, softest) ?? 'fender')
        : slotted
          ? 'flat'
          : undefined;
  const flanged = base.fastener.head === 'flange' && !plastic && !soft && !slotted;
  const washers: readonly WasherKind[] = spread ? [spread] : keepsHead || flanged ? [] : ['flat'];
  if (slotted && spread) why.push('a washer over the slot');
  if (plastic) why.push('a fender washer, since plastic creeps under a small head');
  else if (flanged) why.push('the flange acts as its washer on steel');
  else if (soft && spread) why.push('a washer, since aluminum galls under a turning head');

  // class and finish
  const share = shares[j.id] ?? 0;
  const inch = thread.includes('-');
  const plainClass = inch ? 'grade-5' : '8.8';
  const strong = inch ? 'grade-8' : '10.9';
  // a stronger bolt does not help where the nut gives first
  const helps = share > TOO_MUCH && nut !== 'rivet-nut';
  const grade = helps ? strong : plainClass;
  if (share > TOO_MUCH && !helps)
    why.push('add a bolt beside it: its rivet nut fails before a stronger bolt would');
  if (helps)
    why.push(
      `class ${strong.replace('grade-', '')}, since a strike uses ${Math.round(100 * share)} % of the standard one`,
    );
  const tamper = base.tamper === true;
  const finish = base.fastener.finish === 'stainless' && !soft ? 'stainless' : 'zinc';
  const lube = mount?.condition === 'rusted' || finish === 'stainless' ? 'anti-seize' : base.lube;
  if (mount?.condition === 'rusted') why.push('anti-seize in a rusted thread');
  if (tamper) why.push('its tamper-resistant head stays');

  const words = why.join('; ');
  return {
    joint: {
      ...base,
      nut,
      washers,
      lube,
      torque: j.joint.torque,
      fastener: { ...base.fastener, thread, class: grade, finish, length: 'auto' },
    },
    why: `${sentence(words)}.`,
  };
}
