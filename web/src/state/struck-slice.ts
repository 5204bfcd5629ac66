import type { Finding } from '@plate-fold/core/checks';
import type { PlanDocument } from '@plate-fold/core/plan';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** The least gap that any plate of a build leaves under a strike. */
export interface LeastStruck {
  readonly gapMm: number;
  readonly panel: string;
  readonly component: string;
}

/** What the last strike of the whole belly found, and of which document; other documents have not been struck. */
export interface StruckState {
  readonly of?: PlanDocument;
  readonly findings: readonly Finding[];
  readonly least?: LeastStruck;
}

export const struckSlice = createSlice({
  name: 'struck',
  initialState: (): StruckState => ({ findings: [] }),
  reducers: {
    bellyStruck: (_, a: PayloadAction<StruckState>) => a.payload as never,
  },
});
export const { bellyStruck } = struckSlice.actions;
