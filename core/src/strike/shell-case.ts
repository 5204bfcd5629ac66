import * as yup from 'yup';
import { circle, type Vec3 } from '../geometry';
import { bad, good, type Result } from '../units';
import { type Bar, barElements, nodesOnLine } from './bar';
import { linearSolver } from './linear';
import { displacementAt, lineLoad, patchLoad, pointLoad, pressureLoad, triangleAt } from './load';
import { type ExtraElement, forceOn, pushedBack, type ShellModel } from './model';
import { solveLarge } from './newton';
import { type Flat3, inPlane2, meshShell, offPlane, planeOf, type ShellMesh } from './shell-mesh';
import { FREEDOMS } from './sparse';
import { elasticStress, faceStressAt } from './stress';

type Hole = { polygon: Vec3[] } | { circle: { at: Vec3; diameter: number } };
type Support =
  | { kind: 'disc'; id: string; at: Vec3; radius: number }
  | { kind: 'simple' | 'clamped'; id: string; edges: 'outline' }
  | { kind: 'clamped'; id: string; plane: { x?: number; y?: number; z?: number } };
type Load =
  | { kind: 'patch'; at: Vec3; size: [number, number]; force: Vec3 }
  | { kind: 'pressure'; mpa: number; direction: Vec3 }
  | { kind: 'line'; from: Vec3; to: Vec3; force: Vec3 }
  | { kind: 'point'; at: Vec3; force: Vec3 };

/** A bare shell as a reference case gives it: mm, N, MPa. */
export interface ShellCase {
  readonly material: { readonly E: number; readonly nu: number; readonly yield?: number };
  readonly thickness: number;
  readonly facets: readonly { readonly name: string; readonly polygon: Vec3[]; readonly holes?: Hole[] }[];
  readonly supports: readonly Support[];
  readonly loads: readonly Load[];
  readonly bars?: readonly {
    axis: [Vec3, Vec3];
    width: number;
    depth: number;
    side: Vec3;
    E: number;
    nu: number;
  }[];
  readonly analysis: 'linear' | 'large' | 'plastic';
  readonly unload?: boolean;
  readonly report?: { readonly points?: Vec3[] };
  readonly elementSize?: number;
}

export interface ShellAnswer {
  readonly deflections: readonly { readonly at: Vec3; readonly mm: Vec3 }[];
  readonly maxDeflection: { readonly mm: number; readonly at: Vec3 };
  /** of the support on the plate, N */
  readonly reactions: readonly { readonly id: string; readonly force: Vec3 }[];
  readonly vonMises: readonly {
    readonly where: string;
    readonly face: 'top' | 'bottom';
    readonly mpa: number;
  }[];
  readonly permanent?: readonly { readonly at: Vec3; readonly mm: Vec3 }[];
  readonly nodes: number;
  readonly elements: number;
  readonly steps: number;
  readonly solveMs: number;
  readonly totalMs: number;
  readonly theory: string;
}

const number = () => yup.number().required();
const point = () => yup.tuple([number(), number(), number()]).required();
const schema = yup.object({
  material: yup
    .object({ E: number().moreThan(0), nu: number().min(0).max(0.49), yield: yup.number().moreThan(0) })
    .required(),
  thickness: number().moreThan(0),
  facets: yup
    .array()
    .of(
      yup.object({
        name: yup.string().required(),
        polygon: yup.array().of(point()).min(3).required(),
        holes: yup.array().optional(),
      }),
    )
    .min(1)
    .required(),
  supports: yup
    .array()
    .of(
      yup.object({
        kind: yup.string().oneOf(['disc', 'simple', 'clamped']).required(),
        id: yup.string().required(),
      }),
    )
    .min(1)
    .required(),
  loads: yup
    .array()
    .of(yup.object({ kind: yup.string().oneOf(['patch', 'pressure', 'line', 'point']).required() }))
    .required(),
  analysis: yup.string().oneOf(['linear', 'large', 'plastic']).required(),
  elementSize: yup.number().moreThan(0),
});

/** Reads a case, bare or under `case`, with the points its file expects. */
export function readShellCase(
  text: string,
): Result<{ readonly shell: ShellCase; readonly points: readonly Vec3[] }> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return bad('the text breaks off or is not JSON');
  }
  const whole = raw as { case?: unknown; expected?: { deflections?: { at: Vec3 }[] } };
  const inner = whole.case ?? raw;
  try {
    schema.validateSync(inner, { strict: true });
  } catch (e) {
    return bad((e as yup.ValidationError).message);
  }
  const shell = inner as ShellCase;
  const points = shell.report?.points ?? whole.expected?.deflections?.map(d => d.at) ?? [];
  return good({ shell, points });
}

/** Nodes round a disc that is held, and how fast a mesh coarsens away from what is fine, mm a mm. */
const DISC_SIDES = 20;
const GROWTH = 0.25;

const holeRing = (h: Hole, normal: Flat3, spacing: number): readonly Vec3[] => {
  if ('polygon' in h) return h.polygon;
  const plane = planeOf(normal.polygon);
  const [cx, cy] = inPlane2(plane, h.circle.at);
  const sides = Math.max(16, Math.round((Math.PI * h.circle.diameter) / spacing));
  return circle([cx, cy], h.circle.diameter, sides).map(
    ([x, y]): Vec3 =>
      [0, 1, 2].map(
        k => (plane.origin[k] as number) + x * (plane.u[k] as number) + y * (plane.v[k] as number),
      ) as unknown as Vec3,
  );
};

/** Meshes a case and sets its supports and loads. */
export function modelOf(
  shell: ShellCase,
  points: readonly Vec3[],
): Result<{ model: ShellModel; supportNodes: ReadonlyMap<string, readonly number[]> }> {
  const all = shell.facets.flatMap(f => f.polygon);
  const size = Math.max(
    ...[0, 1, 2].map(k => Math.max(...all.map(p => p[k as 0])) - Math.min(...all.map(p => p[k as 0]))),
  );
  const H = shell.elementSize ?? size / 44;
  const fine: { at: Vec3; from: number; h: number }[] = [];
  for (const s of shell.supports)
    if (s.kind === 'disc')
      fine.push({ at: s.at, from: s.radius, h: Math.min(H, (2 * Math.PI * s.radius) / DISC_SIDES) });
  for (const f of shell.facets)
    for (const h of f.holes ?? [])
      if ('circle' in h)
        fine.push({
          at: h.circle.at,
          from: h.circle.diameter / 2,
          h: Math.min(H, (Math.PI * h.circle.diameter) / 28),
        });
      else for (const q of h.polygon) fine.push({ at: q, from: 0, h: Math.min(H, H / 2) });
  for (const l of shell.loads) {
    if (l.kind === 'patch')
      fine.push({ at: l.at, from: Math.max(...l.size) / 2, h: Math.min(H, Math.min(...l.size) / 6) });
    if (l.kind === 'point') fine.push({ at: l.at, from: 0, h: H / 4 });
  }
  const spacing = (p: Vec3): number =>
    fine.reduce(
      (h, f) =>
        Math.min(
          h,
          f.h + GROWTH * Math.max(0, Math.hypot(p[0] - f.at[0], p[1] - f.at[1], p[2] - f.at[2]) - f.from),
        ),
      H,
    );
  const flats: Flat3[] = shell.facets.map(f => {
    const bare = { name: f.name, polygon: f.polygon, holes: [] };
    return {
      ...bare,
      holes: (f.holes ?? []).map(h =>
        holeRing(h, bare, 'circle' in h ? Math.min(H, (Math.PI * h.circle.diameter) / 28) : H),
      ),
    };
  });
  const rings = shell.supports.flatMap(s => {
    if (s.kind !== 'disc') return [];
    const flat = flats.find(f => Math.abs(offPlane(planeOf(f.polygon), s.at)) < 1e-3);
    return flat
      ? [
          holeRing(
            { circle: { at: s.at, diameter: 2 * s.radius } },
            flat,
            (2 * Math.PI * s.radius) / DISC_SIDES,
          ),
        ]
      : [];
  });
  const marked = [
    ...shell.supports.flatMap(s => (s.kind === 'disc' ? [s.at] : [])),
    ...shell.loads.flatMap(l => (l.kind === 'patch' || l.kind === 'point' ? [l.at] : [])),
    ...points,
  ];
  const mesh = meshShell({
    flats,
    rings,
    points: marked.filter(
      (p, i) => marked.findIndex(q => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) < 1e-3) === i,
    ),
    lines: (shell.bars ?? []).map(b => b.axis),
    spacing,
  });
  if ('fault' in mesh)
    return bad(`${mesh.flat} at ${mesh.at.map(v => Math.round(v)).join(', ')}: ${mesh.fault}`);
  const count = mesh.coordinates.length / 3;
  const place = (n: number): Vec3 => [
    mesh.coordinates[3 * n] as number,
    mesh.coordinates[3 * n + 1] as number,
    mesh.coordinates[3 * n + 2] as number,
  ];
  const held = new Uint8Array(FREEDOMS * count);
  const extra: ExtraElement[] = [];
  const supportNodes = new Map<string, number[]>();
  for (const s of shell.supports) {
    const nodes = nodesOf(mesh, flats, s);
    if (nodes.length === 0) return bad(`support ${s.id} touches no node of the plate`);
    supportNodes.set(s.id, nodes);
    if (s.kind === 'simple') hardSimple(mesh, nodes, held, extra);
    else for (const n of nodes) held.fill(1, FREEDOMS * n, FREEDOMS * (n + 1));
  }
  for (const b of shell.bars ?? []) {
    const nodes = nodesOnLine(mesh.coordinates, b.axis[0], b.axis[1]);
    const bar: Bar = { width: b.width, depth: b.depth, side: b.side, elastic: { E: b.E, nu: b.nu } };
    extra.push(...barElements(nodes, place, bar, shell.thickness));
  }
  const load = new Float64Array(FREEDOMS * count);
  for (const l of shell.loads) {
    if (l.kind === 'patch') {
      if (!(patchLoad(load, mesh, l.at, l.size, l.force, Math.max(...l.size)) > 0))
        return bad(`the patch at ${l.at.join(', ')} lies beside the plate`);
    } else if (l.kind === 'pressure') pressureLoad(load, mesh, l.mpa, l.direction);
    else if (l.kind === 'line') lineLoad(load, mesh, l.from, l.to, l.force);
    else pointLoad(load, mesh, l.at, l.force);
  }
  const { E, nu } = shell.material;
  return good({
    model: {
      mesh,
      thickness: shell.thickness,
      elastic: { E, nu },
      yield: shell.material.yield,
      held,
      extra,
      load,
    },
    supportNodes,
  });
}

/** Sides that belong to one triangle only: the outline and the edges of holes. */
function freeSides(mesh: ShellMesh): readonly (readonly [number, number])[] {
  const count = new Map<number, number>();
  const n = mesh.coordinates.length / 3;
  const key = (a: number, b: number): number => Math.min(a, b) * n + Math.max(a, b);
  for (let k = 0; k < mesh.triangles.length; k += 3)
    for (let s = 0; s < 3; s++) {
      const e = key(mesh.triangles[k + s] as number, mesh.triangles[k + ((s + 1) % 3)] as number);
      count.set(e, (count.get(e) ?? 0) + 1);
    }
  return [...count].filter(([, c]) => c === 1).map(([e]) => [Math.floor(e / n), e % n]);
}

/** Nodes on the outline of the flats together, holes left out. */
function outlineNodes(mesh: ShellMesh, flats: readonly Flat3[]): number[] {
  const out = new Set(freeSides(mesh).flat());
  const onRing = (p: Vec3, ring: readonly Vec3[]): boolean =>
    ring.some((a, i) => {
      const b = ring[(i + 1) % ring.length] as Vec3;
      const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
      const l2 = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
      const t = Math.max(
        0,
        Math.min(1, ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1] + (p[2] - a[2]) * d[2]) / l2),
      );
      return Math.hypot(p[0] - a[0] - t * d[0], p[1] - a[1] - t * d[1], p[2] - a[2] - t * d[2]) < 1e-3;
    });
  return [...out].filter(k => {
    const p: Vec3 = [
      mesh.coordinates[3 * k] as number,
      mesh.coordinates[3 * k + 1] as number,
      mesh.coordinates[3 * k + 2] as number,
    ];
    return !flats.some(f => f.holes.some(h => onRing(p, h)));
  });
}

function nodesOf(mesh: ShellMesh, flats: readonly Flat3[], s: Support): number[] {
  if (s.kind !== 'disc' && 'edges' in s) return outlineNodes(mesh, flats);
  const out: number[] = [];
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const [x, y, z] = [mesh.coordinates[3 * n], mesh.coordinates[3 * n + 1], mesh.coordinates[3 * n + 2]] as [
      number,
      number,
      number,
    ];
    if (s.kind === 'disc') {
      // the ring stands a little outside, so that its polygon has the disc's area
      if (Math.hypot(x - s.at[0], y - s.at[1], z - s.at[2]) <= s.radius * 1.02) out.push(n);
    } else if ('plane' in s) {
      const p = s.plane;
      if (
        [
          [p.x, x],
          [p.y, y],
          [p.z, z],
        ].every(([want, is]) => want === undefined || Math.abs((want as number) - (is as number)) < 1e-3)
      )
        out.push(n);
    }
  }
  return out;
}

/** Stiffness that stands for "held", N·mm: some million times that of the sheet round it. */
const HARD = 1e12;

/** Held up, and kept from turning across the edge, as Kirchhoff's theory has a simple support; in its plane it just stays. */
function hardSimple(
  mesh: ShellMesh,
  nodes: readonly number[],
  held: Uint8Array,
  extra: ExtraElement[],
): void {
  const on = new Set(nodes);
  for (const n of nodes) held[FREEDOMS * n + 2] = 1;
  for (const [a, b] of freeSides(mesh)) {
    if (!on.has(a) || !on.has(b)) continue;
    const d = [0, 1].map(
      i => (mesh.coordinates[3 * b + i] as number) - (mesh.coordinates[3 * a + i] as number),
    ) as [number, number];
    const l = Math.hypot(...d);
    // the rotation whose axis lies across the edge is the twist along it
    for (const n of [a, b]) {
      if (Math.abs(d[1]) < 1e-6 * l) held[FREEDOMS * n + 4] = 1;
      else if (Math.abs(d[0]) < 1e-6 * l) held[FREEDOMS * n + 3] = 1;
      else {
        const m = new Float64Array(36);
        const across = [-d[1] / l, d[0] / l] as const;
        for (let i = 0; i < 2; i++)
          for (let j = 0; j < 2; j++)
            m[6 * (3 + i) + 3 + j] = HARD * (across[i] as number) * (across[j] as number);
        extra.push({ nodes: [n], k: m });
      }
    }
  }
  const [first] = nodes;
  if (first === undefined) return;
  held[FREEDOMS * first] = 1;
  held[FREEDOMS * first + 1] = 1;
  const far = nodes.reduce(
    (p, n) =>
      Math.abs((mesh.coordinates[3 * n] as number) - (mesh.coordinates[3 * first] as number)) >
      Math.abs((mesh.coordinates[3 * p] as number) - (mesh.coordinates[3 * first] as number))
        ? n
        : p,
    first,
  );
  held[FREEDOMS * far + 1] = 1;
}

const NAMES = ['along x', 'along y', 'along z', 'about x', 'about y', 'about z'] as const;

/** Solves a case; answers at the points asked for, or those its file expects. */
export function solveShell(
  shell: ShellCase,
  points: readonly Vec3[],
  now: () => number = () => 0,
): Result<ShellAnswer> {
  const t0 = now();
  const made = modelOf(shell, points);
  if (!made.ok) return made;
  const { model, supportNodes } = made.value;
  const t1 = now();
  const { mesh } = model;
  const place = (n: number): Vec3 => [
    mesh.coordinates[3 * n] as number,
    mesh.coordinates[3 * n + 1] as number,
    mesh.coordinates[3 * n + 2] as number,
  ];
  let u: Float64Array;
  let stress: Float64Array;
  let inner: Float64Array;
  let steps = 1;
  let theory = 'small deflections, elastic';
  let rest: Float64Array | undefined;
  if (shell.analysis === 'linear') {
    const solver = linearSolver(model);
    if ('mechanism' in solver)
      return bad(
        `the plate is not held: at ${place(solver.node)
          .map(v => Math.round(v))
          .join(', ')} it moves freely ${NAMES[solver.freedom]}`,
      );
    u = solver.solve(model.load);
    inner = pushedBack(model, u);
    stress = elasticStress(model, u);
  } else {
    const plastic = shell.analysis === 'plastic';
    const done = solveLarge(model, { plastic, unload: shell.unload });
    if ('mechanism' in done)
      return bad(
        `the plate is not held: at ${place(done.node)
          .map(v => Math.round(v))
          .join(', ')} it moves freely ${NAMES[done.freedom]}`,
      );
    if (done.reached < 1)
      return bad(`no balance found beyond ${Math.round(done.reached * 100)} % of the load`);
    ({ u, inner, stress, steps } = done);
    rest = done.rest;
    theory = plastic ? 'large deflections, elastic-plastic' : 'large deflections, elastic';
  }
  const solveMs = now() - t1;
  let best = { mm: 0, n: 0 };
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const mm = Math.hypot(
      u[FREEDOMS * n] as number,
      u[FREEDOMS * n + 1] as number,
      u[FREEDOMS * n + 2] as number,
    );
    if (mm > best.mm) best = { mm, n };
  }
  const reactions = [...supportNodes].map(([id, nodes]) => {
    const [a, b] = [forceOn(inner, nodes), forceOn(model.load, nodes)];
    return { id, force: [a[0] - b[0], a[1] - b[1], a[2] - b[2]] as Vec3 };
  });
  const patch = shell.loads.find(l => l.kind === 'patch');
  const where: Vec3 | undefined = patch?.kind === 'patch' ? patch.at : undefined;
  const centre = where ?? middleOf(mesh);
  const { e } = triangleAt(mesh, centre);
  const reach = patch?.kind === 'patch' ? Math.min(...patch.size) * 0.45 : (shell.elementSize ?? 20) * 2.2;
  const faces = faceStressAt({ mesh }, stress, centre, reach, mesh.flatOf[e] as number);
  return good({
    deflections: points.map(at => ({ at, mm: displacementAt(mesh, u, at) })),
    maxDeflection: { mm: best.mm, at: place(best.n) },
    reactions,
    vonMises: [
      { where: 'patch centre', face: 'top', mpa: faces.top },
      { where: 'patch centre', face: 'bottom', mpa: faces.bottom },
    ],
    ...(rest
      ? { permanent: points.map(at => ({ at, mm: displacementAt(mesh, rest as Float64Array, at) })) }
      : {}),
    nodes: mesh.coordinates.length / 3,
    elements: mesh.flatOf.length,
    steps,
    solveMs,
    totalMs: now() - t0,
    theory,
  });
}

/** The middle of the first flat's box: where a load without a patch is looked at. */
function middleOf(mesh: ShellMesh): Vec3 {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let e = 0; e < mesh.flatOf.length; e++) {
    if (mesh.flatOf[e] !== 0) continue;
    for (let i = 0; i < 3; i++)
      for (let k = 0; k < 3; k++) {
        const v = mesh.coordinates[3 * (mesh.triangles[3 * e + i] as number) + k] as number;
        low[k] = Math.min(low[k] as number, v);
        high[k] = Math.max(high[k] as number, v);
      }
  }
  return low.map((v, k) => (v + (high[k] as number)) / 2) as unknown as Vec3;
}
