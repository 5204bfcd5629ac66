import { boxOf } from '../geometry';
import { MATERIALS, tradeName } from '../sheet';
import { formatAngle, formatLength, formatTorque, tapeLength, type UnitSystem } from '../units';
import type { Flange, Joint, Panel, PlanDocument, SheetChoice } from './plan';
import { buildName, buildNameIn, panelWord } from './select';

type Named = { readonly id: string };
type Say = (sentence: string) => void;

/** Less than this is no move, mm: a shear does not cut it. */
const LEAST_MM = 0.05;
const LEAST_DEG = 0.05;
/** Ids named in one sentence; more are counted. */
const NAMED = 6;

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const listed = (ids: readonly string[]): string =>
  ids.length <= NAMED ? ids.join(', ') : `${ids.slice(0, NAMED).join(', ')} and ${ids.length - NAMED} more`;

/** `bolt` or `bolts`. */
const some = (what: string, n: number): string => (n === 1 ? what : `${what}s`);

/** Entries of two lists that are new, gone, and in both. */
function paired<T extends Named>(before: readonly T[], after: readonly T[]) {
  const was = new Map(before.map(x => [x.id, x]));
  const is = new Map(after.map(x => [x.id, x]));
  return {
    added: after.filter(x => !was.has(x.id)),
    removed: before.filter(x => !is.has(x.id)),
    both: after.flatMap(x => {
      const w = was.get(x.id);
      return w && !same(w, x) ? [[w, x] as const] : [];
    }),
  };
}

/** From here on a tape is read; what is less is measured with a caliper, mm. */
const HALF_INCH = 12.7;
/** A length as it is measured: tenths of a millimeter only where there are any, fractions of an inch where a tape shows them. */
function measured(mm: number, units: UnitSystem): string {
  const far = Math.abs(mm);
  if (units === 'inch' && far >= HALF_INCH) return tapeLength(far, units);
  return formatLength(far, units, units === 'inch' || Math.abs(far - Math.round(far)) > 0.04);
}

/** `12 mm back`: a way along an axis of the vehicle. */
function way(mm: number, [plus, minus]: readonly [string, string], units: UnitSystem): string[] {
  return Math.abs(mm) < LEAST_MM ? [] : [`${measured(mm, units)} ${mm > 0 ? plus : minus}`];
}

const flangesOf = (list: readonly Flange[]): Flange[] =>
  list.flatMap(f => [f, ...flangesOf(f.flanges ?? [])]);

/** What became of one plate, a phrase each. */
function panelPhrases(a: Panel, b: Panel, units: UnitSystem): string[] {
  const out: string[] = [];
  const [dx, dy, dz] = [0, 1, 2].map(i => (b.base.origin[i] as number) - (a.base.origin[i] as number)) as [
    number,
    number,
    number,
  ];
  const moved = [
    ...way(dx, ['back', 'forward'], units),
    ...way(dy, ['to the right', 'to the left'], units),
    ...way(dz, ['up', 'down'], units),
  ];
  if (moved.length > 0) out.push(`moved ${moved.join(' and ')}`);
  const turned = [
    ...(Math.abs(b.base.pitch - a.base.pitch) >= LEAST_DEG
      ? [`pitch ${formatAngle(a.base.pitch)} to ${formatAngle(b.base.pitch)}`]
      : []),
    ...(Math.abs(b.base.roll - a.base.roll) >= LEAST_DEG
      ? [`roll ${formatAngle(a.base.roll)} to ${formatAngle(b.base.roll)}`]
      : []),
  ];
  if (turned.length > 0) out.push(turned.join(', '));
  if (!same(a.base.outline, b.base.outline)) {
    const [from, to] = [boxOf(a.base.outline), boxOf(b.base.outline)];
    const sides = [
      ['length', to.max[0] - to.min[0] - (from.max[0] - from.min[0])],
      ['width', to.max[1] - to.min[1] - (from.max[1] - from.min[1])],
    ] as const;
    const grown = sides.flatMap(([name, mm]) =>
      Math.abs(mm) < LEAST_MM ? [] : [`${measured(mm, units)} ${mm > 0 ? 'more' : 'less'} in ${name}`],
    );
    out.push(
      grown.length > 0 ? `another outline, ${grown.join(' and ')}` : 'another outline of the same size',
    );
  }
  const flanges = paired(flangesOf(a.flanges), flangesOf(b.flanges));
  if (flanges.added.length > 0) out.push(`flange ${listed(flanges.added.map(f => f.id))} added`);
  if (flanges.removed.length > 0) out.push(`flange ${listed(flanges.removed.map(f => f.id))} taken off`);
  if (flanges.both.length > 0) out.push(`flange ${listed(flanges.both.map(([f]) => f.id))} changed`);
  const openings = paired(a.openings, b.openings);
  if (openings.added.length > 0) out.push(`opening ${listed(openings.added.map(o => o.id))} added`);
  if (openings.removed.length > 0) out.push(`opening ${listed(openings.removed.map(o => o.id))} closed`);
  if (openings.both.length > 0) out.push(`opening ${listed(openings.both.map(([o]) => o.id))} changed`);
  if (a.mark !== b.mark || a.name !== b.name) out.push(`is now called ${b.mark}, ${b.name}`);
  if (!same(a.guards, b.guards)) out.push('protects other parts');
  if (!same(a.meantFor, b.meantFor)) out.push('is made for something else');
  if (a.grain !== b.grain) out.push('grain direction changed');
  if (a.wayUp !== b.wayUp)
    out.push(b.wayUp ? 'is etched with its front' : 'is no longer etched with its front');
  if (!same(a.sheet, b.sheet) && b.sheet) out.push(`of ${sheetName(b.sheet)}`);
  return out.length > 0 ? out : ['changed'];
}

/** What of a bolt is another. */
function jointPhrase(a: Joint, b: Joint, units: UnitSystem): string {
  const f = [a.fastener, b.fastener] as const;
  const parts = [
    ...(f[0].thread !== f[1].thread ? [`thread ${f[1].thread}`] : []),
    ...(f[0].class !== f[1].class ? [`class ${f[1].class}`] : []),
    ...(f[0].head !== f[1].head ? [`head ${f[1].head}`] : []),
    ...(f[0].length !== f[1].length ? ['length'] : []),
    ...(f[0].finish !== f[1].finish ? [`finish ${f[1].finish}`] : []),
    ...(a.nut !== b.nut ? [`nut ${b.nut}`] : []),
    ...(same(a.washers, b.washers) ? [] : ['washers']),
    ...(a.spacer !== b.spacer || a.spacerOf !== b.spacerOf ? ['spacer'] : []),
    ...(a.torque !== b.torque
      ? [`torque ${b.torque === 'auto' ? 'computed' : formatTorque(b.torque, units)}`]
      : []),
    ...(a.lube !== b.lube ? [`lubricant ${b.lube}`] : []),
    ...(same([a.mount, a.at], [b.mount, b.at]) ? [] : ['place']),
    ...(same(a.panels, b.panels) ? [] : ['plates it holds']),
  ];
  return parts.length > 0 ? parts.join(', ') : 'other details';
}

const FINISHED: Readonly<Record<SheetChoice['finish'], string>> = {
  raw: '',
  zinc: ', zinc plated',
  powder: ', powder coated',
  paint: ', painted',
};
const sheetName = (s: SheetChoice): string =>
  `${s.gauge ?? tradeName(MATERIALS[s.material].family, s.thickness)} ${MATERIALS[s.material].short}${FINISHED[s.finish]}`;

function lists<T extends Named>(
  what: string,
  before: readonly T[] = [],
  after: readonly T[] = [],
  say: Say,
): void {
  const { added, removed, both } = paired(before, after);
  const told = (list: readonly Named[], did: string): void => {
    if (list.length > 0) say(`${some(what, list.length)} ${listed(list.map(x => x.id))} ${did}`);
  };
  told(added, 'added');
  told(removed, 'removed');
  told(
    both.map(([x]) => x),
    'changed',
  );
}

/**
 * What one version of a plan has otherwise than another, a sentence each, in words of the work: what moved and which way, what was added,
 * other sheets and bolts. Empty where both say the same. Lengths in `units`.
 */
export function differences(before: PlanDocument, after: PlanDocument, units: UnitSystem): readonly string[] {
  const out: string[] = [];
  const say: Say = s => void out.push(s);
  const [p, q] = [before.plan, after.plan];
  if (p.name !== q.name) say(`the plan is called \u201c${q.name}\u201d, was \u201c${p.name}\u201d`);
  const panels = paired(p.panels, q.panels);
  for (const x of panels.added) say(`${panelWord(x)}, ${x.name}, added`);
  for (const x of panels.removed) say(`${panelWord(x)}, ${x.name}, removed`);
  for (const [a, b] of panels.both) for (const s of panelPhrases(a, b, units)) say(`${panelWord(a)} ${s}`);

  const joints = paired(p.joints, q.joints);
  if (joints.added.length > 0)
    say(`${some('bolt', joints.added.length)} ${listed(joints.added.map(j => j.id))} added`);
  if (joints.removed.length > 0)
    say(`${some('bolt', joints.removed.length)} ${listed(joints.removed.map(j => j.id))} removed`);
  // bolts that were changed alike are told together
  const alike = new Map<string, string[]>();
  for (const [a, b] of joints.both) {
    const phrase = jointPhrase(a, b, units);
    alike.set(phrase, [...(alike.get(phrase) ?? []), a.id]);
  }
  for (const [phrase, ids] of alike) say(`${some('bolt', ids.length)} ${listed(ids)}: ${phrase}`);

  lists('crossbar', p.crossbars, q.crossbars, say);
  lists('hole', p.holes, q.holes, say);
  const builds = paired(p.builds, q.builds);
  for (const x of builds.added) say(`${buildName(x)} added`);
  for (const x of builds.removed) say(`${buildName(x)} removed`);
  for (const [a, b] of builds.both) {
    const marks = new Map<string, string[]>();
    for (const panel of q.panels) {
      const [was, is] = [a.sheets[panel.id], b.sheets[panel.id]];
      if (is && was && !same(was, is))
        marks.set(sheetName(is), [...(marks.get(sheetName(is)) ?? []), panel.mark]);
    }
    for (const [sheet, on] of marks)
      say(`${buildName(b)}: ${some('plate', on.length)} ${listed(on)} of ${sheet}`);
    if (a.name !== b.name) say(`${buildName(a)} is called \u201c${b.name}\u201d`);
    if (a.note !== b.note || !same(a.offer, b.offer)) say(`${buildName(b)}: another note or offer`);
  }
  if (p.activeBuild !== q.activeBuild)
    say(`${buildNameIn(q, q.activeBuild)} is active, was ${buildNameIn(p, p.activeBuild)}`);

  const [r, s] = [before.rig, after.rig];
  if (r.name !== s.name) say(`the vehicle is called \u201c${s.name}\u201d`);
  if (!same(r.selected, s.selected)) say('other vehicle options');
  lists('part', r.components, s.components, say);
  lists('frame member', r.members, s.members, say);
  lists('frame hole', r.mounts, s.mounts, say);
  lists('service point', r.servicePoints, s.servicePoints, say);
  lists('factory part', r.factoryParts, s.factoryParts, say);

  // what is left has its own screen, where it is looked up
  const rest: readonly (readonly [what: string, a: unknown, b: unknown])[] = [
    [
      'the vehicle’s measurements',
      [r.measures, r.wheelbase, r.axles, r.tyreRadius, r.trackWidth],
      [s.measures, s.wheelbase, s.axles, s.tyreRadius, s.trackWidth],
    ],
    ['seams', p.seams, q.seams],
    ['how it is installed', p.method, q.method],
    ['limits', p.limits, q.limits],
    ['rates and costs', [p.rates, p.money], [q.rates, q.money]],
    ['the shop', p.shop, q.shop],
    ['notes', p.notes, q.notes],
    ['priorities', p.priorities, q.priorities],
    ['service settings', [p.upkeep, p.minutes], [q.upkeep, q.minutes]],
  ];
  for (const [what, a, b] of rest) if (!same(a, b)) say(`${what} changed`);
  if (out.length === 0 && !same(before, after)) say('other details changed');
  return out;
}
