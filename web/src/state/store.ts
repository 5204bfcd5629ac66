import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api';
import { autosave, warnBeforeLeaving } from './autosave';
import { planSlice } from './plan-slice';
import { struckSlice } from './struck-slice';
import { keepView, viewSlice } from './view-slice';

export const store = configureStore({
  reducer: {
    plan: planSlice.reducer,
    view: viewSlice.reducer,
    struck: struckSlice.reducer,
    [api.reducerPath]: api.reducer,
  },
  // documents are large, plain and frozen by use: the development checks would walk them on every edit
  middleware: get =>
    get({ serializableCheck: false, immutableCheck: false })
      .prepend(autosave.middleware)
      .concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useApp = useSelector.withTypes<RootState>();
export const useDo = useDispatch.withTypes<typeof store.dispatch>();

warnBeforeLeaving(() => store.getState().plan);

let shown = store.getState().view;
const dress = (): void => {
  document.documentElement.dataset.theme = shown.theme;
};
dress();
store.subscribe(() => {
  const { view } = store.getState();
  if (view === shown) return;
  shown = view;
  dress();
  keepView(view);
});
