import * as yup from 'yup';
import { ADDRESSABLE, checked } from '../plan';
import { LATEST_TIME } from '../sequence';

export const LOG_KINDS = [
  'install',
  're-torque',
  'inspection',
  'hit',
  'straighten',
  'coating',
  'ride-height',
  'weights',
  'service',
] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** Torque found on a bolt, and what it was brought back to, N·m. */
export interface TorqueReading {
  readonly joint: string;
  /** what it stood at when it was last tightened */
  readonly set: number;
  /** at which it began to turn again */
  readonly found: number;
  readonly after: number;
}

/** One thing that happened to a plan's vehicle. Lengths mm, masses kg, torque N·m. */
export interface LogEntry {
  /** made on the device, so that sending it twice keeps it once */
  readonly id: string;
  readonly kind: LogKind;
  /** when it happened, ms since 1970 */
  readonly at: number;
  /** on the odometer */
  readonly km?: number;
  readonly note?: string;
  readonly panel?: string;
  /** where on the ground plane of the vehicle's frame */
  readonly place?: readonly [x: number, y: number];
  readonly dentMm?: number;
  /** what Strike foresaw there, as it was known when the entry was made */
  readonly foreseenMm?: number;
  readonly readings?: readonly TorqueReading[];
  readonly checks?: readonly { readonly item: string; readonly fine: boolean; readonly note?: string }[];
  /** fenders above their wheel centers or wheels on scales: front left, front right, rear left, rear right */
  readonly corners?: readonly [number, number, number, number];
  readonly point?: string;
  readonly minutes?: number;
  readonly run?: string;
  /** bolts of plates were turned in it */
  readonly opened?: boolean;
  /** bolts that were not sound when the work ended, and why they were left */
  readonly left?: readonly { readonly joint: string; readonly fault: string; readonly reason?: string }[];
  /** id of a photo kept with it */
  readonly photo?: string;
}

const id = () => yup.string().required().min(1).max(120);
/** No figure of a log is beyond it; Infinity is. */
const MOST = 1e7;
const finite = () => yup.number().required().min(-MOST).max(MOST);

/** What every entry has and what each kind adds; errors name the path. The server and the forms check by it. */
export const logEntrySchema = yup
  .object({
    id: id().max(64).matches(ADDRESSABLE, 'id has / \\ ? # % or a line break in it'),
    kind: yup.string().oneOf(LOG_KINDS).required(),
    at: yup.number().required().integer().min(0).max(LATEST_TIME),
    km: yup.number().min(0).max(5_000_000),
    note: yup.string().max(4000),
    panel: yup.string().max(120),
    place: yup.tuple([finite(), finite()]).optional(),
    dentMm: yup.number().min(0).max(500),
    foreseenMm: yup.number().min(0).max(500),
    readings: yup
      .array()
      .of(
        yup
          .object({
            joint: id(),
            set: finite().moreThan(0).max(1000),
            found: finite().min(0).max(1000),
            after: finite().min(0).max(1000),
          })
          .required()
          .noUnknown(),
      )
      .max(500),
    checks: yup
      .array()
      .of(
        yup
          .object({ item: id().max(300), fine: yup.boolean().required(), note: yup.string().max(1000) })
          .required()
          .noUnknown(),
      )
      .max(100),
    corners: yup.tuple([finite(), finite(), finite(), finite()]).optional(),
    point: yup.string().max(120),
    minutes: yup.number().min(0).max(10_000),
    run: yup.string().max(64),
    opened: yup.boolean(),
    left: yup
      .array()
      .of(
        yup
          .object({ joint: id(), fault: id(), reason: yup.string().max(2000) })
          .required()
          .noUnknown(),
      )
      .max(500),
    photo: yup.string().max(64),
  })
  .noUnknown()
  .required();

/** What a kind must have besides its date, in words for whoever left it out. */
const NEEDED: Readonly<Partial<Record<LogKind, readonly (readonly [key: keyof LogEntry, said: string])[]>>> =
  {
    're-torque': [['readings', 'the torque found on at least one bolt']],
    inspection: [['checks', 'what was checked']],
    hit: [['place', 'where it hit: tap the map']],
    straighten: [['panel', 'which plate']],
    coating: [['panel', 'which plate']],
    'ride-height': [['corners', 'all four heights']],
    weights: [['corners', 'all four wheels']],
    service: [['point', 'which service']],
  };

/** What an entry of its kind still lacks, a phrase each; empty where it is whole. */
export const lacking = (e: Partial<LogEntry> & Pick<LogEntry, 'kind'>): readonly string[] =>
  (NEEDED[e.kind] ?? [])
    .filter(([key]) => {
      const v = e[key];
      return v === undefined || v === '' || (Array.isArray(v) && v.length === 0);
    })
    .map(([, said]) => said);

/** Reads an entry from outside. The fault names the path and what is wrong with it. */
export function readLogEntry(
  value: unknown,
): { readonly ok: true; readonly entry: LogEntry } | { readonly ok: false; readonly fault: string } {
  const read = checked(logEntrySchema, value, 'a log entry');
  if (!read.ok) return read;
  const entry = read.value as unknown as LogEntry;
  const missing = lacking(entry);
  return missing.length > 0
    ? { ok: false, fault: `An entry of this kind needs ${missing.join(' and ')}.` }
    : { ok: true, entry };
}

/** Newest first; entries of one moment by their id, so that every device shows one order even where a clock was set back. */
export const newestFirst = (log: readonly LogEntry[]): readonly LogEntry[] =>
  [...log].sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1));
