import type { Triangle } from '../fold';
import type { MaterialFamily } from '../sheet';
import { normalOf } from './stl';

/** One plate of a GLB. */
export interface GlbPart {
  readonly name: string;
  readonly family: MaterialFamily;
  /** in the vehicle's frame, mm */
  readonly triangles: readonly Triangle[];
}

/** Linear base color and how much of a metal it is: looks, no measurement. */
const LOOK: Readonly<Record<MaterialFamily, { color: readonly number[]; metal: number; rough: number }>> = {
  steel: { color: [0.21, 0.23, 0.25, 1], metal: 0.9, rough: 0.55 },
  stainless: { color: [0.52, 0.54, 0.55, 1], metal: 0.9, rough: 0.35 },
  aluminum: { color: [0.66, 0.68, 0.7, 1], metal: 0.9, rough: 0.45 },
  plastic: { color: [0.8, 0.8, 0.78, 1], metal: 0, rough: 0.8 },
};

const [FLOAT, ARRAY_BUFFER] = [5126, 34962];
const [GLTF, JSON_CHUNK, BIN_CHUNK] = [0x46546c67, 0x4e4f534a, 0x004e4942];
const padded = (n: number): number => Math.ceil(n / 4) * 4;

/**
 * Folded plates as binary glTF 2.0 (ISO/IEC 12113): one node a plate, flat normals, in meters with y up, as the format
 * wants it: its x is the vehicle's right, its z the vehicle's rear.
 */
export function glb(title: string, parts: readonly GlbPart[]): Uint8Array<ArrayBuffer> {
  const solid = parts.filter(p => p.triangles.length > 0);
  const families = [...new Set(solid.map(p => p.family))];
  const data = solid.map(p => {
    const position = new Float32Array(p.triangles.length * 9);
    const normal = new Float32Array(p.triangles.length * 9);
    const min = [Infinity, Infinity, Infinity];
    const max = [-Infinity, -Infinity, -Infinity];
    let i = 0;
    for (const t of p.triangles) {
      const [nx, ny, nz] = normalOf(t);
      for (const [x, y, z] of t) {
        normal.set([ny, nz, nx], i);
        position.set([y / 1000, z / 1000, x / 1000], i);
        for (let k = 0; k < 3; k++) {
          const v = position[i + k] as number;
          min[k] = Math.min(min[k] as number, v);
          max[k] = Math.max(max[k] as number, v);
        }
        i += 3;
      }
    }
    return { position, normal, min, max, count: p.triangles.length * 3 };
  });
  let offset = 0;
  const views: { buffer: 0; byteOffset: number; byteLength: number; target: number }[] = [];
  for (const d of data)
    for (const a of [d.position, d.normal]) {
      views.push({ buffer: 0, byteOffset: offset, byteLength: a.byteLength, target: ARRAY_BUFFER });
      offset += a.byteLength;
    }
  const json = {
    asset: { version: '2.0', generator: 'Plate Fold' },
    scene: 0,
    scenes: [{ name: title, nodes: solid.map((_, i) => i) }],
    nodes: solid.map((p, i) => ({ name: p.name, mesh: i })),
    meshes: solid.map((p, i) => ({
      name: p.name,
      primitives: [
        {
          attributes: { POSITION: 2 * i, NORMAL: 2 * i + 1 },
          material: families.indexOf(p.family),
        },
      ],
    })),
    materials: families.map(f => ({
      name: f,
      pbrMetallicRoughness: {
        baseColorFactor: LOOK[f].color,
        metallicFactor: LOOK[f].metal,
        roughnessFactor: LOOK[f].rough,
      },
    })),
    accessors: data.flatMap((d, i) => [
      { bufferView: 2 * i, componentType: FLOAT, count: d.count, type: 'VEC3', min: d.min, max: d.max },
      { bufferView: 2 * i + 1, componentType: FLOAT, count: d.count, type: 'VEC3' },
    ]),
    bufferViews: views,
    buffers: [{ byteLength: offset }],
  };
  // a scene without plates has neither buffers nor lists: the format forbids empty ones
  const text = new TextEncoder().encode(
    JSON.stringify(solid.length > 0 ? json : { asset: json.asset, scene: 0, scenes: [{ name: title }] }),
  );
  const jsonLength = padded(text.length);
  const out = new Uint8Array(12 + 8 + jsonLength + (offset > 0 ? 8 + offset : 0));
  const view = new DataView(out.buffer);
  const words = (at: number, values: readonly number[]): void =>
    values.forEach((v, i) => view.setUint32(at + 4 * i, v, true));
  words(0, [GLTF, 2, out.length, jsonLength, JSON_CHUNK]);
  out.fill(0x20, 20, 20 + jsonLength);
  out.set(text, 20);
  if (offset > 0) {
    words(20 + jsonLength, [offset, BIN_CHUNK]);
    let at = 28 + jsonLength;
    for (const d of data)
      for (const a of [d.position, d.normal]) {
        // typed arrays are written as they lie in memory; glTF is little-endian, as is every machine this runs on
        out.set(new Uint8Array(a.buffer), at);
        at += a.byteLength;
      }
  }
  return out;
}
