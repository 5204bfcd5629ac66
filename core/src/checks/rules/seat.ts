import {
  hasFoot,
  LONGEST_SPACER,
  type ResolvedJoint,
  SEAT_TOLERANCE,
  type SeatGap,
  spacerPile,
} from '../../bolt';
import type { Facts } from '../../derive';
import { callOf, growSpacers, isBracket, layPlate, movePlate } from '../../plan';
import { memberName } from '../../rig';
import { plateName, plateWord, type Remedy, type Rule, type Unsigned, type Words } from '../finding';

/** Bolts of one plate and member whose gaps differ by less than this are told in one sentence, mm. */
const ALIKE = 0.6;

interface Misfit {
  readonly joint: ResolvedJoint;
  readonly gap: SeatGap;
}

/** Bolts by plate and what it should lie against, those alike together. */
function grouped(facts: Facts): readonly (readonly Misfit[])[] {
  const groups = new Map<string, Misfit[][]>();
  for (const joint of facts.joints)
    for (const gap of facts.seats.get(joint.id)?.gaps ?? []) {
      const seat = facts.seats.get(joint.id);
      const off = seat?.plates.find(s => s.panel === gap.plate)?.where === 'beside';
      if (Math.abs(gap.mm) <= SEAT_TOLERANCE || off || seat?.loose) continue;
      const key = `${gap.plate}|${gap.against.kind}|${gap.against.id}|${gap.top ?? ''}`;
      const lists = groups.get(key) ?? [];
      groups.set(key, lists);
      const alike = lists.find(l => Math.abs((l[0] as Misfit).gap.mm - gap.mm) < ALIKE);
      if (alike) alike.push({ joint, gap });
      else lists.push([{ joint, gap }]);
    }
  return [...groups.values()].flat();
}

const thingName = (facts: Facts, { kind, id }: SeatGap['against']): string =>
  kind === 'plate'
    ? plateWord(facts, id)
    : kind === 'bar'
      ? (facts.rig.bars.find(b => b.id === id)?.name ?? 'the crossbar')
      : `the ${memberName(facts.rig, id)}`.replace('the the', 'the');

/** Spacers grown by what is missing; undefined where one would be shorter than nothing or longer than a post. */
function spacersSet(group: readonly Misfit[], words: Words): Remedy | undefined {
  const next = group.map(({ joint, gap }) => ({
    joint,
    mm: Math.round((joint.joint.spacer + gap.mm) * 100) / 100,
  }));
  if (next.some(n => n.mm < -SEAT_TOLERANCE || n.mm > LONGEST_SPACER)) return undefined;
  const of = next.map(({ joint, mm }) => {
    const pile = spacerPile(mm, joint.thread);
    const sum = pile.reduce((a, b) => a + b, 0);
    return {
      id: joint.id,
      was: joint.joint.spacer,
      mm:
        mm < SEAT_TOLERANCE / 2
          ? 0
          : Math.abs(sum - mm) <= SEAT_TOLERANCE && !hasFoot(joint.nut?.kind)
            ? sum
            : mm,
      pile,
    };
  });
  const [first] = of;
  if (!first) return undefined;
  // what stands there itself is made as high as it has to be
  const foot = group.every(g => hasFoot(g.joint.nut?.kind));
  const pile =
    first.mm === 0
      ? 'no spacers'
      : foot
        ? `a ${group[0]?.joint.nut?.kind === 'post' ? 'post' : 'clamp with a foot'} ${words.fine(first.mm)} high`
        : `spacers of ${first.pile.map(words.fine).join(' + ')}`;
  return {
    remedy:
      of.length === 1
        ? `Put ${pile} at ${first.id}.`
        : `Put ${pile} at ${of.length} bolts (${of.map(o => o.id).join(', ')}).`,
    // what another build adds to its spacers is not written into the plan
    mend: callOf(growSpacers, { by: Object.fromEntries(of.map(o => [o.id, o.mm - o.was])) }),
  };
}

/** The plate moved up or down to where its bolts want it, by the mean of what they want. */
function plateMoved(facts: Facts, panel: string, words: Words): Remedy | undefined {
  const wants = facts.joints.flatMap(j =>
    (facts.seats.get(j.id)?.gaps ?? []).flatMap(g =>
      // a top plate that is off its member lies too high
      g.plate === panel
        ? [g.top ? -g.mm : g.mm]
        : g.against.kind === 'plate' && g.against.id === panel
          ? [-g.mm]
          : [],
    ),
  );
  if (wants.length === 0) return undefined;
  const by = wants.reduce((a, b) => a + b, 0) / wants.length;
  if (Math.abs(by) < 0.05) return undefined;
  return {
    remedy: `Bring ${plateWord(facts, panel)} ${by > 0 ? 'up' : 'down'} by ${words.tape(Math.abs(by))}.`,
    mend: callOf(movePlate, { panel, by: [0, 0, by] }),
  };
}

/** The plate laid against its seats: height and pitch by the least squares of what its bolts want. */
function plateLaid(facts: Facts, panel: string): Remedy | undefined {
  const at = facts.joints.flatMap(j =>
    (facts.seats.get(j.id)?.gaps ?? []).flatMap(g => (g.plate === panel ? [{ x: j.at[0], by: g.mm }] : [])),
  );
  const mean = at.reduce((s, p) => s + p.x, 0) / (at.length || 1);
  const spread = at.reduce((s, p) => s + (p.x - mean) ** 2, 0);
  const base = facts.document.plan.panels.find(p => p.id === panel)?.base;
  if (!base || spread < 100) return undefined;
  const middle = at.reduce((s, p) => s + p.by, 0) / at.length;
  const slope = at.reduce((s, p) => s + (p.x - mean) * p.by, 0) / spread;
  const [x, y, z] = base.origin;
  const pitch = (Math.atan(Math.tan((base.pitch * Math.PI) / 180) - slope) * 180) / Math.PI;
  return {
    remedy: `Lay ${plateWord(facts, panel)} against its bolts: height and pitch.`,
    mend: callOf(layPlate, { panel, pitch, origin: [x, y, z + middle + slope * (x - mean)] }),
  };
}

/** What hangs, told with how far, where and at how many bolts. */
function sentence(facts: Facts, group: readonly Misfit[], words: Words): string {
  const { gap } = group[0] as Misfit;
  const plate = facts.rig.bars.some(b => b.id === gap.plate)
    ? (facts.rig.bars.find(b => b.id === gap.plate)?.name ?? gap.plate)
    : plateName(facts, gap.plate);
  const most = group.reduce((m, g) => (Math.abs(g.gap.mm) > Math.abs(m) ? g.gap.mm : m), 0);
  const many = `at ${group.length === 1 ? `bolt ${group[0]?.joint.id}` : `${group.length} bolts`}`;
  const spacers = group.some(g => g.joint.joint.spacer > 0) ? ', with its spacers' : '';
  const other = thingName(facts, gap.against);
  return most > 0
    ? `${plate} is ${words.tape(most)} ${gap.top ? 'above' : 'below'} ${other} ${many}${spacers}.`
    : `${plate} is ${words.tape(-most)} inside ${other} ${many}${spacers}.`;
}

export const seat: Rule = {
  id: 'seat',
  why: 'A bolt pulls any gap closed: the plate bends, bolts loosen, or the holes no longer line up.',
  find: (facts, words) =>
    grouped(facts).map((group): Unsigned => {
      const { gap } = group[0] as Misfit;
      const isPlate = facts.panels.some(p => p.panel.id === gap.plate);
      // shims fill up what is left to a bracket
      const onBracket = facts.panels.some(p => p.panel.id === gap.against.id && isBracket(p.panel));
      const byPlate =
        gap.against.kind === 'plate' && !(onBracket && group.every(g => g.joint.mount === undefined));
      const choices = [
        ...(byPlate || gap.top ? [] : [spacersSet(group, words)]),
        ...(isPlate
          ? [plateMoved(facts, gap.plate, words), gap.top ? undefined : plateLaid(facts, gap.plate)]
          : []),
        ...(gap.against.kind === 'plate'
          ? [plateMoved(facts, gap.against.id, words), plateLaid(facts, gap.against.id)]
          : []),
      ].flatMap(r => r ?? []);
      const [first, ...more] = choices;
      return {
        severity: 'stop',
        where: 'bolt',
        about: [gap.plate, gap.against.id, ...group.map(g => g.joint.id)],
        text: sentence(facts, group, words),
        remedy: first?.remedy ?? 'Move the plate or the bolt.',
        ...(first ? { mend: first.mend } : {}),
        ...(more.length > 0 ? { more } : {}),
      };
    }),
};
