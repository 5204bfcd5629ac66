import type {
  Environment,
  FenderHeights,
  Limits,
  Method,
  Money,
  PlanDocument,
  Priority,
  RateId,
  Shop,
  Upkeep,
} from '../../plan';
import { inPlan } from '../change';
import { command } from '../command';

/** A record without one of its fields. */
const without = <T extends object, K extends keyof T>(of: T, key: K): Omit<T, K> => {
  const { [key]: _, ...rest } = of;
  return rest;
};

/** How the set is put on. */
export const setMethod = command<{ readonly part: Partial<Method> }>({
  id: 'plan.method',
  label: () => 'change how it is installed',
  run: (doc, { part }) => inPlan(doc, { method: { ...doc.plan.method, ...part } }),
});

/** What a set is held to; `drop` names what is no limit any more. */
export const setLimits = command<{ readonly part: Limits; readonly drop?: keyof Limits }>({
  id: 'plan.limits',
  label: () => 'change the limits',
  run: (doc, { part, drop }) =>
    inPlan(doc, { limits: { ...(drop ? without(doc.plan.limits, drop) : doc.plan.limits), ...part } }),
});

/** A rate of the owner's own, dollars, with its source; ours again where none is given. */
export const setRate = command<{
  readonly rate: RateId;
  readonly entered?: { readonly value: number; readonly source: string };
}>({
  id: 'plan.rate',
  label: (_, { entered }) => (entered ? 'enter a rate' : 'clear a rate'),
  run: (doc, { rate, entered }) => {
    const rest = without({ ...doc.plan.rates }, rate);
    return inPlan(doc, { rates: entered ? { ...rest, [rate]: entered } : rest });
  },
});

/** Dollars or percent on top of the price, and what it is held against; nought is none. */
export const setMoney = command<{ readonly key: keyof Money; readonly value: number }>({
  id: 'plan.money',
  label: () => 'change the extra costs',
  run: (doc, { key, value }) => {
    const rest = without({ ...doc.plan.money }, key);
    return inPlan(doc, { money: value === 0 ? rest : { ...rest, [key]: value } });
  },
});

export const rankPriorities = command<{ readonly priorities: readonly Priority[] }>({
  id: 'plan.priorities',
  label: () => 'rank what matters',
  run: (doc, { priorities }) => inPlan(doc, { priorities }),
});

export const setEnvironment = command<{ readonly environment: Environment }>({
  id: 'plan.environment',
  label: () => 'set where it is driven',
  run: (doc, { environment }) => inPlan(doc, { environment }),
});

/** The shop that folds and cuts. */
export const setShop = command<{ readonly shop: Shop }>({
  id: 'plan.shop',
  label: (_, { shop }) => `change the shop (${shop.name})`,
  run: (doc, { shop }) => inPlan(doc, { shop }),
});

export const setUpkeep = command<{ readonly part: Upkeep }>({
  id: 'plan.upkeep',
  label: () => 'change how far it is driven',
  run: (doc, { part }) => inPlan(doc, { upkeep: { ...doc.plan.upkeep, ...part } }),
});

/** Minutes of a step as the owner takes them. */
export const setMinutes = command<{ readonly step: string; readonly minutes: number }>({
  id: 'plan.minutes',
  label: () => 'set the minutes of a step',
  run: (doc, { step, minutes }) => inPlan(doc, { minutes: { ...doc.plan.minutes, [step]: minutes } }),
});

/** Height of one axle's fenders, mm; nought takes it back. */
export const measureFender = command<{
  readonly axle: 'front' | 'rear';
  readonly which: 'before' | 'after';
  readonly mm: number;
}>({
  id: 'plan.fender',
  label: (_, { axle }) => `measure the ${axle} fenders`,
  run: (doc, { axle, which, mm }) => {
    const rest = without({ ...doc.plan.fenders?.[axle] }, which);
    return inPlan(doc, {
      fenders: { ...doc.plan.fenders, [axle]: mm === 0 ? rest : { ...rest, [which]: mm } },
    });
  },
});

export const takeFenders = command<{ readonly fenders: FenderHeights }>({
  id: 'plan.fenders',
  label: () => 'use the fender heights',
  run: (doc, { fenders }) => inPlan(doc, { fenders }),
});

/** One more line of the plan's notes. */
export const addNote = command<{ readonly line: string }>({
  id: 'plan.note',
  label: () => 'write a note',
  run: (doc, { line }) => inPlan(doc, { notes: [doc.plan.notes, line].filter(Boolean).join('\n') }),
});

/** Another document in the place of this one: a version of it that was kept. */
export const restoreVersion = command<{ readonly document: PlanDocument; readonly revision: number }>({
  id: 'plan.restore',
  label: (_, { revision }) => `restore revision ${revision}`,
  run: (_, { document }) => document,
});
