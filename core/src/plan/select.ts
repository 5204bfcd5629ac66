import type { Build, Panel, Plan, SheetChoice } from './plan';

/** The build with that id, or the active one. A checked document always has it. */
export function buildOf(plan: Plan, id: string = plan.activeBuild): Build {
  const build = plan.builds.find(b => b.id === id) ?? plan.builds[0];
  if (!build) throw new Error(`plan ${plan.id} has no builds`);
  return build;
}

/** The sheet a build gives a panel. A checked document always has it. */
export function sheetOf(build: Build, panel: Panel): SheetChoice {
  const sheet = build.sheets[panel.id];
  if (!sheet) throw new Error(`build ${build.id} has no sheet for panel ${panel.id}`);
  return sheet;
}
