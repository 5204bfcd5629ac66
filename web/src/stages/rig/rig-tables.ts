import type { RigList } from '@plate-fold/core/rig';

export interface RigTable {
  readonly list: RigList;
  readonly tab: string;
  readonly one: string;
}

/** The tables of a rig, as tabs. */
export const RIG_TABLES: readonly RigTable[] = [
  { list: 'components', tab: 'Parts', one: 'part' },
  { list: 'members', tab: 'Frame', one: 'frame member' },
  { list: 'mounts', tab: 'Holes', one: 'hole' },
  { list: 'servicePoints', tab: 'Service', one: 'service point' },
  { list: 'factoryParts', tab: 'Factory parts', one: 'factory part' },
];
