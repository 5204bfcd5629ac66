import { type Facts, lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core';
import { memo } from 'react';
import { sheetName } from '../ui/names';
import { extentOf } from './paths';
import type { SheetScale } from './sheet-scale';

const CARD = 128;

interface Placed {
  readonly id: string;
  readonly left: number;
  readonly width: number;
  readonly row: number;
}

/** Cards stand under their plates; where two would overlap the next row takes one. */
export function placeCards(facts: Facts, scale: SheetScale): readonly Placed[] {
  const ends: number[] = [];
  return facts.panels
    .map(p => {
      const [a, b] = extentOf(p).map(scale.X) as [number, number];
      const width = Math.max(CARD, Math.min(Math.abs(a - b), 240));
      const left = Math.max(2, Math.min(scale.width - width - 2, Math.min(a, b)));
      return { id: p.panel.id, left, width };
    })
    .sort((a, b) => a.left - b.left)
    .map(c => {
      let row = ends.findIndex(end => end <= c.left + 1);
      if (row < 0) row = ends.length;
      ends[row] = c.left + c.width;
      return { ...c, row };
    });
}

/** A strip of figures per plate, each at the place of its plate along the vehicle. */
export const PlateStrip = memo(function PlateStrip(props: {
  readonly facts: Facts;
  readonly scale: SheetScale;
  readonly units: UnitSystem;
  readonly panel?: string;
  readonly onPanel: (id: string) => void;
}) {
  const { facts, scale, units, panel, onPanel } = props;
  const cards = placeCards(facts, scale);
  const rows = Math.max(1, ...cards.map(c => c.row + 1));
  return (
    <div className="relative" style={{ height: rows * 62 + 6 }}>
      {cards.map(c => {
        const p = facts.panels.find(x => x.panel.id === c.id);
        if (!p) return null;
        const mass = massFigure(p.massKg, units);
        const gaps = facts.gaps.filter(
          g => g.panel === c.id && !facts.rig.components.find(x => x.id === g.component)?.moves,
        );
        const gap = gaps.length > 0 ? lengthFigure(Math.min(...gaps.map(g => g.gapMm)), units) : undefined;
        const chosen = panel === c.id;
        return (
          <button
            key={c.id}
            type="button"
            aria-pressed={chosen}
            onClick={() => onPanel(c.id)}
            className={`absolute overflow-hidden rounded-[3px] border bg-paper px-2 py-1 text-left leading-tight ${chosen ? 'border-fluid ring-1 ring-fluid' : 'border-scribe'}`}
            style={{ left: c.left, width: c.width - 4, top: c.row * 62 + 4, height: 58 }}
          >
            <span className="block truncate text-[13px] font-bold">
              {p.panel.mark} {p.panel.name}
            </span>
            <span className="fig block text-[16px]">
              {mass.value}
              <span className="ml-1 text-[11px] text-ink2">{mass.unit}</span>
              {gap && (
                <span className="ml-2 text-[12px] text-ink2">
                  gap {gap.value} {gap.unit}
                </span>
              )}
            </span>
            <span className="block truncate text-[11.5px] text-ink2">{sheetName(p.sheet)}</span>
          </button>
        );
      })}
    </div>
  );
});
