import type { Build, Panel, Plan, PlanDocument, SheetChoice } from './plan';

/** The build with that id, or the active one. A checked document always has it. */
export function buildOf(plan: Plan, id: string = plan.activeBuild): Build {
  const build = plan.builds.find(b => b.id === id) ?? plan.builds[0];
  if (!build) throw new Error(`plan ${plan.id} has no builds`);
  return build;
}

/** Whether a panel stands between plates and the vehicle: made like a plate, but it covers and guards nothing. */
export const isBracket = (p: Pick<Panel, 'role'>): boolean => p.role === 'bracket';

/** A panel as a sentence calls it: `plate B`, `bracket K1`. */
export const panelWord = (p: Pick<Panel, 'mark' | 'role'>): string =>
  `${isBracket(p) ? 'bracket' : 'plate'} ${p.mark}`;

/** The panel with that id as a sentence calls it; by its id where the plan has it no more. */
export function panelNamed({ plan }: Pick<PlanDocument, 'plan'>, id: string): string {
  const p = plan.panels.find(x => x.id === id);
  return p ? panelWord(p) : `plate ${id}`;
}

/** Plates in the order in which they are told everywhere: by where the base begins, from front to rear; those side by side as they are in the plan. */
export function frontToRear<P extends Pick<Panel, 'base'>>(panels: readonly P[]): readonly P[] {
  const front = (p: P): number => p.base.origin[0] + Math.min(...p.base.outline.map(q => q[0]));
  return panels
    .map(p => ({ p, at: front(p) }))
    .sort((a, b) => a.at - b.at)
    .map(({ p }) => p);
}

/** A build as a sentence calls it, by its name alone: its id is for files, and plates have the letters. */
export const buildName = (build: Pick<Build, 'name'>): string => `build \u201c${build.name}\u201d`;

/** The build with that id as a sentence calls it; by its id where the plan has it no more. */
export function buildNameIn(plan: Plan, id: string): string {
  const build = plan.builds.find(b => b.id === id);
  return build ? buildName(build) : `build ${id}`;
}

/** The sheet a build gives a panel. A checked document always has it. */
export function sheetOf(build: Build, panel: Panel): SheetChoice {
  const sheet = build.sheets[panel.id] ?? panel.sheet;
  if (!sheet) throw new Error(`build ${build.id} has no sheet for panel ${panel.id}`);
  return sheet;
}
