import { type Factor, factored, solveFirst, UNTOLD, type Vec3 } from '../geometry';
import { knownOf, type Net, pointName } from './net';
import { type Freed, normalOf, rowsOf, type State, type Unknowns, unknownsOf } from './solve';

/** What could not be placed, and what is wanting, as a sentence. */
export interface Loose {
  readonly point?: string;
  readonly photo?: string;
  readonly why: string;
}

const WAYS = ['fore and aft', 'across', 'up and down'] as const;
const DATUM = [
  'how far behind the front axle the points lie: read one offset from the axle’s line',
  'how far from the center line the points lie: read one offset from it',
  'how high the points lie: read one height above the ground',
] as const;

/**
 * A combination of unknowns that no reading holds, as a unit vector; undefined where all are told. Of the first unknown that those before it
 * tell already: how they follow it.
 */
function untold(n: Float64Array, { count, l, scale, rest }: Factor): Float64Array | undefined {
  const i = rest.findIndex(r => r <= UNTOLD);
  if (i < 0) return undefined;
  const way = new Float64Array(count);
  for (let k = 0; k < i; k++)
    way[k] = -(n[i * count + k] as number) * (scale[i] as number) * (scale[k] as number);
  solveFirst({ count, l }, way, i);
  way[i] = 1;
  let length = 0;
  for (let k = 0; k <= i; k++) {
    way[k] = (way[k] as number) * (scale[k] as number);
    length += (way[k] as number) ** 2;
  }
  return way.map(x => x / Math.sqrt(length));
}

/** What is not told, in words, and which points it takes with it; no points where it is the whole net that hangs loose. */
function whatIsUntold(
  net: Net,
  state: State,
  unknowns: Unknowns,
  way: Float64Array,
): { readonly points: readonly number[]; readonly photos: readonly number[]; readonly why: string } {
  const moves = [...state.at.keys()].map(i => {
    const u = unknowns.point.get(i) ?? [];
    return { i, by: u.map(k => (k === undefined ? 0 : (way[k] as number))) };
  });
  const most = Math.max(...moves.map(m => Math.hypot(...m.by)), 1e-12);
  const moving = moves.filter(m => Math.hypot(...m.by) > 0.15 * most);
  const photo = [...unknowns.camera].find(([, u]) => {
    const own = [0, 1, 2, 3, 4, 5].map(k => way[u.pose + k] as number);
    return Math.hypot(...own) > 0.5 && most < 0.2;
  });
  if (photo)
    return {
      points: [],
      photos: [photo[0]],
      why: `the marks on the photo "${net.survey.photos[photo[0]]?.name}" do not tell where it was taken: mark more points, not all in one line`,
    };
  const free = moves.filter(m => (unknowns.point.get(m.i) ?? []).some(u => u !== undefined));
  const axis = [0, 1, 2].reduce((b, k) => {
    const sum = (a: number): number => moving.reduce((s, m) => s + Math.abs(m.by[a] as number), 0);
    return sum(k) > sum(b) ? k : b;
  }, 0);
  if (moving.length >= 3 && moving.length > 0.6 * free.length) {
    const mean = moving.reduce((s, m) => s + (m.by[axis] as number), 0) / moving.length;
    const even = moving.every(m => Math.abs((m.by[axis] as number) - mean) < 0.3 * Math.abs(mean));
    return {
      points: [],
      photos: [],
      why: even
        ? `nothing tells ${DATUM[axis]}`
        : 'nothing tells how the net is turned: read an offset of a second point, far from the first',
    };
  }
  const names = moving.map(m => pointName(net.points[m.i] as Net['points'][number]));
  return {
    points: moving.map(m => m.i),
    photos: [],
    why: `nothing tells where ${names.length > 1 ? 'they are' : 'it is'} ${WAYS[axis]}${names.length > 1 ? ` (${names.join(', ')} move together)` : ''}: ${axis === 2 ? 'read a height' : 'read one more distance, to a point that lies that way'}`,
  };
}

/** Why a point has no place: how many readings there are, and how many it takes. */
export function whyLoose(net: Net, i: number, placed: ReadonlyMap<number, Vec3>): string {
  const p = net.points[i] as Net['points'][number];
  const known = knownOf(net)[i]?.filter(k => k !== undefined).length ?? 0;
  const mine = net.readings.filter(r => r.from === p.id || r.to === p.id || r.point === p.id);
  const tapes = mine.filter(r => r.kind === 'distance');
  const good = tapes.filter(r => placed.has(net.index.get((r.from === p.id ? r.to : r.from) ?? '') ?? -1));
  const wants = Math.max(1, 3 - known - good.length);
  if (mine.length === 0) return 'has no reading at all: read a height and two distances to it';
  const far = tapes.length > good.length ? ', of those that hang on a point whose place is known' : '';
  return `hangs on too few readings: ${mine.length} where it takes ${mine.length + wants}${far}; read ${wants === 1 ? 'one more distance' : `${wants} more distances`}${known === 0 ? ' or a height' : ''}`;
}

/** The state settled, with what of it no reading tells taken out, one after another. */
export function determined(
  net: Net,
  from: State,
  freed: ReadonlyMap<number, Freed>,
): { readonly state: State; readonly loose: readonly Loose[]; readonly adrift?: string } {
  let state = from;
  const loose: Loose[] = [];
  for (;;) {
    const unknowns = unknownsOf(net, state, freed);
    const { n } = normalOf(rowsOf(net, state, unknowns, freed), unknowns.count);
    const way = untold(n, factored(n, unknowns.count));
    if (!way) return { state, loose };
    const { points, photos, why } = whatIsUntold(net, state, unknowns, way);
    if (points.length === 0 && photos.length === 0) return { state, loose, adrift: why };
    for (const i of points) loose.push({ point: net.points[i]?.id ?? '', why });
    for (const i of photos) loose.push({ photo: net.survey.photos[i]?.id ?? '', why });
    state = {
      at: new Map([...state.at].filter(([i]) => !points.includes(i))),
      cameras: new Map([...state.cameras].filter(([i]) => !photos.includes(i))),
    };
    if (state.at.size === 0) return { state, loose, adrift: why };
  }
}
