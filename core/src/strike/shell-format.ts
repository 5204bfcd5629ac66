import * as yup from 'yup';
import type { Vec3 } from '../geometry';
import { checked } from '../plan';
import { err, ok, type Result } from '../units';

export type Hole = { polygon: Vec3[] } | { circle: { at: Vec3; diameter: number } };
export type Support =
  | { kind: 'disc'; id: string; at: Vec3; radius: number }
  | { kind: 'simple' | 'clamped'; id: string; edges: 'outline' }
  | { kind: 'clamped'; id: string; plane: { x?: number; y?: number; z?: number } };
export type Load =
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
    return err('the text breaks off or is not JSON');
  }
  const whole = raw as { case?: unknown; expected?: { deflections?: { at: Vec3 }[] } };
  const inner = whole.case ?? raw;
  const read = checked(schema, inner, 'a case');
  if (!read.ok) return read;
  const shell = inner as ShellCase;
  const points = shell.report?.points ?? whole.expected?.deflections?.map(d => d.at) ?? [];
  return ok({ shell, points });
}
