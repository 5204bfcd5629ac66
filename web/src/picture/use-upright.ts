import { useSyncExternalStore } from 'react';

const QUERY = '(orientation: portrait) and (width < 60rem)';

/** Whether a phone or tablet is held upright: the vehicle's front is then up in a picture. */
export const useUpright = (): boolean =>
  useSyncExternalStore(
    told => {
      const query = window.matchMedia(QUERY);
      query.addEventListener('change', told);
      return () => query.removeEventListener('change', told);
    },
    () => window.matchMedia(QUERY).matches,
  );
