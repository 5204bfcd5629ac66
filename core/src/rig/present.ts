import type { Vec3 } from '../geometry';
import type { MaterialId } from '../sheet';
import type { Component, FactoryPart, Member, Mount, Rig, ServicePoint, When } from './rig';

/** True when every option named in `when` stands at one of its listed choices. */
export function holds(when: When | undefined, selected: Readonly<Record<string, string>>): boolean {
  if (!when) return true;
  return Object.entries(when).every(([option, choices]) => {
    const chosen = selected[option];
    return chosen !== undefined && choices.includes(chosen);
  });
}

/** A bar that is bolted up to holes of the vehicle and stands between them and the plates. */
export interface PresentBar {
  readonly id: string;
  readonly name: string;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly section: { readonly width: number; readonly height: number; readonly wall: number | 'solid' };
  readonly material: MaterialId;
  readonly mounts: readonly string[];
}

/** What is really on the vehicle with its options as selected. */
export interface PresentRig {
  readonly rig: Rig;
  readonly components: readonly Component[];
  readonly members: readonly Member[];
  readonly mounts: readonly Mount[];
  readonly servicePoints: readonly ServicePoint[];
  readonly factoryParts: readonly FactoryPart[];
  /** what the plan adds to bolt plates to; each stands among the members too */
  readonly bars: readonly PresentBar[];
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
    bars: [],
  };
}

/** The rig with one option set to another choice. */
export const withChoice = (rig: Rig, option: string, choice: string): Rig => ({
  ...rig,
  selected: { ...rig.selected, [option]: choice },
});
