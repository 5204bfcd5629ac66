import { addShear, BENDING, MEMBRANE, POINTS, shearStiffness } from './element';
import { factorizeIn, fill, fromOutside, layOut } from './factor-kernel';
import { giveBack, type Kernel } from './kernels';
import { type ShellModel, triangleCount } from './model';
import { LAYERS, type Layers, makeLayers } from './plastic';
import type { Rest } from './rest';
import type { SheetOnItsWay, Triangles } from './triangles';

/** Numbers of a triangle at rest and where its parts begin (core/kernels/element.ts). */
const REST = { B: 0, Bb: 90, km: 180, kb: 270, ks: 360, axes: 450, flat: 459, area: 465, all: 466 } as const;
/** Rows of nine are filled up to ten, so that they go in pairs. */
const ROW = 10;

/** In the kernels. The instance is theirs until `done`. */
export function trianglesInKernel(kernel: Kernel, model: ShellModel, sheet: SheetOnItsWay): Triangles {
  const { mesh, elastic, thickness } = model;
  const { run } = kernel;
  const m = triangleCount(mesh);
  const nodes = mesh.coordinates.length / 3;
  const yields = sheet.plastic && model.yield !== undefined;
  const take = (numbers: number): number => kernel.take(8 * numbers);
  // all room first: what is taken later would move what was seen before
  const laid = layOut(kernel, sheet.plan, true);
  const rest = take(REST.all * m);
  const triangles = kernel.take(4 * mesh.triangles.length);
  const [at, turned, inner, du] = [take(3 * nodes), take(9 * nodes), take(6 * nodes), take(6 * nodes)];
  const told = [take(18 * m), take(9 * m), take(6 * m), take(18 * m)] as const;
  const points = yields ? m * POINTS * LAYERS : 0;
  const layersAt = [take(3 * points), take(points), take(3 * points), take(points), kernel.take(m)] as const;

  fill(laid);
  kernel.integers(triangles, mesh.triangles.length).set(mesh.triangles);
  const shear = shearStiffness(elastic, thickness);
  sheet.rest.forEach((r, e) => layRest(kernel.numbers(rest + 8 * REST.all * e, REST.all), r, shear));
  run.setStructure(rest, triangles, at, turned, inner, ...told);
  const hardening = sheet.hardening ?? 0;
  run.setMaterial(elastic.E, elastic.nu, model.yield ?? 0, hardening, thickness, yields);
  run.setLayers(...layersAt);
  let layers: Layers | undefined;
  if (model.yield !== undefined && yields) {
    layers = {
      ...makeLayers(elastic, model.yield, hardening, 0, POINTS),
      strain: kernel.numbers(layersAt[0], 3 * points).fill(0),
      measure: kernel.numbers(layersAt[1], points).fill(0),
      strain0: kernel.numbers(layersAt[2], 3 * points).fill(0),
      measure0: kernel.numbers(layersAt[3], points).fill(0),
      touched: kernel.bytes(layersAt[4], m).fill(0),
    };
  }
  const views = {
    at: kernel.numbers(at, 3 * nodes),
    turned: kernel.numbers(turned, 9 * nodes),
    inner: kernel.numbers(inner, 6 * nodes),
    du: kernel.numbers(du, 6 * nodes),
  };
  let foretold = false;
  return {
    layers,
    inner: views.inner,
    gather: bent => {
      views.at.set(bent.at);
      views.turned.set(bent.turned);
      views.inner.fill(0);
      run.gather(m);
    },
    tangent: (bent, outside) => {
      views.at.set(bent.at);
      views.turned.set(bent.turned);
      const other = fromOutside(laid, outside);
      return factorizeIn(laid, (e, size, slots) => {
        if (e >= m) return other(e, size, slots);
        run.tangentInto(laid.front, size, e, slots, foretold);
        return 18;
      });
    },
    predict: move => {
      views.du.set(move);
      run.predict(m, du);
      foretold = true;
    },
    forget: () => {
      foretold = false;
    },
    done: () => giveBack(kernel),
  };
}

const ks = new Float64Array(324);

/** A triangle at rest as the kernels read it. */
function layRest(out: Float64Array, { B, Bb, Bs, k, axes, flat, area }: Rest, shear: number): void {
  out.fill(0);
  ks.fill(0);
  for (let p = 0; p < POINTS; p++) addShear(ks, Bs, 18 * p, (area / POINTS) * shear);
  for (let r = 0; r < 9; r++)
    for (let j = 0; j < 9; j++) {
      out[REST.B + ROW * r + j] = B[9 * r + j] as number;
      out[REST.Bb + ROW * r + j] = Bb[9 * r + j] as number;
      out[REST.km + ROW * r + j] = k[18 * (MEMBRANE[r] as number) + (MEMBRANE[j] as number)] as number;
      out[REST.kb + ROW * r + j] = k[18 * (BENDING[r] as number) + (BENDING[j] as number)] as number;
      out[REST.ks + ROW * r + j] = ks[18 * (BENDING[r] as number) + (BENDING[j] as number)] as number;
    }
  out.set(axes, REST.axes);
  out.set(flat, REST.flat);
  out[REST.area] = area;
}
