import { threadNamed } from '../bolt';
import {
  boxOf,
  contains,
  distanceToOutline,
  type Polygon,
  selfCrossing,
  signedArea,
  type Vec2,
  type Vec3,
} from '../geometry';
import {
  CARRIERS,
  COMPONENT_KINDS,
  type Component,
  type FactoryPart,
  HOLE_CONDITIONS,
  HOLE_KINDS,
  MEMBER_KINDS,
  type Member,
  type Mount,
  NUT_REACHES,
  type Rig,
  SERVICE_KINDS,
  type ServicePoint,
} from '../rig';
import { MM_PER_INCH, roundTo, type UnitSystem } from '../units';
import type { CellFault, CellValue, Table } from './table';

type Cells = Readonly<Record<string, CellValue>>;
const text = (c: Cells, k: string): string => String(c[k] ?? '');
const num = (c: Cells, k: string): number => Number(c[k] ?? 0);
const maybe = (c: Cells, k: string): number | undefined => (c[k] === undefined ? undefined : Number(c[k]));
/** A figure whose column the table may not have: what was there then stays. */
const kept = (c: Cells, k: string, old: number | undefined): number | undefined =>
  k in c ? maybe(c, k) : old;

/** A footprint in a cell: `x0 x1 y0 y1` for a box, else `x y; x y; x y`. Lengths in the table's system. */
export function outlineText(o: Polygon, system: UnitSystem): string {
  const per = system === 'inch' ? MM_PER_INCH : 1;
  const n = (v: number): string => String(roundTo(v / per, system === 'inch' ? 3 : 1));
  const { min, max } = boxOf(o);
  const isBox =
    o.length === 4 &&
    o.every(p => (p[0] === min[0] || p[0] === max[0]) && (p[1] === min[1] || p[1] === max[1]));
  return isBox
    ? [min[0], max[0], min[1], max[1]].map(n).join(' ')
    : o.map(p => `${n(p[0])} ${n(p[1])}`).join('; ');
}

export function readOutline(cell: string, system: UnitSystem): Polygon | string {
  const per = system === 'inch' ? MM_PER_INCH : 1;
  const points = cell.split(';').map(s =>
    s
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number),
  );
  const flat = points.flat();
  if (flat.some(v => !Number.isFinite(v))) return `is "${cell}", which holds something that is not a number`;
  const scaled = (p: readonly number[]): Vec2 => [(p[0] as number) * per, (p[1] as number) * per];
  if (points.length === 1 && flat.length === 4) {
    const [x0, x1, y0, y1] = flat.map(v => v * per) as [number, number, number, number];
    if (x1 <= x0 || y1 <= y0) return 'ends before it begins: write x from, x to, y from, y to';
    return [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ];
  }
  if (points.length < 3 || points.some(p => p.length !== 2))
    return 'is neither a box (x from, x to, y from, y to) nor points (x y; x y; x y)';
  const o = points.map(scaled);
  const cross = selfCrossing(o);
  if (cross) return `crosses itself: edge ${cross[0] + 1} meets edge ${cross[1] + 1}`;
  return Math.abs(signedArea(o)) < 1 ? 'encloses no area' : o;
}

const nearest = (rig: Rig, at: Vec2): Member | undefined => {
  const far = (m: Member): number => (contains(m.footprint, at) ? 0 : distanceToOutline(m.footprint, at));
  return [...rig.members].sort((a, b) => far(a) - far(b))[0];
};

/** The ways that a hole looks, as a table has them; one that looks aslant keeps the way that its file gives. */
const FACES = {
  down: undefined,
  up: [0, 0, 1],
  left: [0, -1, 0],
  right: [0, 1, 0],
  front: [-1, 0, 0],
  rear: [1, 0, 0],
} as const satisfies Readonly<Record<string, Vec3 | undefined>>;
const facesOf = (normal: Vec3 | undefined): string | undefined =>
  normal === undefined
    ? 'down'
    : Object.entries(FACES).find(([, n]) =>
        n?.every((v, i) => Math.abs(v - (normal[i] as number)) < 1e-9),
      )?.[0];

/** Holes: id, x, y, z, thread, kind, condition; member, diameter, nut reach and the part that hangs on the factory bolt may follow. */
export const holesTable = (rig: Rig): Table<Mount> => ({
  name: 'holes',
  columns: [
    { name: 'id', kind: 'text', needed: true, get: m => m.id },
    { name: 'x', kind: 'length', needed: true, get: m => m.at[0] },
    { name: 'y', kind: 'length', needed: true, get: m => m.at[1] },
    { name: 'z', kind: 'length', needed: true, get: m => m.at[2] },
    { name: 'thread', kind: 'text', get: m => m.hole.thread },
    { name: 'kind', kind: 'text', needed: true, choices: HOLE_KINDS, get: m => m.hole.kind },
    { name: 'condition', kind: 'text', choices: HOLE_CONDITIONS, get: m => m.condition },
    { name: 'member', kind: 'text', get: m => m.member },
    { name: 'diameter', kind: 'length', get: m => m.hole.diameter },
    { name: 'slot length', kind: 'length', get: m => m.hole.length },
    { name: 'slot along', kind: 'text', choices: ['x', 'y'], get: m => m.hole.along },
    { name: 'nut reach', kind: 'text', choices: NUT_REACHES, get: m => m.nutReach },
    { name: 'carries', kind: 'text', get: m => m.carries },
    { name: 'faces', kind: 'text', choices: Object.keys(FACES), get: m => facesOf(m.normal) },
  ],
  make: c => {
    const thread = c.thread === undefined ? undefined : text(c, 'thread');
    if (thread !== undefined) {
      const known = threadNamed(thread);
      if (!known.ok) return { column: 'thread', fault: known.fault };
    }
    const at = [num(c, 'x'), num(c, 'y'), num(c, 'z')] as const;
    const member = c.member === undefined ? nearest(rig, [at[0], at[1]])?.id : text(c, 'member');
    if (!rig.members.some(m => m.id === member))
      return { column: 'member', fault: `names "${member ?? ''}", which is no member of this rig` };
    const carries = text(c, 'carries');
    if (carries !== '' && !rig.components.some(x => x.id === carries))
      return { column: 'carries', fault: `names "${carries}", which is no part of this rig` };
    const old = rig.mounts.find(m => m.id === c.id);
    return {
      ...old,
      id: text(c, 'id'),
      member: member as string,
      at,
      hole: {
        kind: text(c, 'kind') as Mount['hole']['kind'],
        thread: 'thread' in c ? thread : old?.hole.thread,
        diameter: kept(c, 'diameter', old?.hole.diameter),
        length: kept(c, 'slot length', old?.hole.length),
        along: ('slot along' in c ? c['slot along'] : old?.hole.along) as Mount['hole']['along'],
      },
      condition: (c.condition ?? 'good') as Mount['condition'],
      nutReach: (c['nut reach'] ?? old?.nutReach ?? 'none') as Mount['nutReach'],
      ...('carries' in c ? { carries: carries || undefined } : {}),
      ...('faces' in c && text(c, 'faces') !== (facesOf(old?.normal) ?? '')
        ? { normal: FACES[text(c, 'faces') as keyof typeof FACES] }
        : {}),
    };
  },
});

const heights = (c: Cells): Omit<CellFault, 'row'> | undefined =>
  num(c, 'top') <= num(c, 'bottom') ? { column: 'top', fault: 'is not above the bottom' } : undefined;

export const componentsTable = (rig: Rig, system: UnitSystem): Table<Component> => ({
  name: 'parts',
  columns: [
    { name: 'id', kind: 'text', needed: true, get: x => x.id },
    { name: 'kind', kind: 'text', needed: true, choices: COMPONENT_KINDS, get: x => x.kind },
    { name: 'name', kind: 'text', needed: true, get: x => x.name },
    {
      name: 'footprint',
      also: ['outline'],
      kind: 'text',
      needed: true,
      get: x => outlineText(x.footprint, system),
    },
    { name: 'bottom', kind: 'length', needed: true, get: x => x.zBottom },
    { name: 'top', kind: 'length', needed: true, get: x => x.zTop },
    { name: 'protect', kind: 'yes-no', get: x => x.protect },
    { name: 'clearance', also: ['keep out'], kind: 'length', get: x => x.keepOut },
    { name: 'surface', kind: 'temperature', get: x => x.surfaceC },
    { name: 'moves', kind: 'yes-no', get: x => x.moves ?? false },
    { name: 'capacity', kind: 'volume', get: x => x.litres },
    { name: 'high voltage', kind: 'yes-no', get: x => x.highVoltage ?? false },
  ],
  make: c => {
    const outline = readOutline(text(c, 'footprint'), system);
    if (typeof outline === 'string') return { column: 'footprint', fault: outline };
    const wrong = heights(c);
    if (wrong) return wrong;
    const old = rig.components.find(x => x.id === c.id);
    const litres = kept(c, 'capacity', old?.litres);
    if (litres !== undefined && !(litres > 0 && litres <= 2000))
      return { column: 'capacity', fault: 'must be above zero and no more than a tanker holds' };
    return {
      ...old,
      id: text(c, 'id'),
      kind: text(c, 'kind') as Component['kind'],
      name: text(c, 'name'),
      footprint: outline,
      zBottom: num(c, 'bottom'),
      zTop: num(c, 'top'),
      protect: c.protect === true,
      keepOut: Math.max(0, maybe(c, 'clearance') ?? 20),
      surfaceC: kept(c, 'surface', old?.surfaceC),
      moves: ('moves' in c ? c.moves === true : old?.moves) ? true : undefined,
      litres,
      highVoltage: ('high voltage' in c ? c['high voltage'] === true : old?.highVoltage) ? true : undefined,
    };
  },
});

export const membersTable = (system: UnitSystem): Table<Member> => ({
  name: 'members',
  columns: [
    { name: 'id', kind: 'text', needed: true, get: x => x.id },
    { name: 'kind', kind: 'text', needed: true, choices: MEMBER_KINDS, get: x => x.kind },
    {
      name: 'footprint',
      also: ['outline'],
      kind: 'text',
      needed: true,
      get: x => outlineText(x.footprint, system),
    },
    { name: 'bottom', kind: 'length', needed: true, get: x => x.zBottom },
    { name: 'top', kind: 'length', needed: true, get: x => x.zTop },
    { name: 'wall', kind: 'length', needed: true, get: x => x.wall },
    { name: 'moves with', kind: 'text', choices: CARRIERS, get: x => x.moves?.with },
    { name: 'bump', kind: 'length', get: x => x.moves?.bump },
    { name: 'droop', kind: 'length', get: x => x.moves?.droop },
  ],
  make: c => {
    const outline = readOutline(text(c, 'footprint'), system);
    if (typeof outline === 'string') return { column: 'footprint', fault: outline };
    const wrong = heights(c);
    if (wrong) return wrong;
    if (num(c, 'wall') <= 0) return { column: 'wall', fault: 'must be above zero' };
    return {
      id: text(c, 'id'),
      kind: text(c, 'kind') as Member['kind'],
      footprint: outline,
      zBottom: num(c, 'bottom'),
      zTop: num(c, 'top'),
      wall: num(c, 'wall'),
      ...(text(c, 'moves with') === ''
        ? {}
        : {
            moves: {
              with: text(c, 'moves with') as (typeof CARRIERS)[number],
              bump: num(c, 'bump'),
              droop: num(c, 'droop'),
            },
          }),
    };
  },
});

export const servicePointsTable = (rig: Rig): Table<ServicePoint> => ({
  name: 'service points',
  columns: [
    { name: 'id', kind: 'text', needed: true, get: x => x.id },
    { name: 'kind', kind: 'text', needed: true, choices: SERVICE_KINDS, get: x => x.kind },
    { name: 'name', kind: 'text', needed: true, get: x => x.name },
    { name: 'x', kind: 'length', needed: true, get: x => x.at[0] },
    { name: 'y', kind: 'length', needed: true, get: x => x.at[1] },
    { name: 'z', kind: 'length', needed: true, get: x => x.at[2] },
    { name: 'opening', kind: 'length', needed: true, get: x => x.opening },
    { name: 'component', also: ['part'], kind: 'text', needed: true, get: x => x.component },
    { name: 'every', kind: 'distance', get: x => x.everyKm },
    { name: 'refill', kind: 'volume', get: x => x.litres },
  ],
  make: c => {
    if (!rig.components.some(x => x.id === c.component))
      return { column: 'component', fault: `names "${text(c, 'component')}", which is no part of this rig` };
    const old = rig.servicePoints.find(x => x.id === c.id);
    const every = kept(c, 'every', old?.everyKm);
    const litres = kept(c, 'refill', old?.litres);
    if (litres !== undefined && !(litres > 0 && litres <= 200))
      return { column: 'refill', fault: 'must be above zero and no more than any of them takes' };
    if (every !== undefined && every <= 0) return { column: 'every', fault: 'must be above zero' };
    return {
      ...old,
      id: text(c, 'id'),
      kind: text(c, 'kind') as ServicePoint['kind'],
      name: text(c, 'name'),
      at: [num(c, 'x'), num(c, 'y'), num(c, 'z')] as const,
      opening: Math.max(0, num(c, 'opening')),
      component: text(c, 'component'),
      everyKm: every,
      litres,
    };
  },
});

/** Factory parts to take off; fasteners as `6 hex M6x1; 3 push pin`. */
export const factoryPartsTable = (rig: Rig): Table<FactoryPart> => ({
  name: 'factory parts',
  columns: [
    { name: 'id', kind: 'text', needed: true, get: x => x.id },
    { name: 'name', kind: 'text', needed: true, get: x => x.name },
    { name: 'mass', kind: 'mass', needed: true, get: x => x.massKg },
    { name: 'x', kind: 'length', needed: true, get: x => x.at[0] },
    { name: 'y', kind: 'length', needed: true, get: x => x.at[1] },
    { name: 'z', kind: 'length', needed: true, get: x => x.at[2] },
    {
      name: 'fasteners',
      kind: 'text',
      get: x => x.fasteners.map(f => `${f.count} ${f.head} ${f.thread}`.trim()).join('; '),
    },
    { name: 'reuse', kind: 'yes-no', get: x => x.reuseFasteners },
    { name: 'carries', kind: 'text', get: x => x.carries ?? '' },
  ],
  make: c => {
    if (num(c, 'mass') < 0) return { column: 'mass', fault: 'is below zero' };
    const fasteners = text(c, 'fasteners')
      .split(';')
      .map(s => s.trim())
      .filter(Boolean)
      .map(s => /^(\d+)\s*[×x]?\s+(.*?)(?:\s+(M\d+\S*|\d+\/\d+-\d+))?$/.exec(s));
    if (fasteners.some(m => !m))
      return { column: 'fasteners', fault: 'must read like 6 hex M6x1; 3 push pin' };
    const carries = text(c, 'carries');
    if (carries !== '' && !rig.components.some(x => x.id === carries))
      return { column: 'carries', fault: `is "${carries}", which is no part of this vehicle` };
    const { carries: _, ...old } = rig.factoryParts.find(x => x.id === c.id) ?? {};
    return {
      ...old,
      ...(carries === '' ? {} : { carries }),
      id: text(c, 'id'),
      name: text(c, 'name'),
      massKg: num(c, 'mass'),
      at: [num(c, 'x'), num(c, 'y'), num(c, 'z')] as const,
      fasteners: fasteners.map(m => ({ count: Number(m?.[1]), head: m?.[2] ?? '', thread: m?.[3] ?? '' })),
      reuseFasteners: c.reuse === true,
    };
  },
});

/** Rows laid into a list: same ids replaced, new ones added at the end; two rows of one id are a fault. */
export function laidIn<T extends { readonly id: string }>(
  list: readonly T[],
  rows: readonly T[],
): readonly T[] {
  const next = new Map(rows.map(r => [r.id, r]));
  const known = new Set(list.map(x => x.id));
  return [...list.map(x => next.get(x.id) ?? x), ...rows.filter(r => !known.has(r.id))];
}
