import { type RefCallback, useCallback, useState } from 'react';

/** Width and height of an element, followed as it comes, changes and goes. */
export function useSize<T extends Element>(): [RefCallback<T>, { width: number; height: number }] {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const ref = useCallback((el: T | null) => {
    if (!el) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(el);
    return () => watch.disconnect();
  }, []);
  return [ref, size];
}
