import { makeBend } from '../fold';
import { distanceToSegment, frameOf, underGround, type Vec2 } from '../geometry';
import { freshId, type Opening, openingFault, type Panel, type SheetChoice } from '../plan';
import type { PresentRig, ServicePoint } from '../rig';
import { MATERIALS } from '../sheet';
import { listed } from '../units';
import { HOT, type Lane } from './lanes';

const KIND: Partial<Record<ServicePoint['kind'], Opening['kind']>> = {
  'oil-filter': 'door',
  'converter-view': 'view',
};
const SELDOM = new Set(['fuel-tank-straps', 'transfer-fill', 'differential-fill']);
/** Sheet between two openings, and between an opening and the middle of a bolt, mm: common practice, no source. */
const APART = 10;
const FROM_BOLT = 26;

/** Places for an opening about the point it serves, nearest first, mm: within what an arm makes up. */
const ASIDE: readonly Vec2[] = [0, 8, 16, 24].flatMap(r =>
  r === 0
    ? [[0, 0] as Vec2]
    : Array.from({ length: 8 }, (_, i): Vec2 => {
        const a = (i * Math.PI) / 4;
        return [r * Math.cos(a), r * Math.sin(a)];
      }),
);

/** Openings under service points, louvers under hot parts, holes for water and stones, all clear of bends, bolts and one another. */
export function openingsFor(
  rig: PresentRig,
  lane: Lane,
  { base, flanges }: Pick<Panel, 'base' | 'flanges'>,
  bolts: readonly Vec2[],
  sheet: SheetChoice,
): { openings: readonly Opening[]; reasons: string[] } {
  const frame = frameOf(base);
  const openings: Opening[] = [];
  const reasons: string[] = [];
  const radius = (o: Opening): number =>
    'circle' in o.shape ? o.shape.circle / 2 : 'rect' in o.shape ? Math.hypot(...o.shape.rect) / 2 : 0;
  const bent = flanges.flatMap(f =>
    typeof f.edge === 'number' && f.angle !== 0
      ? [
          {
            a: base.outline[f.edge] as Vec2,
            b: base.outline[(f.edge + 1) % base.outline.length] as Vec2,
            wanted:
              2 * sheet.thickness +
              makeBend(f.id, f.angle, sheet.thickness, MATERIALS[sheet.material]).insideRadius +
              2,
          },
        ]
      : [],
  );
  const clear = (o: Opening): boolean =>
    !openingFault(base.outline, o) &&
    openings.every(x => Math.hypot(x.at[0] - o.at[0], x.at[1] - o.at[1]) > radius(x) + radius(o) + APART) &&
    bolts.every(b => Math.hypot(b[0] - o.at[0], b[1] - o.at[1]) > radius(o) + FROM_BOLT) &&
    bent.every(e => distanceToSegment(o.at, e.a, e.b) > radius(o) + e.wanted);
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
    // straight under the point, or as far aside as a hand still gets at it
    const found = ASIDE.map(([u, v]): Opening => ({ ...opening, at: [at[0] + u, at[1] + v] })).find(clear);
    if (found) {
      openings.push(found);
      served.push(s.name);
    } else shut.push(s.name);
  }
  if (served.length > 0) reasons.push(`Opening under ${listed(served)}.`);
  if (shut.length > 0)
    reasons.push(
      `${listed(shut)} is too close to an edge, a bend or a bolt for an opening: the plate comes down for it.`,
    );
  for (const { component, box } of lane.parts) {
    if ((component.surfaceC ?? 0) < HOT) continue;
    const [x0, x1] = [Math.max(box.min[0], lane.front.x + 60), Math.min(box.max[0], lane.rear.x - 60)];
    if (x1 - x0 < 100) continue;
    const middle = (Math.max(box.min[1], lane.y[0]) + Math.min(box.max[1], lane.y[1])) / 2;
    let cut = 0;
    // as large as goes; smaller ones where bolts, bends or openings are near
    for (const share of [1, 0.7, 0.45]) {
      if (cut > 0) break;
      const width = Math.min(0.55 * (box.max[1] - box.min[1]), 90) * share;
      const pitch = Math.max(110, (x1 - x0) / 3) * share;
      for (let x = x0 + 45 * share; x <= x1 - 45 * share; x += pitch) {
        const opening: Opening = {
          id: freshId('louvers', openings),
          kind: 'louvers',
          at: underGround(frame, x, middle),
          shape: { rect: [60 * share, width] },
          openFraction: 0.3,
        };
        if (clear(opening)) {
          openings.push(opening);
          cut++;
        }
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
