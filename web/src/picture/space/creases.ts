import { Vector3 } from 'three';
import type { ColoredSurface } from './contents';

/** Folds sharper than this are drawn as lines, degrees: the chords of a bend's arc are not. */
export const CREASE = 28;

const creasesKept = new WeakMap<Uint32Array, Uint32Array>();
/**
 * Edges of a surface that are drawn: its rims, and folds sharper than the crease; pairs of corners. Worked out once for its
 * triangles: moving or coloring them changes nothing of it.
 */
export function creasesOf({ coordinates: c, triangles: t }: ColoredSurface): Uint32Array {
  const known = creasesKept.get(t);
  if (known) return known;
  const count = c.length / 3;
  const sharp = Math.cos((CREASE * Math.PI) / 180);
  const normals = new Float32Array(t.length);
  const [a, b, d] = [new Vector3(), new Vector3(), new Vector3()];
  /** first triangle at every edge, by its corners */
  const first = new Map<number, number>();
  const flat = new Set<number>();
  for (let e = 0; e < t.length; e += 3) {
    a.fromArray(c, 3 * (t[e] as number));
    b.fromArray(c, 3 * (t[e + 1] as number)).sub(a);
    d.fromArray(c, 3 * (t[e + 2] as number)).sub(a);
    b.cross(d).normalize().toArray(normals, e);
    for (let i = 0; i < 3; i++) {
      const [p, q] = [t[e + i] as number, t[e + ((i + 1) % 3)] as number];
      const key = Math.min(p, q) * count + Math.max(p, q);
      const other = first.get(key);
      if (other === undefined) first.set(key, e);
      else {
        let dot = 0;
        for (let k = 0; k < 3; k++) dot += (normals[e + k] as number) * (normals[other + k] as number);
        if (Math.abs(dot) > sharp) flat.add(key);
      }
    }
  }
  const pairs: number[] = [];
  for (const key of first.keys()) if (!flat.has(key)) pairs.push(Math.floor(key / count), key % count);
  const made = Uint32Array.from(pairs);
  creasesKept.set(t, made);
  return made;
}
