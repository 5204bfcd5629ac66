import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { signedArea } from '../geometry';
import { startingRig } from '../rig';
import {
  componentsTable,
  DXF_TOLERANCE,
  dxfUnit,
  factoryPartsTable,
  holesTable,
  laidIn,
  membersTable,
  outlineText,
  readDxf,
  readOutline,
  readTable,
  servicePointsTable,
  tableCsv,
} from './index';

const rig = startingRig('truck');
const holes = holesTable(rig);
const faults = (text: string, units: 'inch' | 'metric' = 'metric') => {
  const r = readTable(holes, text, units);
  return r.ok ? [] : r.faults;
};

describe('holes as CSV', () => {
  it.each(['inch', 'metric'] as const)('come back as they went out (%s)', units => {
    const read = readTable(holes, tableCsv(holes, rig.mounts, units), units === 'inch' ? 'metric' : 'inch');
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    read.rows.forEach((m, i) => {
      const was = rig.mounts[i];
      expect({ ...m, at: 0 }).toMatchObject({
        ...was,
        at: 0,
        hole: expect.objectContaining({ kind: was?.hole.kind }),
      });
      m.at.forEach((v, k) => expect(v).toBeCloseTo(was?.at[k] as number, 2));
    });
  });

  it('a spreadsheet pastes with tabs, in any order of columns, a comma for the decimals', () => {
    const r = readTable(
      holes,
      'kind\tid\tz\ty\tx\tthread\nthreaded\tnew-1\t319\t-12,5\t331\tM8x1.25',
      'metric',
    );
    expect(r).toMatchObject({
      ok: true,
      rows: [{ id: 'new-1', at: [331, -12.5, 319], member: 'cross-2', condition: 'good' }],
    });
  });

  it('name every fault by row and column, and take nothing', () => {
    const text =
      'id,x mm,y mm,z mm,thread,kind,condition\na,1,2,3,M10x1.5,threaded,good\nb,one,2,3,M10x1.5,threaded,good\nc,1,2,3,M11x9,threaded,good\nd,1,2,3,M8x1.25,pocket,fine';
    expect(faults(text)).toEqual([
      { row: 3, column: 'x', fault: '"one" is not a number' },
      { row: 4, column: 'thread', fault: expect.stringContaining('M11x9') },
      { row: 5, column: 'kind', fault: expect.stringContaining('must be one of threaded') },
      { row: 5, column: 'condition', fault: expect.stringContaining('must be one of good') },
    ]);
  });

  it('wrong columns, no rows, a torn quote', () => {
    expect(faults('id,x,y,z,kind,color\na,1,2,3,threaded,red')).toEqual([
      { row: 1, column: 'color', fault: expect.stringContaining('is not a column of holes') },
    ]);
    expect(faults('id,x,y,kind\na,1,2,threaded')).toEqual([
      { row: 1, column: 'z', fault: 'is missing from the header row' },
    ]);
    expect(faults('id,x,y,z,kind')[0]?.fault).toContain('no rows');
    expect(faults('id,x,y,z,kind\n"a,1,2,3,threaded')[0]?.fault).toContain('torn');
  });
});

describe('a column that a table does not have', () => {
  it('leaves what was there: a hole keeps its diameter, a tank its liters, a point its refill', () => {
    const tank = rig.components.find(c => c.kind === 'fuel-tank')!;
    const point = rig.servicePoints[0]!;
    const mount = { ...rig.mounts[0]!, hole: { ...rig.mounts[0]!.hole, diameter: 13.5 }, carries: tank.id };
    const known = {
      ...rig,
      components: rig.components.map(c => (c === tank ? { ...c, litres: 61, highVoltage: true } : c)),
      mounts: rig.mounts.map((m, i) => (i === 0 ? mount : m)),
      servicePoints: rig.servicePoints.map(p => (p === point ? { ...p, litres: 5.7 } : p)),
    };
    const hole = readTable(holesTable(known), `id,x,y,z,kind\n${mount.id},1,2,3,through`, 'metric');
    expect(hole).toMatchObject({ ok: true, rows: [{ hole: { diameter: 13.5 }, carries: tank.id }] });
    const emptied = readTable(
      holesTable(known),
      `id,x,y,z,kind,diameter,carries\n${mount.id},1,2,3,through,,`,
      'metric',
    );
    expect(emptied.ok && emptied.rows[0]?.hole.diameter).toBe(undefined);
    expect(emptied.ok && emptied.rows[0]?.carries).toBe(undefined);
    const part = readTable(
      componentsTable(known, 'metric'),
      `id,kind,name,footprint,bottom,top\n${tank.id},fuel-tank,tank,0 100 0 100,10,20`,
      'metric',
    );
    expect(part).toMatchObject({ ok: true, rows: [{ litres: 61, highVoltage: true }] });
    const at = readTable(
      servicePointsTable(known),
      `id,kind,name,x,y,z,opening,component,refill l\n${point.id},oil-drain,drain,1,2,3,40,${point.component},6.1`,
      'metric',
    );
    expect(at).toMatchObject({ ok: true, rows: [{ litres: 6.1 }] });
  });
  it('refuses a refill of nothing, and a bolt that carries what is not there', () => {
    const point = rig.servicePoints[0]!;
    const none = readTable(
      servicePointsTable(rig),
      `id,kind,name,x,y,z,opening,component,refill l\n${point.id},oil-drain,drain,1,2,3,40,${point.component},0`,
      'metric',
    );
    expect(none).toMatchObject({ ok: false, faults: [{ row: 2, column: 'refill' }] });
    const ghost = readTable(
      holes,
      `id,x,y,z,kind,carries\nh,${rig.mounts[0]!.at.join(',')},through,ghost`,
      'metric',
    );
    expect(ghost).toMatchObject({ ok: false, faults: [{ row: 2, column: 'carries' }] });
  });
});

describe('the other tables', () => {
  it.each([
    ['parts', componentsTable(rig, 'inch'), rig.components],
    ['members', membersTable('inch'), rig.members],
    ['service points', servicePointsTable(rig), rig.servicePoints],
    ['factory parts', factoryPartsTable(rig), rig.factoryParts],
  ] as const)('%s come back as they went out', (_, table, rows) => {
    // biome-ignore lint/suspicious/noExplicitAny: the tables differ in their rows only
    const t = table as any;
    const read = readTable(t, tableCsv(t, rows as never, 'inch'), 'inch');
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect((read.rows as { id: string }[]).map(r => r.id)).toEqual(rows.map(r => r.id));
    expect(tableCsv(t, read.rows as never, 'inch')).toBe(tableCsv(t, rows as never, 'inch'));
  });

  it('a footprint is a box or points, and says what is wrong with it', () => {
    expect(readOutline('0 100 -50 50', 'metric')).toEqual([
      [0, -50],
      [100, -50],
      [100, 50],
      [0, 50],
    ]);
    expect(readOutline('0 0; 100 0; 100 60', 'metric')).toHaveLength(3);
    expect(readOutline('100 0 0 50', 'metric')).toContain('ends before it begins');
    expect(readOutline('0 0; 10 10; 10 0; 0 10', 'metric')).toContain('crosses itself');
    expect(readOutline('0 0; x 10', 'metric')).toContain('not a number');
    expect(
      outlineText(
        [
          [0, -50],
          [100, -50],
          [100, 50],
          [0, 50],
        ],
        'metric',
      ),
    ).toBe('0 100 -50 50');
  });

  it('rows of a known id replace it, others are added', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 9 })),
        fc.uniqueArray(fc.integer({ min: 0, max: 9 })),
        (a, b) => {
          const rows = (l: number[], v: string) => l.map(n => ({ id: `${n}`, v }));
          const out = laidIn(rows(a, 'old'), rows(b, 'new'));
          expect(new Set(out.map(x => x.id)).size).toBe(new Set([...a, ...b]).size);
          for (const x of out) expect(x.v).toBe(b.map(String).includes(x.id) ? 'new' : 'old');
        },
      ),
    );
  });
});

const dxf = (entities: string, units = 4): string =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const polyline = (points: readonly (readonly [number, number, number?])[], closed = true): string =>
  `0\nLWPOLYLINE\n8\n0\n90\n${points.length}\n70\n${closed ? 1 : 0}\n${points.map(([x, y, b]) => `10\n${x}\n20\n${y}\n${b ? `42\n${b}\n` : ''}`).join('')}`;
const line = (a: readonly [number, number], b: readonly [number, number]): string =>
  `0\nLINE\n8\n0\n10\n${a[0]}\n20\n${a[1]}\n11\n${b[0]}\n21\n${b[1]}\n`;
const circle = (x: number, y: number, r: number): string => `0\nCIRCLE\n8\n0\n10\n${x}\n20\n${y}\n40\n${r}\n`;

describe('outlines from DXF', () => {
  const box = polyline([
    [0, 0],
    [400, 0],
    [400, 200],
    [0, 200],
  ]);
  it('closed polylines are plates, what lies within is cut out of them', () => {
    const r = readDxf(
      dxf(
        box +
          circle(100, 100, 30) +
          polyline([
            [200, 50],
            [260, 50],
            [260, 90],
            [200, 90],
          ]) +
          polyline([
            [600, 0],
            [900, 0],
            [900, 100],
            [600, 100],
          ]),
      ),
    );
    if (!r.ok) throw new Error(r.fault);
    expect(r.value.plates).toHaveLength(2);
    expect(r.value.plates[0]?.holes).toEqual([
      { at: [100, 100], circle: 60 },
      { polygon: expect.any(Array) },
    ]);
    expect(Math.abs(signedArea(r.value.plates[0]?.outline ?? []))).toBeCloseTo(80000, 6);
  });

  it('inches are read as inches, and an unknown unit is asked for', () => {
    const inch = readDxf(
      dxf(
        polyline([
          [0, 0],
          [10, 0],
          [10, 5],
          [0, 5],
        ]),
        1,
      ),
    );
    expect(inch.ok && Math.abs(signedArea(inch.value.plates[0]?.outline ?? []))).toBeCloseTo(50 * 645.16, 6);
    const none = dxf(box, 0);
    expect(dxfUnit(none)).toBeUndefined();
    const r = readDxf(none);
    expect(r.ok ? '' : r.fault).toContain('does not say its unit');
    expect(readDxf(none, 1).ok).toBe(true);
  });

  it('arcs are flattened to within the stated tolerance', () => {
    // two bulges of 1 make a full circle of radius 100
    const r = readDxf(
      dxf(
        polyline([
          [-100, 0, 1],
          [100, 0, 1],
        ]),
      ),
    );
    if (!r.ok) throw new Error(r.fault);
    const o = r.value.plates[0]?.outline ?? [];
    for (const [x, y] of o) expect(Math.hypot(x, y)).toBeCloseTo(100, 6);
    const worst = o.map((p, i) => {
      const q = o[(i + 1) % o.length] as readonly [number, number];
      return 100 - Math.hypot((p[0] + q[0]) / 2, (p[1] + q[1]) / 2);
    });
    expect(Math.max(...worst)).toBeLessThanOrEqual(DXF_TOLERANCE + 1e-9);
  });

  it('loose lines and arcs are joined; what stays open is named with its place', () => {
    const closed =
      line([0, 0], [100, 0]) + line([100, 60], [100, 0]) + line([0, 60], [100, 60]) + line([0, 60], [0, 0]);
    const r = readDxf(dxf(closed));
    expect(r.ok && Math.abs(signedArea(r.value.plates[0]?.outline ?? []))).toBeCloseTo(6000, 6);
    const open = readDxf(dxf(line([0, 0], [100, 0]) + line([100, 0], [100, 60])));
    expect(open.ok ? '' : open.fault).toContain('open at (100, 60)');
  });

  it('torn, empty, crossing and enormous drawings are refused', () => {
    const whole = dxf(box);
    for (const [text, why] of [
      [whole.slice(0, whole.length / 2), 'torn'],
      ['not a drawing', 'unit'],
      [dxf(''), 'no closed contour'],
      [
        dxf(
          polyline([
            [0, 0],
            [100, 100],
            [100, 0],
            [0, 100],
          ]),
        ),
        'crosses itself',
      ],
      [
        dxf(
          polyline([
            [0, 0],
            [400, 0],
            [400, 200],
            [0, 200],
          ]),
          6,
        ),
        'check its unit',
      ],
    ] as const) {
      const r = readDxf(text);
      expect(r.ok ? '' : r.fault).toContain(why);
    }
  });
});
