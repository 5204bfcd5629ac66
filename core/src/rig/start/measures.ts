import { formatMass, tapeLength, type UnitSystem } from '../../units';
import type { Body, Rig } from '../rig';
import { FIRST_MEASURES, type Measure, type MeasureId, type Measures, type Spread } from './measure';
import { MEASURES } from './measure-list';

export * from './measure';
export * from './measure-list';

/** The measures of a body, in the order of the sheet. */
export const measuresOf = (body: Body): readonly Measure[] => MEASURES.filter(m => m.of[body]);

/** Typical measures of a body; measures it does not have are zero. */
export const typicalMeasures = (body: Body): Measures =>
  Object.fromEntries(MEASURES.map(m => [m.id, m.of[body]?.[0] ?? 0])) as Measures;

/**
 * Which measures of a vehicle were taken on it. Where a file does not say, those that differ from what is typical of its kind; undefined
 * for one that was not begun from measures.
 */
export function takenMeasures(
  rig: Pick<Rig, 'body' | 'measures' | 'measured'>,
): ReadonlySet<string> | undefined {
  const { measures, measured } = rig;
  if (!measures) return undefined;
  if (measured) return new Set(measured);
  const typical = typicalMeasures(rig.body);
  return new Set(measuresOf(rig.body).flatMap(m => (measures[m.id] === typical[m.id] ? [] : [m.id])));
}

/** Those of the first twelve that are still assumed, in the order of the sheet. */
export const assumedFirst = (rig: Pick<Rig, 'body' | 'measures' | 'measured'>): readonly Measure[] => {
  const taken = takenMeasures(rig);
  return taken ? measuresOf(rig.body).filter(m => FIRST_MEASURES.has(m.id) && !taken.has(m.id)) : [];
};

export interface MeasureFault {
  readonly id: MeasureId;
  readonly fault: string;
}

/** Pairs where the first has to lie ahead of the second by at least so much, mm. */
const ORDER: readonly (readonly [MeasureId, MeasureId, number])[] = [
  ['crossFrontX', 'panFront', 40],
  ['panFront', 'panRear', 150],
  ['gearboxRear', 'transferRear', 100],
  ['tankFront', 'tankRear', 150],
  ['converterFront', 'converterRear', 80],
];

/**
 * What cannot be right about a set of measures: out of its plausible range, or ends before it begins. Empty when all
 * is well. A value out of range is refused: it is nearly always a wrong unit or the wrong end of the tape.
 */
export function measureFaults(
  body: Body,
  m: Measures,
  units: UnitSystem = 'metric',
): readonly MeasureFault[] {
  const said = (v: number, unit: Measure['unit']): string =>
    unit === 'kg' ? formatMass(v, units) : tapeLength(v, units);
  const faults: MeasureFault[] = [];
  const listed = measuresOf(body);
  for (const { id, name, of, unit } of listed) {
    const [typical, least, most] = of[body] as Spread;
    if (!Number.isFinite(m[id])) faults.push({ id, fault: `${name} is not a number` });
    else if (m[id] < least || m[id] > most)
      faults.push({
        id,
        fault: `${name} is ${said(m[id], unit)}; plausible is ${said(least, unit)} to ${said(most, unit)} (about ${said(typical, unit)})`,
      });
  }
  const has = (id: MeasureId): boolean => listed.some(x => x.id === id);
  const name = (id: MeasureId): string => MEASURES.find(x => x.id === id)?.name ?? id;
  for (const [a, b, gap] of ORDER)
    if (has(a) && has(b) && m[b] - m[a] < gap)
      faults.push({
        id: b,
        fault: `${name(b)} (${tapeLength(m[b], units)}) must be behind ${name(a)} (${tapeLength(m[a], units)})`,
      });
  if (body !== 'car' && body !== 'side-by-side' && m.gearboxRear - m.panRear < 200)
    faults.push({ id: 'gearboxRear', fault: 'Gearbox ends must be behind Oil pan ends' });
  if (body === 'side-by-side' && m.tankRear > m.panFront - 20)
    faults.push({ id: 'tankRear', fault: 'Fuel tank ends must be ahead of Oil pan begins' });
  if ((body === 'truck' || body === 'suv') && m.tankFront < m.transferRear + 120)
    faults.push({ id: 'tankFront', fault: 'Fuel tank begins must be behind Transfer case ends' });
  return faults;
}
