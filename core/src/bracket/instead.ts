import { drawnPanels } from '../bolt';
import type { Vec2, Vec3 } from '../geometry';
import { type Command, command, counted, inPlan, type PlanDocument, presentOf, stackedIn } from '../plan';
import { err, ok, type Result } from '../units';
import { addBracket, addTwin, boltOf, bracketAdded, plateFace, remakeBracket } from './commands';
import { addTopPlate } from './top-plate';

/** Places round a hole where a bracket may meet its plate, nearest first: so far off, mm, and in so many directions. */
const ASIDE = [55, 80, 110, 145] as const;
const WAYS = 8;
/** How far its hole keeps off the edges of its plates, in diameters: clear of bends too, then AISC 360-16 J3.4 (from memory) and a little. */
const OFF = [2.8, 1.6] as const;
const aside = ([x, y]: Vec3, far: number): readonly Vec2[] =>
  Array.from({ length: WAYS }, (_, w): Vec2 => {
    // across the vehicle first, along the overlap of two plates
    const turn = (2 * Math.PI * (w + WAYS / 4)) / WAYS;
    return [x + far * Math.cos(turn), y + far * Math.sin(turn)];
  });
/** Bolts of a plate keep so far from one another, in diameters of the bolt: common practice, no source. */
const APART = 4;

/** One bolt taken out of a plate, and a bracket from its hole in place of it: at the nearest place where one can be made. */
function hungInstead(doc: PlanDocument, id: string): Result<PlanDocument> {
  const joint = doc.plan.joints.find(j => j.id === id);
  const panel = joint && stackedIn(joint).at(-1);
  if (!joint?.mount || panel === undefined) return err(`bolt ${id} holds no plate to the vehicle`);
  const mount = presentOf(doc).mounts.find(m => m.id === joint.mount);
  if (!mount) return err(`there is no hole ${joint.mount} with these options`);
  const without = inPlan(doc, { joints: doc.plan.joints.filter(j => j !== joint) });
  const d = boltOf(joint.fastener.thread);
  const others = doc.plan.joints.flatMap((j): readonly Vec2[] => {
    const at = j.mount === undefined ? j.at : presentOf(doc).mounts.find(m => m.id === j.mount)?.at;
    return j !== joint && at && j.panels.includes(panel) ? [[at[0], at[1]]] : [];
  });
  const below = stackedIn(joint).slice(0, -1);
  const sheets = drawnPanels(doc).filter(p => joint.panels.includes(p.panel.id));
  let why = 'its plate is too small, or too full of bolts, for a bracket beside it';
  // first well off every edge and bend, then as near as a hole may be
  for (const off of OFF)
    for (const at of ASIDE.flatMap(far => aside(mount.at, far))) {
      if (others.some(o => Math.hypot(o[0] - at[0], o[1] - at[1]) < APART * d)) continue;
      if (!sheets.every(p => (plateFace(p, at)?.off ?? 0) >= off * d)) continue;
      const made = bracketAdded(without, { mount: mount.id, panel, at, below });
      if (made.ok) return ok(made.value.document);
      why = made.fault;
    }
  return err(why);
}

/** Bolts on tall spacers taken out, each hung by a bracket from its hole. */
export const hangInstead = command<{ readonly joints: readonly string[] }>({
  id: 'bracket.instead',
  label: (_, { joints }) => `hang ${counted(joints, 'bolt')} by brackets`,
  run: (doc, { joints }) => {
    let now = doc;
    for (const id of joints) {
      const made = hungInstead(now, id);
      if (!made.ok) return made;
      now = made.value;
    }
    return ok(now);
  },
});

/** What changes brackets. */
export const BRACKET_COMMANDS: readonly Command[] = [
  addBracket,
  addTwin,
  remakeBracket,
  hangInstead,
  addTopPlate,
];
