import type { Component, FactoryPart, HoleKind, Mount, RigOption, ServicePoint, When } from '../rig';

/** What a body has under it, before members and holes are laid between. Lengths in mm. */
export interface Layout {
  readonly components: readonly Component[];
  readonly servicePoints: readonly ServicePoint[];
  readonly factoryParts: readonly FactoryPart[];
  readonly options: readonly RigOption[];
  readonly selected: Readonly<Record<string, string>>;
  /** middles of crossmembers along the vehicle, each with how much higher than the measured one it is */
  readonly crossings: readonly (readonly [x: number, higher: number])[];
  readonly holes: {
    readonly kind: HoleKind;
    readonly outer: string;
    readonly inner: string;
    readonly nutReach: Mount['nutReach'];
    readonly side?: HoleKind;
    /** every other side hole is there only for these choices */
    readonly taken?: When;
  };
}

export type Extra = Partial<Omit<Component, 'id' | 'kind' | 'name' | 'footprint' | 'zBottom' | 'zTop'>>;

/** A part as a box: x from, to; y from, to; underside and top. */
export function part(
  id: string,
  kind: Component['kind'],
  name: string,
  [x0, x1]: readonly [number, number],
  [y0, y1]: readonly [number, number],
  [zBottom, zTop]: readonly [number, number],
  extra: Extra = {},
): Component {
  return {
    id,
    kind,
    name,
    footprint: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
    zBottom,
    zTop,
    protect: true,
    keepOut: 20,
    ...extra,
  };
}

/** From a height up, by how tall it is. */
export const raised = (z: number, tall: number): readonly [number, number] => [z, z + tall];
