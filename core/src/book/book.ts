import {
  barCuts,
  barHoleWords,
  type DrillingCard,
  drillingCard,
  drillName,
  HOLE_CORNER,
  hardwareList,
  holeKindWords,
  holeRows,
  holeSizeWords,
  jointCapacity,
  lengthName,
  type ResolvedJoint,
  sectionWords,
  toBuy,
  toolList,
  toolName,
} from '../bolt';
import { phaseReports } from '../compare';
import type { Facts } from '../derive';
import { angleToBendTo, bendDeduction, dieFor, type FoldedPanel, flatPattern, shopOf } from '../fold';
import { buildName, panelWord } from '../plan';
import { installationOf, stepTorque } from '../sequence';
import { serviceList } from '../service';
import { MATERIALS, tradeName } from '../sheet';
import {
  figureText,
  fixed,
  formatDistance,
  formatLength,
  formatMass,
  loadFigure,
  sentence,
  torqueFigure,
  type UnitSystem,
} from '../units';
import { drawBlank, drawMap, type Side } from './drawings';
import { type BookFonts, Sheet } from './sheet';

/** What a book is made of besides its plan. */
export interface BookWish {
  readonly fonts: BookFonts;
  readonly units: UnitSystem;
  readonly side: Side;
  /** the day on its cover, ms */
  readonly at: number;
  /** parts at hand by their name on the bag list */
  readonly shelf?: Readonly<Record<string, number>>;
}

const stockUnits = (j: ResolvedJoint): string => (j.thread.system === 'inch' ? '' : ' mm');
const plainLoad = (n: number, units: UnitSystem): string => figureText(loadFigure(n, units));
const sheetWords = (p: FoldedPanel): string =>
  `${p.sheet.gauge ?? tradeName(p.material.family, p.sheet.thickness)} ${MATERIALS[p.sheet.material].short}`;

function cover(s: Sheet, facts: Facts, wish: BookWish): void {
  const { document, build, panels, joints, weight, coverage, lowest, rig } = facts;
  const sequence = installationOf(facts, wish.units);
  const { units } = wish;
  s.title(document.plan.name, 22);
  s.text(`${document.rig.name}, ${buildName(build)}. ${new Date(wish.at).toDateString()}.`, 11);
  s.y += 2;
  s.text(
    'Strength and torque figures are estimates, not certificates. The vehicle maker\u2019s values, local rules and licensed practice come first. Never work under a vehicle on a jack alone.',
  );
  s.y += 2;
  if (panels.length === 0) {
    s.head('No plates yet');
    s.text('This plan has no plates. Draw or suggest plates on Cover first.');
    return;
  }
  const minutes = sequence.steps.reduce((n, x) => n + x.minutes, 0);
  s.table(
    ['', ''],
    [
      ['Plates', panels.map(p => `${p.panel.mark} ${p.panel.name}, ${sheetWords(p)}`).join('; ')],
      [
        'Added mass',
        `${formatMass(weight.addedKg, units)}; net of what comes off ${formatMass(weight.netKg, units)}`,
      ],
      ['Covered from below', `${fixed(coverage.fraction * 100, 1)} % of the parts to protect`],
      ['Lowest point', formatLength(lowest.z, units)],
      ['Bolts', `${joints.length}, ${hardwareList(joints).length} kinds of parts`],
      ['Working time', `${fixed(minutes / 60, 1)} hours, estimate`],
    ],
    { 0: 38 },
  );
  drawMap(s, { rig, panels, joints, side: wish.side, whole: true }, 92);
}

function plates(s: Sheet, facts: Facts, { units }: BookWish): void {
  for (const p of facts.panels) {
    s.page(`${sentence(panelWord(p.panel))}, ${p.panel.name}`);
    s.text(
      `${sheetWords(p)}, ${formatMass(p.massKg, units)}. Flat blank, to be bent as marked; legs on outsides.`,
    );
    drawBlank(s, flatPattern(p), 120, units);
    const bends = p.bends.filter(b => b.angle !== 0);
    const die = dieFor(p.sheet.thickness, shopOf(facts.document.plan).dies);
    if (bends.length === 0) s.text('No bends: the plate is flat.');
    else
      s.table(
        ['Bend', 'Way', 'Angle', 'Bend to', 'Inside radius', 'K', 'Deduction', ''],
        bends.map(b => {
          const a = Math.abs(b.angle);
          const to = angleToBendTo(a, b.insideRadius, p.sheet.thickness, p.material, die);
          return [
            b.id,
            b.angle > 0 ? 'up' : 'down',
            `${fixed(a, 1)}°`,
            to === undefined ? '' : `${fixed(to, 1)}°`,
            formatLength(b.insideRadius, units, true),
            fixed(b.kFactor, 3),
            formatLength(bendDeduction(a, b.insideRadius, p.sheet.thickness, b.kFactor), units, true),
            b.ok ? '' : 'too tight',
          ];
        }),
        {},
        [2, 3, 4, 5, 6],
      );
    const holes = holeRows(p, facts.joints);
    if (holes.length === 0) continue;
    s.head('Holes');
    s.text(`Measured ${HOLE_CORNER}: x to the rear, y to the right.`, 8);
    s.table(
      ['Bolt', 'Thread', 'x', 'y', 'Cut', 'What it is'],
      holes.map(r => [
        r.joint,
        r.thread,
        formatLength(r.x, units, true),
        formatLength(r.y, units, true),
        r.hole.cut ? holeSizeWords(r.hole.cut, units) : 'not cut',
        holeKindWords(r, units),
      ]),
      {},
      [2, 3],
    );
  }
}

/** What is fitted when, and what is bought for it: nothing where all is fitted at once. */
function phases(s: Sheet, facts: Facts, { units }: BookWish): void {
  const reports = phaseReports(facts, units);
  if (reports.length < 2) return;
  s.page('In phases');
  s.text(
    'What is fitted when. Each phase holds by itself; what is bought for it is listed with it. The steps below are of the whole set: a run of one phase leads through that phase alone.',
  );
  reports.forEach((r, i) => {
    s.head(`${i + 1}. ${r.phase.name}`);
    s.text(
      `${r.fitted.length === 0 ? 'Nothing yet' : r.fitted.join(', ')}: ${formatMass(r.addedKg, units)} more, ${fixed(r.dollars, 0)} $ then, ${r.bolts} new bolts, ${fixed(r.facts.coverage.fraction * 100, 0)} % covered once it is fitted.`,
    );
    for (const b of r.replaced) s.text(`${b.joint}: ${b.from} comes out, ${b.to} goes in.`);
    for (const f of r.findings) s.text(`Only until the next phase: ${f.text}`);
    s.table(
      ['Count', 'Part'],
      hardwareList(r.bought).map(l => [`${l.count}`, l.part]),
      { 0: 16 },
      [0],
    );
  });
}

function crossbars(s: Sheet, { document, joints }: Facts, { units }: BookWish): void {
  const cuts = barCuts(document.plan.crossbars, joints, document.plan.holes);
  if (cuts.length === 0) return;
  s.page('Crossbars');
  s.text('Saw to length, drill, deburr and paint.');
  for (const cut of cuts) {
    const { bar, length, holes } = cut;
    s.head(
      `${bar.name}: ${sectionWords(bar, units)}, ${MATERIALS[bar.material].name}, ${formatLength(length, units, true)} long`,
    );
    for (const h of holes) s.text(barHoleWords(h, cut, units));
  }
}

function lists(s: Sheet, { joints, panels, rig }: Facts, { shelf = {}, units }: BookWish): void {
  s.page('Hardware list');
  s.table(
    ['Count', 'Part', 'At hand', 'To buy'],
    toBuy(hardwareList(joints), shelf).map(l => [
      `${l.count}`,
      l.part,
      `${l.have}`,
      l.missing === 0 ? '' : `${l.missing}: ${l.packs} × ${l.pack}`,
    ]),
    { 0: 16, 2: 20, 3: 30 },
    [0],
  );
  s.head('Tools');
  s.table(
    ['Tool', 'Joints'],
    toolList(joints, { panels, rig }).map(t => [
      toolName(t.tool, units),
      t.for.length > 14 ? `${t.for.slice(0, 14).join(' ')} and ${t.for.length - 14} more` : t.for.join(' '),
    ]),
    { 0: 74 },
  );
}

function torques(s: Sheet, facts: Facts, { units, side }: BookWish): void {
  s.page('Torques');
  s.text(
    'Clean threads, lubricated as listed. The maker\u2019s value, where one was entered, is shown. Numbers on the maps are lines of the table.',
  );
  for (const p of facts.panels) {
    const mine = facts.joints.filter(j => j.joint.panels[0] === p.panel.id);
    if (mine.length === 0) continue;
    s.room(90);
    s.head(sentence(panelWord(p.panel)));
    drawMap(s, { rig: facts.rig, panels: [p], joints: mine, side, numbered: true }, 52);
    s.table(
      [
        '',
        'Joint',
        'Bolt',
        'On the threads',
        units === 'inch' ? 'ft·lb' : 'N·m',
        'Band',
        'Limited by',
        'Strength',
      ],
      mine.map((j, i) => [
        `${i + 1}`,
        j.id,
        `${j.thread.designation} × ${lengthName(j.lengthMm, j.thread)}${stockUnits(j)}`,
        j.joint.lube,
        torqueFigure(j.torqueNm, units).value,
        `${torqueFigure(j.torqueBand[0], units).value} to ${torqueFigure(j.torqueBand[1], units).value}`,
        j.limitedBy,
        plainLoad(jointCapacity(j, facts.panels).pull.force, units),
      ]),
      { 0: 7 },
      [4],
    );
  }
}

function drilling(s: Sheet, facts: Facts, { units }: BookWish): void {
  const cards = facts.joints.flatMap(j => {
    const card: DrillingCard | undefined = drillingCard(j, facts.joints, facts.document.plan.method);
    return card ? [{ j, card }] : [];
  });
  if (cards.length === 0) return;
  s.page('Drilling');
  s.text('Eye protection overhead. Know what is behind; drill slowly and no deeper than the metal.');
  for (const { j, card } of cards) {
    const behind = facts.rig.components.find(c => c.id === card.behind?.component);
    s.room(30);
    s.head(`${j.id}: ${j.drill.map(d => drillName(d, units)).join(', ')}`);
    if (behind && card.stopMm !== undefined)
      s.text(
        `Behind it: ${behind.name}. Stop on the drill at ${formatLength(card.stopMm, units)} from the face.`,
      );
    if (card.fitFirst.length > 0) s.text(`First bolted: ${card.fitFirst.join(', ')}.`);
    s.text(
      card.moves
        .map((m, i) => `${i + 1}. ${m.what}${m.tool ? ` (${toolName(m.tool, units)})` : ''}`)
        .join('  '),
    );
  }
}

function steps(s: Sheet, facts: Facts, { units }: BookWish): void {
  const sequence = installationOf(facts, units);
  s.page('The work, step by step');
  s.text(
    'A box to check off; minutes are estimates. A bar after a step marks a good place to stop for the night.',
  );
  s.table(
    ['', '', 'Step', 'Tools', 'Min'],
    sequence.steps.map((x, i) => [
      '[  ]',
      `${i + 1}`,
      [
        [x.title, stepTorque(x, units)].filter(Boolean).join(': '),
        x.why,
        ...(x.hows ?? []).map((h, n) => `${n + 1}. ${h}`),
        ...(x.joints.length > 0 && x.joints.length <= 24 ? [`In order: ${x.joints.join(', ')}`] : []),
        ...(x.bags ?? []).map(b => `Bag, ${b.fate}: ${b.label}`),
        ...x.cautions.map(c => `! ${c}`),
        ...(x.night ? ['___ good place to stop for the night'] : []),
      ].join('\n'),
      x.tools.map(t => toolName(t, units)).join(', '),
      fixed(x.minutes, x.minutes < 10 ? 1 : 0),
    ]),
    { 0: 8, 1: 9, 3: 42, 4: 11 },
    [1, 4],
  );
}

function upkeep(s: Sheet, { document, panels, joints, rig }: Facts, { units }: BookWish): void {
  const lines = serviceList({ doc: document, panels, joints }, rig);
  if (lines.length === 0) return;
  s.page('Service');
  s.text('What has to come off for each. Minutes are estimates, without the service itself.');
  s.table(
    ['Service', 'Through', 'Bolts out', 'Loosened', 'Minutes', 'Every'],
    lines.map(l => [
      l.point.name,
      l.through === 'opening'
        ? (l.openingId ?? 'nothing in the way')
        : `plates down: ${l.drop.map(id => panels.find(p => p.panel.id === id)?.panel.mark ?? id).join(', then ')}`,
      `${l.remove.length}`,
      `${l.loosen.length}`,
      fixed(l.minutes, 1),
      l.point.everyKm === undefined ? '' : formatDistance(l.point.everyKm, units),
    ]),
    {},
    [2, 3, 4, 5],
  );
}

/**
 * The build book: one PDF file with plates, bends, bag list, tool roll, torques and maps, drilling cards, steps and services, drawn as
 * lines, black on white, in the reader's units and as seen from the reader's side. A plan without plates gives a cover that says so.
 */
export function buildBook(facts: Facts, wish: BookWish): Uint8Array {
  const s = new Sheet(wish.fonts, `${facts.document.plan.name}, ${buildName(facts.build)}`);
  s.pdf.setProperties({ title: `${facts.document.plan.name}, build book`, creator: 'Plate Fold' });
  cover(s, facts, wish);
  if (facts.panels.length > 0) {
    plates(s, facts, wish);
    crossbars(s, facts, wish);
    lists(s, facts, wish);
    phases(s, facts, wish);
    torques(s, facts, wish);
    drilling(s, facts, wish);
    steps(s, facts, wish);
    upkeep(s, facts, wish);
  }
  return s.finish();
}
