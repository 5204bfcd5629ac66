import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PlanDocument } from '../plan';
import { presentRig } from '../rig';
import {
  dueList,
  type LogEntry,
  lastSet,
  newestFirst,
  preloadHistories,
  preloadLost,
  readLogEntry,
  searchLog,
  UPKEEP,
} from './index';

const DAY = 86_400_000;
const day = (n: number): number => 1_760_000_000_000 + n * DAY;
const entry = (e: Partial<LogEntry> & Pick<LogEntry, 'id' | 'kind' | 'at'>): LogEntry => e;

describe('a log entry from outside', () => {
  it('is read where it is whole', () => {
    for (const e of [
      { id: 'a', kind: 'install', at: 1 },
      { id: 'b', kind: 'hit', at: 1, place: [10, 20], dentMm: 4.5, panel: 'plate-a' },
      {
        id: 'c',
        kind: 're-torque',
        at: 1,
        km: 90,
        readings: [{ joint: 'j-1', set: 40, found: 33, after: 40 }],
      },
      { id: 'd', kind: 'ride-height', at: 1, corners: [800, 801, 810, 811] },
    ])
      expect(readLogEntry(e)).toEqual({ ok: true, entry: e });
  });
  it.each([
    [{ id: 'a', kind: 'crash', at: 1 }, /kind/],
    [{ id: 'a', kind: 'hit', at: 'today', place: [1, 2] }, /at/],
    [{ id: 'a', kind: 'hit', at: 1 }, /tap the map/],
    [{ id: 'a', kind: 'hit', at: 1, place: [1, 'x'] }, /place\[1\]/],
    [{ id: 'a', kind: 'hit', at: 1, place: [1, 2], dentMm: -3 }, /dentMm/],
    [{ id: 'a', kind: 're-torque', at: 1, readings: [] }, /torque found/],
    [
      { id: 'a', kind: 're-torque', at: 1, readings: [{ joint: 'j', set: 0, found: 1, after: 1 }] },
      /readings\[0\]\.set/,
    ],
    [{ id: 'a', kind: 'install', at: 1, color: 'red' }, /unspecified|color/],
    [null, /./],
    ['torn', /./],
  ])('%j is refused with what is wrong', (value, said) => {
    const r = readLogEntry(value);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.fault).toMatch(said);
  });
});

describe('loss of preload', () => {
  it('is the share of torque lost, worked by hand: 40 set, 33 found is 17.5 %', () => {
    expect(preloadLost({ set: 40, found: 33 })).toBeCloseTo(0.175, 12);
    expect(preloadLost({ set: 40, found: 44 })).toBe(0);
  });
  it('is kept by bolt over time, the worst first', () => {
    const log = [
      entry({
        id: 'b',
        kind: 're-torque',
        at: day(30),
        readings: [{ joint: 'j-1', set: 40, found: 38, after: 40 }],
      }),
      entry({
        id: 'a',
        kind: 're-torque',
        at: day(10),
        km: 200,
        readings: [
          { joint: 'j-1', set: 40, found: 30, after: 40 },
          { joint: 'j-2', set: 20, found: 19, after: 20 },
        ],
      }),
    ];
    const [first, second] = preloadHistories(log);
    expect(first).toMatchObject({ joint: 'j-1', worst: 0.25 });
    expect(first?.times.map(t => t.lost)).toEqual([0.25, expect.closeTo(0.05, 12)]);
    expect(second?.joint).toBe('j-2');
    expect(lastSet(log, new Map([['j-3', 9]]))).toEqual(
      new Map([
        ['j-3', 9],
        ['j-1', 40],
        ['j-2', 20],
      ]),
    );
  });
});

describe('what is due', () => {
  const doc = demo('bramble');
  const rig = presentRig(doc.rig);
  const due = (log: LogEntry[], upkeep?: PlanDocument['plan']['upkeep']) =>
    dueList({ ...doc, plan: { ...doc.plan, upkeep } }, rig, log, day(0));
  const install = entry({ id: 'i', kind: 'install', at: day(0), km: 50_000 });
  it('is nothing before the plates are on', () => expect(due([])).toEqual([]));
  it('is the re-torque first, by days or by distance, whichever comes first', () => {
    const [first] = due([install]);
    // 150 km at 15,000 km a year is 3.65 days, sooner than 14
    expect(first).toMatchObject({ kind: 're-torque', atKm: 50_000 + UPKEEP.retorqueKm, foretold: true });
    expect(first?.at).toBeCloseTo(day(0) + (150 / 15_000) * 365.25 * DAY, -3);
    expect(due([install], { retorqueDays: 2 })[0]).toMatchObject({ at: day(2), foretold: false });
  });
  it('goes away when it is done and comes back when plates were down', () => {
    const done = entry({
      id: 'r',
      kind: 're-torque',
      at: day(5),
      readings: [{ joint: 'j', set: 1, found: 1, after: 1 }],
    });
    expect(due([install, done]).some(d => d.kind === 're-torque')).toBe(false);
    const open = entry({
      id: 's',
      kind: 'service',
      at: day(9),
      point: 'oil-drain',
      opened: true,
    });
    expect(due([install, done, open]).some(d => d.kind === 're-torque')).toBe(true);
  });
  it('follows each service from its last time, and a hit asks for a look', () => {
    const oil = entry({ id: 'o', kind: 'service', at: day(100), km: 54_000, point: 'oil-drain' });
    const hit = entry({ id: 'h', kind: 'hit', at: day(101), place: [0, 0] });
    const list = due([install, oil, hit]);
    expect(list.find(d => d.id === 'service-oil-drain')).toMatchObject({ atKm: 64_000 });
    expect(list.find(d => d.id === 'service-oil-filter')).toMatchObject({ atKm: 60_000 });
    expect(list.some(d => d.id === 'after-hit')).toBe(true);
    expect(list.map(d => d.at)).toEqual(list.map(d => d.at).sort((a, b) => a - b));
  });
});

describe('order and search', () => {
  it('is one order on every device, whatever order entries came in or clocks said', () => {
    const log = fc.array(
      fc.record({ id: fc.uuid(), kind: fc.constant('install' as const), at: fc.integer({ min: 0, max: 3 }) }),
    );
    fc.assert(
      fc.property(log, l => {
        expect(newestFirst(l)).toEqual(newestFirst([...l].reverse()));
      }),
    );
  });
  it('finds every word, by kind and plate', () => {
    const log = [
      entry({ id: 'a', kind: 'hit', at: 1, panel: 'plate-a', note: 'Boulder in the stream' }),
      entry({
        id: 'b',
        kind: 'inspection',
        at: 2,
        checks: [{ item: 'rust at holes', fine: false, note: 'stream side' }],
      }),
    ];
    expect(searchLog(log, { words: 'stream' }).map(e => e.id)).toEqual(['a', 'b']);
    expect(searchLog(log, { words: 'stream boulder' }).map(e => e.id)).toEqual(['a']);
    expect(searchLog(log, { words: 'stream', kinds: ['inspection'] }).map(e => e.id)).toEqual(['b']);
    expect(searchLog(log, { panel: 'plate-a' }).map(e => e.id)).toEqual(['a']);
    expect(searchLog(log, { words: 'engine' }, new Map([['plate-a', 'A engine']])).map(e => e.id)).toEqual([
      'a',
    ]);
  });
});
