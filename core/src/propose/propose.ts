import { check, gatherFacts, plateName, wordsIn } from '../checks';
import { coverage } from '../cover';
import { inPlan, type PlanDocument, presentOf } from '../plan';
import type { UnitSystem } from '../units';
import { lanesOf } from './lanes';
import { laidOut } from './layout';
import { stationsOf } from './stations';
import { proposalTaken } from './taken';
import type { Announced, Proposal, Wish } from './wish';

/**
 * Lays out a whole set for the chosen parts: plates from member to member, lapped front over rear, lowered on spacers or ramps under what
 * hangs lowest, opened under service points, bolted to usable holes or new ones, with a bar along a span that is too long. Says why, what
 * it could not do, and whatever all the checks still find of it, figures in the reader's units. Pure; the caller shows it and takes all, some or none.
 */
export function propose(doc: PlanDocument, wish: Wish, system: UnitSystem = 'metric'): Proposal {
  const words = wordsIn(system);
  const rig = presentOf(doc);
  const wanted = rig.components.filter(c => wish.components.includes(c.id) && !c.moves);
  const stations = stationsOf(rig);
  const { lanes, unheld } = lanesOf(rig, stations, wanted);
  const { plates, seams, prevented } = laidOut(doc, rig, wish, lanes, stations, words);
  const said: Announced[] = [
    ...unheld.map(c => ({
      about: [c.id],
      text: `${c.name}: no two crossing members hold a plate under it; add a member or a crossbar.`,
    })),
    ...prevented,
  ];
  const bare: Proposal = { plates, seams, prevented: [] };
  const alone = proposalTaken(
    inPlan(doc, { limits: { ...doc.plan.limits, maxLiftKg: wish.maxLiftKg } }),
    bare,
    wish,
  );
  const facts = gatherFacts(alone);
  const nameOf = (id: string): string => plates.find(p => p.panel.id === id)?.panel.name ?? id;
  for (const p of plates) {
    const f = facts.panels.find(x => x.panel.id === p.panel.id);
    if (!f) continue;
    const [w, h] = f.blank.size;
    const [long, wide] = [Math.max(...wish.maxBlank), Math.min(...wish.maxBlank)];
    if (Math.max(w, h) > long || Math.min(w, h) > wide)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate needs a blank of ${words.tape(w)} × ${words.tape(h)}, larger than your ${words.tape(long)} × ${words.tape(wide)}: split it.`,
      });
    if (f.massKg > wish.maxLiftKg)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate weighs ${words.mass(f.massKg)}, more than the ${words.mass(wish.maxLiftKg)} you lift alone: a jack, a helper or lighter sheet.`,
      });
    const low = Math.min(...f.facets.map(x => x.frame.origin[2]));
    if (wish.minClearance !== undefined && low < wish.minClearance)
      said.push({
        about: [p.panel.id],
        text: `The ${p.panel.name} plate hangs ${words.tape(low)} above the ground, less than the ${words.tape(wish.minClearance)} you want: what it guards is that low.`,
      });
  }
  for (const c of coverage(wanted, facts.panels).components)
    if (c.fraction < 0.95 && !said.some(p => p.about.includes(c.id))) {
      const name = rig.components.find(x => x.id === c.id)?.name ?? c.id;
      said.push({
        about: [c.id],
        text: `${name} stays ${Math.round((1 - c.fraction) * 100)} % bare: ${c.fraction < 0.5 ? 'it reaches past the members that could hold a plate' : 'openings under it, or an end beyond the last member'}.`,
      });
    }
  // whatever else the checks find is said too: nothing of it comes as a surprise
  const before = new Set(check(gatherFacts(doc)).map(f => `${f.rule} ${f.about.join(' ')}`));
  for (const f of check(facts, system)) {
    if (f.severity === 'note' || before.has(`${f.rule} ${f.about.join(' ')}`)) continue;
    if (TOLD[f.rule] !== undefined && said.some(s => s.about.includes(f.about[0] ?? ''))) continue;
    const text = plates.reduce(
      (s, p) => s.replaceAll(plateName(facts, p.panel.id), `The ${nameOf(p.panel.id)} plate`),
      f.text,
    );
    said.push({ about: f.about, text });
  }
  return { plates, seams, prevented: said };
}

/** Findings that have been put into words above, by rule. */
const TOLD: Readonly<Record<string, true>> = { uncovered: true, 'too-heavy': true, span: true };
