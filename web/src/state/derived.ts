import { byGravity, check, type Finding } from '@plate-fold/core/checks';
import { type Facts, gatherFacts, weighOne } from '@plate-fold/core/derive';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { BuildWeight } from '@plate-fold/core/weigh';
import { createSelector } from '@reduxjs/toolkit';
import type { FitState } from './fit-slice';
import { selectDocument, selectShown } from './select';
import { type RootState, useAppSelector } from './store';
import type { StruckState } from './struck-slice';

const selectUnits = (s: RootState) => s.view.units;
/** Lengths in findings are told by the tape in hand: with another they are told anew. */
const selectTape = (s: RootState) => s.view.tape;

/** Everything computed of the active build as it was last changed, when the document changes and not before. */
export const selectSettled = createSelector([selectDocument], (doc): Facts | undefined =>
  doc ? gatherFacts(doc) : undefined,
);

/** The same as it is shown: with what is held in the hand. Findings, the other builds and what was struck wait until it is let go. */
export const selectFacts = createSelector(
  [selectShown, selectDocument, selectSettled],
  (shown, doc, settled): Facts | undefined => (shown && shown !== doc ? gatherFacts(shown) : settled),
);

const selectStruck = (s: RootState): StruckState => s.struck;
/** What the strike of the document as it stands found; undefined where it has not been struck since it changed. */
export const selectStruckNow = createSelector([selectDocument, selectStruck], (doc, struck) =>
  doc && struck.of === doc ? struck : undefined,
);

const selectFit = (s: RootState): FitState => s.fit;
const selectFitNow = createSelector([selectDocument, selectFit], (doc, fit) =>
  doc && fit.of === doc ? fit : undefined,
);

const selectChecked = createSelector(
  [selectSettled, selectUnits, selectTape],
  (facts, units): readonly Finding[] => (facts ? check(facts, units) : []),
);
export const selectFindings = createSelector(
  [selectChecked, selectStruckNow, selectFitNow],
  (checked, struck, fit): readonly Finding[] =>
    struck || fit
      ? [...checked, ...(struck?.findings ?? []), ...(fit?.findings ?? [])].sort(byGravity)
      : checked,
);

/** Weights of the builds that are not looked at; one is weighed again only when rig, shapes, joints or its own sheets change. */
const weighed = new WeakMap<object, { doc: PlanDocument; weight: BuildWeight }>();
const selectOthers = createSelector([selectSettled], (facts): ReadonlyMap<string, BuildWeight> => {
  const out = new Map<string, BuildWeight>();
  if (!facts) return out;
  const doc = facts.document;
  for (const b of doc.plan.builds) {
    if (b.id === facts.build.id) continue;
    const known = weighed.get(b);
    const same =
      known?.doc.rig === doc.rig &&
      known.doc.plan.panels === doc.plan.panels &&
      known.doc.plan.joints === doc.plan.joints &&
      known.doc.plan.crossbars === doc.plan.crossbars &&
      known.doc.plan.rates === doc.plan.rates &&
      known.doc.plan.money === doc.plan.money;
    const weight = known && same ? known.weight : weighOne(doc, b.id);
    weighed.set(b, { doc, weight });
    out.set(b.id, weight);
  }
  return out;
});

/** Weights of all builds, in order; of the one that is looked at as it is shown. */
export const selectWeights = createSelector(
  [selectFacts, selectOthers],
  (facts, others): readonly BuildWeight[] =>
    facts?.document.plan.builds.flatMap(b =>
      b.id === facts.build.id ? facts.weight : (others.get(b.id) ?? []),
    ) ?? [],
);

/** The facts of the open plan. Stages are only shown when there is one. */
export function useFacts(): Facts {
  const facts = useAppSelector(selectFacts);
  if (!facts) throw new Error('no plan is open');
  return facts;
}
