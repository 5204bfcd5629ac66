import { useSyncExternalStore } from 'react';

/** Whether a media query holds, followed as it changes. */
const useMedia = (query: string): boolean =>
  useSyncExternalStore(
    told => {
      const list = window.matchMedia(query);
      list.addEventListener('change', told);
      return () => list.removeEventListener('change', told);
    },
    () => window.matchMedia(query).matches,
  );

/** Whether the page is laid out for a phone, as the style sheet tells it from a desk. */
export const useNarrow = (): boolean => useMedia('screen and (width < 60rem)');

/** Whether a phone has so little height that the side view folds to a line. */
export const useShort = (): boolean => useMedia('screen and (width < 60rem) and (height < 46rem)');

/** Whether a phone or tablet is held upright: the vehicle's front is then up in a picture. */
export const useUpright = (): boolean => useMedia('screen and (orientation: portrait) and (width < 60rem)');
