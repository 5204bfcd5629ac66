/** Whoever listens to a run is told when something in it is new; nothing is kept. */
export interface RunEvents {
  /** calls `hear` with every event of the run from now on; the answer ends that */
  readonly listen: (run: string, hear: (event: string, data: unknown) => void) => () => void;
  /** calls `hear` whenever any run tells such an event */
  readonly whenever: (event: string, hear: (run: string) => void) => void;
  readonly tell: (run: string, event: string, data: unknown) => void;
}

export function runEvents(): RunEvents {
  const always: { readonly event: string; readonly hear: (run: string) => void }[] = [];
  const listeners = new Map<string, Set<(event: string, data: unknown) => void>>();
  return {
    listen: (run, hear) => {
      const set = listeners.get(run) ?? new Set();
      listeners.set(run, set);
      set.add(hear);
      return () => {
        set.delete(hear);
        if (set.size === 0) listeners.delete(run);
      };
    },
    whenever: (event, hear) => void always.push({ event, hear }),
    tell: (run, event, data) => {
      for (const a of always) if (a.event === event) a.hear(run);
      for (const hear of listeners.get(run) ?? []) hear(event, data);
    },
  };
}
