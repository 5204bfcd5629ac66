import type { Tick } from '@plate-fold/core/sequence';
import { nanoid } from 'nanoid';
import type { Run } from '../../state/api';

const TICK = 'plate-fold tick';
const ASIDE = 'plate-fold aside';
const RUN = 'plate-fold run';
const DEVICE = 'plate-fold device';

/** This device's own name in the record. */
export function deviceName(): string {
  let name = localStorage.getItem(DEVICE);
  if (!name) {
    name = nanoid(8);
    try {
      localStorage.setItem(DEVICE, name);
    } catch {
      // a full store costs the name, not the record
    }
  }
  return name;
}

/** An id no other device makes. */
export const freshTickId = (): string => nanoid();

const tickKey = (run: string, id: string): string => `${TICK} ${run} ${id}`;

/** Ticks that the device's store had no room for: they live as long as the page does. */
const unkept = new Map<string, Tick>();

/** Writes a tick to this device, each under a key of its own so that two tabs never overwrite one another. False when only the page has it. */
export function keepTick(run: string, tick: Tick): boolean {
  try {
    localStorage.setItem(tickKey(run, tick.id), JSON.stringify(tick));
    return true;
  } catch {
    unkept.set(tickKey(run, tick.id), tick);
    return false;
  }
}

export function dropTick(run: string, id: string): void {
  unkept.delete(tickKey(run, id));
  localStorage.removeItem(tickKey(run, id));
  // there may be room now for what had none
  for (const [key, tick] of unkept)
    try {
      localStorage.setItem(key, JSON.stringify(tick));
      unkept.delete(key);
    } catch {
      break;
    }
}

/** Ticks of a run that only this page has: lost when it is closed before they are sent. */
export const unkeptTicks = (run: string): number =>
  [...unkept.keys()].filter(k => k.startsWith(`${TICK} ${run} `)).length;

/** Takes a tick that the server refuses out of what is sent, and keeps it with the reason. */
export function setTickAside(run: string, id: string, fault: string): void {
  const tick = waitingTicks(run).find(t => t.id === id);
  try {
    if (tick) localStorage.setItem(`${ASIDE} ${run} ${id}`, JSON.stringify({ tick, fault }));
  } catch {
    // no room for it: it is told on the screen all the same
  }
  dropTick(run, id);
}

/** Ticks of a run that the server has not acknowledged, oldest first. A torn entry is left out. */
export function waitingTicks(run: string): readonly Tick[] {
  const prefix = `${TICK} ${run} `;
  return [
    ...Object.keys(localStorage)
      .filter(k => k.startsWith(prefix))
      .flatMap(k => {
        try {
          return [JSON.parse(localStorage.getItem(k) ?? '') as Tick];
        } catch {
          return [];
        }
      }),
    ...[...unkept].flatMap(([k, t]) => (k.startsWith(prefix) ? [t] : [])),
  ].sort((a, b) => a.at - b.at);
}

/** Keeps the run itself with every tick it is known to have, so that a reload finds it while the server is away. */
export function keepRun(run: Run): void {
  const key = `${RUN} ${run.id}`;
  const text = JSON.stringify(run);
  try {
    localStorage.setItem(key, text);
  } catch {
    // room is made of other runs first: the server still has them
    for (const k of Object.keys(localStorage))
      if (k.startsWith(`${RUN} `) && k !== key) localStorage.removeItem(k);
    try {
      localStorage.setItem(key, text);
    } catch {
      // one kept earlier lacks what was ticked since: better none, the server has it
      localStorage.removeItem(key);
    }
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
