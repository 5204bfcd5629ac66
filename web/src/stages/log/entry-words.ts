import type { Facts } from '@plate-fold/core/derive';
import { type LogEntry, preloadLost } from '@plate-fold/core/log';
import { formatLength, formatMass, type UnitSystem } from '@plate-fold/core/units';

/** What an entry says, in words, for lists. */
export const inWords = (e: LogEntry, facts: Facts, units: UnitSystem): string => {
  const mark = facts.document.plan.panels.find(p => p.id === e.panel)?.mark;
  const worst = Math.max(0, ...(e.readings ?? []).map(preloadLost));
  const bad = (e.checks ?? []).filter(c => !c.fine);
  return [
    mark && `plate ${mark}`,
    e.dentMm !== undefined &&
      `dent ${formatLength(e.dentMm, units, true)}${e.foreseenMm === undefined ? '' : `, predicted ${formatLength(e.foreseenMm, units, true)}`}`,
    e.point && (facts.document.rig.servicePoints.find(s => s.id === e.point)?.name ?? e.point),
    e.minutes !== undefined && `${Math.round(e.minutes)} min`,
    e.readings &&
      `${e.readings.length} ${e.readings.length === 1 ? 'bolt' : 'bolts'}, most lost ${Math.round(100 * worst)} %`,
    e.checks &&
      (bad.length === 0
        ? `${e.checks.length} checks, all OK`
        : `${bad.length} not OK: ${bad.map(c => c.note || c.item).join('; ')}`),
    e.corners?.map(c => (e.kind === 'weights' ? formatMass(c, units) : formatLength(c, units))).join(' / '),
  ]
    .filter(Boolean)
    .join(', ');
};
