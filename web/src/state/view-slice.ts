import type { Stock } from '@plate-fold/core/sheet';
import type { UnitSystem } from '@plate-fold/core/units';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Side, Stretch } from '../picture/sheet-scale';

export type Theme = 'light' | 'dark';
/** Orders of the list of plans. */
export const PLAN_SORTS = ['saved', 'name', 'run'] as const;
export type PlanSort = (typeof PLAN_SORTS)[number];

export interface ViewState {
  readonly units: UnitSystem;
  readonly side: Side;
  readonly theme: Theme;
  /** what the dealer sells: gauges and fractions of an inch, or millimeters */
  readonly stock: Stock;
  /** how the list of plans is sorted, and whether the examples are in it */
  readonly sort: PlanSort;
  readonly examples: boolean;
  /** stages whose side view is folded to a line */
  readonly foldedSides: readonly string[];
  readonly panel?: string;
  readonly joint?: string;
  /** the build that differences are shown against */
  readonly against?: string;
  readonly stretch?: Stretch;
  /** why the last edit was refused */
  readonly notice?: string;
}

const STORED = 'plate-fold view';

function stored(): Partial<ViewState> {
  try {
    const { units, side, theme, stock, sort, examples, foldedSides } = JSON.parse(
      localStorage.getItem(STORED) ?? '{}',
    ) as Partial<ViewState>;
    return { units, side, theme, stock, sort, examples, foldedSides };
  } catch {
    return {};
  }
}

const initial = (): ViewState => {
  const s = stored();
  const dark = typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches;
  return {
    units: s.units ?? 'inch',
    side: s.side ?? 'head-front',
    theme: s.theme ?? (dark ? 'dark' : 'light'),
    stock: s.stock ?? 'inch',
    sort: PLAN_SORTS.find(x => x === s.sort) ?? 'saved',
    examples: s.examples ?? true,
    foldedSides: Array.isArray(s.foldedSides) ? s.foldedSides.map(String) : [],
  };
};

const SIDES: readonly Side[] = ['above', 'head-front', 'head-rear'];

export const viewSlice = createSlice({
  name: 'view',
  initialState: initial,
  reducers: {
    unitsSwitched: s => ({ ...s, units: s.units === 'inch' ? 'metric' : 'inch' }),
    sideChosen: (s, a: PayloadAction<Side>) => ({ ...s, side: a.payload }),
    sideTurned: s => ({ ...s, side: SIDES[(SIDES.indexOf(s.side) + 1) % SIDES.length] as Side }),
    themeSwitched: s => ({ ...s, theme: s.theme === 'dark' ? 'light' : 'dark' }),
    stockChosen: (s, a: PayloadAction<Stock>) => ({ ...s, stock: a.payload }),
    plansSorted: (s, a: PayloadAction<PlanSort>) => ({ ...s, sort: a.payload }),
    examplesShown: (s, a: PayloadAction<boolean>) => ({ ...s, examples: a.payload }),
    sideFolded: (s, a: PayloadAction<string>) => ({
      ...s,
      foldedSides: s.foldedSides.includes(a.payload)
        ? s.foldedSides.filter(x => x !== a.payload)
        : [...s.foldedSides, a.payload],
    }),
    panelSelected: (s, a: PayloadAction<string | undefined>) => ({ ...s, panel: a.payload }),
    jointSelected: (s, a: PayloadAction<string | undefined>) => ({ ...s, joint: a.payload }),
    comparedAgainst: (s, a: PayloadAction<string | undefined>) => ({ ...s, against: a.payload }),
    noticeGiven: (s, a: PayloadAction<string | undefined>) => ({ ...s, notice: a.payload }),
    stretchMoved: (s, a: PayloadAction<Stretch | undefined>) => ({ ...s, stretch: a.payload }),
    selectionCleared: s => ({
      ...s,
      panel: undefined,
      joint: undefined,
      stretch: undefined,
      against: undefined,
    }),
  },
});

export const {
  unitsSwitched,
  sideChosen,
  sideTurned,
  themeSwitched,
  stockChosen,
  plansSorted,
  examplesShown,
  sideFolded,
  panelSelected,
  jointSelected,
  comparedAgainst,
  noticeGiven,
  stretchMoved,
  selectionCleared,
} = viewSlice.actions;

/** Keeps the reader's preferences (not the selection) on this device. */
export function keepView(view: ViewState): void {
  const { units, side, theme, stock, sort, examples, foldedSides } = view;
  try {
    localStorage.setItem(STORED, JSON.stringify({ units, side, theme, stock, sort, examples, foldedSides }));
  } catch {
    // a full or closed store costs the preference, nothing else
  }
}
