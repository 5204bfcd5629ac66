import { err, ok, type Result } from '../units';

/** What a drawing of plates may hold at most; beyond, it is none, or torn. */
export const DXF_LIMITS = {
  /** characters of the file */
  text: 8_000_000,
  /** lines, arcs, circles and polylines */
  entities: 20_000,
  /** corners of polylines in all */
  corners: 60_000,
  /** loose lines and arcs that have to be joined */
  loose: 4000,
  /** points of one contour, with its curves made straight */
  points: 2000,
  /** from the drawing's origin, mm */
  far: 100_000,
  /** a bulge is the tangent of a quarter of its arc: beyond this it is a full circle with a gap thinner than a sheet of paper */
  bulge: 1000,
} as const;

/** Group codes of coordinates, radii and angles (DXF reference: 10 to 59 are double precision figures). */
const isFigure = (code: number): boolean => code >= 10 && code <= 59;
const isPlace = (code: number): boolean => (code >= 10 && code <= 39) || code === 40;

/** What plates are drawn with, and the group codes of each that say what it is; all else the parser never sees. */
const READ: Readonly<Record<string, readonly number[]>> = {
  LWPOLYLINE: [8, 70, 10, 20, 42],
  POLYLINE: [8, 70, 66],
  VERTEX: [8, 10, 20, 42, 70],
  SEQEND: [8],
  LINE: [8, 10, 20, 11, 21],
  ARC: [8, 10, 20, 40, 50, 51],
  CIRCLE: [8, 10, 20, 40],
};

type Pair = readonly [code: number, value: string, line: number];

/** One entity as the parser takes it: known codes alone, every x with its y. The fault names the line. */
function entityText(pairs: readonly Pair[]): Result<string> {
  const [, kind] = pairs[0] as Pair;
  const codes = READ[kind];
  if (!codes) return ok('');
  const mine = pairs.slice(1).filter(([code]) => codes.includes(code));
  for (const [i, [code, , line]] of mine.entries())
    if ((code === 10 || code === 11) && mine[i + 1]?.[0] !== code + 10)
      return err(`line ${line} is an x without its y: the file may be torn`);
  const xs = mine.filter(([code]) => code === 10).length;
  const count = kind === 'LWPOLYLINE' ? `90\n${xs}\n` : '';
  if (kind === 'LWPOLYLINE' && xs === 0) return ok('');
  return ok(`0\n${kind}\n${count}${mine.map(([code, value]) => `${code}\n${value}\n`).join('')}`);
}

const TORN = 'the drawing breaks off: the file may be torn';

/**
 * The entities of a drawing as a text of their own, or what is wrong with the file, with its line. One pass over pairs of group code and
 * value; of figures only those of entities are looked at, since a header may hold anything. The parser then sees nothing but these.
 */
export function dxfEntities(text: string, perUnit: number): Result<string> {
  if (text.length > DXF_LIMITS.text)
    return err(`the file has ${text.length} characters; ${DXF_LIMITS.text} is the most`);
  const lines = text.split(/\r\n|\r|\n/);
  while (lines.length > 0 && lines.at(-1)?.trim() === '') lines.pop();
  const own: Pair[][] = [];
  let section: string | undefined;
  let [entities, corners] = [0, 0];
  let [seen, closed, ended] = [false, false, false];
  for (let i = 0; i + 1 < lines.length && !ended; i += 2) {
    const raw = (lines[i] as string).trim();
    const value = (lines[i + 1] as string).trim();
    if (!/^-?\d{1,4}$/.test(raw))
      return err(`line ${i + 1} is "${raw.slice(0, 20)}", where a group code belongs`);
    const code = Number(raw);
    if (code === 2 && section === '') {
      section = value;
      if (value === 'ENTITIES') {
        if (seen) return err(`line ${i + 2}: there is a second section of entities`);
        seen = true;
      }
    } else if (code === 0 && value === 'SECTION') {
      if (section !== undefined) return err(`line ${i + 2}: a section begins before the last has ended`);
      section = '';
    } else if (code === 0 && value === 'ENDSEC') {
      closed ||= section === 'ENTITIES';
      section = undefined;
    } else if (code === 0 && value === 'EOF') ended = true;
    else if (section === 'ENTITIES') {
      if (code === 0) {
        if (value === 'VERTEX') corners++;
        else if (++entities > DXF_LIMITS.entities)
          return err(`line ${i + 2}: there are more than ${DXF_LIMITS.entities} lines, arcs and polylines`);
      } else if (code === 10) corners++;
      if (corners > DXF_LIMITS.corners)
        return err(`line ${i + 2}: there are more than ${DXF_LIMITS.corners} corners`);
      if (isFigure(code)) {
        const v = Number(value);
        if (value === '' || !Number.isFinite(v))
          return err(`line ${i + 2} is "${value.slice(0, 20)}", which is not a number`);
        if (isPlace(code) && Math.abs(v) * perUnit > DXF_LIMITS.far)
          return err(`line ${i + 2} is ${value.slice(0, 20)}, too far away for a vehicle: check its unit`);
        if (code === 42 && Math.abs(v) > DXF_LIMITS.bulge)
          return err(`line ${i + 2} is a bulge of ${value.slice(0, 20)}; ${DXF_LIMITS.bulge} is the most`);
      }
      if (code === 0) own.push([[code, value, i + 2]]);
      else own.at(-1)?.push([code, value, i + 2]);
    }
  }
  if (!seen) return err('there is no section of entities: the file may be torn');
  if (!closed || !ended) return err(TORN);
  const made: string[] = [];
  for (const pairs of own) {
    const one = entityText(pairs);
    if (!one.ok) return one;
    made.push(one.value);
  }
  return ok(`0\nSECTION\n2\nENTITIES\n${made.join('')}0\nENDSEC\n0\nEOF\n`);
}
