import { type ConverterShield, converterShields } from '@plate-fold/core/compare';
import { gatherFacts } from '@plate-fold/core/derive';
import { NEST_DEFAULTS, nest, shopOf } from '@plate-fold/core/fold';
import type { PlanDocument } from '@plate-fold/core/plan';

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

self.onmessage = ({ data: { document, build } }: MessageEvent<BuildAsked>) => {
  const facts = gatherFacts(document, build);
  const laid = nest(facts.panels, { ...NEST_DEFAULTS, sheets: shopOf(document.plan).sheets });
  const extra: BuildExtra = {
    sheets: laid.sheets.length,
    tooLarge: laid.tooLarge,
    shields: converterShields(facts),
  };
  self.postMessage(extra);
};
