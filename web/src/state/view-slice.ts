import type { Stock } from '@plate-fold/core/sheet';
import { TAPES, type Tape, takeTape, type UnitSystem } from '@plate-fold/core/units';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Side, Stretch } from '../picture/sheet-scale';

export type Theme = 'light' | 'dark';
/** Orders of the list of plans. */
export const PLAN_SORTS = ['saved', 'name', 'run'] as const;
export type PlanSort = (typeof PLAN_SORTS)[number];

export interface ViewState {
  readonly units: UnitSystem;
  /** how the reader's inch tape is divided */
  readonly tape: Tape;
  readonly side: Side;
  readonly theme: Theme;
  /** what the dealer sells: gauges and fractions of an inch, or millimeters */
  readonly stock: Stock;
  /** how the list of plans is sorted, and whether the examples are in it */
  readonly sort: PlanSort;
  readonly examples: boolean;
  /** what is folded to a line, by the stage that it is folded on: `cover/side`, `weigh/summary` */
  readonly folded: readonly string[];
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
    const { units, tape, side, theme, stock, sort, examples, folded } = JSON.parse(
      localStorage.getItem(STORED) ?? '{}',
    ) as Partial<ViewState>;
    return { units, tape, side, theme, stock, sort, examples, folded };
  } catch {
    return {};
  }
}

/** Stages whose work is a table begin without the side view. */
const UNFOLDED_LATER = ['weigh/side'];

const initial = (): ViewState => {
  const s = stored();
  const dark = typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches;
  const tape = TAPES.find(t => t === s.tape) ?? '16';
  takeTape(tape);
  return {
    units: s.units ?? 'inch',
    tape,
    side: s.side ?? 'head-front',
    theme: s.theme ?? (dark ? 'dark' : 'light'),
    stock: s.stock ?? 'inch',
    sort: PLAN_SORTS.find(x => x === s.sort) ?? 'saved',
    examples: s.examples ?? true,
    folded: Array.isArray(s.folded) ? s.folded.map(String) : UNFOLDED_LATER,
  };
};

const SIDES: readonly Side[] = ['above', 'head-front', 'head-rear'];

export const viewSlice = createSlice({
  name: 'view',
  initialState: initial,
  reducers: {
    unitsSwitched: s => ({ ...s, units: s.units === 'inch' ? 'metric' : 'inch' }),
    tapeChosen: (s, a: PayloadAction<Tape>) => ({ ...s, tape: a.payload }),
    sideChosen: (s, a: PayloadAction<Side>) => ({ ...s, side: a.payload }),
    sideTurned: s => ({ ...s, side: SIDES[(SIDES.indexOf(s.side) + 1) % SIDES.length] as Side }),
    themeSwitched: s => ({ ...s, theme: s.theme === 'dark' ? 'light' : 'dark' }),
    stockChosen: (s, a: PayloadAction<Stock>) => ({ ...s, stock: a.payload }),
    plansSorted: (s, a: PayloadAction<PlanSort>) => ({ ...s, sort: a.payload }),
    examplesShown: (s, a: PayloadAction<boolean>) => ({ ...s, examples: a.payload }),
    foldTurned: (s, a: PayloadAction<string>) => ({
      ...s,
      folded: s.folded.includes(a.payload) ? s.folded.filter(x => x !== a.payload) : [...s.folded, a.payload],
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
  tapeChosen,
  sideTurned,
  themeSwitched,
  stockChosen,
  plansSorted,
  examplesShown,
  foldTurned,
  panelSelected,
  jointSelected,
  comparedAgainst,
  noticeGiven,
  stretchMoved,
  selectionCleared,
} = viewSlice.actions;

/** Keeps the reader's preferences (not the selection) on this device. */
export function keepView(view: ViewState): void {
  const { units, tape, side, theme, stock, sort, examples, folded } = view;
  try {
    localStorage.setItem(STORED, JSON.stringify({ units, tape, side, theme, stock, sort, examples, folded }));
  } catch {
    // a full or closed store costs the preference, nothing else
  }
}
