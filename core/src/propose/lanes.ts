import { MARGIN } from '../cover';
import { type Box, boxOf } from '../geometry';
import type { Component, PresentRig } from '../rig';
import type { Station } from './stations';

/** What one plate is to cover: parts beside each other between two stations. Lengths in mm. */
export interface Lane {
  readonly front: Station;
  readonly rear: Station;
  readonly parts: readonly { readonly component: Component; readonly box: Box }[];
  /** across the vehicle, from and to */
  readonly y: readonly [number, number];
}

export const HOT = 200;

/** Parts nearer than this side by side share a plate, mm, unless only one of them is hot. */
const BESIDE = 70;
/** Least width in which two bolts sit well, mm. */
const NARROWEST = 150;
const GAP = 6;
/** An empty bay shorter than this is bridged, mm. */
const SHORT = 330;

export const boxed = (components: readonly Component[]): Lane['parts'] =>
  components.map(component => ({ component, box: boxOf(component.footprint) }));

const isHot = (c: Component): boolean => (c.surfaceC ?? 0) >= HOT;

interface Cluster {
  parts: Lane['parts'][number][];
  y: [number, number];
}

/** Parts that belong under one plate: overlapping across, or near each other and alike in heat. */
function clustered(parts: Lane['parts']): Cluster[] {
  const out: Cluster[] = [];
  for (const p of [...parts].sort((a, b) => a.box.min[1] - b.box.min[1])) {
    const last = out.at(-1);
    const apart = last ? p.box.min[1] - last.y[1] : Number.POSITIVE_INFINITY;
    const alike = last ? last.parts.every(q => isHot(q.component) === isHot(p.component)) : false;
    if (last && (apart < 2 * GAP || (alike && apart < BESIDE))) {
      last.parts.push(p);
      last.y[1] = Math.max(last.y[1], p.box.max[1]);
    } else out.push({ parts: [p], y: [p.box.min[1], p.box.max[1]] });
  }
  return out;
}

/** Widens a cluster to where bolts are, no farther than its neighbors and the member allow. */
function widened(c: Cluster, left: number, right: number, front: Station, rear: Station): [number, number] {
  let [y0, y1] = [Math.max(left, c.y[0] - MARGIN), Math.min(right, c.y[1] + MARGIN)];
  for (const s of [front, rear]) {
    const ys = s.mounts.map(m => m.at[1]).filter(y => y > left + 18 && y < right - 18);
    const inside = ys.filter(y => y > y0 + 18 && y < y1 - 18);
    if (inside.length >= 2) continue;
    const near = ys
      .filter(y => y <= y0 + 18 || y >= y1 - 18)
      .sort(
        (a, b) => Math.min(Math.abs(a - y0), Math.abs(a - y1)) - Math.min(Math.abs(b - y0), Math.abs(b - y1)),
      );
    for (const y of near.slice(0, 2 - inside.length)) {
      // a hole far beyond the parts is left alone: a new one is drilled nearer
      if (y < y0 - 200 || y > y1 + 200) continue;
      y0 = Math.min(y0, y - 30);
      y1 = Math.max(y1, y + 30);
    }
  }
  if (y1 - y0 < NARROWEST) {
    const want = (NARROWEST - (y1 - y0)) / 2;
    y0 = Math.max(left, y0 - want);
    y1 = Math.min(right, y1 + want);
  }
  return [Math.round(y0), Math.round(y1)];
}

/** Lanes of each bay between neighboring stations, and the parts that no two stations hold. */
export function lanesOf(
  rig: PresentRig,
  stations: readonly Station[],
  wanted: readonly Component[],
): { readonly lanes: readonly Lane[]; readonly unheld: readonly Component[] } {
  const parts = boxed(wanted);
  const rails = rig.members
    .map(m => boxOf(m.footprint))
    .filter(b => b.max[0] - b.min[0] > 4 * (b.max[1] - b.min[1]))
    .flatMap(b => [b.min[1], b.max[1]]);
  const [outLeft, outRight] =
    rails.length > 0
      ? [Math.min(...rails), Math.max(...rails)]
      : [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  const lanes: Lane[] = [];
  const inBay = (front: Station, rear: Station): Lane['parts'] =>
    parts.filter(
      p => Math.min(p.box.max[0], rear.x) - Math.max(p.box.min[0], front.x) > (rear.x - front.x) * 0.02 + 10,
    );
  let bridged: Station | undefined;
  for (let i = 0; i + 1 < stations.length; i++) {
    const [near, rear] = [stations[i] as Station, stations[i + 1] as Station];
    const alone = inBay(near, rear);
    // a short empty bay between two plates would leave a gap to catch in: the rear plate begins a member earlier
    if (alone.length === 0) {
      bridged = lanes.at(-1)?.rear === near && rear.x - near.x < SHORT ? near : undefined;
      continue;
    }
    const front = bridged ?? near;
    bridged = undefined;
    const here = inBay(front, rear);
    const clusters = clustered(here);
    clusters.forEach((c, k) => {
      const before = clusters[k - 1];
      const after = clusters[k + 1];
      const memberLeft = Math.max(front.y[0], rear.y[0]) - 2;
      const memberRight = Math.min(front.y[1], rear.y[1]) + 2;
      // a part may reach past the crossmembers, as a tank beside the frame does, up to a hand beyond the rails
      const left = before
        ? (before.y[1] + c.y[0]) / 2 + GAP / 2
        : Math.max(outLeft - 120, Math.min(memberLeft, c.y[0] - MARGIN));
      const right = after
        ? (c.y[1] + after.y[0]) / 2 - GAP / 2
        : Math.min(outRight + 120, Math.max(memberRight, c.y[1] + MARGIN));
      lanes.push({ front, rear, parts: c.parts, y: widened(c, left, right, front, rear) });
    });
  }
  const first = stations[0]?.x ?? 0;
  const last = stations.at(-1)?.x ?? 0;
  const unheld = parts
    .filter(p => stations.length < 2 || p.box.max[0] < first || p.box.min[0] > last)
    .map(p => p.component);
  return { lanes, unheld };
}
