import { addDays } from 'date-fns';
import type { PlanDocument } from '../plan';
import type { PresentRig } from '../rig';
import { KM_PER_YEAR } from '../service';
import type { LogEntry, LogKind } from './entry';

/** Something that wants doing again. */
export interface Due {
  readonly id: string;
  readonly kind: Extract<LogKind, 're-torque' | 'inspection' | 'service'> | 'repair';
  readonly what: string;
  readonly why: string;
  /** reading of the odometer at which it falls due; undefined where no reading is known */
  readonly atKm?: number;
  /** the day it falls due, ms; by the distance driven in a year where only a distance is known */
  readonly at: number;
  /** the day comes from a distance and the distance driven in a year: a guess */
  readonly foretold: boolean;
  readonly point?: string;
  /** the bolt that wants repair */
  readonly joint?: string;
}

/** When things are gone over again, km and days: common practice, no source, unless entered. */
export const UPKEEP = { retorqueKm: 150, retorqueDays: 14, inspectKm: 5_000, inspectDays: 180 } as const;

/** One day, ms. */
const DAY = 86_400_000;
/** A moment so many days later by the calendar: a clock that is set back or forward on the way changes no hour. */
const later = (at: number, days: number): number =>
  addDays(at, Math.floor(days)).getTime() + (days - Math.floor(days)) * DAY;
const kmOf = (log: readonly LogEntry[]): number | undefined => {
  const read = log.flatMap(e => e.km ?? []);
  return read.length === 0 ? undefined : Math.max(...read);
};
const last = (log: readonly LogEntry[], of: (e: LogEntry) => boolean): LogEntry | undefined =>
  log.filter(of).reduce<LogEntry | undefined>((a, e) => (a === undefined || e.at > a.at ? e : a), undefined);

/**
 * What is due and when, soonest first: the first re-torque after an installation or after plates were down for a service, inspections,
 * and the services of the rig by their intervals. Nothing is due before the plates were installed. Whichever of days and distance comes
 * first counts; a distance becomes a day by the distance driven in a year.
 */
export function dueList(
  doc: PlanDocument,
  rig: PresentRig,
  log: readonly LogEntry[],
  today: number,
): readonly Due[] {
  const installed = last(log, e => e.kind === 'install');
  if (!installed) return [];
  const upkeep = { ...UPKEEP, ...doc.plan.upkeep };
  const kmADay = (doc.plan.upkeep?.kmPerYear ?? KM_PER_YEAR) / 365.25;
  const now = kmOf(log);
  /** the day a reading is reached, from the newest reading on */
  const dayOf = (km: number | undefined, since: LogEntry): number | undefined => {
    if (km === undefined) return undefined;
    const newest = last(log, e => e.km !== undefined) ?? since;
    return later(newest.at, (km - (now ?? km)) / kmADay);
  };
  const made = (
    of: Pick<Due, 'id' | 'kind' | 'what' | 'why'> & { readonly point?: string },
    since: LogEntry,
    km: number | undefined,
    days: number | undefined,
  ): Due => {
    const atKm = since.km !== undefined && km !== undefined ? since.km + km : undefined;
    const byDays = days === undefined ? undefined : later(since.at, days);
    const byKm = dayOf(atKm, since) ?? (km === undefined ? undefined : later(since.at, km / kmADay));
    const first = Math.min(byDays ?? Number.POSITIVE_INFINITY, byKm ?? Number.POSITIVE_INFINITY);
    return {
      ...of,
      ...(atKm === undefined ? {} : { atKm }),
      at: Number.isFinite(first) ? first : today,
      foretold: byKm !== undefined && byKm === first,
    };
  };
  const out: Due[] = [];
  const opened = last(log, e => e.kind === 'install' || (e.kind === 'service' && e.opened === true));
  const retorqued = last(log, e => e.kind === 're-torque');
  if (opened && (!retorqued || retorqued.at < opened.at))
    out.push(
      made(
        {
          id: 're-torque',
          kind: 're-torque',
          what: 'Re-torque all bolts',
          why: 'Paint, washers and sheet settle under new bolts.',
        },
        opened,
        upkeep.retorqueKm,
        upkeep.retorqueDays,
      ),
    );
  // what the last work left unsound is due at once, until work after it leaves it no more
  const worked = last(log, e => e.kind === 'install' || e.kind === 'service');
  for (const f of worked?.left ?? [])
    if (
      doc.plan.joints.some(j => j.id === f.joint) &&
      !log.some(
        e => e.at > (worked as LogEntry).at && e.readings?.some(r => r.joint === f.joint && r.after > 0),
      )
    )
      out.push({
        id: `repair-${f.joint}`,
        kind: 'repair',
        what: `Repair the bolt at ${f.joint}`,
        why: `Left not sound: ${f.fault}${f.reason ? `, ${f.reason}` : ''}. Its repair is in the steps of the next run; if you repair it another way, log its torque.`,
        at: (worked as LogEntry).at,
        foretold: false,
        joint: f.joint,
      });
  const looked = last(log, e => e.kind === 'inspection') ?? installed;
  out.push(
    made(
      {
        id: 'inspection',
        kind: 'inspection',
        what: 'Inspect the plates',
        why: 'Dents, gouges, rubbed spots above, rust at holes, loose or bent bolts.',
      },
      looked,
      upkeep.inspectKm,
      upkeep.inspectDays,
    ),
  );
  const hit = last(log, e => e.kind === 'hit');
  if (hit && hit.at > looked.at)
    out.push({
      id: 'after-hit',
      kind: 'inspection',
      what: 'Check above the plate after the last hit',
      why: 'A plate that sprang back may have touched a part; bolts nearby may be bent.',
      at: hit.at,
      foretold: false,
    });
  for (const p of rig.servicePoints) {
    if (p.everyKm === undefined) continue;
    const done = last(log, e => e.kind === 'service' && e.point === p.id) ?? installed;
    out.push(
      made(
        {
          id: `service-${p.id}`,
          kind: 'service',
          what: p.name,
          why: 'By mileage; the vehicle maker’s schedule comes first.',
          point: p.id,
        },
        done,
        p.everyKm,
        undefined,
      ),
    );
  }
  return out.sort((a, b) => a.at - b.at);
}
