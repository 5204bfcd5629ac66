import { remakeBracket } from '../../bracket';
import {
  callOf,
  done,
  isBracket,
  type PlanDocument,
  panelWord,
  type SheetChoice,
  setSheets,
} from '../../plan';
import { MATERIALS, stockOf, stockThicknesses } from '../../sheet';
import { fixed } from '../../units';
import { plateWord } from '../finding';
import type { StruckRule } from './rule';

/** A bracket bent over its yield by less than this share still springs back but for a hair. */
const BENDS = 1.1;
/** So many times its yield as elastic sheet would bear says only that it bends, not by how much. */
const FAR_BEYOND = 3;
/** The thickest sheet that is offered, mm: bending stress falls with the square of the thickness, but what is bent that thick breaks bolts instead. */
const THICKEST = 12.7;

/** What was found for a plan: a page asks again with every answer that comes in. */
const known = new WeakMap<PlanDocument, Map<string, SheetChoice | undefined>>();

/** The next stock sheet of a bracket's metal that would bear what a strike asks of it; undefined where there is none that can be bent so. */
function sheetThatBears(
  doc: PlanDocument,
  bracket: string,
  sheet: SheetChoice,
  share: number,
): SheetChoice | undefined {
  const least = sheet.thickness * Math.sqrt(share);
  const of = known.get(doc) ?? new Map<string, SheetChoice | undefined>();
  known.set(doc, of);
  const key = JSON.stringify([bracket, sheet, least]);
  if (of.has(key)) return of.get(key);
  const found = stockThicknesses(sheet.material, stockOf(sheet.material, sheet.thickness))
    .filter(s => s.thickness >= least && s.thickness <= THICKEST)
    .map(s => ({ ...sheet, ...s }))
    .find(s => done(remakeBracket, doc, { bracket, sheet: s }).ok);
  of.set(key, found);
  return found;
}

/** The next stock sheet of a plate's metal by which a wing bolted to it does not bend it; undefined where there is none. */
const plateThatBears = (sheet: SheetChoice, share: number): SheetChoice | undefined => {
  const next = stockThicknesses(sheet.material, stockOf(sheet.material, sheet.thickness)).find(
    s => s.thickness >= sheet.thickness * Math.sqrt(share) && s.thickness <= THICKEST,
  );
  return next && { ...sheet, ...next };
};

export const bracketBends: StruckRule = {
  id: 'bracket-bends',
  why: 'A bracket that bends for good lets its plate hang low, and cracks when it is bent back.',
  find: (facts, struck, words) =>
    struck.brackets.flatMap(b => {
      const share = b.vonMisesMPa / b.yieldMPa;
      const panel = facts.panels.find(p => p.panel.id === b.panel);
      if (share <= BENDS || !panel) return [];
      const own = isBracket(panel.panel);
      const sheet = own
        ? sheetThatBears(facts.document, b.panel, panel.sheet, share)
        : plateThatBears(panel.sheet, share);
      return [
        {
          severity: 'fix' as const,
          where: 'strike' as const,
          about: [struck.panel, b.panel],
          text: `Struck, ${plateWord(facts, struck.panel)} lifts ${panelWord(panel.panel)} by ${words.length(b.riseMm)} and bends it for good: ${share > FAR_BEYOND ? 'far beyond' : `${fixed(share * 100, 0)} % of`} its yield.`,
          ...(sheet
            ? {
                remedy: `Make it of ${sheet.gauge ?? words.fine(sheet.thickness)} ${MATERIALS[sheet.material].name}.`,
                mend: own
                  ? callOf(remakeBracket, { bracket: b.panel, sheet })
                  : callOf(setSheets, { build: facts.build.id, sheets: { [b.panel]: sheet } }),
              }
            : {
                remedy: own
                  ? 'Hang the plate by a second bracket beside it, or bolt it nearer to the hole.'
                  : `Hold ${plateWord(facts, struck.panel)} by a bracket to the vehicle at its free edge.`,
              }),
        },
      ];
    }),
};
