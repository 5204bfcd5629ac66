import { KERNEL_BYTES } from './kernel-bytes';

/*
 * The hot work of a strike (fronts, triangles, layers) compiled to WebAssembly from core/kernels. What it does, the plain files beside
 * it do as well: `front.ts`, `corotate.ts` and `plastic.ts` are what it is checked against, and what serves where there is no
 * WebAssembly with pairs of numbers.
 */

/** What core/kernels/index.ts gives; places in memory are bytes from its start. */
export interface KernelRoutines {
  readonly clear: (F: number, m: number) => void;
  readonly assemble: (F: number, m: number, K: number, n: number, slots: number) => void;
  readonly addBlock: (F: number, m: number, block: number, places: number, n: number) => void;
  readonly eliminate: (F: number, m: number, k: number, d: number, W: number, L: number) => number;
  readonly keepPanel: (F: number, m: number, own: number, P: number) => void;
  readonly handOn: (F: number, m: number, own: number, to: number) => void;
  readonly forward: (L: number, rows: number, own: number, m: number, x: number) => void;
  readonly backward: (L: number, rows: number, own: number, m: number, x: number) => void;
  readonly setStructure: (
    rest: number,
    triangles: number,
    at: number,
    turned: number,
    inner: number,
    own: number,
    axes: number,
    flat: number,
    next: number,
  ) => void;
  readonly setMaterial: (
    E: number,
    nu: number,
    limit: number,
    hardening: number,
    thickness: number,
    plastic: boolean,
  ) => void;
  readonly setLayers: (
    strain: number,
    measure: number,
    strain0: number,
    measure0: number,
    touched: number,
  ) => void;
  readonly gather: (triangles: number) => void;
  readonly tangentInto: (F: number, m: number, e: number, slots: number, foretold: boolean) => void;
  readonly tangentOf: (e: number, foretold: boolean) => number;
  readonly predict: (triangles: number, du: number) => void;
}

interface Memory {
  readonly buffer: ArrayBuffer;
  readonly grow: (pages: number) => number;
}

/** What this needs of where it runs: the core knows neither a browser nor Node. */
interface Host {
  readonly atob: (text: string) => string;
  readonly WebAssembly?: {
    readonly validate: (bytes: Uint8Array) => boolean;
    readonly Module: new (bytes: Uint8Array) => object;
    readonly Instance: new (
      module: object,
      imports: object,
    ) => {
      readonly exports: unknown;
    };
  };
}

const PAGE = 65_536;

/** One instance of the kernels, with the memory it works in. */
export class Kernel {
  readonly run: KernelRoutines;
  private readonly memory: Memory;
  /** the first byte that belongs to the work and not to the routines */
  private readonly start: number;
  private top: number;

  constructor(exports: unknown) {
    const all = exports as KernelRoutines & { readonly memory: Memory; readonly start: () => number };
    this.run = all;
    this.memory = all.memory;
    this.start = (all.start() + 15) & ~15;
    this.top = this.start;
  }

  /** Forgets what was taken before. */
  empty(): void {
    this.top = this.start;
  }

  /** Room for so many bytes, by its place; views made before no longer serve. */
  take(bytes: number): number {
    const at = this.top;
    this.top = at + ((bytes + 15) & ~15);
    const lacks = this.top - this.memory.buffer.byteLength;
    if (lacks > 0) this.memory.grow(Math.ceil(lacks / PAGE));
    return at;
  }

  numbers(at: number, length: number): Float64Array {
    return new Float64Array(this.memory.buffer, at, length);
  }

  integers(at: number, length: number): Int32Array {
    return new Int32Array(this.memory.buffer, at, length);
  }

  bytes(at: number, length: number): Uint8Array {
    return new Uint8Array(this.memory.buffer, at, length);
  }
}

const idle: Kernel[] = [];
/** Instances kept for the next structure: one is in work at a time, but for a test that compares two. */
const KEPT = 2;
let compiled: object | 'none' | undefined;
let wanted = true;

/** Whether the compiled kernels are used where they can be: off for what is to be checked against the plain version. */
export function useKernels(on: boolean): void {
  wanted = on;
}

/** An instance for one structure, until `giveBack`; undefined where there are none. */
export function takeKernel(): Kernel | undefined {
  if (!wanted) return undefined;
  const kept = idle.pop();
  if (kept) {
    kept.empty();
    return kept;
  }
  const { WebAssembly: wasm, atob } = globalThis as unknown as Host;
  compiled ??= compiledBy(wasm, atob);
  if (compiled === 'none' || !wasm) return undefined;
  return new Kernel(new wasm.Instance(compiled, {}).exports);
}

/**
 * What a kernel makes; undefined where there is none, or where it has no room for so large a structure: the plain version has to make it
 * then. `after` is told of the kernel once it has made it.
 */
export function inKernel<T>(make: (kernel: Kernel) => T, after: (kernel: Kernel) => void): T | undefined {
  const kernel = takeKernel();
  if (!kernel) return undefined;
  let made: T;
  try {
    made = make(kernel);
  } catch (fault) {
    giveBack(kernel);
    if (fault instanceof RangeError) return undefined;
    throw fault;
  }
  after(kernel);
  return made;
}

/** The kernels as they are compiled here; none where there is no WebAssembly, it has no pairs of numbers, or a page may not compile it. */
function compiledBy(wasm: Host['WebAssembly'], atob: Host['atob']): object | 'none' {
  const bytes = Uint8Array.from(atob(KERNEL_BYTES), c => c.charCodeAt(0));
  try {
    return wasm?.validate(bytes) ? new wasm.Module(bytes) : 'none';
  } catch {
    return 'none';
  }
}

/** Hands an instance back; what lies in its memory is no longer to be read. */
export function giveBack(kernel: Kernel): void {
  if (idle.length < KEPT) idle.push(kernel);
}
