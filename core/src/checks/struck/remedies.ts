import { LONGEST_SPACER } from '../../bolt';
import type { Facts } from '../../derive';
import type { FoldedPanel } from '../../fold';
import { contains, type Vec3 } from '../../geometry';
import {
  addCrossbar,
  addFlange,
  type Call,
  callOf,
  done,
  resheeted,
  type SheetChoice,
  setSheets,
} from '../../plan';
import type { Mount } from '../../rig';
import { equalStiffness, MATERIALS, type MaterialId, stockOf, stockThicknesses } from '../../sheet';
import type { StrikeAnswer } from '../../strike';
import type { Words } from '../finding';
import { HEARD_BELOW } from './ring';

/** A change that may help a struck plate, to be tried before it is taken. */
export interface StruckRemedy {
  readonly id: 'thicker' | 'other-sheet' | 'crossbar' | 'edge';
  readonly panel: string;
  readonly text: string;
  readonly mend: Call;
}

/** Bar that is offered: square tube 1½ × 1½ × ⅛ in. */
const BAR = { width: 38.1, height: 38.1, wall: 3.175 } as const;
/** An edge that is turned up: so long, so steep; bolts nearer to it than this are in its way, mm. */
const EDGE = { length: 40, angle: 60, clear: 35 } as const;
/** A bar may stand this far off the struck place along the vehicle, mm, and keeps this much from parts. */
const BESIDE = 160;
const ROOM = 6;

/** The other metal, as stiff: steel beside aluminum, aluminum beside all else. */
function otherSheet(p: FoldedPanel): Pick<SheetChoice, 'material' | 'thickness' | 'gauge'> | undefined {
  const material: MaterialId = p.material.family === 'aluminum' ? 'steel-hr36' : 'al-5052-h32';
  const least = equalStiffness(p.material, p.sheet.thickness, MATERIALS[material]);
  const t = stockThicknesses(material, stockOf(p.sheet.material, p.sheet.thickness)).find(
    s => s.thickness >= least * 0.98,
  );
  return t && { material, ...t };
}

/** A bar over the struck place, bolted up to holes on either side of the plate and lying on it; undefined where none fits. */
function barOver(facts: Facts, p: FoldedPanel, struck: StrikeAnswer): Call | undefined {
  const [x, y] = struck.at;
  const top = struck.at[2] + p.sheet.thickness;
  const near = facts.rig.mounts.filter(m => Math.abs(m.at[0] - x) <= BESIDE && m.condition !== 'blocked');
  const side = (sign: 1 | -1): Mount | undefined =>
    near
      .filter(m => sign * (m.at[1] - y) > 40)
      .sort((a, b) => sign * (a.at[1] - b.at[1]) + (Math.abs(a.at[0] - x) - Math.abs(b.at[0] - x)) * 2)[0];
  const [left, right] = [side(-1), side(1)];
  if (!left || !right) return undefined;
  // its lower face against the plate, its ends bolted up to the holes over it on whatever spacers that takes
  const z = top + BAR.height / 2;
  const least = Math.min(left.at[2], right.at[2]) - (z + BAR.height / 2);
  if (least < -0.25 || Math.max(left.at[2], right.at[2]) - (z + BAR.height / 2) > LONGEST_SPACER)
    return undefined;
  const from: Vec3 = [left.at[0], left.at[1], z];
  const to: Vec3 = [right.at[0], right.at[1], z];
  // nothing may stand where it would
  for (let i = 0; i <= 20; i++) {
    const at = [from[0] + ((to[0] - from[0]) * i) / 20, from[1] + ((to[1] - from[1]) * i) / 20] as const;
    const part = facts.rig.components.find(
      c => contains(c.footprint, at) && c.zTop > top && c.zBottom < top + BAR.height + ROOM,
    );
    if (part) return undefined;
  }
  const call = callOf(addCrossbar, {
    ends: [
      { hole: left, fresh: false },
      { hole: right, fresh: false },
    ],
    part: { name: 'crossbar over the plate', section: BAR },
    z,
  });
  return done(addCrossbar, facts.document, call.args).ok ? call : undefined;
}

/** Base edges without a flange and without a bolt, longest first. */
function freeEdges(facts: Facts, p: FoldedPanel): readonly { edge: number; length: number }[] {
  const { outline } = p.panel.base;
  const { origin } = p.panel.base;
  return outline
    .map((a, edge) => {
      const b = outline[(edge + 1) % outline.length] as readonly [number, number];
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const length = Math.hypot(dx, dy);
      const bolted = facts.joints.some(j => {
        if (!j.joint.panels.includes(p.panel.id)) return false;
        const [u, v] = [j.at[0] - origin[0] - a[0], j.at[1] - origin[1] - a[1]];
        const along = (u * dx + v * dy) / length;
        return along > -20 && along < length + 20 && Math.abs(u * dy - v * dx) / length < EDGE.clear;
      });
      return { edge, length, free: !bolted && !p.panel.flanges.some(f => f.edge === edge) };
    })
    .filter(e => e.free && e.length > 120)
    .sort((a, b) => b.length - a.length);
}

/** What may help a plate that was struck: thicker sheet, the other metal, a crossbar over it, an edge turned up. */
export function struckRemedies(facts: Facts, struck: StrikeAnswer, words: Words): readonly StruckRemedy[] {
  const p = facts.panels.find(x => x.panel.id === struck.panel);
  if (!p) return [];
  const panel = p.panel.id;
  const build = facts.build.id;
  const out: StruckRemedy[] = [];
  const sheet = (of: Pick<SheetChoice, 'material' | 'thickness' | 'gauge'>): Call =>
    callOf(setSheets, { build, sheets: { [panel]: resheeted(p.sheet, of) } });
  const { material, thickness } = p.sheet;
  const next = stockThicknesses(material, stockOf(material, thickness)).find(
    s => s.thickness > thickness * 1.05,
  );
  if (next)
    out.push({
      id: 'thicker',
      panel,
      text: `${next.gauge} of the same sheet`,
      mend: sheet({ material, ...next }),
    });
  const other = otherSheet(p);
  if (other)
    out.push({
      id: 'other-sheet',
      panel,
      text: `${other.gauge} ${MATERIALS[other.material].family}, as stiff`,
      mend: sheet(other),
    });
  const bar = barOver(facts, p, struck);
  if (bar)
    out.push({
      id: 'crossbar',
      panel,
      text: `a crossbar over it, ${words.length(BAR.width)} square tube between two mounts`,
      mend: bar,
    });
  const [edge] = freeEdges(facts, p);
  if (edge)
    out.push({
      id: 'edge',
      panel,
      text: `${words.length(EDGE.length)} flange on its free edge`,
      mend: callOf(addFlange, {
        panel,
        where: { edge: edge.edge },
        length: EDGE.length,
        angle: EDGE.angle,
        inset: [Math.min(20, edge.length / 8), Math.min(20, edge.length / 8)],
      }),
    });
  return out;
}

/** Changes smaller than these are none: mm of gap, share of the force, Hz of a plate that drums. */
const TELLS = { gap: 0.3, share: 0.02, ring: 2 } as const;

/** Gap that a strike leaves to a part; to the nearest unless one is named. */
export const gapTo = ({ gaps, gapMm }: StrikeAnswer, component?: string): number | undefined =>
  component === undefined ? gapMm : gaps.find(g => g.component === component)?.gapMm;

/**
 * Whether a change mends what was wrong: more gap to the part that is crowded, more of the force borne, a higher note where it
 * drums; and nothing of that worse.
 */
export function helps(before: StrikeAnswer, after: StrikeAnswer, component?: string): boolean {
  const [a, b] = [gapTo(before, component), gapTo(after, component)];
  const gap = a === undefined || b === undefined ? 0 : b - a;
  const share = after.reached - before.reached;
  const ring = before.ringHz < HEARD_BELOW ? after.ringHz - before.ringHz : 0;
  if (share < -TELLS.share || (gap < -TELLS.gap && share < TELLS.share)) return false;
  return gap > TELLS.gap || share > TELLS.share || ring > TELLS.ring;
}
