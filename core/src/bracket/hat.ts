import { holeToBend } from '../fold';
import {
  add3,
  cross3,
  dot3,
  length3,
  scale3,
  sub3,
  toDegrees,
  toRadians,
  turnsOf,
  unit3,
  type Vec2,
} from '../geometry';
import type { Flange } from '../plan';
import { MATERIALS, minimumRadius } from '../sheet';
import { err, ok, type Result, roundTo } from '../units';
import {
  type BracketChoices,
  type BracketMade,
  type BracketShape,
  EDGE,
  END,
  type Face,
  HEAD,
  SPARE,
  WIDEST,
} from './between';

/** Two holes are in one plane, and a plate is level with it, within so much: what a tape and a level read wrong, mm and degrees. */
const FLUSH = 0.5;
const LEVEL = 0.25;
const SQUARE = 90;

/**
 * A hat between two holes of the vehicle in one plane and a plate under (or over) them: a strip that lies on the plate in its middle, goes
 * up to both holes by square webs, and has a foot under each. It bears more than a Z from one hole and cannot turn about it. Lengths in mm,
 * places in the vehicle's frame. `to` is where the plate is bolted, on the strip's middle or near it.
 *
 * Faults say why none can be made. Source: plane geometry; distances from edges AISC 360-16 J3.4, from bends design guides for sheet metal.
 */
export function hatBetween(
  [a, b]: readonly [Face, Face],
  to: Face,
  choices: BracketChoices,
): Result<BracketMade> {
  const { sheet } = choices;
  const t = sheet.thickness;
  const material = MATERIALS[sheet.material];
  const least = minimumRadius(material, t);
  if (least === undefined) return err(`${material.name} cannot be bent`);
  const radius = choices.insideRadius ?? Math.max(least, t);
  if (radius < least - 1e-9) return err('the inside radius is under the least that this sheet takes');

  const n = unit3(to.normal);
  const apart = (v: Face['normal'], w: Face['normal']): number =>
    toDegrees(Math.acos(Math.min(1, Math.abs(dot3(unit3(v), unit3(w))))));
  if (apart(a.normal, b.normal) > LEVEL || Math.abs(dot3(sub3(b.at, a.at), unit3(a.normal))) > FLUSH)
    return err('the two holes are not in one plane: a hat would not lie flat on both');
  if (apart(a.normal, n) > LEVEL)
    return err('the plate is tilted against the face of the holes: a hat would not lie flat on it');
  const between = sub3(b.at, a.at);
  const flat = sub3(between, scale3(n, dot3(between, n)));
  if (length3(flat) < 1) return err('the two holes are over one another');
  const u = unit3(flat);
  const v = cross3(n, u);
  const along = (f: Face): number => dot3(sub3(f.at, to.at), u);
  const [ua, ub] = [along(a), along(b)];
  const [half, middle] = [(ub - ua) / 2, (ua + ub) / 2];

  const bend = (radius + t) * Math.tan(toRadians(SQUARE) / 2);
  const clear = ({ bolt, hole = 1.1 * bolt + (choices.play ?? 0) }: Face): number =>
    Math.max(EDGE * bolt, bend + HEAD * bolt, holeToBend(radius, t) + hole / 2) + SPARE;
  const foot = Math.max(clear(a), clear(b));
  const s = half - foot;
  if (s - Math.abs(middle) < clear(to))
    return err(
      `the two holes are ${Math.round(2 * half)} mm apart: too near each other for a hat with a bolt in its middle`,
    );
  // the feet lie with their upper side on the member
  const high = (dot3(sub3(a.at, to.at), n) + dot3(sub3(b.at, to.at), n)) / 2;
  const web = high - t;
  if (web < Math.max(2 * bend + 1, choices.leastFlange ?? 0))
    return err('the plate is too near the member for two bends between them');

  const width = choices.width ?? 2 * END * Math.max(a.bolt, b.bolt, to.bolt);
  const sides = [a, b].map(f => dot3(sub3(f.at, to.at), v));
  const [v0, v1] = [Math.min(0, ...sides) - width / 2, Math.max(0, ...sides) + width / 2];
  if (v1 - v0 > WIDEST) return err('its bolt in the plate is too far off the line from hole to hole');
  const leg = (id: string, edge: number, bolt: number): Flange => ({
    id: `web-${id}`,
    edge,
    length: roundTo(web, 6),
    angle: SQUARE,
    insideRadius: radius,
    flanges: [
      {
        id: `foot-${id}`,
        edge: 'far',
        length: roundTo(foot + END * bolt, 6),
        angle: -SQUARE,
        insideRadius: radius,
      },
    ],
  });
  const shape: BracketShape = {
    base: {
      origin: add3(to.at, scale3(u, middle)).map(c => roundTo(c, 6)) as unknown as Face['at'],
      ...turnsOf(u, v),
      outline: (
        [
          [-s, v0],
          [s, v0],
          [s, v1],
          [-s, v1],
        ] as const
      ).map(([x, y]): Vec2 => [roundTo(x, 6), roundTo(y, 6)]),
    },
    flanges: [leg('2', 1, b.bolt), leg('1', 3, a.bolt)],
  };
  const blocked = choices.blocked?.(shape);
  if (blocked !== undefined) return err(blocked);
  return ok({
    family: 'hat',
    shape,
    widthMm: width,
    ...(choices.play
      ? {
          slots: [
            { length: Math.max(a.bolt, b.bolt) + 1 + choices.play, along: 0 },
            { length: to.bolt + 1 + choices.play, along: SQUARE },
          ] as const,
        }
      : {}),
  });
}
