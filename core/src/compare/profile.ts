import { environmentOf, HEARD_BELOW, MOST_APART, metalsApart } from '../checks';
import { type Shield, shieldOf } from '../cover';
import type { Facts } from '../derive';
import type { FoldedPanel } from '../fold';
import type { Priority } from '../plan';
import { dentingForce, type StrikeAnswer } from '../strike';

/** What keeps hands off one converter in a build. */
export interface ConverterShield extends Shield {
  readonly name: string;
  /** share of the bolts of its plates that want a tool that few carry; undefined where there are none */
  readonly tamperShare?: number;
  /** plates round it, thinnest first */
  readonly sheets: readonly FoldedPanel[];
}

/** The shields of all converters, by the plates that stand in the way to them. */
export function converterShields(facts: Facts): readonly ConverterShield[] {
  return facts.rig.components
    .filter(c => c.kind === 'catalytic-converter')
    .map(c => {
      const shield = shieldOf(facts.rig, facts.plates, c);
      const bolts = facts.joints.filter(j => j.joint.panels.some(p => shield.panels.includes(p)));
      const tamper = bolts.filter(j => j.joint.tamper || j.joint.fastener.head.startsWith('tamper'));
      return {
        ...shield,
        name: c.name,
        ...(bolts.length > 0 ? { tamperShare: tamper.length / bolts.length } : {}),
        sheets: facts.plates
          .filter(p => shield.panels.includes(p.panel.id))
          .sort((a, b) => a.sheet.thickness - b.sheet.thickness),
      };
    });
}

/** How a plate takes wet and salt, worst to best: common practice, no source. */
export const RUST = ['bare steel', 'coated steel', 'aluminum', 'stainless steel', 'plastic'] as const;

/** A plate's place in that order, from 1, lower by one where its bolts are too far from it in metal; and the widest such difference, V. */
export function rustOf(facts: Facts, p: FoldedPanel): { readonly place: number; readonly apart: number } {
  const { family } = p.material;
  const kind =
    family === 'steel'
      ? p.sheet.finish === 'raw'
        ? 0
        : 1
      : family === 'aluminum'
        ? 2
        : family === 'stainless'
          ? 3
          : 4;
  const apart = Math.max(
    0,
    ...facts.joints
      .filter(j => j.joint.panels.includes(p.panel.id))
      .map(j => metalsApart(p, j.joint.fastener.finish) ?? 0),
  );
  return {
    place: Math.max(1, kind + 1 - (apart > MOST_APART[environmentOf(facts.document)] + 1e-9 ? 1 : 0)),
    apart,
  };
}

/** One thing an owner weighs builds by, in one build. */
export interface ProfileTerm {
  readonly of: Priority;
  /** undefined where it is not known, as before a strike */
  readonly value?: number;
  readonly better: 'more' | 'less';
  /** the plate or part it is decided by */
  readonly by?: string;
  /** the value is a bound: it is at least that */
  readonly atLeast?: true;
}

/** How each term is found, and how far it can be trusted: said beside its figure. */
export const TERM_WORDS: Readonly<Record<Priority, { readonly what: string; readonly how: string }>> = {
  weight: {
    what: 'net mass',
    how: 'Computed: plates, crossbars and hardware less the factory parts taken off.',
  },
  toughness: {
    what: 'force that dents the weakest plate',
    how: 'Computed by Strike: the force that first leaves a dent where a plate is weakest. Plastic is left out: it springs back and creeps.',
  },
  quiet: {
    what: 'lowest vibration of a plate',
    how: `Computed by Strike with the bolts as built. That a plate under ${HEARD_BELOW} Hz drums is common practice, no source.`,
  },
  cost: {
    what: 'all that is paid',
    how: 'Computed from rates, offers, shipping and tax, as on the Cost tab.',
  },
  corrosion: {
    what: 'worst plate in wet and salt, 1 to 5 (5 is best)',
    how: 'Common practice, no source: bare steel 1, coated steel 2, aluminum 3, stainless 4, plastic 5; one less where bolts are over 0.25 V away on the anodic index (engineering practice).',
  },
  theft: {
    what: 'share of the converters out of reach',
    how: 'Computed along straight lines, level and from below, for a hand: an estimate of reach, not of how long a plate holds.',
  },
};

/** The terms of one build; `struck` are the answers for its plates, where they have been struck. */
export function profileOf(
  facts: Facts,
  shields: readonly ConverterShield[],
  struck: readonly StrikeAnswer[] = [],
): Readonly<Record<Priority, ProfileTerm>> {
  const metal = facts.plates.filter(p => p.material.family !== 'plastic');
  const least = <T>(list: readonly T[], of: (x: T) => number): T | undefined =>
    [...list].sort((a, b) => of(a) - of(b))[0];
  const whole = struck.length === facts.plates.length ? struck : [];
  const dents = whole
    .filter(s => metal.some(p => p.panel.id === s.panel))
    .map(s => ({ panel: s.panel, ...dentingForce(s) }));
  const weakest = dents.every(d => d.force !== undefined)
    ? least(dents, d => (d.force ?? 0) + (d.atLeast ? 0.5 : 0))
    : undefined;
  const low = least(whole, s => s.ringHz);
  const rusty = least(facts.plates, p => rustOf(facts, p).place);
  const open = least(shields, s => s.shut);
  return {
    weight: { of: 'weight', better: 'less', value: facts.weight.netKg },
    toughness: {
      of: 'toughness',
      better: 'more',
      ...(weakest?.force === undefined ? {} : { value: weakest.force, by: weakest.panel }),
      ...(weakest?.atLeast ? { atLeast: true } : {}),
    },
    quiet: { of: 'quiet', better: 'more', ...(low ? { value: low.ringHz, by: low.panel } : {}) },
    cost: { of: 'cost', better: 'less', value: facts.weight.cost },
    corrosion: {
      of: 'corrosion',
      better: 'more',
      ...(rusty ? { value: rustOf(facts, rusty).place, by: rusty.panel.id } : {}),
    },
    theft: {
      of: 'theft',
      better: 'more',
      ...(open
        ? { value: shields.reduce((s, x) => s + x.shut, 0) / shields.length, by: open.component }
        : {}),
    },
  };
}

/** A term beside the best of it among some builds: 1 for the best, less for worse; undefined where either is not known. */
export function besideBest(term: ProfileTerm, all: readonly ProfileTerm[]): number | undefined {
  const known = all.flatMap(t => (t.value === undefined ? [] : [t.value]));
  if (term.value === undefined || known.length === 0) return undefined;
  // a net mass may be below nothing where heavy factory parts come off: it is the best there is
  const [least, most] = [Math.min(...known), Math.max(...known)];
  if (term.better === 'less') return term.value <= 0 ? 1 : Math.max(0, least) / term.value;
  return most <= 0 ? 1 : Math.max(0, term.value) / most;
}
