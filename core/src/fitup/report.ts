import type { Assembly } from '../derive';
import { type Fit, fitOf } from './chance';
import type { Room } from './play';
import { type FitRemedy, ifMeasured, remediesOf } from './remedies';

/** A fit as it is shown: plain data, which goes from a worker to the page. */
export interface FitReport extends Omit<Fit, 'model'> {
  readonly remedies: readonly FitRemedy[];
  /** the chance with every hole of the vehicle measured well; missing where all are */
  readonly measured?: number;
  /** by joint, the room that its holes leave together; nothing where they leave it endless */
  readonly rooms: ReadonlyMap<string, Room>;
}

/** The chance that a build bolts up, with its remedies and what is drawn of it. */
export function fitReport(of: Assembly, trials?: number): FitReport {
  const { model, ...fit } = fitOf(of, trials);
  const rooms = new Map(
    model.bolts.flatMap(b => {
      if (b.holes.length < 2) return [];
      const longest = b.holes.reduce((p, q) => (q.room.half > p.room.half ? q : p));
      const radius = b.holes.reduce((s, h) => s + h.room.radius, 0);
      return [[b.joint.id, { ...longest.room, radius }] as const];
    }),
  );
  const whole = { ...fit, model };
  const measured = ifMeasured(of, whole);
  return {
    ...fit,
    rooms,
    remedies: remediesOf(of, whole),
    ...(measured === undefined ? {} : { measured }),
  };
}
