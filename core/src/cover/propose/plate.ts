import { baseFrame, boxOf, heightAt, toDegrees, underGround, type Vec2 } from '../../geometry';
import {
  type Flange,
  freshId,
  type Joint,
  jointFor,
  type Opening,
  openingFault,
  type Panel,
} from '../../plan';
import type { Mount, PresentRig, ServicePoint } from '../../rig';
import { MATERIALS, minimumRadius } from '../../sheet';
import { type Run, rampAngle } from './heights';
import { HOT, type Lane } from './lanes';
import { longestSpan, SIDE, SIDE_HEIGHT } from './span';
import type { Station } from './stations';
import { OVERLAP, type ProposedPlate, ROOM, type Wish } from './wish';

const NAMES: Readonly<Record<string, string>> = {
  engine: 'engine',
  transmission: 'transmission',
  'transfer-case': 'transfer case',
  'fuel-tank': 'fuel tank',
  'catalytic-converter': 'converter shield',
  exhaust: 'exhaust shield',
  'front-differential': 'front differential',
  'rear-differential': 'rear differential',
};

const nameFor = (lane: Lane): string => {
  const under = (p: Lane['parts'][number]): number =>
    Math.min(p.box.max[0], lane.rear.x) - Math.max(p.box.min[0], lane.front.x);
  const parts = [...lane.parts].sort((a, b) => under(b) - under(a));
  const most = parts[0] ? under(parts[0]) : 0;
  const kinds = [...new Set(parts.filter(p => under(p) > 0.3 * most).map(p => p.component.kind))];
  return kinds
    .slice(0, 2)
    .map(k => NAMES[k] ?? k.replace('-', ' '))
    .join(' and ');
};

const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** Base and end flanges of a run, in the vehicle's own y (the base's origin lies on the centre line). */
function shapeOf(lane: Lane, run: Run): Pick<Panel, 'base' | 'flanges'> {
  const lip = OVERLAP / 2;
  const [y0, y1] = lane.y;
  const { front, rear } = lane;
  if (!run.belly) {
    const length = rear.x - front.x;
    const pitch = toDegrees(Math.atan2(run.frontZ - run.rearZ, length));
    const along = Math.hypot(length, run.frontZ - run.rearZ) / length;
    const slope = (run.frontZ - run.rearZ) / length;
    return {
      base: {
        origin: [front.x - lip, 0, run.frontZ + lip * slope],
        pitch: Math.abs(pitch) < 1e-9 ? 0 : pitch,
        roll: 0,
        outline: [
          [0, y0],
          [(length + OVERLAP) * along, y0],
          [(length + OVERLAP) * along, y1],
          [0, y1],
        ],
      },
      flanges: [],
    };
  }
  const { z, from, to } = run.belly;
  const ramp = (id: string, edge: number, drop: number, reach: number, end: number): Flange => {
    const angle = rampAngle(drop, reach);
    return {
      id: `${id}-ramp`,
      edge,
      length: Math.hypot(drop, reach),
      angle,
      flanges: [{ id: `${id}-lip`, edge: 'far', length: end, angle: -angle }],
    };
  };
  const frontEnd = front.x + front.half + 8;
  const rearEnd = rear.x - rear.half - 8;
  return {
    base: {
      origin: [from, 0, z],
      pitch: 0,
      roll: 0,
      outline: [
        [0, y0],
        [to - from, y0],
        [to - from, y1],
        [0, y1],
      ],
    },
    flanges: [
      ...(run.frontRamp
        ? [ramp('front', 3, run.frontRamp, from - frontEnd, frontEnd - (front.x - lip))]
        : []),
      ...(run.rearRamp ? [ramp('rear', 1, run.rearRamp, rearEnd - to, rear.x + lip - rearEnd)] : []),
    ],
  };
}

/** Turned-up sides where the span is too long for the flat sheet and nothing stands in their way. */
function stiffened(
  rig: PresentRig,
  wish: Wish,
  lane: Lane,
  shape: Pick<Panel, 'base' | 'flanges'>,
): { flanges: readonly Flange[]; reasons: string[]; long?: string } {
  const span = lane.rear.x - lane.front.x;
  const width = lane.y[1] - lane.y[0];
  const flat = longestSpan(wish.sheet, rig.rig, width, []);
  if (span <= flat) return { flanges: shape.flanges, reasons: [] };
  if (minimumRadius(MATERIALS[wish.sheet.material], wish.sheet.thickness) === undefined)
    return {
      flanges: shape.flanges,
      reasons: [],
      long: `spans ${Math.round(span)} mm, by the span rule it bears ${Math.round(flat)} mm, and this sheet cannot be folded: a crossbar`,
    };
  const frame = baseFrame(shape.base.origin, shape.base.pitch, 0);
  const [x0, x1] = [lane.front.x + lane.front.half + 14, lane.rear.x - lane.rear.half - 14];
  const us = shape.base.outline.map(p => p[0]);
  const uAt = (x: number): number => underGround(frame, x, 0)[0];
  const insetFront = Math.max(12, uAt(x0) - Math.min(...us));
  const insetRear = Math.max(12, Math.max(...us) - uAt(x1));
  const reach = SIDE.length;
  const free = (y: number, out: number): boolean =>
    [...rig.components, ...rig.members.map(m => ({ ...m, keepOut: 0 }))].every(c => {
      const b = boxOf(c.footprint);
      const [lo, hi] = [Math.min(y, y + out), Math.max(y, y + out)];
      const beside = b.min[0] < x1 && b.max[0] > x0 && b.min[1] < hi + 4 && b.max[1] > lo - 4;
      const top = Math.max(heightAt(frame, x0, 0), heightAt(frame, x1, 0)) + reach + ROOM;
      return !beside || c.zBottom - c.keepOut > top;
    });
  const room = Math.max(...us) - Math.min(...us) - insetFront - insetRear;
  const sides = (
    [
      [0, lane.y[0], -12, [insetFront, insetRear]],
      [2, lane.y[1], 12, [insetRear, insetFront]],
    ] as const
  ).filter(([, y, out]) => room > 80 && free(y, out));
  const stiff = longestSpan(
    wish.sheet,
    rig.rig,
    width,
    sides.map(() => SIDE_HEIGHT),
  );
  const flanges = [
    ...shape.flanges,
    ...sides.map(
      ([edge, , , inset], i): Flange => ({
        id: `side-${i + 1}`,
        edge,
        length: SIDE.length,
        angle: SIDE.angle,
        inset,
      }),
    ),
  ];
  const which = sides.length === 2 ? 'Both sides are' : 'One side is';
  return {
    flanges: sides.length > 0 ? flanges : shape.flanges,
    reasons:
      sides.length > 0
        ? [
            `${which} turned up: the span of ${Math.round(span)} mm is more than the ${Math.round(flat)} mm that flat sheet bears by the span rule.`,
          ]
        : [],
    long:
      span > stiff
        ? `spans ${Math.round(span)} mm; by the span rule it bears ${Math.round(stiff)} mm: thicker sheet or a crossbar`
        : undefined,
  };
}

const KIND: Partial<Record<ServicePoint['kind'], Opening['kind']>> = {
  'oil-filter': 'door',
  'converter-view': 'view',
};
const SELDOM = new Set(['fuel-tank-straps', 'transfer-fill', 'differential-fill']);

/** Openings under service points, louvers under hot parts, holes for water and stones, all clear of one another. */
function openingsFor(
  rig: PresentRig,
  lane: Lane,
  base: Panel['base'],
  bolts: readonly Vec2[],
): { openings: readonly Opening[]; reasons: string[] } {
  const frame = baseFrame(base.origin, base.pitch, base.roll);
  const openings: Opening[] = [];
  const reasons: string[] = [];
  const radius = (o: Opening): number =>
    'circle' in o.shape ? o.shape.circle / 2 : 'rect' in o.shape ? Math.hypot(...o.shape.rect) / 2 : 0;
  const clear = (o: Opening): boolean =>
    !openingFault(base.outline, o) &&
    openings.every(x => Math.hypot(x.at[0] - o.at[0], x.at[1] - o.at[1]) > radius(x) + radius(o) + 10) &&
    bolts.every(b => Math.hypot(b[0] - o.at[0], b[1] - o.at[1]) > radius(o) + 22);
  const served: string[] = [];
  const shut: string[] = [];
  for (const s of rig.servicePoints) {
    if (SELDOM.has(s.kind)) continue;
    const at = underGround(frame, s.at[0], s.at[1]);
    const [y0, y1] = lane.y;
    if (s.at[0] < lane.front.x || s.at[0] > lane.rear.x || s.at[1] < y0 || s.at[1] > y1) continue;
    const kind = KIND[s.kind] ?? 'drain';
    const size = s.opening + (kind === 'door' ? 10 : 5);
    const opening: Opening = {
      id: freshId(kind, openings),
      kind,
      at,
      shape: kind === 'door' ? { rect: [size, size] } : { circle: size },
      serves: s.id,
    };
    if (clear(opening)) {
      openings.push(opening);
      served.push(s.name);
    } else shut.push(s.name);
  }
  if (served.length > 0) reasons.push(`Opened under ${list(served)}.`);
  if (shut.length > 0)
    reasons.push(
      `${list(shut)} lies too near an edge or a bolt for an opening: the plate comes down for it.`,
    );
  for (const { component, box } of lane.parts) {
    if ((component.surfaceC ?? 0) < HOT) continue;
    const [x0, x1] = [Math.max(box.min[0], lane.front.x + 60), Math.min(box.max[0], lane.rear.x - 60)];
    if (x1 - x0 < 100) continue;
    const width = Math.min(0.55 * (box.max[1] - box.min[1]), 90);
    const pitch = Math.max(110, (x1 - x0) / 3);
    let cut = 0;
    for (let x = x0 + 45; x <= x1 - 45; x += pitch) {
      const opening: Opening = {
        id: freshId('louvers', openings),
        kind: 'louvers',
        at: underGround(frame, x, (box.min[1] + box.max[1]) / 2),
        shape: { rect: [60, width] },
        openFraction: 0.3,
      };
      if (clear(opening)) {
        openings.push(opening);
        cut++;
      }
    }
    if (cut > 0) reasons.push(`Louvers let the heat of ${component.name} out.`);
  }
  const us = base.outline.map(p => p[0]);
  const vs = base.outline.map(p => p[1]);
  const low = base.pitch > 0.2 ? 0.88 : base.pitch < -0.2 ? 0.12 : 0.5;
  const spots = [0.5, 0.3, 0.7, 0.15, 0.85].flatMap(fv =>
    [low, 0.35, 0.65, 0.2, 0.8].map(fu => [fu, fv] as const),
  );
  for (const [fu, fv] of spots) {
    const at: Vec2 = [
      Math.min(...us) + fu * (Math.max(...us) - Math.min(...us)),
      Math.min(...vs) + fv * (Math.max(...vs) - Math.min(...vs)),
    ];
    const stone: Opening = { id: freshId('stones', openings), kind: 'stones', at, shape: { circle: 22 } };
    if (!clear(stone)) continue;
    openings.push(stone);
    break;
  }
  return { openings, reasons };
}

/** Nearest two bolts of a plate sit side by side, mm: common practice, room for two sockets. */
const BOLT_APART = 45;

/** Holes of a station that a lane uses: the outermost two, one in the middle of a wide plate, new ones where needed. */
export function holesFor(
  s: Station,
  lane: Lane,
  taken: readonly Mount[],
): { mounts: readonly Mount[]; made: readonly Mount[] } {
  const [y0, y1] = lane.y;
  const usable = [...s.mounts, ...taken.filter(m => m.member === s.member.id)]
    .filter(m => m.at[1] >= y0 + 18 && m.at[1] <= y1 - 18 && Math.abs(m.at[0] - s.x) < s.half + 8)
    .sort((a, b) => a.at[1] - b.at[1]);
  const made: Mount[] = [];
  const [from, to] = [Math.max(y0 + 30, s.y[0] + 20), Math.min(y1 - 30, s.y[1] - 20)];
  const drill = (y: number): Mount => ({
    id: `${s.member.id}-new-${Math.round(y)}`,
    member: s.member.id,
    at: [s.x, Math.round(y), s.zBottom],
    hole: { kind: 'drill' },
    condition: 'good',
    nutReach: 'none',
  });
  const [first, last] = [usable[0], usable.at(-1)];
  if (!first || !last || first === last || last.at[1] - first.at[1] < 60) {
    const only = first?.at[1];
    const ends = to - from < 60 ? [(from + to) / 2] : [from, to];
    const apart = (y: number): number => (only === undefined ? BOLT_APART : Math.abs(y - only));
    const far = ends.filter(y => apart(y) >= BOLT_APART);
    for (const y of far.length > 0 ? far : ends.sort((a, b) => apart(b) - apart(a)).slice(0, 1))
      if (apart(y) > 24) made.push(drill(y));
    return { mounts: first ? [first] : [], made };
  }
  const middle =
    last.at[1] - first.at[1] > 450
      ? usable
          .filter(m => m !== first && m !== last)
          .sort((a, b) => Math.abs(a.at[1]) - Math.abs(b.at[1]))
          .slice(0, 2)
      : [];
  return { mounts: [first, ...middle, last].sort((a, b) => a.at[1] - b.at[1]), made };
}

/** One plate with its openings and reasons; joints are laid by the caller, who knows the neighbours. */
export function plateOf(
  rig: PresentRig,
  wish: Wish,
  lane: Lane,
  run: Run,
  id: string,
  bolts: readonly Mount[],
): { plate: Omit<ProposedPlate, 'joints' | 'newMounts'>; long?: string } {
  const shape = shapeOf(lane, run);
  const frame = baseFrame(shape.base.origin, shape.base.pitch, 0);
  const spots = bolts.map((m): Vec2 => underGround(frame, m.at[0], m.at[1]));
  const { openings, reasons } = openingsFor(rig, lane, shape.base, spots);
  const { flanges, reasons: stiff, long } = stiffened(rig, wish, lane, shape);
  const guards = lane.parts.map(p => p.component.id);
  const parts = list(lane.parts.map(p => p.component.name));
  const spacer = Math.max(run.frontSpacer, run.rearSpacer);
  return {
    long,
    plate: {
      panel: { id, mark: '?', name: nameFor(lane), base: shape.base, flanges, openings, guards },
      reasons: [
        `Runs from ${lane.front.member.id} to ${lane.rear.member.id} under ${parts}, so that both ends are bolted to a member.`,
        ...(run.frontRamp || run.rearRamp
          ? [
              `Hangs ${Math.round(Math.max(run.frontRamp, run.rearRamp))} mm below ${run.frontRamp >= run.rearRamp ? lane.front.member.id : lane.rear.member.id} and ramps up to it: a part reaches lower than the member.`,
            ]
          : []),
        ...(spacer > 0 ? [`Spacers of ${Math.round(spacer)} mm keep it clear of what hangs above.`] : []),
        ...reasons,
        ...stiff,
      ],
    },
  };
}

/** The joint of a proposed plate at a hole: as usual for it, with the spacer and, for plastic, the wide washer. */
export function proposedJoint(
  id: string,
  mount: Mount,
  panels: readonly string[],
  spacer: number,
  plastic: boolean,
): Joint {
  return {
    ...jointFor(id, mount, panels),
    spacer,
    washers: [plastic ? 'fender' : 'flat'],
  };
}
