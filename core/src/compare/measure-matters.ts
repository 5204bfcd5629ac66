import { SEAT_TOLERANCE } from '../bolt';
import { gatherFacts } from '../derive';
import { done, type PlanDocument, takeMeasure } from '../plan';
import { MEASURES, type MeasureId, measuresOf, typicalMeasures } from '../rig';
import { MM_PER_INCH } from '../units';

/** A tape is misread, or a guess is off, by about this: an inch; on a scale 10 kg. */
export const OFF_BY = { mm: MM_PER_INCH, kg: 10 } as const;

/** How far the figures of a plan move when one measure of its vehicle is off by {@link OFF_BY}, whichever way is worse. */
export interface MeasureMatters {
  /** the clearance at rest that moves most, mm, and to which part; undefined where no part is above a plate */
  readonly gap?: { readonly mm: number; readonly to: string };
  /** lowest point above the ground, mm */
  readonly groundMm: number;
  readonly breakoverDeg: number;
  /** of what the plates protect, 0 to 1 */
  readonly covered: number;
  /** the greater change on an axle, kg */
  readonly axleKg: number;
  /** bolts that stand off the face they are bolted to where they stood on it */
  readonly bolts: number;
}

function figures(doc: PlanDocument) {
  const f = gatherFacts(doc);
  const gaps = new Map<string, number>();
  for (const g of f.gaps) {
    const part = f.rig.components.find(c => c.id === g.component);
    if (part && !part.moves) gaps.set(part.name, Math.min(g.gapMm, gaps.get(part.name) ?? g.gapMm));
  }
  return {
    gaps,
    groundMm: f.lowest.z,
    breakoverDeg: f.angles.breakoverDeg,
    covered: f.coverage.fraction,
    axleKg: f.weight.axles.frontKg,
    rearKg: f.weight.axles.rearKg,
    off: new Set(
      [...f.seats].flatMap(([id, s]) =>
        s.loose || s.gaps.some(g => Math.abs(g.mm) > SEAT_TOLERANCE) ? [id] : [],
      ),
    ),
  };
}

/**
 * What a measure of a vehicle matters to its plan: both ways are tried, plates staying where they are. Undefined where neither can be
 * (beyond what is plausible), or the vehicle was not begun from measures.
 */
export function measureMatters(doc: PlanDocument, id: MeasureId): MeasureMatters | undefined {
  const { rig } = doc;
  const measure = MEASURES.find(m => m.id === id);
  if (!rig.measures || !measure || !measuresOf(rig.body).includes(measure)) return undefined;
  const now = { ...typicalMeasures(rig.body), ...rig.measures }[id];
  const by = OFF_BY[measure.unit === 'kg' ? 'kg' : 'mm'];
  const tried = [now - by, now + by].flatMap(value => {
    const made = done(takeMeasure, doc, { measure: id, value, how: 'follow' });
    return made.ok ? [figures(made.value)] : [];
  });
  if (tried.length === 0) return undefined;
  const was = figures(doc);
  const most = (of: (f: ReturnType<typeof figures>) => number): number =>
    Math.max(...tried.map(t => Math.abs(of(t) - of(was))));
  const moved = [...was.gaps].map(([to, mm]) => ({
    to,
    mm: Math.max(...tried.map(t => Math.abs((t.gaps.get(to) ?? mm) - mm))),
  }));
  const gap = moved.sort((a, b) => b.mm - a.mm)[0];
  return {
    ...(gap ? { gap } : {}),
    groundMm: most(f => f.groundMm),
    breakoverDeg: most(f => f.breakoverDeg),
    covered: most(f => f.covered),
    axleKg: Math.max(
      most(f => f.axleKg),
      most(f => f.rearKg),
    ),
    bolts: Math.max(...tried.map(t => [...t.off].filter(j => !was.off.has(j)).length)),
  };
}
