import type { Facts } from '@plate-fold/core/derive';
import { lengthFigure, massFigure, type UnitSystem } from '@plate-fold/core/units';
import { memo } from 'react';
import { sheetName } from '../ui/names';
import { extentOf } from './paths';
import type { SheetScale } from './sheet-scale';

const CARD = 130;
/** Below this width the sheet is left to the plate's own panel, px. */
const NARROW = 160;
const WIDEST = 240;
const ROW = 58;
/** A card may slide this far, px, to stand beside its neighbor rather than below it. */
const SLIDE = 48;

interface Placed {
  readonly id: string;
  readonly left: number;
  readonly width: number;
  readonly row: number;
}

/** Cards stand under their plates; where two would overlap by much the next row takes one. */
export function placeCards(facts: Facts, scale: SheetScale): readonly Placed[] {
  const ends: number[] = [];
  return facts.plates
    .map(p => {
      const [a, b] = extentOf(p).map(scale.X) as [number, number];
      const right = Math.min(scale.width - 2, Math.max(a, b, Math.min(a, b) + CARD));
      return { id: p.panel.id, left: Math.max(2, Math.min(a, b, right - CARD)), right };
    })
    .sort((a, b) => a.left - b.left)
    .map(({ id, left, right }) => {
      const fits = (end: number): boolean =>
        end - left <= SLIDE && Math.max(end, left) + CARD <= Math.max(right, scale.width - 2);
      let row = ends.findIndex(fits);
      if (row < 0) row = ends.length;
      const from = Math.max(left, ends[row] ?? 0);
      const width = Math.min(WIDEST, Math.max(CARD, right - from));
      ends[row] = from + width;
      return { id, left: from, width, row };
    });
}

/** Height of the strip in pixels for the rows it needs. */
export const stripHeight = (facts: Facts, scale: SheetScale): number =>
  Math.max(1, ...placeCards(facts, scale).map(c => c.row + 1)) * ROW + 6;

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
  return (
    <div className="relative" style={{ height: stripHeight(facts, scale) }}>
      {cards.map(c => {
        const p = facts.plates.find(x => x.panel.id === c.id);
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
            className={`absolute overflow-hidden rounded-tight border bg-paper px-2 py-1 text-left leading-tight ${chosen ? 'border-fluid ring-1 ring-fluid' : 'border-scribe'}`}
            style={{ left: c.left, width: c.width - 4, top: c.row * ROW + 4, height: ROW - 4 }}
          >
            <span className="block truncate text-small font-bold">
              {p.panel.mark} {p.panel.name}
            </span>
            <span className="block truncate text-fine text-ink2">
              <span className="fig text-lead text-ink">{mass.value}</span> {mass.unit}
              {c.width >= NARROW && `, ${sheetName(p.sheet)}`}
            </span>
            <span className="block truncate text-fine text-ink2">
              {gap ? (
                <>
                  clear <span className="fig">{gap.value}</span> {gap.unit}
                </>
              ) : (
                'nothing above'
              )}
            </span>
          </button>
        );
      })}
    </div>
  );
});
