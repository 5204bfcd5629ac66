import type { Vec2, Vec3 } from '../../../geometry';
import { ok } from '../../../units';
import type { Duty, Grain, Panel } from '../../plan';
import { inPlan, relettered, withPanel } from '../change';
import { command, plateNamed } from '../command';
import { lowered } from '../lowered';
import {
  cornerAdded,
  cornerMoved,
  cornerRemoved,
  edgeMoved,
  panelAdded,
  panelDuplicated,
  panelMirrored,
  panelMoved,
  panelSplit,
  panelsRemoved,
  type SplitLine,
} from '../panels';
import { baseSet, endsSet, grainSet } from '../pose';

/** Plates are told apart by their marks, which they keep. */
type OfPlate<A = unknown> = A & { readonly panel: string };

export const movePlate = command<OfPlate<{ readonly by: Vec3 }>>({
  id: 'plate.move',
  label: (doc, { panel }) => `move ${plateNamed(doc, panel)}`,
  run: (doc, { panel, by }) => (by.every(v => v === 0) ? doc : panelMoved(doc, panel, by)),
});

/** `to` in the plate's own sheet, mm. */
export const moveCorner = command<OfPlate<{ readonly corner: number; readonly to: Vec2 }>>({
  id: 'plate.corner.move',
  label: (doc, { panel }) => `move a corner of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, corner, to }) => cornerMoved(doc, panel, corner, to),
});

/** Outward by so much, mm. */
export const moveEdge = command<OfPlate<{ readonly edge: number; readonly by: number }>>({
  id: 'plate.edge.move',
  label: (doc, { panel }) => `move an edge of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, edge, by }) => edgeMoved(doc, panel, edge, by),
});

export const addCorner = command<OfPlate<{ readonly edge: number }>>({
  id: 'plate.corner.add',
  label: (doc, { panel }) => `add a corner to ${plateNamed(doc, panel)}`,
  run: (doc, { panel, edge }) => cornerAdded(doc, panel, edge),
});

export const removeCorner = command<OfPlate<{ readonly corner: number }>>({
  id: 'plate.corner.remove',
  label: (doc, { panel }) => `delete a corner of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, corner }) => cornerRemoved(doc, panel, corner),
});

/** Heights of the front and the rear end above ground, mm. */
export const setEnds = command<OfPlate<{ readonly front: number; readonly rear: number }>>({
  id: 'plate.ends',
  label: (doc, { panel }) => `set the height of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, front, rear }) => endsSet(doc, panel, front, rear),
});

/** Height of the base, mm, and its angles, degrees. */
export const setBase = command<OfPlate<{ readonly z?: number; readonly pitch?: number }>>({
  id: 'plate.base',
  label: (doc, { panel, pitch }) =>
    `set the ${pitch === undefined ? 'height' : 'pitch'} of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, ...part }) => baseSet(doc, panel, part),
});

/** Where a plate's base begins, mm, and its pitch, degrees, at once. */
export const layPlate = command<OfPlate<{ readonly origin: Vec3; readonly pitch: number }>>({
  id: 'plate.lay',
  label: (doc, { panel }) => `seat ${plateNamed(doc, panel)} on its bolts`,
  run: (doc, { panel, origin, pitch }) =>
    withPanel(doc, panel, p => ({ ...p, base: { ...p.base, origin, pitch } })),
});

/** Plates let down together, mm, their bolts on spacers. */
export const lowerPlates = command<{ readonly panels: readonly string[]; readonly by: number }>({
  id: 'plate.lower',
  label: (doc, { panels }) =>
    panels.length === 1 ? `lower ${plateNamed(doc, panels[0] ?? '')}` : `lower ${panels.length} plates`,
  run: (doc, { panels, by }) => lowered(doc, panels, by),
});

/** The rear plate lifted behind the front one, mm, which laps over it. */
export const lapPlate = command<{ readonly front: string; readonly rear: string; readonly lift: number }>({
  id: 'plate.lap',
  label: (doc, { front, rear }) => `lap ${plateNamed(doc, front)} over ${plateNamed(doc, rear)}`,
  run: (doc, { front, rear, lift }) => {
    const up = panelMoved(doc, rear, [0, 0, lift]);
    const outer = (ids: readonly string[]): readonly string[] =>
      ids.includes(rear) && ids.includes(front) ? [front, ...ids.filter(id => id !== front)] : ids;
    return inPlan(up, {
      seams: up.plan.seams.map(s => (s.front === front && s.rear === rear ? { ...s, outside: front } : s)),
      joints: up.plan.joints.map(j => ({ ...j, panels: outer(j.panels) })),
    });
  },
});

type NewPlate = Omit<Panel, 'id' | 'mark'>;
export const addPlates = command<{ readonly panels: readonly NewPlate[] }>({
  id: 'plate.add',
  label: (_, { panels }) => (panels.length === 1 ? 'add a plate' : `add ${panels.length} plates`),
  run: (doc, { panels }) => panels.reduce((d, p) => panelAdded(d, p).document, doc),
});

export const copyPlate = command<OfPlate>({
  id: 'plate.copy',
  label: (doc, { panel }) => `duplicate ${plateNamed(doc, panel)}`,
  run: (doc, { panel }) => panelDuplicated(doc, panel).document,
});

/** A copy on the other side of the vehicle. */
export const mirrorPlate = command<OfPlate>({
  id: 'plate.mirror',
  label: (doc, { panel }) => `mirror ${plateNamed(doc, panel)}`,
  run: (doc, { panel }) => panelMirrored(doc, panel, true).document,
});

export const removePlates = command<{ readonly panels: readonly string[] }>({
  id: 'plate.remove',
  label: (doc, { panels }) =>
    panels.length === 1 ? `delete ${plateNamed(doc, panels[0] ?? '')}` : `delete ${panels.length} plates`,
  run: (doc, { panels }) => panelsRemoved(doc, panels),
});

export const splitPlate = command<OfPlate<{ readonly line: SplitLine }>>({
  id: 'plate.split',
  label: (doc, { panel }) => `split ${plateNamed(doc, panel)}`,
  run: (doc, { panel, line }) => {
    const r = panelSplit(doc, panel, line);
    return r.ok ? ok(r.value.document) : r;
  },
});

/** Letters from front to rear, where plates came and went since they were given. */
export const reletterPlates = command<Record<string, never>>({
  id: 'plate.letter',
  label: () => 'letter the plates from front to rear',
  run: doc => relettered(doc),
});

export const renamePlate = command<OfPlate<{ readonly name: string }>>({
  id: 'plate.rename',
  label: (doc, { panel }) => `rename ${plateNamed(doc, panel)}`,
  run: (doc, { panel, name }) => withPanel(doc, panel, p => ({ ...p, name })),
});

/** Whether a plate guards a part. */
export const setGuard = command<OfPlate<{ readonly component: string; readonly on: boolean }>>({
  id: 'plate.guards',
  label: (doc, { panel }) => `change what ${plateNamed(doc, panel)} protects`,
  run: (doc, { panel, component, on }) =>
    withPanel(doc, panel, p => ({
      ...p,
      guards: [...p.guards.filter(g => g !== component), ...(on ? [component] : [])],
    })),
});

/** What else a plate is made for: to be jacked on, to be pulled by. */
export const setDuty = command<OfPlate<{ readonly duty: Duty; readonly on: boolean }>>({
  id: 'plate.duty',
  label: (doc, { panel }) => `change what ${plateNamed(doc, panel)} is made for`,
  run: (doc, { panel, duty, on }) =>
    withPanel(doc, panel, ({ meantFor = [], ...p }) => {
      const next = [...meantFor.filter(d => d !== duty), ...(on ? [duty] : [])];
      return next.length > 0 ? { ...p, meantFor: next } : p;
    }),
});

/** Etches on a plate which end is the front and which face is up. */
export const etchWay = command<OfPlate>({
  id: 'plate.etch',
  label: (doc, { panel }) => `etch the front on ${plateNamed(doc, panel)}`,
  run: (doc, { panel }) => withPanel(doc, panel, p => ({ ...p, wayUp: true })),
});

export const turnGrain = command<OfPlate<{ readonly grain: Grain }>>({
  id: 'plate.grain',
  label: (doc, { panel }) => `turn the grain of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, grain }) => grainSet(doc, panel, grain),
});
