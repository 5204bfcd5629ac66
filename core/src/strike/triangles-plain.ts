import { bentElement, predict } from './corotate';
import { POINTS } from './element';
import { factorizePlain } from './factor-plain';
import { type ShellModel, triangleCount } from './model';
import { makeLayers } from './plastic';
import { nothingForetold } from './predicted';
import type { Rest } from './rest';
import { DOF_PER_NODE } from './sparse';
import type { SheetOnItsWay, Triangles } from './triangles';

/** In plain TypeScript. */
export function plainTriangles(model: ShellModel, sheet: SheetOnItsWay): Triangles {
  const { mesh } = model;
  const { plan, rest } = sheet;
  const m = triangleCount(mesh);
  const layers =
    sheet.plastic && model.yield !== undefined
      ? makeLayers(model.elastic, model.yield, sheet.hardening ?? 0, m, POINTS)
      : undefined;
  const told = nothingForetold(m);
  const inner = new Float64Array(model.load.length);
  const force = new Float64Array(18);
  const k = new Float64Array(324);
  return {
    layers,
    inner,
    gather: bent => {
      inner.fill(0);
      for (let e = 0; e < m; e++) {
        bentElement(model, rest[e] as Rest, e, bent, layers, force, undefined, told);
        for (let i = 0; i < 3; i++) {
          const at = DOF_PER_NODE * (mesh.triangles[3 * e + i] as number);
          for (let c = 0; c < 6; c++)
            inner[at + c] = (inner[at + c] as number) + (force[6 * i + c] as number);
        }
      }
    },
    tangent: (bent, outside) =>
      factorizePlain(plan, e => {
        if (e >= m) return outside(e);
        bentElement(model, rest[e] as Rest, e, bent, layers, force, k, told);
        return k;
      }),
    predict: du => predict(model, told, du),
    forget: () => {
      told.valid = false;
    },
    done: () => undefined,
  };
}
