import { type FaultKind, holdsOpen } from './fault-kinds';
import type { Tick } from './tick';

/** A bolt that is not sound, and what was last decided about it. */
export interface BoltFault {
  readonly joint: string;
  readonly fault: FaultKind;
  /** the tick that reported it */
  readonly tick: Tick;
  /** which one it is of its joint, from 1 */
  readonly n: number;
  readonly state: 'open' | 'mended' | 'overridden';
  /** the tick that mended it or let it pass, with its reason in `note` */
  readonly by?: Tick;
}

/** The last step of a repair: done, the bolt counts as sound again. */
export const mendedId = (joint: string, n: number): string => `mended-${joint}-${n}`;

const inTime = (a: Tick, b: Tick): number => a.at - b.at || (a.id < b.id ? -1 : 1);

/** Every bolt of a run that was not sound at some time, by its newest report, and how it stands now. By joint id. */
export function boltFaults(ticks: readonly Tick[]): ReadonlyMap<string, BoltFault> {
  const out = new Map<string, BoltFault>();
  for (const t of [...ticks].sort(inTime)) {
    const mended = [...out.values()].find(f => mendedId(f.joint, f.n) === t.stepId);
    const known = t.jointId === null ? undefined : out.get(t.jointId);
    if (t.kind === 'deviation' && t.jointId !== null && t.fault && holdsOpen(t.fault))
      out.set(t.jointId, {
        joint: t.jointId,
        fault: t.fault,
        tick: t,
        n: (known?.n ?? 0) + 1,
        state: 'open',
      });
    else if (known && t.kind === 'override') out.set(known.joint, { ...known, state: 'overridden', by: t });
    else if (mended && t.kind === 'done') out.set(mended.joint, { ...mended, state: 'mended', by: t });
    else if (mended && t.kind === 'undone') {
      const { by: _, ...open } = mended;
      out.set(mended.joint, { ...open, state: 'open' });
    }
  }
  return out;
}

/** Bolts that keep a run from being done. */
export const openFaults = (ticks: readonly Tick[]): readonly BoltFault[] =>
  [...boltFaults(ticks).values()].filter(f => f.state === 'open');
