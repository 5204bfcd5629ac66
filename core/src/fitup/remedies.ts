import type { Assembly } from '../derive';
import { assemble } from '../derive';
import { add3, dot3, scale3, toDegrees } from '../geometry';
import { type Call, callOf, changeJoints, done, type Joint } from '../plan';
import { chanceOfAll, type Fit, type Known } from './chance';
import type { BoltIn } from './play';

export const REMEDIES = ['slot', 'larger', 'drill-on-fit', 'measure'] as const;
/** One thing tried out, and the chance that the whole plan bolts up with it. */
export interface FitRemedy {
  readonly joint: string;
  readonly what: (typeof REMEDIES)[number];
  /** how much longer the slot, wider the hole, or how well measured, mm */
  readonly mm?: number;
  readonly chance: number;
  /** the change that does it; nothing where it is done with a tape */
  readonly mend?: Call;
}

/** So many bolts that refuse most are looked at. */
const LOOKED = 3;
/** Trials of a remedy: enough to tell it from another. */
const TRIALS = 500;
/** A slot is so much longer than wide, mm; a hole known well is known to this. Common practice, no source. */
export const SLOT = 6;
export const KNOWN = 0.4;

/** Every hole of the vehicle that is known less well taken to be known to `KNOWN`, by joint. */
export const measuredFirst = ({ bolts }: Fit['model']): Known =>
  new Map(
    bolts.flatMap(b => (b.mount && Math.max(...b.mount.sigma) > KNOWN ? [[b.joint.id, KNOWN] as const] : [])),
  );

/**
 * The chance if every hole of the vehicle that is known less well were known to `KNOWN`, as from a survey or a template; undefined where all
 * are.
 */
export function ifMeasured(
  of: Assembly,
  fit: Fit,
  trials = Math.min(TRIALS, fit.trials),
): number | undefined {
  const known = measuredFirst(fit.model);
  return known.size === 0 ? undefined : chanceOfAll(of, trials, known);
}

/** The way that a bolt's holes lie apart most, in its plane. */
function wayOf(cloud: readonly (readonly [number, number])[]): readonly [number, number] {
  const [xx, xy, yy] = cloud.reduce(([a, b, c], [x, y]) => [a + x * x, b + x * y, c + y * y], [0, 0, 0]) as [
    number,
    number,
    number,
  ];
  const turn = 0.5 * Math.atan2(2 * xy, xx - yy);
  return [Math.cos(turn), Math.sin(turn)];
}

/** What may be changed about a bolt's holes in its plates, each as a change of its joint; `cloud` is how its holes may lie apart. */
export function changesOf(
  of: Assembly,
  bolt: BoltIn,
  cloud: readonly (readonly [number, number])[],
): readonly {
  readonly what: Exclude<FitRemedy['what'], 'measure'>;
  readonly mm?: number;
  readonly part: Partial<Joint>;
}[] {
  const { joint, thread } = bolt.joint;
  const plates = joint.panels.filter(id => id !== joint.threadIn);
  const [x, y] = wayOf(cloud);
  const way = add3(scale3(bolt.e1, x), scale3(bolt.e2, y));
  const now = thread.clearances[joint.fit ?? 'normal'];
  const wider = thread.clearances.loose - now;
  const slots = Object.fromEntries(
    plates.flatMap(id => {
      const base = of.panels.find(p => p.panel.id === id)?.facets[0]?.frame;
      if (!base) return [];
      const along = Math.round(toDegrees(Math.atan2(dot3(way, base.v), dot3(way, base.u))));
      return [[id, { length: now + SLOT, along: (along + 360) % 180 }]];
    }),
  );
  // a slot and a large hole want a washer that covers them
  const washers: Joint['washers'] = joint.washers.includes('fender')
    ? joint.washers
    : ['fender', ...joint.washers.filter(w => w !== 'flat')];
  return [
    { what: 'slot' as const, mm: SLOT, part: { slots: { ...joint.slots, ...slots }, washers } },
    ...(wider > 0.05
      ? [{ what: 'larger' as const, mm: wider, part: { fit: 'loose' as const, washers } }]
      : []),
    // marked from the vehicle's hole, which is there, onto the one plate that lies on it
    ...(bolt.mount && plates.length === 1
      ? [{ what: 'drill-on-fit' as const, part: { cut: 'none' as const } }]
      : []),
  ];
}

/**
 * Remedies tried out on the bolts that refuse most, what brings most first: a slot the way its holes lie apart, a larger hole, drilled when
 * the plate hangs, or its hole measured better. Each is the plan after it, put together and tried anew. Nothing where all start anyway.
 */
export function remediesOf(
  of: Assembly,
  fit: Fit,
  trials = Math.min(TRIALS, fit.trials),
): readonly FitRemedy[] {
  const worst = [...fit.joints]
    .filter(j => j.refuses > 0)
    .sort((a, b) => b.refuses - a.refuses)
    .slice(0, LOOKED);
  return worst
    .flatMap(({ id }): readonly FitRemedy[] => {
      const bolt = fit.model.bolts.find(b => b.joint.id === id);
      if (!bolt) return [];
      const changes = changesOf(of, bolt, fit.clouds.get(id) ?? []).flatMap(
        ({ what, mm, part }): FitRemedy[] => {
          const args = { joints: [{ joint: id, part }] };
          const after = done(changeJoints, of.document, args);
          if (!after.ok) return [];
          return [
            {
              joint: id,
              what,
              ...(mm === undefined ? {} : { mm }),
              chance: chanceOfAll(assemble(after.value, of.build.id), trials),
              mend: callOf(changeJoints, args),
            },
          ];
        },
      );
      const known = bolt.mount && Math.max(...bolt.mount.sigma) > KNOWN;
      const measured: FitRemedy[] = known
        ? [
            {
              joint: id,
              what: 'measure',
              mm: KNOWN,
              chance: chanceOfAll(of, trials, new Map([[id, KNOWN]])),
            },
          ]
        : [];
      return [...changes, ...measured];
    })
    .sort((a, b) => b.chance - a.chance);
}
