import type { Words } from '../checks';
import { longestBend, makeBend, shopOf } from '../fold';
import { baseFrame, underGround, type Vec2 } from '../geometry';
import { freshId, type Joint, jointFor, type Panel, type PlanDocument, type Seam } from '../plan';
import { type Mount, memberName, type PresentRig } from '../rig';
import { MATERIALS, minimumRadius } from '../sheet';
import { listed } from '../units';
import { BAR, type BarAlong, barAlong } from './bars';
import { diameterOf, heldThere, holesFor } from './holes';
import type { Lane } from './lanes';
import { type Leveled, laps, leveled } from './levels';
import { openingsFor } from './openings';
import { heightOn } from './profile';
import { shapeOf } from './shape';
import type { Station } from './stations';
import { stiffened } from './stiffen';
import { type Announced, OVERLAP, type ProposedPlate, STEEPEST, type Wish } from './wish';

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

/** From the middle of a member to where its lip is bent, mm: past its edge, and far enough from the bolts. */
function lipOf(wish: Wish): (half: number) => number {
  const { thickness, material } = wish.sheet;
  const { insideRadius } = makeBend('lip', STEEPEST, thickness, MATERIALS[material]);
  const head = (insideRadius + thickness) * Math.tan((STEEPEST * Math.PI) / 360) + 13;
  // a neighbor that laps over the lip ends short of its bend
  const lap = OVERLAP / 2 + (insideRadius + thickness) * Math.tan((STEEPEST * Math.PI) / 360) + 3;
  return half => Math.max(half + 8, 2 * thickness + insideRadius + 8, head, lap);
}

/** Everything of a set before it is judged. */
export interface Layout {
  readonly plates: readonly ProposedPlate[];
  readonly seams: readonly Seam[];
  readonly prevented: readonly Announced[];
}

/** Plates laid on their lanes, with their holes, bolts, bars and seams. */
export function laidOut(
  doc: PlanDocument,
  rig: PresentRig,
  wish: Wish,
  lanes: readonly Lane[],
  stations: readonly Station[],
  words: Words,
): Layout {
  const t = wish.sheet.thickness;
  const named = (s: Station): string => memberName(rig, s.member.id);
  const folds = minimumRadius(MATERIALS[wish.sheet.material], t) !== undefined;
  const lip = lipOf(wish);
  const prevented: Announced[] = [];
  const barred = new Map<number, BarAlong>();
  const barIds: { readonly id: string }[] = [...doc.plan.crossbars];
  // first without bars; where a span is too long and a bar fits, again with the plate hung under it
  let levels = leveled(rig, lanes, t, lip, folds, new Map());
  const stiff = (l: Leveled): ReturnType<typeof stiffened> =>
    stiffened(
      rig,
      wish,
      l.lane,
      shapeOf(l.profile.points, l.lane.y),
      [lip(l.lane.front.half), lip(l.lane.rear.half)],
      longestBend(shopOf(doc.plan), MATERIALS[wish.sheet.material].ultimate, t),
      lanes,
      words,
    );
  levels.forEach((l, i) => {
    const { short } = stiff(l);
    if (!short) return;
    const parts = Math.ceil(short.spanMm / short.bearsMm);
    const bar = barAlong(
      rig,
      l.lane,
      freshId('bar', barIds),
      parts,
      [...barred.values()].flatMap(b => b.holes),
    );
    if (!bar) return;
    barIds.push({ id: bar.bar.id });
    barred.set(i, bar);
  });
  if (barred.size > 0) {
    const again = leveled(rig, lanes, t, lip, folds, new Map([...barred.keys()].map(i => [i, BAR.height])));
    // a bar that its plate does not come to lie against is no bar
    again.forEach((l, i) => {
      const ends = [l.profile.points[0], l.profile.points.at(-1)] as const;
      const flat =
        l.profile.points.length === 2 && ends[0] && ends[1] && Math.abs(ends[0][1] - ends[1][1]) < 0.01;
      if (barred.has(i) && !(flat && Math.abs(l.spacers[0] - BAR.height) < 0.01 && !l.outside))
        barred.delete(i);
    });
    levels = leveled(rig, lanes, t, lip, folds, new Map([...barred.keys()].map(i => [i, BAR.height])));
  }

  const made: Mount[] = [...barred.values()].flatMap(b => b.holes);
  const at = (s: Station): readonly Lane[] => lanes.filter(l => l.front === s || l.rear === s);
  const used = new Map<string, Mount>();
  const bars = new Set(made.map(m => m.id));
  for (const lane of lanes)
    for (const s of [lane.front, lane.rear]) {
      const holes = holesFor(
        s,
        lane,
        at(s),
        made.filter(m => !bars.has(m.id)),
      );
      for (const m of holes.made) if (!made.some(x => x.id === m.id)) made.push(m);
      for (const m of [...holes.mounts, ...holes.made]) used.set(m.id, m);
    }

  const ids: { readonly id: string }[] = [...doc.plan.panels];
  const panelIds = lanes.map(() => {
    const id = freshId('plate', ids);
    ids.push({ id });
    return id;
  });
  const takenJoints: { readonly id: string }[] = [...doc.plan.joints];
  const joints: Joint[] = [];
  const plastic = MATERIALS[wish.sheet.material].family === 'plastic';
  const joint = (mount: Mount, panels: readonly string[], spacer: number): Joint => {
    const id = freshId('j', takenJoints);
    takenJoints.push({ id });
    return { ...jointFor(id, mount, panels), spacer, washers: [plastic ? 'fender' : 'flat'] };
  };
  const upper = (i: number, x: number): number => heightOn((levels[i] as Leveled).profile.points, x) + t;
  for (const mount of used.values()) {
    const s = stations.find(x => x.member.id === mount.member);
    if (!s) continue;
    const held = heldThere(at(s), mount.at[1], diameterOf(mount)) ?? [];
    // outermost first: a plate that comes from the front lies outside at its rear end
    const order = held
      .map(l => lanes.indexOf(l))
      .sort((a, b) => Number(lanes[b]?.rear === s) - Number(lanes[a]?.rear === s));
    const innermost = order.at(-1);
    if (innermost === undefined) continue;
    const spacer = Math.max(0, mount.at[2] - upper(innermost, mount.at[0]));
    joints.push(
      joint(
        mount,
        order.map(k => panelIds[k] as string),
        Math.round(spacer * 1e4) / 1e4,
      ),
    );
  }
  for (const [i, b] of barred) for (const tap of b.taps) joints.push(joint(tap, [panelIds[i] as string], 0));

  const seams: Seam[] = [];
  lanes.forEach((a, i) =>
    lanes.forEach((b, k) => {
      const [front, rear] = [panelIds[i] as string, panelIds[k] as string];
      if (laps(a, b)) seams.push({ front, rear, overlap: OVERLAP, outside: front });
    }),
  );

  const plates = levels.map((l, i): ProposedPlate => {
    const id = panelIds[i] as string;
    const shape = shapeOf(l.profile.points, l.lane.y);
    const { flanges, reasons: folded, short } = stiff(l);
    const bar = barred.get(i);
    const frame = baseFrame(shape.base.origin, shape.base.pitch, 0);
    const mine = joints.filter(j => j.panels.includes(id));
    const own = bar ? [...bar.holes, ...bar.taps] : [];
    const holes = [...rig.mounts, ...made, ...own];
    const bolts = mine.flatMap((j): Vec2[] => {
      const m = holes.find(h => h.id === j.mount);
      return m ? [underGround(frame, m.at[0], m.at[1])] : [];
    });
    const { openings, reasons } = openingsFor(rig, l.lane, { ...shape, flanges }, bolts, wish.sheet);
    const panel: Panel = {
      id,
      mark: '?',
      name: nameFor(l.lane),
      base: shape.base,
      flanges,
      openings,
      guards: l.lane.parts.map(p => p.component.id),
    };
    if (l.profile.fault)
      prevented.push({
        about: [id],
        text: l.profile.fault.under
          ? `The ${panel.name} plate: ${l.profile.fault.under} is ${words.tape(l.profile.fault.longMm)} below the crossmember beside it, with no room for a ramp: the spacers would be too tall.`
          : `The ${panel.name} plate has to clear a low part or plate: it would need spacers of ${words.tape(l.profile.fault.longMm)}, too tall for a bolt.`,
      });
    if (short && !bar)
      prevented.push({
        about: [id],
        text: `The ${panel.name} plate spans ${words.tape(short.spanMm)}; the limit for this sheet is ${words.tape(short.bearsMm)}. Use thicker sheet, or add a crossbar.`,
      });
    const fresh = made.filter(m => mine.some(j => j.mount === m.id));
    const [z0, z1] = [l.profile.points[0]?.[1] ?? 0, l.profile.points.at(-1)?.[1] ?? 0];
    const low = Math.min(...l.profile.points.map(p => p[1]));
    const drop = Math.max(z0, z1) - low;
    const spacer = Math.max(0, ...mine.map(j => j.spacer));
    const parts = listed(l.lane.parts.map(p => p.component.name));
    return {
      panel,
      joints: [...mine, ...(bar?.own ?? [])],
      newMounts: [...fresh, ...own],
      crossbars: bar ? [bar.bar] : [],
      reasons: [
        `Runs from the ${named(l.lane.front)} to the ${named(l.lane.rear)} under ${parts}, so both ends bolt to a crossmember.`,
        ...(drop > 15
          ? [
              `Hangs ${words.tape(drop)} below the ${named(z0 >= z1 ? l.lane.front : l.lane.rear)} and ramps up to it: a part is lower than the crossmember.`,
            ]
          : []),
        ...(spacer > 0.5
          ? [`Spacers of up to ${words.tape(spacer)} go between it and the crossmembers.`]
          : []),
        ...(bar
          ? [
              `A ${words.fine(BAR.width)} × ${words.fine(BAR.height)} bar along it divides its span in ${bar.taps.length + 1}.`,
            ]
          : []),
        ...reasons,
        ...folded,
        ...(fresh.length > 0
          ? [`${fresh.length} new hole${fresh.length > 1 ? 's' : ''} to drill: no usable hole was close.`]
          : []),
      ],
    };
  });
  return { plates, seams, prevented };
}
