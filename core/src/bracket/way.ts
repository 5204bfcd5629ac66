import { clashesOf } from '../cover';
import { brakeOrder, type FoldedPanel, foldPanel } from '../fold';
import { type Panel, panelWord, type SheetChoice, type Shop, UNMARKED } from '../plan';
import { memberName, type PresentRig } from '../rig';
import type { BracketShape } from './between';

/** A shape as a bracket of a plan, without a mark. */
export const asPanel = (id: string, shape: BracketShape, sheet: SheetChoice): Panel => ({
  id,
  mark: UNMARKED,
  name: 'bracket',
  role: 'bracket',
  sheet,
  openings: [],
  guards: [],
  ...shape,
});

/** What a bracket of that shape would run into, in a few words; nothing where it is free. Whom it is bolted to it may touch. */
export function inTheWay(
  shape: BracketShape,
  sheet: SheetChoice,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
  shop: Shop,
): string | undefined {
  const own = foldPanel(asPanel('new bracket', shape, sheet), sheet, shop.kFactors);
  if (own.bends.length > 1 && brakeOrder(own, shop).blocked.length > 0)
    return `the brake at ${shop.name} cannot bend it: its legs hit the tools`;
  const [clash] = clashesOf(rig, own, panels);
  if (!clash) return undefined;
  const { kind, id } = clash.with;
  const name =
    kind === 'ground'
      ? 'the ground'
      : kind === 'part'
        ? `the ${rig.components.find(c => c.id === id)?.name ?? id}`
        : kind === 'member'
          ? `the ${memberName(rig, id)}`
          : panelWord(panels.find(p => p.panel.id === id)?.panel ?? { mark: id });
  return `${name} is in the way`;
}
