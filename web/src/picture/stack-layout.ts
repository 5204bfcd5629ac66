import {
  BAND,
  type JointSeat,
  type Layer,
  type NutElement,
  outwardOf,
  type ResolvedJoint,
  SEAT_TOLERANCE,
  strapOver,
} from '@plate-fold/core/bolt';

/** One drawn part of a stack: where it begins and ends along the bolt, mm from under the head. */
export interface DrawnLayer {
  readonly layer: Layer;
  readonly from: number;
  readonly to: number;
}

export interface StackLayout {
  readonly parts: readonly DrawnLayer[];
  /** faces that should meet and do not: from where to where, and by how much, mm */
  readonly gaps: readonly { readonly from: number; readonly to: number; readonly mm: number }[];
  /** under-head place of the bolt itself and where it ends */
  readonly bolt: { readonly from: number; readonly to: number };
  readonly start: number;
  readonly end: number;
  /** half-width of the drawn sheet, mm */
  readonly reach: number;
}

const SUNK = new Set(['countersunk']);
/** Nut elements that sit in the wall itself, not behind it. */
const IN_WALL = new Set<NutElement>(['rivet-nut', 'threaded', 'clinch']);

/** A clamp goes round a tube behind the stack, instead of sitting on a wall. */
/** Across the tube that a clamp goes round, mm. */
export const tubeOf = (j: ResolvedJoint): number =>
  j.member ? strapOver(j.member, j.thread, outwardOf(j.mount)).overMm : BAND.tube;
export const isRoundTube = (j: ResolvedJoint): boolean => j.nut?.kind === 'tube-clamp';
/** A strap over an axle tube holds by two legs beside it: its drawing is another one. */
export const isStrap = (j: ResolvedJoint): boolean => j.nut?.kind === 'axle-strap' && j.member !== undefined;

export const isSunk = (j: ResolvedJoint): boolean => SUNK.has(j.joint.fastener.head);
/** Its spacer is a post that has the thread, with a stud into the hole. */
export const isPost = (j: ResolvedJoint): boolean => j.nut?.kind === 'post';
export const isTapped = (j: ResolvedJoint): boolean => j.nut?.kind === 'threaded' || !j.nut;
export const nutIsDrawn = (j: ResolvedJoint): boolean =>
  j.nut !== undefined && j.nut.kind !== 'threaded' && !isPost(j) && !isRoundTube(j);

/**
 * Lays a stack out along its bolt: from the head through the layers to the nut, tight or pulled apart by `apart` mm.
 * Tight, what lies apart in the vehicle lies apart here, as `seat` tells. A countersunk head lies within the first sheet; a nut that sits in the wall begins where the wall begins.
 */
export function layOutStack(j: ResolvedJoint, apart = 0, seat?: JointSeat): StackLayout {
  const [head, ...rest] = j.layers;
  const height = head?.thickness ?? 0;
  const sunk = isSunk(j);
  // pulled apart, the bolt stands clear in front of everything it goes through
  const front = apart > 0 ? -j.lengthMm - apart : 0;
  const parts: DrawnLayer[] = [];
  if (head)
    parts.push({ layer: head, from: sunk ? front : front - height, to: sunk ? front + height : front });
  const gaps: StackLayout['gaps'][number][] = [];
  let at = 0;
  let wall: DrawnLayer | undefined;
  for (const layer of rest) {
    if (layer.kind === 'nut' && !nutIsDrawn(j)) continue;
    // a clamp's tube is drawn round, not as a wall
    if (layer.kind === 'member' && isRoundTube(j)) continue;
    const gap =
      apart === 0
        ? seat?.gaps.find(g => g.plate === layer.ref && (layer.kind === 'plate' || layer.kind === 'bar'))
        : undefined;
    const told = gap && Math.abs(gap.mm) > SEAT_TOLERANCE ? gap.mm : 0;
    // a top plate that is off its member is so on its near side
    const first = j.joint.headSide === 'above' || gap?.top === true;
    if (first && told !== 0) {
      gaps.push({ from: at, to: at + told, mm: told });
      at += told;
    }
    const inWall = layer.kind === 'nut' && j.nut !== undefined && IN_WALL.has(j.nut.kind) && apart === 0;
    const from = inWall && wall ? wall.from : at;
    const part = { layer, from, to: from + layer.thickness };
    parts.push(part);
    if (layer.kind === 'member') wall = part;
    at = (told < 0 ? part.to : Math.max(at, part.to)) + apart;
    if (!first && told !== 0) {
      gaps.push({ from: at, to: at + told, mm: told });
      at += told;
    }
  }
  const tip = front + j.lengthMm;
  return {
    parts,
    gaps,
    bolt: { from: front, to: tip },
    start: Math.min(front - (sunk ? 0 : height), 0),
    end: Math.max(at - apart, tip) + (isRoundTube(j) ? tubeOf(j) + 2 * BAND.thickness : 0),
    reach: Math.max(
      isRoundTube(j) ? 0.7 * tubeOf(j) + 10 : 26,
      1.25 * Math.max(...j.layers.map(l => l.diameter)),
      2.4 * j.thread.d,
    ),
  };
}

/**
 * Moves label heights apart to at least `least` px, keeping their order; a crowd spreads evenly about its middle and
 * stays between `top` and `bottom`.
 */
export function spreadLabels(
  wanted: readonly number[],
  least: number,
  top: number,
  bottom: number,
): number[] {
  const order = wanted.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y);
  // runs of labels that touch, each placed about the mean of what its members want
  const runs: { ys: number[]; at: number }[] = [];
  const place = (ys: readonly number[]): number => {
    const middle = ys.reduce((s, y) => s + y, 0) / ys.length;
    const span = (ys.length - 1) * least;
    return Math.max(top, Math.min(bottom - span, middle - span / 2));
  };
  for (const { y } of order) {
    let run = { ys: [y], at: place([y]) };
    for (;;) {
      const above = runs.at(-1);
      if (!above || above.at + above.ys.length * least <= run.at) break;
      runs.pop();
      const ys = [...above.ys, ...run.ys];
      run = { ys, at: place(ys) };
    }
    runs.push(run);
  }
  const placed = runs.flatMap(r => r.ys.map((_, i) => r.at + i * least));
  const out = [...wanted];
  order.forEach((o, i) => {
    out[o.i] = placed[i] ?? o.y;
  });
  return out;
}
