import { describe, expect, it } from 'vitest';
import { type LogEntry, logEntrySchema } from './entry';

/** The keys of an entry's type, held to it by the compiler: each, and none more. */
const KEYS = {
  id: 1,
  kind: 1,
  at: 1,
  km: 1,
  note: 1,
  panel: 1,
  place: 1,
  dentMm: 1,
  foreseenMm: 1,
  readings: 1,
  checks: 1,
  corners: 1,
  point: 1,
  minutes: 1,
  run: 1,
  opened: 1,
  left: 1,
  photo: 1,
} as const satisfies Record<keyof LogEntry, 1>;

describe('the schema of a log entry and its type', () => {
  it('have the same keys', () => {
    expect(Object.keys(logEntrySchema.fields).sort()).toEqual(Object.keys(KEYS).sort());
  });
});
