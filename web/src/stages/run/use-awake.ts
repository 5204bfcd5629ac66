import { useEffect } from 'react';

/** Keeps the screen lit while a run is open, where the browser lets a page do that: on this machine or over https. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const hold = (): void => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then(l => {
          if (gone) void l.release();
          else lock = l;
        })
        // a low battery or the owner's settings may refuse it
        .catch(() => undefined);
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [on]);
}
