import { useSyncExternalStore } from 'react';

/** As the style sheet tells a phone from a desk. */
const QUERY = '(width < 60rem)';

/** Whether the page is laid out for a phone. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    told => {
      const query = window.matchMedia(QUERY);
      query.addEventListener('change', told);
      return () => query.removeEventListener('change', told);
    },
    () => window.matchMedia(QUERY).matches,
  );
