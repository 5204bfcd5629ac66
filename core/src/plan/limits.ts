import type { Fault } from './faults';

/**
 * What a document may hold at most. No vehicle's armor comes near; beyond, a file is torn, made by mistake or sent to do harm, and is told
 * so before anything is computed of it. docs/plan-file.md states them.
 */
export const LIMITS = {
  /** levels of lists and groups within one another, from the document down */
  depth: 32,
  /** values in the whole document */
  values: 400_000,
  /** entries of one list, and points of one outline */
  entries: 2000,
  /** panels of a plan */
  panels: 100,
  /** builds of a plan */
  builds: 26,
  /** characters of a text */
  text: 20_000,
  /** characters of an id */
  id: 120,
  /** largest number, either sign: a kilometer and its cube are far below */
  number: 1e9,
} as const;

/** Keys that reach into the program itself. */
const FORBIDDEN: readonly string[] = ['__proto__', 'constructor', 'prototype'];
const SHOWN = 100;
/** A path for people: of a very long one its beginning. */
const shown = (path: string): string => (path.length > SHOWN ? `${path.slice(0, SHOWN)}...` : path || 'file');

/** Whether a value keeps every limit: the common case, without a word about where. `left` counts the values down. */
function within(v: unknown, depth: number, left: { values: number }, before?: unknown): boolean {
  // counted before
  if (before !== undefined && v === before) return true;
  if (--left.values < 0) return false;
  if (typeof v === 'number') return Number.isFinite(v);
  if (typeof v === 'string') return v.length <= LIMITS.text;
  if (typeof v !== 'object' || v === null) return true;
  if (depth >= LIMITS.depth) return false;
  if (Array.isArray(v)) {
    if (v.length > LIMITS.entries) return false;
    const were = Array.isArray(before) ? before : [];
    for (let i = 0; i < v.length; i++) if (!within(v[i], depth + 1, left, were[i])) return false;
    return true;
  }
  const keys = Object.keys(v);
  if (keys.length > LIMITS.entries) return false;
  const was = (typeof before === 'object' && before !== null ? before : {}) as Record<string, unknown>;
  for (const k of keys) {
    if (FORBIDDEN.includes(k)) return false;
    if (!within((v as Record<string, unknown>)[k], depth + 1, left, was[k])) return false;
  }
  return true;
}

type Open = readonly [value: unknown, path: string, depth: number];

/**
 * What no document may hold, wherever it stands: numbers that are not finite, texts, lists and nesting beyond the limits,
 * keys that would reach into the program. One pass over every value, without recursion; it ends at the first few faults. `before`: a value
 * that kept the limits; what is the same object in both is not gone into again.
 */
export function boundsFaults(value: unknown, before?: unknown, most = 8): Fault[] {
  if (within(value, 0, { values: LIMITS.values }, before)) return [];
  const faults: Fault[] = [];
  const open: Open[] = [[value, '', 0]];
  let seen = 0;
  for (let next = open.pop(); next && faults.length < most; next = open.pop()) {
    const [v, path, depth] = next;
    const say = (fault: string): void => void faults.push({ path: shown(path), fault });
    if (++seen > LIMITS.values) {
      faults.push({ path: 'file', fault: `holds more than ${LIMITS.values} values` });
      break;
    }
    if (typeof v === 'number') {
      if (!Number.isFinite(v)) say(Number.isNaN(v) ? 'is not a number' : 'is a number without end');
    } else if (typeof v === 'string') {
      if (v.length > LIMITS.text) say(`is a text of ${v.length} characters; ${LIMITS.text} is the most`);
    } else if (typeof v === 'object' && v !== null) {
      if (depth >= LIMITS.depth) {
        say(`is nested more than ${LIMITS.depth} levels deep`);
        continue;
      }
      if (Array.isArray(v)) {
        if (v.length > LIMITS.entries) {
          say(`has ${v.length} entries; ${LIMITS.entries} is the most`);
          continue;
        }
        for (let i = v.length - 1; i >= 0; i--) open.push([v[i], `${path}[${i}]`, depth + 1]);
      } else {
        const keys = Object.keys(v);
        if (keys.length > LIMITS.entries) {
          say(`has ${keys.length} keys; ${LIMITS.entries} is the most`);
          continue;
        }
        for (let i = keys.length - 1; i >= 0; i--) {
          const k = keys[i] as string;
          if (FORBIDDEN.includes(k)) say(`has the key "${k}", which no document has`);
          else
            open.push([
              (v as Record<string, unknown>)[k],
              path === '' ? k : `${path}.${k.slice(0, 60)}`,
              depth + 1,
            ]);
        }
      }
    }
  }
  return faults;
}

/** What can stand in an address and in a file's name; how long it may be is asked beside it. */
export const ADDRESSABLE = /^(?!\.{1,2}$)[^/\\?#%\p{Cc}\p{Cs}\u2028\u2029]+$/u;

/** NIOSH load constant, the lift limit when a plan sets none, kg (Pub. 94-110). */
export const LIFT_LIMIT_KG = 23;
