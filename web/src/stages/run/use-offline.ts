import { useEffect } from 'react';

/** Keeps the interface on this device from the first opened run on, where the browser lets a page do that. */
export function useOffline(): void {
  useEffect(() => {
    if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
    // not kept is no fault of the run: it goes on as long as the page stays open
    navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  }, []);
}
