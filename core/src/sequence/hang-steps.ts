import { HAND_TOOLS, type ResolvedJoint, toolsFor } from '../bolt';
import type { FoldedPanel } from '../fold';
import { isBracket, panelWord, topPlateOf } from '../plan';
import { memberName } from '../rig';
import { formatMass, listed, sentence } from '../units';
import { coveredLater, seatWords } from './bracket-how';
import { CAUTIONS } from './cautions';
import { spacersHow, strapsHow, turnedHow } from './hang-hows';
import { laps } from './hang-order';
import { drillStep, holeWork } from './hole-work';
import { supportOf } from './jack';
import {
  addTools,
  count,
  isFastFirst,
  isHeavy,
  isHeavyOverhead,
  type Job,
  lifted,
  marksOf,
  spotOf,
  toolsOf,
  weightCaution,
  wingsOn,
} from './job';
import { rowsOf, startOrder } from './order';
import { propOf } from './prop';
import { releaseTank, type TankHold } from './tank';
import { plateTightened, tightenSteps } from './tighten-steps';

/** What the plates of a group have in common while they go up. */
export interface GroupAsked {
  /** joints that are started and tightened with each plate, by plate */
  readonly own: ReadonlyMap<string, readonly ResolvedJoint[]>;
  /** steps a plate waits for besides those of its group, by plate */
  readonly waits: (panelId: string) => readonly string[];
  /** what the first plate of the group waits for */
  readonly before: readonly string[];
  /** how the tank over a plate is held, by plate */
  readonly tanks: ReadonlyMap<string, TankHold>;
  /** a suffix to every id, so that a group can go up more than once in a list */
  readonly tag?: string;
  /** the holes are all there: nothing is drilled while it goes up */
  readonly holesThere?: boolean;
}

const WHY_START = {
  'front-rear-centre': 'Front, then rear, then the middle, so it does not bind.',
  'rear-centre-first': 'The rear center bolt first carries the plate while the rest find their holes.',
  'front-to-rear': 'From the front back, with the rear still held.',
  'rear-to-front': 'From the rear forward, with the front still held.',
} as const;

/** How many holes of the vehicle a bracket is bolted to. */
const holesOf = ({ joints }: Job, bracket: string): number =>
  joints.filter(j => j.mount !== undefined && j.joint.panels.includes(bracket)).length;

/** Brings one plate under the vehicle and up to its holes; gives the id of the step that raises it. */
function raisePlate(
  job: Job,
  alone: FoldedPanel,
  group: readonly FoldedPanel[],
  needs: readonly string[],
  first: readonly ResolvedJoint[],
  hold: TankHold | undefined,
  tag: string,
  early: readonly ResolvedJoint[] = [],
): string {
  const { add, doc } = job;
  const wings = wingsOn(job, alone.panel.id);
  const p = lifted(job, alone);
  const { id } = p.panel;
  const heavy = isHeavy(job, p);
  const prop = propOf(doc.plan.method.lift);
  const shared = hold?.by === 'one jack';
  const pairs = laps(doc).filter(
    ([a, b]) => a !== b && group.some(g => g.panel.id === a) && group.some(g => g.panel.id === b),
  );
  const under = pairs.filter(([, outer]) => outer === id).map(([inner]) => inner);
  const above = pairs.some(([inner]) => inner === id);
  const bars = doc.plan.crossbars.filter(c =>
    job.joints.some(j => j.joint.panels[0] === id && j.mount && c.mounts.includes(j.mount.id)),
  );
  const what = panelWord(p.panel);
  const over = job.joints.filter(j => topPlateOf(j.joint) === id);
  if (over.length > 0)
    return add({
      id: `hang-${id}${tag}`,
      stage: 'hang',
      title: `Lay ${what}, ${p.panel.name}, on top of the ${memberName(job.rig, over[0]?.mount?.member ?? '')}`,
      why: 'It has the threads for the bolts that come up through the member: once the plate is up nobody sees it.',
      panels: [id],
      needs: [...needs, ...under.map(u => `hang-${u}${tag}`)],
      hows: [
        `Look up through ${over.length === 1 ? 'the hole' : `all ${over.length} holes`} from below: daylight, then its thread in the middle. Where the far wall has no hole, drill it through from below.`,
        'Tape it in its place, or hold it with a magnet, until the first bolt has pulled it down.',
        ...turnedHow(job, p),
      ],
      people: 1,
    });
  if (isBracket(p.panel))
    return add({
      id: `hang-${id}${tag}`,
      stage: 'hang',
      title: `Hold ${what}, ${p.panel.name}, at its hole${holesOf(job, id) > 1 ? 's' : ''}`,
      why: 'It goes up before the plate that hangs on it, as its drawing shows: which leg up, which side of the member.',
      panels: [id],
      inHand: true,
      needs: [...needs, ...under.map(u => `hang-${u}${tag}`)],
      hows: [
        ...seatWords(job, id),
        ...turnedHow(job, p),
        ...(early.length === 0
          ? [
              job.joints.some(j => j.joint.slots?.[id])
                ? 'Leave its bolt hand-tight: its slots move until the plate has found its place.'
                : 'Leave its bolt loose: the plate finds its place first.',
            ]
          : []),
      ],
      people: 1,
    });
  const support = add({
    id: `support-${id}${tag}`,
    stage: 'support',
    title: prop.put(what),
    why: isHeavyOverhead(job, p) ? prop.why.heavy : prop.why.light,
    hows: [
      ...prop.hows,
      ...(shared
        ? [
            `The ${hold.tank.name} stands on this jack: a strap takes it while the plate slides in between, then the plate carries it, a strip of rubber between.`,
          ]
        : []),
    ],
    panels: [id],
    needs,
    puts: [prop.name(what)],
    tools: [...prop.tools, ...(shared ? ['ratchet strap'] : [])],
    cautions: [...weightCaution(job, p), ...(hold ? [CAUTIONS.fuel] : [])],
    ...(prop.below ? { support: supportOf(p, first.map(spotOf)) } : {}),
    people: heavy ? 2 : 1,
  });
  return add({
    id: `hang-${id}${tag}`,
    stage: 'hang',
    title: `${prop.raise} ${what}, ${p.panel.name}, to its holes`,
    why:
      under.length > 0
        ? 'It goes over the outside of the plate already up.'
        : above
          ? 'It goes up before its neighbor, which laps over it.'
          : 'Level and slowly: watch its edges for anything it could catch.',
    panels: [id, ...wings.map(w => w.panel.id)],
    needs: [support, ...under.map(u => `hang-${u}${tag}`)],
    hows: [
      ...(wings.length > 0
        ? [
            `${sentence(listed(wings.map(w => panelWord(w.panel))))} ${wings.length === 1 ? 'is' : 'are'} bolted to it already and ${wings.length === 1 ? 'goes' : 'go'} up with it, ${formatMass(p.massKg, job.units)} in all.`,
          ]
        : []),
      ...turnedHow(job, p),
      ...spacersHow(job, p),
      ...strapsHow(job, p),
      ...bars.map(c => `The ${c.name} goes up with it, on the same bolts: lay it in its place first.`),
    ],
    cautions: weightCaution(job, p),
    people: heavy ? 2 : 1,
  });
}

/** Tightens the bolts of brackets that nothing reaches once their plates are up; gives the id of the step. */
function makeFast(
  job: Job,
  brackets: readonly [FoldedPanel, ...FoldedPanel[]],
  mine: readonly ResolvedJoint[],
  needs: readonly string[],
  tag: string,
): string {
  const one = brackets.length === 1;
  const [p] = brackets;
  const what = one ? panelWord(p.panel) : `brackets ${listed(brackets.map(b => b.panel.mark))}`;
  const torques = Object.fromEntries(mine.map(j => [j.id, j.torqueNm]));
  return job.add(
    {
      id: `fast-${p.panel.id}${tag}`,
      stage: 'tighten',
      title: `Tighten ${mine.length === 1 ? 'the bolt' : `${count(mine.length, 'bolt')}`} of ${what} before ${one ? 'its' : 'their'} plate goes up`,
      why: `The plate covers ${mine.length === 1 ? 'its head: no socket reaches it' : 'their heads: no socket reaches them'} afterwards.`,
      hows: [
        `Set ${one ? 'it' : 'each'} by a tape to where the plate’s hole comes, square to its face, and hold it there while it is tightened.`,
      ],
      panels: brackets.map(b => b.panel.id),
      joints: mine.map(j => j.id),
      torqueNm: Math.min(...Object.values(torques)),
      torques,
      pass: 1,
      passes: 1,
      share: 1,
      needs,
      tools: addTools(...mine.map(j => toolsFor(j))),
      cautions: [CAUTIONS.maker],
      impact: 'never',
    },
    mine.length,
  );
}

/**
 * The steps that bring a group of tied plates up and make it fast: each plate supported, raised and started, all of them slid home, then
 * tightened in rounds that go over every plate of the group before the next begins. A plate keeps its jack until bolts in two rows are
 * in, or, where all of its bolts lie in one row, until they are tight. `group` is in the order of hanging. Gives back the ids of the last
 * steps.
 */
export function groupSteps(
  job: Job,
  group: readonly FoldedPanel[],
  name: string,
  asked: GroupAsked,
): readonly string[] {
  const { add, doc, joints } = job;
  const { own, waits, tag = '', holesThere = false } = asked;
  const { method } = doc.plan;
  // nothing goes up before all that it will be bolted to is ready
  const ready = [...new Set([...asked.before, ...group.flatMap(p => [...waits(p.panel.id)])])];
  let last: readonly string[] = ready;
  const started = new Map<string, string>();
  const hung: string[] = [];
  const jacked: { readonly p: FoldedPanel; readonly until: readonly ResolvedJoint[] }[] = [];
  const tight: FoldedPanel[] = [];
  /** bolts that are tight before the group is */
  const fast = new Set<string>();
  /** brackets that hang, and their bolts that are made fast before the next plate comes */
  const waiting: { p: FoldedPanel; bolts: readonly ResolvedJoint[] }[] = [];
  const allFast = (): void => {
    const [one, ...more] = waiting.splice(0);
    if (!one) return;
    const bolts = [one, ...more].flatMap(w => w.bolts);
    for (const j of bolts) fast.add(j.id);
    last = [makeFast(job, [one.p, ...more.map(w => w.p)], bolts, last, tag)];
  };
  const loose = joints.filter(j => !isFastFirst(doc, j));
  const prop = propOf(method.lift);
  const jackOff = (p: FoldedPanel, needs: readonly string[], fast: boolean): string =>
    add({
      id: `jack-off-${p.panel.id}${tag}`,
      stage: 'support',
      title: prop.off(panelWord(p.panel)),
      why: `${fast ? 'All of its bolts are tight.' : 'Bolts in both rows are at least five turns in.'} ${prop.watch}`,
      panels: [p.panel.id],
      needs,
      takes: [prop.name(panelWord(p.panel))],
    });
  for (const p of group) {
    const { id } = p.panel;
    const mine = own.get(id) ?? [];
    const through = holesThere ? [] : mine.filter(j => holeWork(job, j).inPlace);
    const now = mine.filter(j => !through.includes(j));
    const order = startOrder(now.map(spotOf), method.start);
    const first = order.slice(0, 2).flatMap(x => now.filter(j => j.id === x));
    const hold = asked.tanks.get(id);
    // a bracket's bolt that a plate covers is made fast before that plate comes
    const early = isBracket(p.panel)
      ? now.filter(j => coveredLater(j, group) || j.joint.tightenBefore === 'hang')
      : [];
    if (!isBracket(p.panel)) allFast();
    const hang = raisePlate(job, p, group, last, first, hold, tag, early);
    hung.push(hang);
    last = [hang];
    const begin = (
      list: readonly ResolvedJoint[],
      suffix: string,
      needs: readonly string[],
    ): readonly string[] => {
      const swap = [...asked.tanks.values()].find(t => list.some(j => t.carried.includes(j.id)));
      const swapped = list.filter(j => swap?.carried.includes(j.id));
      const again = list.filter(j => job.fitted.has(j.id) && !swapped.includes(j));
      const step = add(
        {
          id: `start-${id}${suffix}${tag}`,
          stage: 'start',
          title: `Start ${count(list.length, suffix ? 'more bolt' : 'bolt')} of ${panelWord(p.panel)} by hand, all loose`,
          why:
            list.length === 1
              ? 'Some turns: it holds the part up and still lets it turn.'
              : WHY_START[method.start],
          hows: [
            ...(swapped.length > 0
              ? [
                  `${swapped.map(j => j.id).join(', ')}: the ${swap?.tank.name} hangs on ${list.length === 1 ? 'this' : 'these'}. One out, the new one in through ${p.panel.role === 'bracket' ? 'the bracket' : 'the plate'}, then the next. Never two out at once.`,
                ]
              : []),
            ...(again.length > 0
              ? [
                  `${again.map(j => j.id).join(', ')}: a plate of an earlier phase hangs on ${again.length === 1 ? 'this' : 'these'}. One bolt out, the new one in through both plates, then the next. The old bolts are not used again.`,
                ]
              : []),
          ],
          panels: [id],
          joints: startOrder(list.map(spotOf), method.start),
          needs,
          tools: toolsOf(list, HAND_TOOLS),
          cautions: [CAUTIONS.hand],
          impact: 'never',
        },
        list.length,
      );
      for (const j of list) started.set(j.id, step);
      return [step];
    };
    if (now.length > 0) last = begin(now, '', last);
    for (const j of through) last = [drillStep(job, j, last, true)];
    if (through.length > 0) last = begin(through, now.length > 0 ? '-drilled' : '', last);
    const touching = loose.filter(
      j => j.joint.panels.includes(id) && group.some(g => g.panel.id === j.joint.panels[0]),
    );
    if (early.length > 0) waiting.push({ p, bolts: early });
    if (isBracket(p.panel)) continue;
    if (hold?.by === 'one jack' || rowsOf(touching.map(spotOf)) < 2) tight.push(p);
    else jacked.push({ p, until: touching });
    // whoever's bolts in two rows are in now can do without
    for (const x of [...jacked])
      if (x.until.every(j => started.has(j.id))) {
        last = [jackOff(x.p, [...last, ...x.until.flatMap(j => started.get(j.id) ?? [])], false)];
        jacked.splice(jacked.indexOf(x), 1);
      }
  }

  allFast();
  const slid = group.filter(p => !isBracket(p.panel));
  const several = slid.length > 1;
  const home = add({
    id: `home-${name}${tag}`,
    stage: 'home',
    ...(slid.length > 0
      ? {
          title: `Slide ${several ? 'plates' : 'plate'} ${marksOf(slid)} into place and center ${several ? 'them' : 'it'}`,
          why: 'With all bolts loose: push it tight to its neighbor, equal left and right, before tightening anything.',
        }
      : {
          title: `Turn ${group.map(p => panelWord(p.panel)).join(' and ')} to stand as drawn`,
          why: 'With its bolt loose: nothing that hangs on it will pull it straight.',
        }),
    // what is fast already stays where it is
    panels: group
      .map(p => p.panel.id)
      .filter(id => !own.get(id)?.length || own.get(id)?.some(j => !fast.has(j.id))),
    needs: [...new Set([...last, ...hung, ...started.values()])],
    tools: ['tape measure'],
  });
  let ends = tightenSteps(
    job,
    group.map(p =>
      plateTightened(
        p,
        (own.get(p.panel.id) ?? []).filter(j => !fast.has(j.id)),
      ),
    ),
    [home],
    tag,
  );
  for (const p of [...tight, ...jacked.map(x => x.p)]) ends = [jackOff(p, ends, true)];
  for (const p of group) {
    const hold = asked.tanks.get(p.panel.id);
    if (hold) ends = [releaseTank(job, hold, p, ends, tag)];
  }
  return ends;
}
