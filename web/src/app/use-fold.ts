import { type UIEvent, useCallback, useRef, useState } from 'react';

/** Scrolled further down than this the frame folds away; nearer to the top, or well up again, it is back. px */
const AWAY = 64;
const UP = 48;

/** Whether the frame is folded away for the work: as one scrolls down on a phone, until one comes back up. */
export function useFold() {
  const [folded, setFolded] = useState(false);
  const last = useRef(0);
  const watch = useCallback((e: UIEvent<HTMLElement>) => {
    const el = e.target as HTMLElement;
    // only what fills the stage; a list or a table that scrolls within it does not count
    if (!el.hasAttribute('data-stage-scroll')) return;
    const top = el.scrollTop;
    if (top < AWAY / 2) {
      setFolded(false);
      last.current = top;
    } else if (top > Math.max(AWAY, last.current)) {
      setFolded(true);
      last.current = top;
    } else if (top < last.current - UP) {
      setFolded(false);
      last.current = top;
    }
  }, []);
  return { folded, watch };
}
