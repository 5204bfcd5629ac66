/*
 * A survey of 60 points by tape and six photos, adjusted from nothing and again with one more reading; what to measure next; and the fit of
 * Bramble, tried 2,000 times. Processor time, beside what was asked.
 */
import { assemble } from '@plate-fold/core/derive';
import { fitOf, remediesOf } from '@plate-fold/core/fitup';
import {
  boxOfMesh,
  gridOver,
  laid,
  lowestOf,
  type Placing,
  packedHeights,
  seenFrom,
  VIEWS,
} from '@plate-fold/core/scan';
import { adjusted, netOf, nextReadings } from '@plate-fold/core/survey';
import { phoneAxes, scannedUnderside, stlOf, surveyed } from '@plate-fold/core/testing';
import { demo } from '@plate-fold/demo';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';

function ms(what: () => void): number {
  const from = process.cpuUsage();
  what();
  const { user, system } = process.cpuUsage(from);
  return (user + system) / 1000;
}
const middle = (v: readonly number[]): number => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)] ?? 0;
const say = (what: string, found: number, asked: number): void =>
  console.log(
    `${what.padEnd(62)} ${found.toFixed(0).padStart(6)} ms   ${(found / asked).toFixed(2)} of ${asked} ms`,
  );

const MARKS = 7;
const netsWhere = (tapes: (i: number) => boolean) =>
  [1, 2, 3, 4, 5, 6, 7].map(seed => {
    const { survey } = surveyed(seed, { points: 60, tapes: 3, photos: 6, k1: -0.05 });
    return netOf({
      ...survey,
      distances: (survey.distances ?? []).filter((_, i) => tapes(i)),
      photos: (survey.photos ?? []).map(f => ({ ...f, marks: f.marks.slice(0, MARKS) })),
    });
  });
const nets = netsWhere(() => true);
console.log(`${nets[0]?.points.length} points, ${nets[0]?.readings.length} readings, 6 photos`);
const cold = nets.map(n => ms(() => adjusted(n)));
const warm = nets.map(n => ms(() => adjusted(n)));
say('survey adjusted, the first time', cold[0] ?? 0, 300);
say('survey adjusted, compiled (middle of seven)', middle(warm), 300);
say('the slowest of seven', Math.max(...warm), 300);
const withOneMore = (all: typeof nets): readonly number[] => {
  const before = all.map(n => adjusted(netOf({ ...n.survey, distances: n.survey.distances.slice(1) })));
  return all.map((n, i) => ms(() => adjusted(n, before[i])));
};
say('the same with one reading more', middle(withOneMore(nets)), 300);
// as it is while it is typed: a third of the tapes is still to come, and some points are as well elsewhere
const half = netsWhere(i => i % 3 !== 2);
const halfWarm = half.map(n => ms(() => adjusted(n)));
console.log(`${half[0]?.readings.length} readings, something loose`);
say('adjusted (middle of seven)', middle(halfWarm), 300);
say('the slowest of seven', Math.max(...halfWarm), 300);
const oneMore = withOneMore(half);
say('the same with one reading more', middle(oneMore), 300);
say('the slowest of seven', Math.max(...oneMore), 300);
const solution = adjusted(nets[0] as (typeof nets)[0]).solution;
say('what to measure next', middle([1, 2, 3].map(() => ms(() => nextReadings(solution)))), 100);
const bramble = assemble(demo('bramble'));
const fit = fitOf(bramble);
say('fit of Bramble, 2,000 trials', middle([1, 2, 3].map(() => ms(() => fitOf(bramble)))), 1000);
const pebble = assemble(demo('pebble'));
const pebbleFit = fitOf(pebble);
say(
  'remedies of Pebble',
  ms(() => remediesOf(pebble, pebbleFit)),
  1000,
);
console.log(`Bramble as its holes are known: ${(100 * fit.all.chance).toFixed(0)} %`);

const scanned = scannedUnderside(demo('bramble').rig, phoneAxes(0.3), { size: 6.8 });
const stl = stlOf(scanned);
const own = phoneAxes(0.3);
const laidOn = laid(
  demo('bramble')
    .rig.mounts.slice(0, 5)
    .map(m => ({ from: own(m.at), to: m.at })),
);
if (!laidOn.ok) throw new Error(laidOn.fault);
const { turn, scale, shift } = laidOn.value;
const placing = turn.map((r, i) => [
  scale * r[0],
  scale * r[1],
  scale * r[2],
  shift[i],
]) as unknown as Placing;
console.log(`a scan of ${scanned.index.length / 3} triangles`);
const wholeScan = (): void => {
  const g = new STLLoader().parse(stl.buffer);
  const mesh = {
    positions: g.getAttribute('position').array as Float32Array,
    index: Uint32Array.from({ length: g.getAttribute('position').count }, (_, i) => i),
  };
  seenFrom(mesh, VIEWS[0] as (typeof VIEWS)[0], 1800);
  const box = boxOfMesh(mesh, placing);
  if (!box) throw new Error('an empty scan');
  packedHeights(lowestOf(mesh, placing, gridOver([box.low[0], box.low[1]], [box.high[0], box.high[1]], 4)));
};
say(
  'the scan read, drawn from below, laid on, gridded and packed',
  middle([1, 2, 3].map(() => ms(wholeScan))),
  3000,
);
