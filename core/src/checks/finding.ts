import type { Facts } from '../derive';
import type { Call } from '../plan';
import { panelWord } from '../plan';
import {
  figureText,
  formatForce,
  formatLength,
  formatMass,
  formatTemperature,
  formatTorque,
  loadFigure,
  sentence,
  stressFigure,
  tapeLength,
  type UnitSystem,
} from '../units';

export type Severity = 'stop' | 'fix' | 'note';

/** The stage of the work a finding waits at. */
export type Where = 'cover' | 'fold' | 'strike' | 'weigh' | 'bolt' | 'run';

export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly where: Where;
  /** ids of what it is about */
  readonly about: readonly string[];
  /** what, where and why */
  readonly text: string;
  /** what would mend it */
  readonly remedy?: string;
  /** the remedy itself, where it can be applied alone: a command with its arguments */
  readonly mend?: Call;
  /** what else would mend it, tried in this order where the first will not do */
  readonly more?: readonly Remedy[];
}

/** Something that mends a finding, said and done. */
export interface Remedy {
  readonly remedy: string;
  readonly mend: Call;
}

const RANK = { stop: 0, fix: 1, note: 2 } as const;
/** Gravest first. */
export const byGravity = (a: Pick<Finding, 'severity'>, b: Pick<Finding, 'severity'>): number =>
  RANK[a.severity] - RANK[b.severity];

/** A finding before its rule has signed it. */
export type Unsigned = Omit<Finding, 'rule'>;

/** Figures in a finding's sentence, in the reader's units. */
export interface Words {
  readonly units: UnitSystem;
  readonly length: (mm: number) => string;
  /** as a tape shows it: sixteenths of an inch from half an inch on, decimals below */
  readonly tape: (mm: number) => string;
  /** as a caliper shows it: thickness, diameter, spacer */
  readonly fine: (mm: number) => string;
  readonly mass: (kg: number) => string;
  readonly torque: (nm: number) => string;
  /** of a press, from kN */
  readonly force: (kn: number) => string;
  /** of stress and pressure, from MPa */
  readonly stress: (mpa: number) => string;
  /** of a hot part or sheet, from °C */
  readonly temperature: (c: number) => string;
  /** that a joint bears, from N */
  readonly load: (n: number) => string;
}

export const wordsIn = (system: UnitSystem): Words => ({
  units: system,
  length: mm => formatLength(mm, system, system === 'metric' && Math.abs(mm) < 10),
  tape: mm => tapeLength(mm, system),
  fine: mm => formatLength(mm, system, true),
  mass: kg => formatMass(kg, system),
  torque: nm => formatTorque(nm, system),
  force: kn => formatForce(kn, system),
  temperature: c => formatTemperature(c, system),
  stress: mpa => figureText(stressFigure(mpa, system)),
  load: n => figureText(loadFigure(n, system)),
});

export interface Rule {
  readonly id: string;
  /** why this matters, one sentence */
  readonly why: string;
  readonly find: (facts: Facts, words: Words) => readonly Unsigned[];
}

/** The mark and name of a panel as people call it. */
export const plateName = (facts: Facts, id: string): string => {
  const p = facts.document.plan.panels.find(x => x.id === id);
  return p ? sentence(panelWord(p)) : id;
};

/** The same amid a sentence. */
export const plateWord = (facts: Facts, id: string): string =>
  plateName(facts, id).replace(/^(Plate|Bracket) /, w => w.toLowerCase());

export const partName = (facts: Facts, id: string): string =>
  facts.document.rig.components.find(c => c.id === id)?.name ?? id;
