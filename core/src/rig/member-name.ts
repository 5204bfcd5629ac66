import { boxOf } from '../geometry';
import type { PresentRig } from './present';
import type { Member } from './rig';

/** A member that runs along the vehicle, by its outline. */
const runsAlong = (m: Member): boolean => {
  const { min, max } = boxOf(m.footprint);
  return max[0] - min[0] > max[1] - min[1];
};
const middle = (m: Member, k: 0 | 1): number => {
  const { min, max } = boxOf(m.footprint);
  return (min[k] + max[k]) / 2;
};

const WORD: Readonly<Record<Member['kind'], string>> = {
  crossmember: 'crossmember',
  rail: 'frame rail',
  subframe: 'subframe',
  tube: 'tube',
  'axle-tube': 'axle tube',
  'control-arm': 'control arm',
  'engine-mount': 'engine mount',
  differential: 'differential',
};
const COUNTED = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'];

/** A member as people call it: by its own name, or as "front crossmember", "second crossmember", "driver's side frame rail". */
export function memberName(rig: Pick<PresentRig, 'members' | 'rig'>, id: string): string {
  const m = rig.members.find(x => x.id === id);
  if (!m) return 'a member that is not there';
  if (m.name) return m.name;
  const along = runsAlong(m);
  const alike = rig.members.filter(x => !x.name && x.kind === m.kind && runsAlong(x) === along);
  const word = WORD[m.kind];
  if (alike.length === 1) return word;
  if (along) {
    const left = middle(m, 1) < 0;
    return `${left === (rig.rig.driverSide === 'left') ? 'driver\u2019s' : 'passenger\u2019s'} side ${word}`;
  }
  const place = [...alike].sort((a, b) => middle(a, 0) - middle(b, 0)).indexOf(m);
  if (place === 0) return `front ${word}`;
  if (place === alike.length - 1) return `rear ${word}`;
  return `${COUNTED[place] ?? `${place + 1}th`} ${word}`;
}
