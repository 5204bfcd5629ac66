import { useStore } from 'react-redux';
import { type RootState, useAppDispatch, useAppSelector } from '../store';
import type { Bound } from './bound';

/** A command of the frame for a button: what it is called now, whether it can be done, and how. */
export function useBound(b: Bound): {
  readonly label: string;
  readonly enabled: boolean;
  readonly run: () => void;
} {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const label = useAppSelector(b.label);
  const enabled = useAppSelector(b.enabled);
  return { label, enabled, run: () => b.run(dispatch, store.getState()) };
}
