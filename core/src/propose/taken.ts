import {
  type Crossbar,
  command,
  inPlan,
  type Joint,
  marked,
  type PlanDocument,
  panelsRemoved,
  UNMARKED,
} from '../plan';
import type { Mount } from '../rig';
import { hungByBrackets } from './hung';
import type { Proposal, Wish } from './wish';

/** The document with the taken plates of a proposal in it; bolts, new holes, bars and seams come with them. */
export function proposalTaken(
  doc: PlanDocument,
  proposal: Proposal,
  wish: Wish,
  taken: readonly string[] = proposal.plates.map(p => p.panel.id),
): PlanDocument {
  const plates = proposal.plates.filter(p => taken.includes(p.panel.id));
  const here = new Set(plates.map(p => p.panel.id));
  const joints = new Map<string, Joint>();
  const mounts = new Map<string, Mount>();
  const bars = new Map<string, Crossbar>();
  for (const p of plates) {
    for (const m of p.newMounts) mounts.set(m.id, m);
    for (const b of p.crossbars) bars.set(b.id, b);
    for (const j of p.joints) {
      const panels = j.panels.filter(x => here.has(x));
      // where the inner neighbor is not taken its sheet is missing from the stack: the spacer makes up for it
      const missing = j.panels.slice(j.panels.indexOf(panels.at(-1) ?? '') + 1).length;
      joints.set(j.id, { ...j, panels, spacer: j.spacer + missing * wish.sheet.thickness });
    }
  }
  const known = new Set([...doc.rig.mounts, ...(doc.plan.holes ?? [])].map(m => m.id));
  const holes = [...(doc.plan.holes ?? []), ...[...mounts.values()].filter(m => !known.has(m.id))];
  const sheets = Object.fromEntries(plates.map(p => [p.panel.id, wish.sheet]));
  return marked(
    inPlan(doc, {
      panels: [...doc.plan.panels, ...plates.map(p => ({ ...p.panel, mark: UNMARKED }))],
      joints: [...doc.plan.joints, ...joints.values()],
      crossbars: [...doc.plan.crossbars, ...bars.values()],
      ...(holes.length > 0 ? { holes } : {}),
      seams: [...doc.plan.seams, ...proposal.seams.filter(s => here.has(s.front) && here.has(s.rear))],
      builds: doc.plan.builds.map(b => ({ ...b, sheets: { ...b.sheets, ...sheets } })),
    }),
  );
}

/** Takes the chosen plates of a proposal, beside the plates there are or in their place; by brackets where spacers would be too tall. */
export const takeProposal = command<{
  readonly proposal: Proposal;
  readonly wish: Wish;
  readonly plates: readonly string[];
  readonly replace: boolean;
}>({
  id: 'proposal.take',
  label: (_, { plates }) => `take ${plates.length} suggested plate${plates.length === 1 ? '' : 's'}`,
  run: (doc, { proposal, wish, plates, replace }) => {
    const all = doc.plan.panels.map(p => p.id);
    return hungByBrackets(proposalTaken(replace ? panelsRemoved(doc, all) : doc, proposal, wish, plates));
  },
});
