import { DOF_PER_NODE } from './sparse';

/**
 * A place where a sheet may come up against what is over it: nothing until the gap is closed, then stiff; never a pull. `other` is
 * a node of what is over it where that gives way as well.
 */
export interface Contact {
  readonly node: number;
  readonly other?: number;
  /** what the node may rise before it touches, mm */
  readonly gap: number;
  /** N/mm */
  readonly stiffness: number;
  /** over so many mm it comes to bear; 0.03 unless told */
  readonly meets?: number;
  /** it is a bracket's foot on the plate that hangs on it */
  readonly foot?: true;
}

/** Over so many mm a contact comes to bear: nothing is quite flat. */
const MEETS = 0.03;

type Rise = (node: number) => number;

const pressed = (c: Contact, rise: Rise): number =>
  rise(c.node) - (c.other === undefined ? 0 : rise(c.other)) - c.gap;

/** Force with which a contact presses its node down, N. */
export function touchForce(c: Contact, rise: Rise): number {
  const d = pressed(c, rise);
  return (c.stiffness * (d + Math.hypot(d, c.meets ?? MEETS))) / 2;
}

/** Forces of a contact along z on its nodes for their rise; added to `out` by node · 6 + freedom. */
export function contactForce(c: Contact, rise: Rise, out: Float64Array): void {
  const f = touchForce(c, rise);
  const put = (node: number, v: number): void => {
    out[DOF_PER_NODE * node + 2] = (out[DOF_PER_NODE * node + 2] as number) + v;
  };
  put(c.node, f);
  if (c.other !== undefined) put(c.other, -f);
}

/** Tangent stiffness of a contact over all degrees of freedom of its nodes, row by row. */
export function contactStiffness(c: Contact, rise: Rise): Float64Array {
  const d = pressed(c, rise);
  return spring(c, (c.stiffness * (1 + d / Math.hypot(d, c.meets ?? MEETS))) / 2);
}

/** A contact as it counts for small deflections: as if it held both ways where it touches from the start, else not at all. */
export const contactAtRest = (c: Contact): Float64Array => spring(c, c.gap < 1 ? c.stiffness : 0);

function spring(c: Contact, k: number): Float64Array {
  const n = DOF_PER_NODE * (c.other === undefined ? 1 : 2);
  const K = new Float64Array(n * n);
  K[2 * n + 2] = k;
  if (c.other !== undefined) {
    K[8 * n + 8] = k;
    K[2 * n + 8] = K[8 * n + 2] = -k;
  }
  return K;
}
