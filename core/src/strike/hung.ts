import type { Vec3 } from '../geometry';
import { add3, cross3, dot3, scale3, sub3 } from '../geometry';
import { ok, type Result } from '../units';
import { type Condensed, condensed, type Foot, footOn, toVehicle } from './condensed';
import type { Contact } from './contact';
import type { ExtraElement } from './model';
import { type Flat3, nearestNode, nodeAt, type ShellMesh } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';
import type { BracketForce, StrikeWish } from './strike-wish';

/** The brackets a struck plate hangs on, condensed; a fault names the bracket. */
export function hangersOf(wish: StrikeWish): Result<readonly Condensed[]> {
  const out: Condensed[] = [];
  for (const b of wish.brackets ?? []) {
    const made = condensed(b.folded, b.joints, wish.folded.panel.id);
    if (!made.ok) return made;
    out.push(made.value);
  }
  return ok(out);
}

/** Joints by which a plate hangs on brackets, not on the vehicle. */
export const hangs = (hangers: readonly Condensed[], joint: string): boolean =>
  hangers.some(h => h.joints.some(j => j.id === joint));

/** The feet that bear on a flat round a joint, and their places on it. */
export const feetAt = (
  hangers: readonly Condensed[],
  joint: string,
  flat: Flat3,
): readonly { readonly foot: Foot; readonly on: Vec3 }[] =>
  hangers.flatMap(h =>
    h.feet.flatMap(foot => {
      if (foot.joint !== joint) return [];
      const on = footOn(foot, flat);
      return on ? [{ foot, on }] : [];
    }),
  );

/** Brackets in a plate's model: a node for every joint they share and every foot, after those of plate and bars. */
export interface Hung {
  readonly hangers: readonly Condensed[];
  readonly nodes: readonly Vec3[];
  /** node and freedom of what is held */
  readonly held: readonly number[];
  readonly extra: readonly ExtraElement[];
  readonly contacts: readonly Contact[];
  readonly nodeOf: ReadonlyMap<string | Foot, number>;
  /** of `extra`: what ties the plate's nodes to the brackets' */
  readonly ties: readonly ExtraElement[];
}

/** What a joint holds the plate's nodes with under its disc, N/mm and N·mm a node: stiff beside any sheet. */
const TIE = 5_000_000;
const TIE_TURN = TIE * 100;
/** A foot that lies on its plate bears once the two near each other by so much, mm, and over so many mm comes to bear: no sheet is quite flat. */
const GAP = 0.004;
const MEETS = 0.0005;
const TOUCH = 100_000;

/** A disc's node on its arm from the joint's place: a stiff element over both nodes' twelve moves. */
export function onArm(node: number, joint: number, arm: Vec3): ExtraElement {
  const k = new Float64Array(144);
  // d = u − U − Θ × arm, and θ − Θ
  const rows: Float64Array[] = [];
  for (let c = 0; c < 3; c++) {
    const row = new Float64Array(12);
    row[c] = 1;
    row[6 + c] = -1;
    for (let r = 0; r < 3; r++) {
      const axis: Vec3 = [r === 0 ? 1 : 0, r === 1 ? 1 : 0, r === 2 ? 1 : 0];
      row[9 + r] = -(cross3(axis, arm)[c] as number);
    }
    rows.push(row);
  }
  const add = (row: Float64Array, by: number): void => {
    for (let i = 0; i < 12; i++)
      for (let j = 0; j < 12; j++)
        k[12 * i + j] = (k[12 * i + j] as number) + by * (row[i] as number) * (row[j] as number);
  };
  for (const row of rows) add(row, TIE);
  for (let r = 0; r < 3; r++) {
    const row = new Float64Array(12);
    row[3 + r] = 1;
    row[9 + r] = -1;
    add(row, TIE_TURN);
  }
  return { nodes: [node, joint], k };
}

/** What is known of a joint of the plate when its brackets are put in: the nodes under its disc, its flat's upper side, its feet. */
export interface HungJoint {
  readonly joint: string;
  readonly at: Vec3;
  readonly nodes: readonly number[];
  readonly normal: Vec3;
  readonly feet: readonly { readonly foot: Foot; readonly on: Vec3 }[];
}

/** Puts brackets into a plate's model; its mesh lies in its underside, `first` is the first node that is free for them. */
export function hungOn(
  hangers: readonly Condensed[],
  joints: readonly HungJoint[],
  mesh: ShellMesh,
  thickness: number,
  first: number,
): Hung {
  const nodes: Vec3[] = [];
  const held: number[] = [];
  const extra: ExtraElement[] = [];
  const ties: ExtraElement[] = [];
  const contacts: Contact[] = [];
  const nodeOf = new Map<string | Foot, number>();
  const put = (of: string | Foot, at: Vec3): number => {
    const known = nodeOf.get(of);
    if (known !== undefined) return known;
    const n = first + nodes.push(at) - 1;
    nodeOf.set(of, n);
    return n;
  };
  for (const h of hangers) {
    const own = h.joints.map(j => put(j.id, j.at));
    const feet = h.feet.map(f => {
      const n = put(f, f.at);
      for (const c of [0, 1, 3, 4, 5]) held.push(DOF_PER_NODE * n + c);
      return n;
    });
    const size = DOF_PER_NODE * own.length + feet.length;
    const wide = DOF_PER_NODE * (own.length + feet.length);
    const k = new Float64Array(wide * wide);
    // a foot moves along its normal by as much of its rise as stands on it
    const at = (i: number): readonly [number, number] => {
      const past = i - DOF_PER_NODE * own.length;
      return past < 0 ? [i, 1] : [DOF_PER_NODE * (own.length + past) + 2, (h.feet[past] as Foot).normal[2]];
    };
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) {
        const [r, a] = at(i);
        const [c, b] = at(j);
        k[wide * r + c] = a * b * (h.k[size * i + j] as number);
      }
    extra.push({ nodes: [...own, ...feet], k });
  }
  for (const j of joints) {
    const joint = nodeOf.get(j.joint);
    if (joint === undefined) continue;
    for (const n of j.nodes) {
      // from the joint's place to the middle of the sheet over the node
      const arm = add3(sub3(nodeAt(mesh, n), j.at), scale3(j.normal, thickness / 2));
      ties.push(onArm(n, joint, arm));
    }
    const under = new Set(j.nodes);
    for (const { foot, on } of j.feet) {
      const other = nodeOf.get(foot);
      const node = nearestNode(mesh, on);
      if (other !== undefined && !under.has(node))
        contacts.push({ node, other, gap: GAP, meets: MEETS, foot: true, stiffness: TOUCH });
    }
  }
  return { hangers, nodes, held, extra: [...extra, ...ties], ties, contacts, nodeOf };
}

/** Moves of a bracket's joints and feet, as its condensed form takes them, from those of all nodes. */
export function movesOf({ nodeOf }: Hung, h: Condensed, u: Float64Array): Float64Array {
  const q = new Float64Array(DOF_PER_NODE * h.joints.length + h.feet.length);
  h.joints.forEach((j, i) => {
    const n = nodeOf.get(j.id) as number;
    q.set(u.subarray(DOF_PER_NODE * n, DOF_PER_NODE * (n + 1)), DOF_PER_NODE * i);
  });
  h.feet.forEach((f, i) => {
    const n = nodeOf.get(f) as number;
    q[DOF_PER_NODE * h.joints.length + i] = f.normal[2] * (u[DOF_PER_NODE * n + 2] as number);
  });
  return q;
}

/** Force and moment about a place, N and N·mm, with which a bracket's or a bar's node holds the plate under a disc that is tied to it. */
export function heldFrom(
  ties: readonly ExtraElement[],
  mesh: ShellMesh,
  node: number | undefined,
  at: Vec3,
  u: Float64Array,
): { readonly force: Vec3; readonly moment: Vec3 } {
  let [force, moment]: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const x of ties) {
    if (x.nodes[1] !== node) continue;
    const n = x.nodes[0] as number;
    const f = [0, 1, 2, 3, 4, 5].map(r => {
      let s = 0;
      for (let i = 0; i < 12; i++)
        s +=
          (x.k[12 * r + i] as number) *
          (u[DOF_PER_NODE * (x.nodes[i < 6 ? 0 : 1] as number) + (i % 6)] as number);
      return -s;
    }) as [number, number, number, number, number, number];
    const here: Vec3 = [f[0], f[1], f[2]];
    force = add3(force, here);
    moment = add3(moment, add3([f[3], f[4], f[5]], cross3(sub3(nodeAt(mesh, n), at), here)));
  }
  return { force, moment };
}

/** What a strike asks of the brackets a plate hangs on. */
export const bracketForces = (hung: Hung, u: Float64Array): readonly BracketForce[] =>
  hung.hangers.map(h => {
    const q = movesOf(hung, h, u);
    const rises = h.joints
      .filter(j => !toVehicle(j))
      .map(j => u[DOF_PER_NODE * (hung.nodeOf.get(j.id) as number) + 2] as number);
    return {
      panel: h.panel.panel.id,
      vonMisesMPa: h.stress(q),
      yieldMPa: h.panel.material.yield,
      riseMm: Math.max(...rises),
    };
  });

/** Length of a vector's part across a direction. */
export const across = (v: Vec3, n: Vec3): Vec3 => sub3(v, scale3(n, dot3(v, n)));
