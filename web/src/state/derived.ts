import { byGravity, check, type Finding } from '@plate-fold/core/checks';
import { type Facts, gatherFacts, weighOne } from '@plate-fold/core/derive';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { BuildWeight } from '@plate-fold/core/weigh';
import { createSelector } from '@reduxjs/toolkit';
import { type RootState, useApp } from './store';
import type { StruckState } from './struck-slice';

const selectDocument = (s: RootState): PlanDocument | undefined => s.plan.present;
const selectUnits = (s: RootState) => s.view.units;

/** Everything shown of the active build, computed when the document changes and not before. */
export const selectFacts = createSelector([selectDocument], (doc): Facts | undefined =>
  doc ? gatherFacts(doc) : undefined,
);

const selectStruck = (s: RootState): StruckState => s.struck;
/** What the strike of the document as it stands found; undefined where it has not been struck since it changed. */
export const selectStruckNow = createSelector([selectDocument, selectStruck], (doc, struck) =>
  doc && struck.of === doc ? struck : undefined,
);

const selectChecked = createSelector([selectFacts, selectUnits], (facts, units): readonly Finding[] =>
  facts ? check(facts, units) : [],
);
export const selectFindings = createSelector(
  [selectChecked, selectStruckNow],
  (checked, struck): readonly Finding[] =>
    struck ? [...checked, ...struck.findings].sort(byGravity) : checked,
);

/** Weights of all builds, in order; a build is weighed again only when rig, shapes, joints or its own sheets change. */
const weighed = new WeakMap<object, { doc: PlanDocument; weight: BuildWeight }>();
export const selectWeights = createSelector([selectFacts], (facts): readonly BuildWeight[] => {
  if (!facts) return [];
  const doc = facts.document;
  return doc.plan.builds.map(b => {
    if (b.id === facts.build.id) return facts.weight;
    const known = weighed.get(b);
    const same =
      known?.doc.rig === doc.rig &&
      known.doc.plan.panels === doc.plan.panels &&
      known.doc.plan.joints === doc.plan.joints &&
      known.doc.plan.crossbars === doc.plan.crossbars &&
      known.doc.plan.rates === doc.plan.rates &&
      known.doc.plan.money === doc.plan.money;
    if (known && same) return known.weight;
    const weight = weighOne(doc, b.id);
    weighed.set(b, { doc, weight });
    return weight;
  });
});

/** The facts of the open plan. Stages are only shown when there is one. */
export function useFacts(): Facts {
  const facts = useApp(selectFacts);
  if (!facts) throw new Error('no plan is open');
  return facts;
}
