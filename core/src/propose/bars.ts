import { boxOf } from '../geometry';
import type { Crossbar, Joint } from '../plan';
import type { Mount, PresentRig } from '../rig';
import type { Lane } from './lanes';

/** The bar that is laid along a plate which spans too far: solid flat bar, 50 × 25 mm, as shops keep it: common practice, no source. */
export const BAR = { width: 50, height: 25, wall: 'solid' } as const;
const THREAD = 'M10x1.5';
/** Members that a bar is laid across hang as high as one another within this, mm. */
const LEVEL = 0.5;
/** A bar reaches past the middles of its members by this, and keeps this much from parts, mm. */
const PAST = 22;
const ROOM = 10;
/** No bolt of the bar's own this near to another, mm. */
const APART = 45;

export interface BarAlong {
  readonly bar: Crossbar;
  readonly holes: readonly Mount[];
  /** the bolts that hold the bar up, heads sunk flush so that the plate lies against it */
  readonly own: readonly Joint[];
  /** its tapped holes for the plate */
  readonly taps: readonly Mount[];
}

/** Whether the space along a lane right under its members is free for a bar at `y`. */
function free(rig: PresentRig, lane: Lane, y: number, taken: readonly Mount[]): boolean {
  const z = lane.front.zBottom;
  const [x0, x1] = [lane.front.x - PAST - ROOM, lane.rear.x + PAST + ROOM];
  const [y0, y1] = [y - BAR.width / 2 - ROOM, y + BAR.width / 2 + ROOM];
  const inWay = [
    ...rig.components,
    ...rig.members.filter(m => m.id !== lane.front.member.id && m.id !== lane.rear.member.id),
  ].some(c => {
    const b = boxOf(c.footprint);
    return b.min[0] < x1 && b.max[0] > x0 && b.min[1] < y1 && b.max[1] > y0 && c.zBottom < z + ROOM / 2;
  });
  const ends = [lane.front.member.id, lane.rear.member.id];
  const crowded = [...rig.mounts, ...taken].some(
    m => ends.includes(m.member) && Math.abs(m.at[1] - y) < APART,
  );
  return !inWay && !crowded;
}

/**
 * A bar along a lane, under both of its members and tapped for the plate where the span is parted; undefined where the members hang
 * unlike or something is in its way. It takes the plate down by its own height.
 */
export function barAlong(
  rig: PresentRig,
  lane: Lane,
  id: string,
  parts: number,
  taken: readonly Mount[],
): BarAlong | undefined {
  const { front, rear } = lane;
  if (Math.abs(front.zBottom - rear.zBottom) > LEVEL) return undefined;
  const middle = (lane.y[0] + lane.y[1]) / 2;
  const reach = (lane.y[1] - lane.y[0]) / 2 - BAR.width / 2 - 10;
  let y: number | undefined;
  for (let off = 0; off <= reach && y === undefined; off += 10)
    y = [Math.round(middle + off), Math.round(middle - off)].find(
      v =>
        v > front.y[0] + 30 &&
        v < front.y[1] - 30 &&
        v > rear.y[0] + 30 &&
        v < rear.y[1] - 30 &&
        free(rig, lane, v, taken),
    );
  if (y === undefined) return undefined;
  const at = y;
  const z = front.zBottom;
  const hole = (k: string, x: number, member: string, height: number, tapped: boolean): Mount => ({
    id: `${id}-${k}`,
    member,
    at: [x, at, height],
    hole: tapped ? { kind: 'threaded', thread: THREAD } : { kind: 'drill' },
    condition: 'good',
    nutReach: 'none',
  });
  const holes = [
    hole('front', front.x, front.member.id, z, false),
    hole('rear', rear.x, rear.member.id, z, false),
  ];
  const bar: Crossbar = {
    id,
    name: 'bar along the plate',
    from: [front.x - PAST, at, z - BAR.height / 2],
    to: [rear.x + PAST, at, z - BAR.height / 2],
    section: BAR,
    material: 'steel-hr36',
    mounts: holes.map(h => h.id),
  };
  const taps = Array.from({ length: parts - 1 }, (_, i) =>
    hole(
      `tap-${i + 1}`,
      Math.round(front.x + ((rear.x - front.x) * (i + 1)) / parts),
      id,
      z - BAR.height,
      true,
    ),
  );
  const own = holes.map(
    (h, i): Joint => ({
      id: `${id}-bolt-${i + 1}`,
      mount: h.id,
      panels: [],
      fastener: { head: 'countersunk', thread: THREAD, class: '8.8', length: 'auto', finish: 'zinc' },
      nut: 'rivet-nut',
      washers: [],
      spacer: 0,
      headSide: 'below',
      lube: 'dry',
      torque: 'auto',
    }),
  );
  return { bar, holes, own, taps };
}
