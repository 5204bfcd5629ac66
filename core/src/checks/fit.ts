import type { Facts } from '../derive';
import { type FitReport, fitRemedyWords } from '../fitup';
import { formatPercent, type UnitSystem } from '../units';
import { type Finding, plateWord, type Remedy, wordsIn } from './finding';

/** A plan that bolts up less surely than this asks for a remedy. */
export const SURE_TO_BOLT = 0.95;

/** Remedies that bring more than the trials' own doubt, the best first. */
export const fitHelps = (report: FitReport): FitReport['remedies'] =>
  report.remedies.filter(r => r.chance > report.all.chance + 2 * report.all.error);

/** What a fit that was tried out says of the plan: a finding where not all bolts are sure to start. Figures in the reader's units. */
export function checkFit(facts: Facts, report: FitReport, system: UnitSystem = 'metric'): readonly Finding[] {
  if (report.all.chance >= SURE_TO_BOLT) return [];
  const words = wordsIn(system);
  const [worst] = [...report.joints].filter(j => j.refuses > 0).sort((a, b) => b.refuses - a.refuses);
  const panels = facts.joints.find(j => j.id === worst?.id)?.joint.panels ?? [];
  const helps = fitHelps(report);
  const [first] = helps;
  const done = helps.flatMap((r): readonly Remedy[] =>
    r.mend ? [{ remedy: fitRemedyWords(r, system), mend: r.mend }] : [],
  );
  const rest = done.filter(r => r.mend !== first?.mend);
  return [
    {
      rule: 'may-not-bolt-up',
      severity: 'fix',
      where: 'bolt',
      about: worst ? [worst.id, ...panels] : [],
      text: [
        `There is a ${formatPercent(report.all.chance)} chance that every bolt starts by hand.`,
        worst
          ? `Bolt ${worst.id}${panels[0] === undefined ? '' : ` of ${plateWord(facts, panels[0])}`} refuses most: its holes leave ${words.fine(worst.clearanceMm)} of play, and their places are known to ${words.fine(worst.sigmaMm)}.`
          : '',
      ]
        .filter(Boolean)
        .join(' '),
      remedy: first
        ? `${fitRemedyWords(first, system)} Then ${formatPercent(first.chance)}.`
        : 'Survey the holes on Rig, or hold a cardboard template up before metal is cut. Bolt finds, under Will it bolt up, which holes together want more play.',
      ...(first?.mend ? { mend: first.mend } : {}),
      ...(rest.length > 0 ? { more: rest } : {}),
    },
  ];
}
