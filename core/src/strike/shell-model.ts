import { circle, type Vec3 } from '../geometry';
import { err, ok, type Result } from '../units';
import { type Bar, barElements, nodesOnLine } from './bar';
import { lineLoad, patchLoad, pointLoad, pressureLoad } from './load';
import type { ExtraElement, ShellModel } from './model';
import type { Hole, ShellCase, Support } from './shell-format';
import { type Flat3, inPlane2, meshShell, offPlane, planeOf, type ShellMesh } from './shell-mesh';
import { type Fine, graded } from './spacing';
import { DOF_PER_NODE } from './sparse';

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
  const fine: Fine[] = [];
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
  const spacing = graded(fine, H, GROWTH);
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
    return err(`${mesh.flat} at ${mesh.at.map(v => Math.round(v)).join(', ')}: ${mesh.fault}`);
  const count = mesh.coordinates.length / 3;
  const place = (n: number): Vec3 => [
    mesh.coordinates[3 * n] as number,
    mesh.coordinates[3 * n + 1] as number,
    mesh.coordinates[3 * n + 2] as number,
  ];
  const held = new Uint8Array(DOF_PER_NODE * count);
  const extra: ExtraElement[] = [];
  const supportNodes = new Map<string, number[]>();
  for (const s of shell.supports) {
    const nodes = nodesOf(mesh, flats, s);
    if (nodes.length === 0) return err(`support ${s.id} touches no node of the plate`);
    supportNodes.set(s.id, nodes);
    if (s.kind === 'simple') hardSimple(mesh, nodes, held, extra);
    else for (const n of nodes) held.fill(1, DOF_PER_NODE * n, DOF_PER_NODE * (n + 1));
  }
  for (const b of shell.bars ?? []) {
    const nodes = nodesOnLine(mesh.coordinates, b.axis[0], b.axis[1]);
    const bar: Bar = { width: b.width, depth: b.depth, side: b.side, elastic: { E: b.E, nu: b.nu } };
    extra.push(...barElements(nodes, place, bar, shell.thickness));
  }
  const load = new Float64Array(DOF_PER_NODE * count);
  for (const l of shell.loads) {
    if (l.kind === 'patch') {
      if (!(patchLoad(load, mesh, l.at, l.size, l.force, Math.max(...l.size)) > 0))
        return err(`the patch at ${l.at.join(', ')} lies beside the plate`);
    } else if (l.kind === 'pressure') pressureLoad(load, mesh, l.mpa, l.direction);
    else if (l.kind === 'line') lineLoad(load, mesh, l.from, l.to, l.force);
    else pointLoad(load, mesh, l.at, l.force);
  }
  const { E, nu } = shell.material;
  return ok({
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
  for (const n of nodes) held[DOF_PER_NODE * n + 2] = 1;
  for (const [a, b] of freeSides(mesh)) {
    if (!on.has(a) || !on.has(b)) continue;
    const d = [0, 1].map(
      i => (mesh.coordinates[3 * b + i] as number) - (mesh.coordinates[3 * a + i] as number),
    ) as [number, number];
    const l = Math.hypot(...d);
    // the rotation whose axis lies across the edge is the twist along it
    for (const n of [a, b]) {
      if (Math.abs(d[1]) < 1e-6 * l) held[DOF_PER_NODE * n + 4] = 1;
      else if (Math.abs(d[0]) < 1e-6 * l) held[DOF_PER_NODE * n + 3] = 1;
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
  held[DOF_PER_NODE * first] = 1;
  held[DOF_PER_NODE * first + 1] = 1;
  const far = nodes.reduce(
    (p, n) =>
      Math.abs((mesh.coordinates[3 * n] as number) - (mesh.coordinates[3 * first] as number)) >
      Math.abs((mesh.coordinates[3 * p] as number) - (mesh.coordinates[3 * first] as number))
        ? n
        : p,
    first,
  );
  held[DOF_PER_NODE * far + 1] = 1;
}
