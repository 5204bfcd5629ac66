import { useStore } from 'react-redux';
import { type RootState, useApp, useDo } from '../store';
import type { Bound } from './bound';

/** A command of the frame for a button: what it is called now, whether it can be done, and how. */
export function useBound(b: Bound): {
  readonly label: string;
  readonly enabled: boolean;
  readonly run: () => void;
} {
  const dispatch = useDo();
  const store = useStore<RootState>();
  const label = useApp(b.label);
  const enabled = useApp(b.enabled);
  return { label, enabled, run: () => b.run(dispatch, store.getState()) };
}
