import { type RefObject, useEffect, useRef, useState } from 'react';

/** Width and height of an element, followed as it changes. */
export function useSize<T extends Element>(): [RefObject<T | null>, { width: number; height: number }] {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(el);
    return () => watch.disconnect();
  }, []);
  return [ref, size];
}
