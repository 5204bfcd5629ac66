import { BufferAttribute, BufferGeometry, CylinderGeometry } from 'three';
import type { Stand } from './contents';

/** Sides of a tire's circle, and the mesh of the lines on the ground, mm. */
const TIRE_SIDES = 36;
const GROUND_GRID = 500;

/** Tires as cylinders across the vehicle: a cylinder is made with its axis along y, which is across. */
export const tireGeometries = ({ tires }: Stand): readonly BufferGeometry[] =>
  tires.map(t => new CylinderGeometry(t.radius, t.radius, t.width, TIRE_SIDES).translate(...t.at));

/** The lines of the ground, thin enough that the belly is seen through them from below. */
export function groundGeometry({ ground: [a, b] }: Stand): BufferGeometry {
  const at: number[] = [];
  for (let x = Math.ceil(a[0] / GROUND_GRID) * GROUND_GRID; x <= b[0]; x += GROUND_GRID)
    at.push(x, a[1], 0, x, b[1], 0);
  for (let y = Math.ceil(a[1] / GROUND_GRID) * GROUND_GRID; y <= b[1]; y += GROUND_GRID)
    at.push(a[0], y, 0, b[0], y, 0);
  const grid = new BufferGeometry();
  grid.setAttribute('position', new BufferAttribute(new Float32Array(at), 3));
  return grid;
}
