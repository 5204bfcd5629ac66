import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatPattern, fold } from '../fold';
import { buildOf, checkDocument, sheetOf } from '../plan';
import { DXF_LIMITS, patternDxf, readDxf, rigTable, tableCsv, tableLaidIn } from '.';

const DEMO = demo('bramble');
const drawing = (entities: string, units = 4): string =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const ring = (n: number, bulge?: number): string =>
  `0\nLWPOLYLINE\n8\n0\n90\n${n}\n70\n1\n${Array.from({ length: n }, (_, i) => `10\n${300 * Math.cos((2 * Math.PI * i) / n)}\n20\n${300 * Math.sin((2 * Math.PI * i) / n)}\n${bulge ? `42\n${bulge}\n` : ''}`).join('')}`;
const said = (text: string): string => {
  const r = readDxf(text);
  return r.ok ? 'taken' : r.fault;
};
/** Processor time that a call takes, ms: told where it is beyond all bounds, so that a busy machine fails nothing. */
function spent(call: () => void): number {
  const from = process.cpuUsage();
  call();
  const { user, system } = process.cpuUsage(from);
  return (user + system) / 1000;
}
/** Nobody waits longer, ms of processor time. */
const MOST_MS = 2000;

const RUNS = Number(process.env.SOAK_FILES ?? 200);
const LINES = [
  '1e300',
  'NaN',
  '-1e999',
  '',
  '0',
  '10',
  '42',
  '40',
  '1e6',
  '-7',
  'SECTION',
  'ENDSEC',
  'EOF',
  'LINE',
  'ARC',
  '\u0000',
  'x'.repeat(300),
];
/** A text with a few of its lines put out, doubled, changed or cut off. */
const mutated = (text: string, sep: RegExp, join: string): fc.Arbitrary<string> => {
  const lines = text.split(sep);
  const at = fc.nat(lines.length - 1);
  const change = fc.oneof(
    fc.tuple(at, fc.constantFrom(...LINES)).map(
      ([i, s]) =>
        (l: string[]) =>
          l.with(i % l.length, s),
    ),
    fc.tuple(at, fc.nat(8)).map(
      ([i, n]) =>
        (l: string[]) =>
          l.toSpliced(i % l.length, n),
    ),
    fc.tuple(at, fc.nat(200)).map(
      ([i, n]) =>
        (l: string[]) =>
          l.toSpliced(i % l.length, 0, ...l.slice(i % l.length, (i % l.length) + n)),
    ),
    at.map(i => (l: string[]) => l.slice(0, Math.max(1, i % l.length))),
    fc.tuple(at, at).map(
      ([i, j]) =>
        (l: string[]) =>
          l.with(i % l.length, l[j % l.length] as string),
    ),
  );
  return fc
    .array(change, { minLength: 1, maxLength: 5 })
    .map(all => all.reduce((l, c) => (l.length > 0 ? c(l) : ['']), lines).join(join));
};

describe('drawings', () => {
  it('with figures beyond measure say so by their line', () => {
    const circle = (r: string, x = '0') => drawing(`0\nCIRCLE\n8\n0\n10\n${x}\n20\n0\n40\n${r}\n`);
    expect(said(circle('1e6'))).toMatch(/^line 24 is 1e6, too far away for a vehicle/);
    expect(said(circle('1e300'))).toContain('line 24 is 1e300');
    expect(said(circle('NaN'))).toBe('line 24 is "NaN", which is not a number');
    expect(said(circle('50', '-1e300'))).toContain('line 20 is -1e300');
    expect(said(circle('50', ''))).toContain('line 20 is "", which is not a number');
    expect(said(drawing(ring(4, 1e9)))).toMatch(/^line \d+ is a bulge of 1000000000; 1000 is the most/);
    expect(said(drawing('').replace('ENTITIES', 'BLOCKS'))).toContain('no section of entities');
    expect(said('0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\nzero\n0\n')).toContain('line 9 is "zero"');
    expect(said(drawing(ring(DXF_LIMITS.points + 500)))).toContain(
      '2500 points with its curves made straight; 2000',
    );
    expect(said(drawing(ring(2).repeat(DXF_LIMITS.entities + 1)))).toMatch(
      /more than 20000 lines, arcs|60000 corners/,
    );
    expect(
      said(drawing('0\nLINE\n8\n0\n10\n0\n20\n0\n11\n9\n21\n9\n'.repeat(DXF_LIMITS.loose + 1))),
    ).toContain('loose lines');
    expect(said(drawing('0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n2000\n'))).toBe('taken');
    expect(said(drawing(ring(300)))).toBe('taken');
  });

  it('mutated at random are taken whole or refused with a word, in a bounded time', () => {
    const plan = DEMO.plan;
    const panel = plan.panels[0]!;
    const texts = [
      patternDxf(flatPattern(fold(panel, sheetOf(buildOf(plan), panel))), 'metric'),
      drawing(
        `${ring(12, 0.3)}0\nARC\n8\n0\n10\n0\n20\n0\n40\n50\n50\n0\n51\n180\n0\nLINE\n8\n0\n10\n50\n20\n0\n11\n-50\n21\n0\n`,
      ),
    ];
    let worst = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...texts).chain(t => mutated(t, /\r?\n/, '\n')),
        text => {
          let r: ReturnType<typeof readDxf> | undefined;
          worst = Math.max(
            worst,
            spent(() => (r = readDxf(text))),
          );
          if (!r?.ok) {
            expect(r?.fault).toMatch(/\w/);
            return;
          }
          const numbers = r.value.plates.flatMap(p => p.outline.flat());
          expect(numbers.every(v => Number.isFinite(v) && Math.abs(v) <= 2 * DXF_LIMITS.far)).toBe(true);
        },
      ),
      { numRuns: RUNS },
    );
    // held where the machine is given to it alone; what hangs fails anyway
    if (process.env.SOAK_FILES) expect(worst).toBeLessThan(MOST_MS);
    if (process.env.SOAK_FILES)
      console.log(`${RUNS} mutated files, most processor time ${worst.toFixed(0)} ms`);
  });
});

describe('tables', () => {
  const lists = ['components', 'members', 'mounts', 'servicePoints', 'factoryParts'] as const;
  it('mutated at random are laid in whole, as a plan that is taken, or not at all', () => {
    let worst = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...lists).chain(list => {
          const csv = tableCsv(rigTable(list, DEMO.rig, 'metric'), DEMO.rig[list] as never, 'metric');
          return fc.tuple(
            fc.constant(list),
            fc.oneof(
              mutated(csv, /(?=[,\n])/, ''),
              mutated(csv, /\r?\n/, '\r\n'),
              mutated(csv, /(?="|;)/, ''),
            ),
          );
        }),
        ([list, text]) => {
          let laid: ReturnType<typeof tableLaidIn> | undefined;
          worst = Math.max(
            worst,
            spent(() => (laid = tableLaidIn(DEMO, list, text, 'metric'))),
          );
          if (laid && 'document' in laid) {
            const r = checkDocument(JSON.parse(JSON.stringify(laid.document)));
            // what a plan asks of names across lists is the plan's to say; it is never a figure that is none
            if (!r.ok)
              expect(r.faults.map(f => f.fault).join()).not.toMatch(/not a number|without end|beyond/);
          } else expect(laid?.faults.every(f => f.row >= 1 && f.fault !== '')).toBe(true);
        },
      ),
      { numRuns: RUNS },
    );
    // held where the machine is given to it alone; what hangs fails anyway
    if (process.env.SOAK_FILES) expect(worst).toBeLessThan(MOST_MS);
    if (process.env.SOAK_FILES)
      console.log(`${RUNS} mutated files, most processor time ${worst.toFixed(0)} ms`);
  });

  it('too long, too wide or beyond measure are refused with the place', () => {
    const of = (text: string) => {
      const r = tableLaidIn(DEMO, 'mounts', text, 'metric');
      return 'faults' in r ? `${r.faults[0]?.row} ${r.faults[0]?.column} ${r.faults[0]?.fault}` : 'laid in';
    };
    const head = 'id,x,y,z,kind';
    expect(of(`${head}\n${'a,1,2,3,drill\n'.repeat(2001)}`)).toContain('2002  is beyond the 2000 rows');
    expect(of(`${head}\n${'a,1,2,3,drill\n'.repeat(50_000)}`)).toContain('more rows than the 2000');
    expect(of(`${head}\na,1e300,2,3,drill`)).toBe('2 x is "1e300", beyond 1000000000 either way');
    expect(of(`${head}\na,NaN,2,3,drill`)).toMatch(/^2 x /);
    expect(of(`${Array(200).fill('x').join()}\n1`)).toContain('1  has 200 cells');
    expect(of(`${head}\n"a,1,2,3,drill`)).toContain('never closed');
    expect(of(`${head}\nnew,1,2,3,drill\nnew,1,2,3,drill`)).toBe('3 id "new" is in an earlier row too');
    expect(of('x'.repeat(4_000_001))).toContain('4000001 characters');
  });
});
