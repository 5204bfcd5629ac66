import type { Vec2 } from '../../../geometry';
import { err } from '../../../units';
import type { Opening } from '../../plan';
import { command, plateNamed } from '../command';
import { openingRemoved, openingSet } from '../openings';

/** Adds an opening, or puts another in the place of the one of that id. */
export const setOpening = command<{ readonly panel: string; readonly opening: Opening }>({
  id: 'opening.set',
  label: (doc, { panel, opening }) => {
    const there = doc.plan.panels.find(p => p.id === panel)?.openings.some(o => o.id === opening.id);
    return there
      ? `change an opening of ${plateNamed(doc, panel)}`
      : `add an opening to ${plateNamed(doc, panel)}`;
  },
  run: (doc, { panel, opening }) => openingSet(doc, panel, opening),
});

/** `at` in the plate's own sheet, mm. */
export const moveOpening = command<{ readonly panel: string; readonly opening: string; readonly at: Vec2 }>({
  id: 'opening.move',
  label: (doc, { panel }) => `move an opening of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, opening, at }) => {
    const o = doc.plan.panels.find(p => p.id === panel)?.openings.find(x => x.id === opening);
    return o ? openingSet(doc, panel, { ...o, at }) : err('there is no such opening');
  },
});

export const removeOpening = command<{ readonly panel: string; readonly opening: string }>({
  id: 'opening.remove',
  label: (doc, { panel }) => `delete an opening of ${plateNamed(doc, panel)}`,
  run: (doc, { panel, opening }) => openingRemoved(doc, panel, opening),
});
