import type { Facts } from '../../derive';
import type { StrikeAnswer } from '../../strike';
import type { Unsigned, Words } from '../finding';

/** A rule that looks at what a strike did to one plate. */
export interface StruckRule {
  readonly id: string;
  /** why this matters, one sentence */
  readonly why: string;
  readonly find: (facts: Facts, struck: StrikeAnswer, words: Words) => readonly Unsigned[];
}
