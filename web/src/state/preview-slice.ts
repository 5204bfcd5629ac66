import type { Call } from '@plate-fold/core/plan';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { documentClosed, documentOpened, edited, redone, theirsTaken, undone } from './plan-actions';

/** The change that is held in the hand: shown, but not made before it is let go. */
export interface PreviewState {
  readonly call?: Call;
}
const initialState: PreviewState = {};

export const previewSlice = createSlice({
  name: 'preview',
  initialState,
  reducers: {
    previewed: (_, a: PayloadAction<Call>) => ({ call: a.payload }),
    previewDropped: () => initialState,
  },
  extraReducers: build => {
    for (const made of [documentOpened, documentClosed, edited, undone, redone, theirsTaken])
      build.addCase(made, () => initialState);
  },
});
export const { previewed, previewDropped } = previewSlice.actions;
