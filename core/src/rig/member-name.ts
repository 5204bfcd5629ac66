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

/** Members that cross the vehicle nearer than this are halves of one, mm. */
const BESIDE = 60;
const sideOf = ({ rig }: Pick<PresentRig, 'rig'>, m: Member): string =>
  middle(m, 1) < 0 === (rig.driverSide === 'left') ? 'driver\u2019s side' : 'passenger\u2019s side';

/** A member as people call it: by its own name, or as "front crossmember", "second crossmember", "driver's side frame rail". */
export function memberName(rig: Pick<PresentRig, 'members' | 'rig'>, id: string): string {
  const m = rig.members.find(x => x.id === id);
  if (!m) return 'a member that is not there';
  if (m.name) return m.name;
  const along = runsAlong(m);
  const alike = rig.members.filter(x => !x.name && x.kind === m.kind && runsAlong(x) === along);
  const word = WORD[m.kind];
  if (alike.length === 1) return word;
  if (along) return `${sideOf(rig, m)} ${word}`;
  // two halves of one axle stand side by side
  const beside = alike.filter(x => Math.abs(middle(x, 0) - middle(m, 0)) < BESIDE);
  const half = beside.length > 1 ? `${sideOf(rig, m)} ${word}` : word;
  if (beside.length === alike.length) return half;
  const places = [...alike]
    .sort((a, b) => middle(a, 0) - middle(b, 0))
    .filter((x, i, all) => i === 0 || middle(x, 0) - middle(all[i - 1] as Member, 0) >= BESIDE);
  const place = places.findIndex(x => Math.abs(middle(x, 0) - middle(m, 0)) < BESIDE);
  if (place === 0) return `front ${half}`;
  if (place === places.length - 1) return `rear ${half}`;
  return `${COUNTED[place] ?? `${place + 1}th`} ${half}`;
}
