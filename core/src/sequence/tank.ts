import { gapsAtRest } from '../cover';
import type { FoldedPanel } from '../fold';
import { boxOf } from '../geometry';
import type { Component, FactoryPart } from '../rig';
import { formatVolume, L_PER_GALLON, massFigure } from '../units';
import { CAUTIONS } from './cautions';
import type { Job } from './job';

/** Density of gasoline, kg a liter (EN 228, 720 to 775 kg/m\u00b3; from memory). */
export const GASOLINE = [0.72, 0.775] as const;
/** A strap slides out of a gap from this on, mm: webbing and its fold, a guess. */
const STRAP_GAP = 6;
/** How far beside a tank its shield may be noted, mm: a guess. */
const BESIDE = 120;

/** What fuel in a tank weighs, in words; what jack and straps hold beside the tank itself. */
export function fuelWords({ litres }: Component, { units }: Pick<Job, 'units'>): string {
  const mass = (kg: number): string => massFigure(kg, units, false, 0).value;
  const { unit } = massFigure(0, units);
  if (litres === undefined) {
    const [low, high] = GASOLINE.map(d => massFigure(d * (units === 'inch' ? L_PER_GALLON : 1), units).value);
    return `Run it nearly empty first: a ${units === 'inch' ? 'gallon' : 'liter'} of fuel weighs ${low} to ${high} ${unit}.`;
  }
  const [low, high] = GASOLINE.map(d => mass(d * litres));
  const tenth = mass((GASOLINE[1] * litres) / 10);
  return `Full, its ${formatVolume(litres, units)} weigh ${low} to ${high} ${unit}; run down to a tenth, ${tenth} ${unit} and the tank itself.`;
}

/** How a tank is held while what covers or carries it is off, and how the plate shares the place. */
export interface TankHold {
  readonly tank: Component;
  /** joints whose hole the tank itself hangs on */
  readonly carried: readonly string[];
  /** straps slide out of the gap above the plate; else the plate and the tank go up on one jack */
  readonly by: 'straps' | 'one jack';
  readonly name: string;
}

/** The fuel tank over a plate and how it is held; undefined where the plate lies under none. */
export function tankHold(job: Pick<Job, 'doc' | 'rig' | 'joints'>, p: FoldedPanel): TankHold | undefined {
  const tank = job.rig.components.find(c => c.kind === 'fuel-tank' && p.panel.guards.includes(c.id));
  if (!tank) return undefined;
  const carried = job.joints.filter(j => j.mount?.carries === tank.id).map(j => j.id);
  const gap = gapsAtRest([tank], [p])[0]?.gapMm ?? Number.POSITIVE_INFINITY;
  // on its side nothing is jacked
  const by = gap >= STRAP_GAP || job.doc.plan.method.lift === 'side' ? 'straps' : 'one jack';
  return {
    tank,
    carried,
    by,
    name: by === 'straps' ? `straps under the ${tank.name}` : `jack under the ${tank.name}`,
  };
}

/** True for a factory part that lies right below a tank: its bolts may be what the tank hangs on. */
export function shieldsTank(part: FactoryPart, tank: Component): boolean {
  const { min, max } = boxOf(tank.footprint);
  const [x, y, z] = part.at;
  return (
    x >= min[0] - BESIDE &&
    x <= max[0] + BESIDE &&
    y >= min[1] - BESIDE &&
    y <= max[1] + BESIDE &&
    z <= (tank.zBottom + tank.zTop) / 2
  );
}

/** Holds a tank up before anything below it is touched; gives the id of the step. */
export function holdTank(job: Job, hold: TankHold, needs: readonly string[], tag = ''): string {
  const { tank, by, name, carried } = hold;
  return job.add({
    id: `support-tank-${tank.id}${tag}`,
    stage: 'support',
    tank: { component: tank.id, by },
    title: `Hold up the ${tank.name}`,
    why: `Do this before touching its shield or bolts. ${fuelWords(tank, job)}`,
    hows: [
      ...(by === 'straps'
        ? [
            'Two ratchet straps round it, rail to rail, a third of its length from each end; clear of hoses and wires.',
            'Snug, not crushing. They leave room below it for the plate.',
          ]
        : [
            'A jack with a wide board under its middle, a strip of rubber between. The plate later goes up on the same jack, under the tank.',
          ]),
      ...(carried.length > 0 ? ['Its own bolts come out one at a time, never two.'] : []),
    ],
    needs,
    puts: [name],
    tools: by === 'straps' ? ['two ratchet straps'] : ['jack with a wide board'],
    cautions: [CAUTIONS.fuel],
    at: [
      tank.footprint.reduce((s, q) => s + q[0], 0) / tank.footprint.length,
      tank.footprint.reduce((s, q) => s + q[1], 0) / tank.footprint.length,
      tank.zBottom,
    ],
  });
}

/** Takes away what held a tank, once its plate is fast. */
export function releaseTank(
  job: Job,
  { tank, by, name }: TankHold,
  p: FoldedPanel,
  needs: readonly string[],
  tag = '',
): string {
  return job.add({
    id: `release-tank-${tank.id}${tag}`,
    stage: 'support',
    tank: { component: tank.id, by },
    title:
      by === 'straps'
        ? `Take the straps off the ${tank.name}`
        : `Take the jack away from under plate ${p.panel.mark} and the ${tank.name}`,
    why:
      by === 'straps'
        ? 'Slack them a click at a time and watch the tank: it must not follow. Then pull them out sideways.'
        : 'Lower it a finger\u2019s width and watch: neither plate nor tank may follow.',
    panels: [p.panel.id],
    needs,
    takes: [name],
    cautions: [CAUTIONS.fuel],
  });
}
