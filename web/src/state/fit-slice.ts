import type { Finding } from '@plate-fold/core/checks';
import type { PlanDocument } from '@plate-fold/core/plan';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What was last found out about whether a plan bolts up, and of which document; it says nothing of others. */
export interface FitState {
  readonly of?: PlanDocument;
  readonly findings: readonly Finding[];
}

export const fitSlice = createSlice({
  name: 'fit',
  initialState: (): FitState => ({ findings: [] }),
  reducers: {
    fitTried: (_, a: PayloadAction<FitState>) => a.payload as never,
  },
});
export const { fitTried } = fitSlice.actions;
