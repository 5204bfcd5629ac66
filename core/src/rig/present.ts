import type { Component, FactoryPart, Member, Mount, Rig, ServicePoint, When } from './rig';

/** True when every option named in `when` stands at one of its listed choices. */
export function holds(when: When | undefined, selected: Readonly<Record<string, string>>): boolean {
  if (!when) return true;
  return Object.entries(when).every(([option, choices]) => {
    const chosen = selected[option];
    return chosen !== undefined && choices.includes(chosen);
  });
}

/** What is really on the vehicle with its options as selected. */
export interface PresentRig {
  readonly rig: Rig;
  readonly components: readonly Component[];
  readonly members: readonly Member[];
  readonly mounts: readonly Mount[];
  readonly servicePoints: readonly ServicePoint[];
  readonly factoryParts: readonly FactoryPart[];
}

export function presentRig(rig: Rig): PresentRig {
  const here = <T extends { readonly when?: When }>(all: readonly T[]): readonly T[] =>
    all.filter(x => holds(x.when, rig.selected));
  return {
    rig,
    components: here(rig.components),
    members: rig.members,
    mounts: here(rig.mounts),
    servicePoints: here(rig.servicePoints),
    factoryParts: here(rig.factoryParts),
  };
}

/** The rig with one option set to another choice. */
export const withChoice = (rig: Rig, option: string, choice: string): Rig => ({
  ...rig,
  selected: { ...rig.selected, [option]: choice },
});
