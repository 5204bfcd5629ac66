import { type Bent, copied, moved, turnOf, unbent } from './bent';
import { type Contact, contactForce, contactStiffness } from './contact';
import { type JointSpring, jointForce, jointStiffness } from './joint-spring';
import { inKernel } from './kernels';
import { incidenceOf, type ShellModel, triangleCount } from './model';
import { keptLayers, type Layers, putBack, settle, type Yielding } from './plastic';
import { restOf } from './rest';
import {
  DOF_PER_NODE,
  type Factor,
  type FreeMotion,
  nodesAsVertices,
  type Plan,
  planElimination,
} from './sparse';
import { trianglesInKernel } from './triangles-kernel';
import { plainTriangles } from './triangles-plain';

/** Moments are set against forces by this length, mm, where a imbalance is measured. */
const ARM = 50;

/** A structure on its way under a load: where it stands, what it pushes back with, and how stiff it is there. */
export interface Balance {
  readonly plan: Plan;
  readonly rest: ReturnType<typeof restOf>;
  readonly layers: Layers | undefined;
  /** where it stands; set to go back to an earlier place */
  bent: Bent;
  /** what it pushes back with, and what of a share of the load that leaves, both node · 6 + freedom */
  readonly inner: Float64Array;
  readonly residual: Float64Array;
  /** size of the whole load, as imbalance are measured */
  readonly whole: number;
  /** fills `inner` and `residual` for a share of the load; the size of the imbalance */
  readonly imbalance: (share: number) => number;
  /** the stiffness where it stands, taken apart; spends the one before */
  readonly tangent: () => Factor | FreeMotion;
  /** moves it, and predicts what that makes of the tangent */
  readonly move: (du: Float64Array) => void;
  /** takes where it stands as the new state to start from */
  readonly settle: () => void;
  /** nothing is known of the last move */
  readonly forget: () => void;
  /** where it stands and how it has yielded, to go back to */
  readonly keep: () => Kept;
  readonly goBack: (to: Kept) => void;
  /** work of a force on a move over all that is free */
  readonly work: (force: Float64Array, move: Float64Array) => number;
  /** it is no longer needed: `inner` and `layers` are no longer to be read */
  readonly done: () => void;
}

/** A structure as it once stood. */
export interface Kept {
  readonly bent: Bent;
  readonly yielding?: Yielding;
}

export function balanceOf(
  model: ShellModel,
  wish: { readonly plastic: boolean; readonly hardening?: number },
): Balance {
  const { mesh, load } = model;
  const m = triangleCount(mesh);
  const plan = planElimination(nodesAsVertices(mesh.coordinates), incidenceOf(model), model.held);
  const rest = restOf(model);
  const sheet = { ...wish, plan, rest };
  // they have the kernel until they are done
  const own =
    inKernel(
      k => trianglesInKernel(k, model, sheet),
      () => undefined,
    ) ?? plainTriangles(model, sheet);
  const { layers, inner } = own;
  const residual = new Float64Array(load.length);
  const { springs = [], contacts = [] } = model;
  const risen = (node: number): number =>
    (self.bent.at[3 * node + 2] as number) - (mesh.coordinates[3 * node + 2] as number);
  const slid = (node: number, axis: 0 | 1 | 2): number =>
    (self.bent.at[3 * node + axis] as number) - (mesh.coordinates[3 * node + axis] as number);
  /** Bars and springs bear small deflections: straight from the moves of their nodes. */
  const extraForce = (): void => {
    for (const x of model.extra) {
      const n = x.nodes.length * DOF_PER_NODE;
      const u = new Float64Array(n);
      x.nodes.forEach((node, i) => {
        for (let c = 0; c < 3; c++)
          u[6 * i + c] = (self.bent.at[3 * node + c] as number) - (mesh.coordinates[3 * node + c] as number);
        u.set(turnOf(self.bent, node), 6 * i + 3);
      });
      for (let i = 0; i < n; i++) {
        let s = 0;
        for (let j = 0; j < n; j++) s += (x.k[i * n + j] as number) * (u[j] as number);
        const at = DOF_PER_NODE * (x.nodes[Math.floor(i / DOF_PER_NODE)] as number) + (i % DOF_PER_NODE);
        inner[at] = (inner[at] as number) + s;
      }
    }
  };
  const gather = (): void => {
    own.gather(self.bent);
    extraForce();
    for (const j of springs) jointForce(j, slid, inner);
    for (const c of contacts) contactForce(c, risen, inner);
  };
  /** The stiffness of what is no triangle. */
  const outside = (e: number): Float64Array => {
    const past = e - m - model.extra.length;
    if (past >= springs.length) return contactStiffness(contacts[past - springs.length] as Contact, risen);
    if (past >= 0) return jointStiffness(springs[past] as JointSpring, slid);
    return (model.extra[e - m] as { k: Float64Array }).k;
  };
  const size = (v: Float64Array): number => {
    let s = 0;
    for (let i = 0; i < v.length; i++)
      if ((plan.unknownOf[i] as number) >= 0) s += ((v[i] as number) / (i % DOF_PER_NODE < 3 ? 1 : ARM)) ** 2;
    return Math.sqrt(s);
  };
  const self: Balance = {
    plan,
    rest,
    layers,
    bent: unbent(model),
    inner,
    residual,
    whole: size(load),
    imbalance: share => {
      gather();
      for (let i = 0; i < residual.length; i++)
        residual[i] = share * (load[i] as number) - (inner[i] as number);
      return size(residual);
    },
    tangent: () => own.tangent(self.bent, outside),
    move: du => {
      own.predict(du);
      moved(self.bent, du, 1);
    },
    forget: own.forget,
    keep: () => ({ bent: copied(self.bent), ...(layers ? { yielding: keptLayers(layers) } : {}) }),
    goBack: to => {
      self.bent = copied(to.bent);
      if (layers && to.yielding) putBack(layers, to.yielding);
      own.forget();
    },
    settle: () => {
      own.forget();
      if (layers) settle(layers);
    },
    done: own.done,
    work: (f, du) => {
      let s = 0;
      for (let i = 0; i < du.length; i++)
        if ((plan.unknownOf[i] as number) >= 0) s += (du[i] as number) * (f[i] as number);
      return s;
    },
  };
  return self;
}
