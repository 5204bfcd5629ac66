import { takeTape } from '@plate-fold/core/units';
import { combineReducers, configureStore, type Middleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api';
import { makeAutosave, warnBeforeLeaving } from './autosave';
import { documentReducer } from './document-slice';
import { fitSlice } from './fit-slice';
import { previewSlice } from './preview-slice';
import { struckSlice } from './struck-slice';
import { syncSlice } from './sync-slice';
import { keepView, viewSlice } from './view-slice';

/**
 * Documents and what is struck of them: large, plain, never changed. The development checks leave them out, and with them the files that
 * requests carry; everything else in the store is walked at every action.
 */
const LARGE = [
  'document',
  'sync.acknowledged',
  'sync.conflict',
  'struck.of',
  'fit.of',
  'preview.call.args',
  /^api\.(queries|mutations)\./,
];

const reducers = () =>
  combineReducers({
    document: documentReducer(),
    sync: syncSlice.reducer,
    preview: previewSlice.reducer,
    view: viewSlice.reducer,
    struck: struckSlice.reducer,
    fit: fitSlice.reducer,
    [api.reducerPath]: api.reducer,
  });

/** Stands where saving would. */
const idle: Middleware = () => next => action => next(action);

/** A store of its own: the application has one, tests and benchmarks as many as they like; those save nothing unless told to. */
export const makeStore = ({ saves = false } = {}) =>
  configureStore({
    reducer: reducers(),
    middleware: get =>
      get({
        immutableCheck: { ignoredPaths: LARGE },
        serializableCheck: {
          ignoredPaths: LARGE,
          ignoredActionPaths: [
            'payload.document',
            'payload.of',
            'payload.args',
            'meta.arg',
            'meta.baseQueryMeta',
          ],
        },
      })
        .prepend(saves ? makeAutosave().middleware : idle)
        .concat(api.middleware),
  });

export const store = makeStore({ saves: true });

export type RootState = ReturnType<ReturnType<typeof reducers>>;
export type Dispatch = typeof store.dispatch;
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppDispatch = useDispatch.withTypes<Dispatch>();

/** What only a page has to see to: nothing unsaved is left without a word, and the reader's preferences are kept and shown. */
export function attachToPage(): void {
  warnBeforeLeaving(() => store.getState().sync);
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
    takeTape(view.tape);
    keepView(view);
  });
}
