import type { Tick } from '@plate-fold/core';
import type { Run } from '../../app/api';

const TICK = 'plate-fold tick';
const RUN = 'plate-fold run';
const DEVICE = 'plate-fold device';

const random = (): string => Math.random().toString(36).slice(2, 10);

/** This device's own name in the record. */
export function deviceName(): string {
  let name = localStorage.getItem(DEVICE);
  if (!name) {
    name = random();
    try {
      localStorage.setItem(DEVICE, name);
    } catch {
      // a full store costs the name, not the record
    }
  }
  return name;
}

/** An id no other device makes; not crypto.randomUUID, which a page from the local network does not have. */
export const freshTickId = (): string => `${Date.now().toString(36)}-${random()}${random()}`;

const tickKey = (run: string, id: string): string => `${TICK} ${run} ${id}`;

/** Writes a tick to this device, each under a key of its own so that two tabs never overwrite one another. */
export function keepTick(run: string, tick: Tick): boolean {
  try {
    localStorage.setItem(tickKey(run, tick.id), JSON.stringify(tick));
    return true;
  } catch {
    return false;
  }
}

export const dropTick = (run: string, id: string): void => localStorage.removeItem(tickKey(run, id));

/** Ticks of a run that the server has not acknowledged, oldest first. A torn entry is left out. */
export function waitingTicks(run: string): readonly Tick[] {
  const prefix = `${TICK} ${run} `;
  return Object.keys(localStorage)
    .filter(k => k.startsWith(prefix))
    .flatMap(k => {
      try {
        return [JSON.parse(localStorage.getItem(k) ?? '') as Tick];
      } catch {
        return [];
      }
    })
    .sort((a, b) => a.at - b.at);
}

/** Keeps the run itself, so that a reload finds it while the server is away. */
export function keepRun(run: Run): void {
  try {
    for (const k of Object.keys(localStorage))
      if (k.startsWith(`${RUN} `) && k !== `${RUN} ${run.id}`) localStorage.removeItem(k);
    localStorage.setItem(`${RUN} ${run.id}`, JSON.stringify(run));
  } catch {
    // the server still has it
  }
}

export function keptRun(id: string): Run | undefined {
  try {
    return (JSON.parse(localStorage.getItem(`${RUN} ${id}`) ?? 'null') as Run | null) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Two sets of ticks as one, each tick once. */
export const mergeTicks = (a: readonly Tick[], b: readonly Tick[]): readonly Tick[] => [
  ...new Map([...a, ...b].map(t => [t.id, t])).values(),
];
