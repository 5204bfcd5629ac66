import { checkFit } from '@plate-fold/core/checks';
import type { FitReport } from '@plate-fold/core/fitup';
import type { PlanDocument } from '@plate-fold/core/plan';
import { createContext, useContext, useEffect, useState } from 'react';
import { fitOrRecall } from '../work/fit-client';
import { useFacts } from './derived';
import { fitTried } from './fit-slice';
import { useAppDispatch, useAppSelector } from './store';
import { hashOf } from './strikes/wish-key';

/** What was found out of a document, or why nothing was. */
export interface TriedFit {
  readonly of: PlanDocument;
  readonly report?: FitReport;
  readonly fault?: string;
}

/** So long the plan has been let be before it is tried, ms, where that is what is looked at and elsewhere: not at every key. */
const QUIET = { looked: 600, elsewhere: 4000 } as const;

/**
 * Tries whether the plan bolts up, as often as it has changed and is let be; what it finds stands among the findings on every stage.
 * `looked`: it is what is looked at.
 */
export function useFit(looked: boolean): TriedFit | undefined {
  const facts = useFacts();
  const { document, build } = facts;
  const units = useAppSelector(s => s.view.units);
  const dispatch = useAppDispatch();
  const [tried, setTried] = useState<TriedFit>();
  const known = tried?.of === document;
  const none = facts.joints.length === 0;
  useEffect(() => {
    if (none || known) return;
    let cancel: (() => void) | undefined;
    const later = setTimeout(
      () => {
        const job = fitOrRecall(document, build.id, hashOf(JSON.stringify([document, build.id])));
        ({ cancel } = job);
        job.result.then(
          report => setTried({ of: document, report }),
          (e: Error) => setTried({ of: document, fault: e.message }),
        );
      },
      looked ? QUIET.looked : QUIET.elsewhere,
    );
    return () => {
      clearTimeout(later);
      cancel?.();
    };
  }, [document, build.id, none, known, looked]);
  useEffect(() => {
    const { of, report } = tried ?? {};
    if (of !== document || !report) return;
    dispatch(fitTried({ of: document, findings: checkFit(facts, report, units) }));
  }, [tried, document, facts, units, dispatch]);
  return tried;
}

const Tried = createContext<TriedFit | undefined>(undefined);
export const FitProvider = Tried.Provider;
export const useTriedFit = (): TriedFit | undefined => useContext(Tried);
