import {
  boxOfMesh,
  gridOver,
  type Heights,
  lowestOf,
  type Mesh,
  type Placing,
  packedHeights,
  relief,
  seenFrom,
  VIEWS,
} from '@plate-fold/core/scan';
import type { Picture } from '@plate-fold/core/survey';
import { err, ok, type Result } from '@plate-fold/core/units';
import { expose, transfer } from 'comlink';
import { type BufferGeometry, type Object3D, Mesh as Solid } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';

/** A scan has no more triangles than this. */
const MOST_TRIANGLES = 4_000_000;
/** Heights are taken every so many mm. */
const STEP = 4;
const KINDS = ['stl', 'ply', 'obj', 'glb'] as const;
type Kind = (typeof KINDS)[number];

/** What was read of a file. */
export interface ScanRead {
  readonly triangles: number;
  /** longest side, in the scan's own unit */
  readonly longest: number;
  /** mm a unit, where the format says it */
  readonly mmPerUnit?: number;
}
/** One side of a scan, as heights to pick from and as a picture to look at. */
export interface ScanLook {
  readonly heights: Heights;
  readonly picture: Picture;
}

let mesh: Mesh | undefined;

/** Geometries put together: places that are not indexed stand for themselves. */
function together(all: readonly BufferGeometry[]): Mesh {
  const places: number[] = all.map(g => g.getAttribute('position')?.count ?? 0);
  const corners = all.map((g, i) => g.index?.count ?? 3 * Math.floor((places[i] as number) / 3));
  const sum = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0);
  const positions = new Float32Array(3 * sum(places));
  const index = new Uint32Array(sum(corners));
  let [p, c] = [0, 0];
  for (const g of all) {
    const at = g.getAttribute('position');
    if (!at) continue;
    for (let i = 0; i < at.count; i++) positions.set([at.getX(i), at.getY(i), at.getZ(i)], 3 * (p + i));
    const n = g.index?.count ?? 3 * Math.floor(at.count / 3);
    for (let i = 0; i < n; i++) index[c + i] = p + (g.index ? g.index.getX(i) : i);
    p += at.count;
    c += n;
  }
  return { positions, index };
}

/** The solids of a scene, each where it stands in it. */
function solidsOf(scene: Object3D): readonly BufferGeometry[] {
  scene.updateMatrixWorld(true);
  const out: BufferGeometry[] = [];
  scene.traverse(o => {
    if (o instanceof Solid) out.push((o.geometry as BufferGeometry).clone().applyMatrix4(o.matrixWorld));
  });
  return out;
}

async function geometriesOf(kind: Kind, bytes: ArrayBuffer): Promise<readonly BufferGeometry[]> {
  if (kind === 'stl') return [new STLLoader().parse(bytes)];
  if (kind === 'ply') {
    const one = new PLYLoader().parse(bytes);
    // without faces its places are a cloud, not triangles in their order
    return one.index ? [one] : [];
  }
  if (kind === 'obj') return solidsOf(new OBJLoader().parse(new TextDecoder().decode(bytes)));
  return solidsOf((await new GLTFLoader().parseAsync(bytes, '')).scene);
}

const PLAIN: Placing = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];

const worker = {
  /** Reads a scan. Faults: a kind that is not known, torn, without triangles, places that are no numbers, too many. */
  read: async (name: string, bytes: ArrayBuffer): Promise<Result<ScanRead>> => {
    const kind = KINDS.find(k => name.toLowerCase().endsWith(`.${k}`));
    if (!kind) return err(`A scan is one of ${KINDS.join(', ').toUpperCase()}.`);
    let made: Mesh;
    try {
      made = together(await geometriesOf(kind, bytes));
    } catch (e) {
      return err(`${name} is torn, or no ${kind.toUpperCase()} (${(e as Error).message.slice(0, 120)}).`);
    }
    const triangles = made.index.length / 3;
    if (triangles === 0) return err(`${name} has no triangles: a cloud of points has to be meshed first.`);
    if (triangles > MOST_TRIANGLES)
      return err(`${name} has ${triangles} triangles; at most ${MOST_TRIANGLES} are taken. Save it coarser.`);
    if (made.index.some(v => 3 * v >= made.positions.length) || made.positions.some(v => !Number.isFinite(v)))
      return err(
        `${name} is torn: it has places that are no numbers, or names places that it does not have.`,
      );
    const box = boxOfMesh(made, PLAIN);
    const longest = box ? Math.max(...box.high.map((v, k) => v - (box.low[k] as number))) : 0;
    if (!(longest > 0)) return err(`${name} has all of its places at one spot.`);
    mesh = made;
    // glTF counts in meters by its own standard
    return ok({ triangles, longest, ...(kind === 'glb' ? { mmPerUnit: 1000 } : {}) });
  },
  /** The six sides, small. */
  sides: (pixels: number): readonly Picture[] =>
    VIEWS.map(v => {
      const h = mesh && seenFrom(mesh, v, pixels);
      return h ? relief(h) : { width: 1, height: 1, rgba: new Uint8ClampedArray(4) };
    }),
  /** One side, to mark points on. */
  look: (view: string, pixels: number): ScanLook | undefined => {
    const of = VIEWS.find(v => v.id === view);
    const heights = of && mesh && seenFrom(mesh, of, pixels);
    return heights && { heights, picture: relief(heights) };
  },
  /** Its lowest surface as it lies on the vehicle, and that as it is kept. */
  grid: (
    placing: Placing,
  ): { readonly heights: Heights; readonly packed: Uint8Array<ArrayBuffer> } | undefined => {
    const box = mesh && boxOfMesh(mesh, placing);
    if (!mesh || !box) return undefined;
    const [low, high] = [box.low, box.high];
    const heights = lowestOf(mesh, placing, gridOver([low[0], low[1]], [high[0], high[1]], STEP));
    const packed = packedHeights(heights);
    return transfer({ heights, packed }, [heights.z.buffer, packed.buffer]);
  },
};
export type ScanWorker = typeof worker;
expose(worker);
