import type { LogEntry, TorqueReading } from './entry';

/**
 * Share of preload lost since a bolt was tightened, 0 to 1, taken as the share of torque lost: T = K·d·F with K unchanged (Shigley Eq.
 * 8-27). The torque at which a bolt begins to move again stands higher than the one that tightened it, since it must break loose first,
 * so the loss is if anything more: an estimate.
 */
export const preloadLost = ({ set, found }: Pick<TorqueReading, 'set' | 'found'>): number =>
  Math.max(0, Math.min(1, 1 - found / set));

/** A bolt that lost more than this wants looking at, not only tightening: common practice, no source. */
export const LOST_MUCH = 0.2;

/** How a bolt held over the times it was gone round with the wrench, oldest first. */
export interface PreloadHistory {
  readonly joint: string;
  readonly times: readonly {
    readonly at: number;
    readonly km?: number;
    readonly lost: number;
    readonly found: number;
  }[];
  /** the most it ever lost between two tightenings */
  readonly worst: number;
}

/** Preload lost by every bolt that was ever read again, the worst first. */
export function preloadHistories(log: readonly LogEntry[]): readonly PreloadHistory[] {
  const by = new Map<string, PreloadHistory['times'][number][]>();
  for (const e of [...log].sort((a, b) => a.at - b.at))
    for (const r of e.kind === 're-torque' ? (e.readings ?? []) : []) {
      const list = by.get(r.joint) ?? [];
      list.push({
        at: e.at,
        ...(e.km === undefined ? {} : { km: e.km }),
        lost: preloadLost(r),
        found: r.found,
      });
      by.set(r.joint, list);
    }
  return [...by]
    .map(([joint, times]) => ({ joint, times, worst: Math.max(...times.map(t => t.lost)) }))
    .sort((a, b) => b.worst - a.worst || a.joint.localeCompare(b.joint, 'en', { numeric: true }));
}

/** Torque every bolt was last left at, N·m: by the log's re-torques, else by the run that tightened it. */
export function lastSet(
  log: readonly LogEntry[],
  run: ReadonlyMap<string, number>,
): ReadonlyMap<string, number> {
  const out = new Map(run);
  for (const e of [...log].sort((a, b) => a.at - b.at))
    for (const r of e.readings ?? []) if (r.after > 0) out.set(r.joint, r.after);
  return out;
}
