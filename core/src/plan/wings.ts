import type { Joint, Plan } from './plan';
import { isBracket } from './select';
import { underBar } from './under-bar';

const kept = new WeakMap<Plan, ReadonlyMap<string, string>>();

/**
 * Plates that only bolts to one other plate hold, none of them to the vehicle, to a bracket or a crossbar: wings, which are bolted to it on the
 * bench and go up with it. By their id that of the plate that carries them.
 */
export function wingsOf(plan: Plan): ReadonlyMap<string, string> {
  const known = kept.get(plan);
  if (known) return known;
  const out = new Map<string, string>();
  const plates = new Map(plan.panels.filter(p => !isBracket(p)).map(p => [p.id, p]));
  const of = (id: string): readonly Joint[] => plan.joints.filter(j => j.panels.includes(id));
  for (const id of plates.keys()) {
    const mine = of(id);
    const host = mine[0]?.panels.find(p => p !== id);
    if (host === undefined || !plates.has(host) || out.get(host) === id) continue;
    const alone = mine.every(
      j =>
        j.mount === undefined &&
        j.panels.length === 2 &&
        j.panels.includes(host) &&
        !plan.crossbars.some(c => j.at !== undefined && underBar(c, [j.at[0], j.at[1]]) !== undefined),
    );
    // what two plates hold of one another hangs on neither
    if (alone && of(host).some(j => !j.panels.includes(id))) out.set(id, host);
  }
  kept.set(plan, out);
  return out;
}

/** Whether a joint bolts a wing to the plate that carries it. */
export const tiesWing = (plan: Plan, { panels, mount }: Joint): boolean =>
  mount === undefined && panels.length === 2 && panels.some((p, i) => wingsOf(plan).get(p) === panels[1 - i]);

/** The plate that bolts to the vehicle carry a plate by: itself, or for a wing what it is bolted to. */
export function carrierOf(plan: Plan, id: string): string {
  const on = wingsOf(plan).get(id);
  return on === undefined ? id : carrierOf(plan, on);
}
