import type { Vec3 } from '../geometry';
import { type Contact, contactAtRest } from './contact';
import type { Incidence } from './dissect';
import type { Elastic } from './elastic';
import { toGlobal } from './element';
import { type JointSpring, jointStiffness } from './joint-spring';
import { type Rest, restOf } from './rest';
import type { ShellMesh } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';

/** An element that is no triangle (a bar, a spring): its nodes and its full stiffness, row by row, six degrees of freedom a node. */
export interface ExtraElement {
  readonly nodes: readonly number[];
  readonly k: Float64Array;
}

/** A structure to be solved. Lengths in mm, forces in N, moments in N·mm. */
export interface ShellModel {
  readonly mesh: ShellMesh;
  readonly thickness: number;
  readonly elastic: Elastic;
  /** yield strength, MPa, where the sheet may yield */
  readonly yield?: number;
  /** 1 where a freedom is held, node · 6 + freedom */
  readonly held: Uint8Array;
  readonly extra: readonly ExtraElement[];
  /** joints that may slip in the plane of the sheet */
  readonly springs?: readonly JointSpring[];
  /** what the sheet may come up against */
  readonly contacts?: readonly Contact[];
  /** full load, node · 6 + freedom */
  readonly load: Float64Array;
}

export const triangleCount = (mesh: ShellMesh): number => mesh.triangles.length / 3;

/** Nodes of all elements: triangles first, then the extra ones, the joints' springs and the contacts. */
export function incidenceOf({
  mesh,
  extra,
  springs = [],
  contacts = [],
}: Pick<ShellModel, 'mesh' | 'extra' | 'springs' | 'contacts'>): Incidence {
  const m = triangleCount(mesh);
  const others: readonly { readonly nodes: readonly number[] }[] = [
    ...extra,
    ...springs,
    ...contacts.map(c => ({ nodes: nodesOf(c) })),
  ];
  const from = new Int32Array(m + others.length + 1);
  for (let e = 0; e <= m; e++) from[e] = 3 * e;
  others.forEach((x, i) => {
    from[m + i + 1] = (from[m + i] as number) + x.nodes.length;
  });
  const nodes = new Int32Array(from[m + others.length] as number);
  nodes.set(mesh.triangles);
  let at = 3 * m;
  for (const x of others) for (const n of x.nodes) nodes[at++] = n;
  return { from, nodes };
}

/** The nodes of a contact. */
export const nodesOf = (c: Contact): readonly number[] =>
  c.other === undefined ? [c.node] : [c.node, c.other];

/** A joint's spring before anything has moved. */
const restSpring = (model: ShellModel, i: number): Float64Array =>
  jointStiffness((model.springs ?? [])[i] as JointSpring, () => 0);

/** Stiffness of every element in global axes, one after another as they are asked for. */
export function stiffnessOf(model: ShellModel): (e: number) => Float64Array {
  const m = triangleCount(model.mesh);
  const k = new Float64Array(18 * 18);
  const rest = restOf(model);
  return e => {
    const joints = model.springs?.length ?? 0;
    if (e >= m + model.extra.length + joints)
      return contactAtRest((model.contacts ?? [])[e - m - model.extra.length - joints] as Contact);
    if (e >= m + model.extra.length) return restSpring(model, e - m - model.extra.length);
    if (e >= m) return (model.extra[e - m] as ExtraElement).k;
    const r = rest[e] as Rest;
    k.set(r.k);
    toGlobal(k, 18, r.axes);
    return k;
  };
}

/** Sum of a load's forces over some nodes, N. */
export function forceOn(load: Float64Array, nodes: Iterable<number>): Vec3 {
  let [x, y, z] = [0, 0, 0];
  for (const n of nodes) {
    x += load[DOF_PER_NODE * n] as number;
    y += load[DOF_PER_NODE * n + 1] as number;
    z += load[DOF_PER_NODE * n + 2] as number;
  }
  return [x, y, z];
}

/** Stiffness times displacement, node · 6 + freedom, element by element as `k` gives them. */
function times({ from, nodes }: Incidence, k: (e: number) => Float64Array, u: Float64Array): Float64Array {
  const out = new Float64Array(u.length);
  let own = new Float64Array(3 * DOF_PER_NODE);
  let places = new Int32Array(3 * DOF_PER_NODE);
  for (let e = 0; e + 1 < from.length; e++) {
    const a = from[e] as number;
    const n = ((from[e + 1] as number) - a) * DOF_PER_NODE;
    if (n > own.length) [own, places] = [new Float64Array(n), new Int32Array(n)];
    let some = false;
    for (let i = 0; i < n; i++) {
      const at = DOF_PER_NODE * (nodes[a + Math.floor(i / DOF_PER_NODE)] as number) + (i % DOF_PER_NODE);
      places[i] = at;
      own[i] = u[at] as number;
      some ||= own[i] !== 0;
    }
    if (!some) continue;
    const K = k(e);
    for (let i = 0; i < n; i++) {
      let s = 0;
      for (let j = 0; j < n; j++) s += (K[i * n + j] as number) * (own[j] as number);
      const at = places[i] as number;
      out[at] = (out[at] as number) + s;
    }
  }
  return out;
}

/** Multiplies displacements by the stiffness of a structure, node · 6 + freedom; its elements are made once. */
export function multiplierOf(model: ShellModel): (u: Float64Array) => Float64Array {
  const incidence = incidenceOf(model);
  const k = stiffnessOf(model);
  const elements = Array.from({ length: incidence.from.length - 1 }, (_, e) => k(e).slice());
  return u => times(incidence, e => elements[e] as Float64Array, u);
}

/** Stiffness times displacement, node · 6 + freedom: what the structure pushes back with. */
export const pushedBack = (model: ShellModel, u: Float64Array): Float64Array =>
  times(incidenceOf(model), stiffnessOf(model), u);
