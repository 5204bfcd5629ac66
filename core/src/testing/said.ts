import {
  barCuts,
  barHoleWords,
  chooseHardware,
  drillingCard,
  drillName,
  hardwareList,
  holeKindWords,
  holeRows,
  holeSizeWords,
  jointNotes,
  nutSetting,
  partNames,
  removals,
  repairOptions,
  stackFaults,
  toolList,
  toolName,
  toolsFor,
} from '../bolt';
import { check, RULES, STRUCK_RULES } from '../checks';
import { hardwareChange, optionEffect, TERM_WORDS } from '../compare';
import { gatherFacts } from '../derive';
import { shopOf } from '../fold';
import { barCutsCsv, bendTableCsv, holeTableCsv, toolListCsv } from '../formats';
import { dueList } from '../log';
import { differences, type PlanDocument } from '../plan';
import { propose } from '../propose';
import { type Installed, installationOf, nutReaches } from '../sequence';
import { serviceList, serviceSteps } from '../service';
import type { UnitSystem } from '../units';
import { quote, quoteBlanks, rateFor, rateLines } from '../weigh';
import { usualWish } from './random';

/** One thing that the program says of a plan, and where it comes from. */
export interface Said {
  readonly from: string;
  readonly text: string;
}

/**
 * Everything that the core can say of a plan to a reader with such units, short of what only a strike brings out: findings and their
 * remedies, hardware with its reasons, repairs, cards, steps of the installation and of every service, lists, files, options, quotes,
 * suggestions and differences.
 */
export function saidOf(doc: PlanDocument, units: UnitSystem): readonly Said[] {
  const out: Said[] = [];
  const say = (from: string, ...texts: readonly (string | undefined)[]): void => {
    for (const text of texts) if (text) out.push({ from, text });
  };
  const facts = gatherFacts(doc);
  const { joints, panels, rig } = facts;
  for (const r of [...RULES, ...STRUCK_RULES]) say(`why of ${r.id}`, r.why);
  for (const f of check(facts, units)) say(f.rule, f.text, f.remedy, ...(f.more ?? []).map(m => m.remedy));
  for (const c of chooseHardware(joints, { rig, panels })) say('hardware', c.why);
  for (const j of joints) {
    say('joint', ...partNames(j), ...toolsFor(j).map(t => toolName(t, units)), j.limitedBy);
    say('drills', ...j.drill.map(d => drillName(d, units)));
    const notes = jointNotes(j, j.joint.panels);
    say('joint note', notes.direction, notes.shared);
    say('stack', ...stackFaults(j, units).map(f => f.said));
    for (const o of repairOptions(j, rig, panels))
      say('repair', o.name, o.how, o.caution, ...o.adds.map(t => toolName(t, units)));
    const card = drillingCard(j, joints, doc.plan.method);
    for (const m of card?.moves ?? []) say('drilling', m.what, m.tool && toolName(m.tool, units));
    say('setting', ...(nutSetting(j, units)?.moves ?? []));
  }
  for (const n of nutReaches(doc, panels, joints).values()) say('nut reach', n.said);
  for (const f of rig.factoryParts)
    for (const r of removals(f)) say('factory part', r.how, r.tool, r.replacement);
  for (const l of hardwareList(joints)) say('hardware list', l.part);
  for (const t of toolList(joints, facts)) say('tools', toolName(t.tool, units));
  const steps = (from: string, of: ReturnType<typeof installationOf>): void => {
    for (const s of of.steps)
      say(
        from,
        s.title,
        s.why,
        ...(s.hows ?? []),
        ...s.cautions,
        s.tip?.text,
        ...s.tools.map(t => toolName(t, units)),
      );
  };
  steps('step', installationOf(facts as Installed, units));
  const hung = { doc, panels, joints };
  for (const line of serviceList(hung, rig)) steps('service', serviceSteps(line, hung, rig, units));
  for (const d of dueList(doc, rig, [{ id: 'x', at: 0, kind: 'install' }], 1e12)) say('due', d.what, d.why);
  for (const o of doc.rig.options)
    for (const c of o.choices) {
      const e = optionEffect(doc, o.id, c.id, units);
      say('option', ...e.added, ...e.removed, ...e.misfits);
    }
  const wish = usualWish(doc);
  const suggested = propose(
    { ...doc, plan: { ...doc.plan, panels: [], joints: [], seams: [] } },
    wish,
    units,
  );
  say('suggestion', ...suggested.plates.flatMap(p => p.reasons), ...suggested.prevented.map(p => p.text));
  for (const t of Object.values(TERM_WORDS)) say('profile', t.what, t.how);
  for (const p of panels)
    for (const r of holeRows(p, joints)) {
      say('hole', r.hole.cut && holeSizeWords(r.hole.cut, units), holeKindWords(r, units));
    }
  for (const c of barCuts(doc.plan.crossbars, joints, doc.plan.holes))
    say('crossbar', ...c.holes.map(h => barHoleWords(h, c, units)));
  say('bends file', bendTableCsv(panels, shopOf(facts.document.plan), units));
  say('holes file', holeTableCsv(panels, joints, units));
  say('bars file', barCutsCsv(barCuts(doc.plan.crossbars, joints, doc.plan.holes), units));
  say('tools file', toolListCsv(toolList(joints, facts), units));
  const small = {
    name: 'a small shop',
    sheets: [[600, 300]],
    dies: [8],
    brake: { length: 200, force: 5 },
    cutter: 'plasma',
  } as const;
  const answer = quote({ blanks: quoteBlanks(panels), shop: small as never, units });
  if (!answer.ok) say('quote', ...answer.reasons);
  const other = doc.plan.builds.find(b => b.id !== doc.plan.activeBuild);
  if (other)
    for (const c of hardwareChange(facts, gatherFacts(doc, other.id), units))
      say('hardware change', c.from, c.to);
  say('rate', ...rateLines().map(l => rateFor(l, units)));
  const moved = {
    ...doc,
    plan: {
      ...doc.plan,
      panels: doc.plan.panels.map(p => ({
        ...p,
        base: { ...p.base, origin: [p.base.origin[0] + 12, p.base.origin[1], p.base.origin[2] + 7] as const },
      })),
    },
  };
  say('difference', ...differences(doc, moved as PlanDocument, units));
  return out;
}
