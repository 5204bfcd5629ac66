import { type ConverterShield, converterShields } from '@plate-fold/core/compare';
import { gatherFacts } from '@plate-fold/core/derive';
import { NEST_DEFAULTS, nest, shopOf } from '@plate-fold/core/fold';
import type { PlanDocument } from '@plate-fold/core/plan';
import { expose } from 'comlink';

/** What of a build takes longer than a frame to find: the stock sheets it is cut from, and what keeps hands off its converters. */
export interface BuildExtra {
  readonly sheets: number;
  /** plates whose blanks no stock sheet holds */
  readonly tooLarge: readonly string[];
  readonly shields: readonly ConverterShield[];
}

export interface BuildAsked {
  readonly document: PlanDocument;
  readonly build: string;
}

const worker = {
  build({ document, build }: BuildAsked): BuildExtra {
    const facts = gatherFacts(document, build);
    const laid = nest(facts.panels, { ...NEST_DEFAULTS, sheets: shopOf(document.plan).sheets });
    return {
      sheets: laid.sheets.length,
      tooLarge: laid.tooLarge,
      shields: converterShields(facts),
    };
  },
};
export type BuildWorker = typeof worker;
expose(worker);
