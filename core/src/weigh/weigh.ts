import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import { length3, sub3, type Vec3 } from '../geometry';
import type { Build, Crossbar, Plan } from '../plan';
import type { BarSection, FactoryPart, PresentRig } from '../rig';
import { MATERIALS } from '../sheet';
import { sectionOf } from '../strike';
import { type AxleChange, axleChange, type Load, type RideChange, rideChange, sideChange } from './axle';
import { type BuildCost, buildCost, hardwareCost, panelCost } from './cost';
import { type Rates, ratesOf } from './rates';

export interface PanelWeight {
  readonly id: string;
  readonly massKg: number;
  readonly areaMm2: number;
  readonly centroid: Vec3;
  readonly cost: number;
}
/** What the plan changes on the vehicle in one build. Masses in kg; ride height in mm, lower is negative. */
export interface BuildWeight {
  readonly id: string;
  readonly panels: readonly PanelWeight[];
  readonly hardwareKg: number;
  readonly crossbarKg: number;
  readonly addedKg: number;
  readonly removedKg: number;
  readonly netKg: number;
  readonly axles: AxleChange;
  /** of what is added, what moves with an axle and so is not on its springs, kg */
  readonly unsprungKg: number;
  readonly rideHeight: RideChange;
  /** right minus left, kg at the wheels */
  readonly sideKg: number;
  /** all that the owner pays, dollars */
  readonly cost: number;
  readonly costs: BuildCost;
  readonly rates: Rates;
}

/** Mass of a crossbar from its section and length, kg. */
export function crossbarMass(c: Crossbar): number {
  const { width, height, wall } = c.section;
  const hollow = wall === 'solid' ? 0 : Math.max(0, width - 2 * wall) * Math.max(0, height - 2 * wall);
  return (width * height - hollow) * length3(sub3(c.to, c.from)) * MATERIALS[c.material].density * 1e-9;
}

/** Section modulus of a bar for loads from above or below, mm³: I over half its height (Euler-Bernoulli). */
export const sectionModulus = ({ width, height, wall }: BarSection): number =>
  (2 * sectionOf({ width, depth: height, ...(wall === 'solid' ? {} : { wall }) }).I) / height;

/** A crossbar beside the factory part whose place it takes: mass, kg, and section modulus as a share of the old one's, where that is known. */
export const besideOld = (
  bar: Crossbar,
  old: FactoryPart,
): { readonly moreKg: number; readonly modulus?: number } => ({
  moreKg: crossbarMass(bar) - old.massKg,
  ...(old.section ? { modulus: sectionModulus(bar.section) / sectionModulus(old.section) } : {}),
});

/** Net = plates + crossbars + hardware − factory parts taken off, with what it does to the axles. */
export function weighBuild(
  { id, offer }: Pick<Build, 'id' | 'offer'>,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
  { crossbars, rates: entered, money }: Pick<Plan, 'crossbars' | 'rates' | 'money'>,
  /** panels that move with an axle: on its wheels, but not on its springs */
  unsprung: ReadonlySet<string> = new Set(),
): BuildWeight {
  const rates = ratesOf(entered);
  const prices = panels.map(p => panelCost(p, rates));
  const rows = panels.map(
    (p, i): PanelWeight => ({
      id: p.panel.id,
      massKg: p.massKg,
      areaMm2: p.blank.areaMm2,
      centroid: p.centroid,
      cost: prices[i]?.total ?? 0,
    }),
  );
  const sum = (loads: readonly Load[]): number => loads.reduce((s, l) => s + l.massKg, 0);
  const plates: Load[] = rows.map(r => ({ massKg: r.massKg, at: r.centroid }));
  const hardware: Load[] = joints.map(j => ({ massKg: j.massKg, at: j.at }));
  const bars: Load[] = crossbars.map(c => ({
    massKg: crossbarMass(c),
    at: [(c.from[0] + c.to[0]) / 2, (c.from[1] + c.to[1]) / 2, (c.from[2] + c.to[2]) / 2],
  }));
  const removed: Load[] = rig.factoryParts.map(f => ({ massKg: -f.massKg, at: f.at }));
  const all = [...plates, ...hardware, ...bars, ...removed];
  const axles = axleChange(all, rig.rig.wheelbase);
  const onAxles: Load[] = [
    ...rows.filter(r => unsprung.has(r.id)).map(r => ({ massKg: r.massKg, at: r.centroid })),
    ...joints
      .filter(j => j.joint.panels.some(p => unsprung.has(p)))
      .map(j => ({ massKg: j.massKg, at: j.at })),
  ];
  const held = axleChange(onAxles, rig.rig.wheelbase);
  const costs = buildCost(
    prices,
    hardwareCost(joints, rates),
    crossbars.reduce((s, c, i) => s + (bars[i]?.massKg ?? 0) * rates.sheetPerKg[c.material], 0),
    money,
    offer?.price,
  );
  const addedKg = sum(plates) + sum(bars) + sum(hardware);
  const removedKg = -sum(removed);
  return {
    id,
    panels: rows,
    hardwareKg: sum(hardware),
    crossbarKg: sum(bars),
    addedKg,
    removedKg,
    netKg: addedKg - removedKg,
    axles,
    unsprungKg: sum(onAxles),
    rideHeight: rideChange(
      { frontKg: axles.frontKg - held.frontKg, rearKg: axles.rearKg - held.rearKg },
      rig.rig.axles,
    ),
    sideKg: sideChange(all, rig.rig.trackWidth),
    cost: costs.total,
    costs,
    rates,
  };
}
