import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import type { ResolvedJoint } from '../bolt';
import type { LogEntry } from '../log';
import { inOrder, movesOf, type Step, type Tick } from '../sequence';
import { asBuilt, asBuiltCsv, logCsv, remindersIcs } from './index';

const step = (s: Partial<Step> & { id: string }): Step => ({
  stage: 'tighten',
  title: s.id,
  why: '',
  panels: [],
  joints: [],
  needs: [],
  tools: [],
  cautions: [],
  people: 1,
  minutes: 1,
  ...s,
});

describe('reminders as iCalendar (RFC 5545)', () => {
  const text = remindersIcs(
    'Bramble; winter',
    [
      {
        uid: 'a@x',
        at: new Date(2026, 11, 31, 15).getTime(),
        what: 'Go round, all bolts',
        why: 'Line one\nline two; with a comma, too',
      },
      { uid: 'b@x', at: new Date(2027, 1, 28).getTime(), what: `Long ${'ä'.repeat(120)}`, why: '' },
    ],
    Date.UTC(2026, 10, 26, 8, 5, 9),
  );
  it('has whole days, the next day as its end over month and year, and its stamp in UTC', () => {
    expect(text).toContain('DTSTART;VALUE=DATE:20261231\r\nDTEND;VALUE=DATE:20270101');
    expect(text).toContain('DTSTART;VALUE=DATE:20270228\r\nDTEND;VALUE=DATE:20270301');
    expect(text).toContain('DTSTAMP:20261126T080509Z');
  });
  it('escapes its text and folds at 75 octets without tearing a letter', () => {
    expect(text).toContain('SUMMARY:Go round\\, all bolts');
    expect(text).toContain('DESCRIPTION:Line one\\nline two\\; with a comma\\, too');
    for (const line of text.split('\r\n'))
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    expect(text.replaceAll('\r\n ', '')).toContain('ä'.repeat(120));
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
    expect(/[^\r]\n/.test(text)).toBe(false);
  });
});

describe('the log as CSV', () => {
  it('is read back by a general reader, commas and quotes and all', () => {
    const log: LogEntry[] = [
      {
        id: 'b',
        kind: 'hit',
        at: 2000,
        place: [10, -20],
        dentMm: 3,
        note: 'He said "rock", twice\nand a line',
      },
      { id: 'a', kind: 're-torque', at: 1000, readings: [{ joint: 'j-1', set: 40, found: 33, after: 40 }] },
    ];
    const { data } = Papa.parse<Record<string, string>>(logCsv(log).trim(), { header: true });
    expect(data.map(r => r.kind)).toEqual(['re-torque', 'hit']);
    expect(data[1]).toMatchObject({ 'x mm': '10', 'y mm': '-20', note: 'He said "rock", twice\nand a line' });
    expect(data[0]?.torques).toBe('j-1 set 40 found 33 after 40');
  });
});

describe('the record of a run', () => {
  const moves = movesOf(
    inOrder([
      step({ id: 't', joints: ['j1', 'j2'], torqueNm: 40, pass: 3 }),
      step({ id: 'c', stage: 'check' }),
    ]),
  );
  const tick = (t: Partial<Tick> & Pick<Tick, 'id' | 'at' | 'kind'>): Tick => ({
    stepId: 't',
    jointId: 'j1',
    device: 'd',
    ...t,
  });
  const lines = asBuilt(
    moves,
    [
      tick({ id: '1', at: 5, kind: 'done', torqueNm: 39.5, who: 'Juniper', wrench: 'typed in' }),
      tick({ id: '2', at: 6, kind: 'deviation', note: 'Other bolt used' }),
      tick({ id: '3', at: 7, kind: 'deviation', fault: 'stripped', note: 'it spins', photo: 'p1' }),
    ],
    [
      {
        id: 'j1',
        parts: [{ kind: 'bolt', name: 'flange bolt M10x1.5 \u00d7 30 mm, 8.8, zinc' }],
      } as unknown as ResolvedJoint,
    ],
  );
  it('holds every torque asked for, what was read, by whom, with what, and what was off', () => {
    const bolt = 'flange bolt M10x1.5 \u00d7 30 mm, 8.8, zinc';
    expect(lines).toEqual([
      {
        step: 't',
        pass: 3,
        joint: 'j1',
        bolt,
        targetNm: 40,
        readNm: 39.5,
        at: 5,
        who: 'Juniper',
        wrench: 'typed in',
        fault: 'Stripped: it turns without getting tighter: open',
        notes: ['Other bolt used', 'it spins'],
        photos: ['p1'],
      },
      { step: 't', pass: 3, joint: 'j2', bolt: '', targetNm: 40, notes: [], photos: [] },
    ]);
    const of = { vehicle: 'Bramble', plan: 'Belly', build: 'A', startedAt: 0 };
    // 40 N\u00b7m are 29.5 ft\u00b7lb, 39.5 are 29.1
    expect(asBuiltCsv(of, lines).split('\r\n')[1]).toBe(
      `Bramble,Belly,A,1970-01-01T00:00:00.000Z,t,3,j1,"${bolt}",40,29.5,39.5,29.1,1970-01-01T00:00:00.005Z,Juniper,typed in,Stripped: it turns without getting tighter: open,Other bolt used; it spins,p1`,
    );
  });
});
