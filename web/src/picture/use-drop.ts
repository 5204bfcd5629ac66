import { type RefObject, useEffect, useRef } from 'react';

/** What is held in the hand is let go on Escape, before anything else hears of it: set it while something is held. */
export function useDrop(): RefObject<(() => void) | undefined> {
  const drop = useRef<(() => void) | undefined>(undefined);
  useEffect(() => {
    const onKey = (e: globalThis.KeyboardEvent): void => {
      if (e.key !== 'Escape' || !drop.current) return;
      e.stopPropagation();
      drop.current();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
  return drop;
}
