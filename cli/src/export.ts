import { readFileSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { basename, dirname, join } from 'node:path';
import { barCuts, hardwareList, toolList } from '@plate-fold/core/bolt';
import { buildBook, templatePdf } from '@plate-fold/core/book';
import type { Facts } from '@plate-fold/core/derive';
import { flatPattern, foldedSolid, NEST_DEFAULTS, nest, shopOf } from '@plate-fold/core/fold';
import {
  barCutsCsv,
  bendTableCsv,
  glb,
  hardwareListCsv,
  holeTableCsv,
  nestDxf,
  patternDxf,
  patternSvg,
  plateFiles,
  remindersIcs,
  stl,
  toolListCsv,
} from '@plate-fold/core/formats';
import { dueList } from '@plate-fold/core/log';
import { writeDocument } from '@plate-fold/core/plan';
import { MATERIALS } from '@plate-fold/core/sheet';
import type { UnitSystem } from '@plate-fold/core/units';

const FONT_FILES = 'files/atkinson-hyperlegible-next-latin-';
/** A font of the book, as its package ships it. */
const bookFont = (weight: number): Uint8Array => {
  const from = createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json');
  return readFileSync(join(dirname(from), `${FONT_FILES}${weight}-normal.woff`));
};

type File = readonly [name: string, content: string | Uint8Array];
type Files = (facts: Facts, system: UnitSystem) => readonly File[];

const perPlate =
  (ending: string, text: (facts: Facts, i: number, system: UnitSystem) => string): Files =>
  (facts, system) =>
    plateFiles(facts.panels.map(p => p.panel)).map(
      (name, i) => [`${name}.${ending}`, text(facts, i, system)] as const,
    );

const plate = (facts: Facts, i: number): Facts['panels'][number] => {
  const p = facts.panels[i];
  if (!p) throw new Error(`no plate ${i}`);
  return p;
};

/** Every stock sheet of the build's nest, on the sheets of the plan's shop. */
const nestFiles: Files = (facts, system) => {
  const patterns = facts.panels.map(flatPattern);
  const { sheets } = nest(facts.panels, { ...NEST_DEFAULTS, sheets: shopOf(facts.document.plan).sheets });
  return sheets.map((s, i) => [
    `nest-${i + 1}-${MATERIALS[s.material].short.replaceAll(' ', '-')}-${Math.round(s.thickness * 100) / 100}mm.dxf`,
    nestDxf(s, patterns, system),
  ]);
};
/** Crossbars as they are sawn and drilled. */
const cutsOf = ({ document, joints }: Facts) => barCuts(document.plan.crossbars, joints, document.plan.holes);
const plateDxf = perPlate('dxf', (f, i, system) => patternDxf(flatPattern(plate(f, i)), system));

/** What can be exported, by the word after `--as`. */
export const EXPORTS: Readonly<Record<string, Files>> = {
  dxf: (facts, system) => [...plateDxf(facts, system), ...nestFiles(facts, system)],
  template: (facts, system) =>
    plateFiles(facts.panels.map(p => p.panel)).map((name, i) => [
      `${name}-template.pdf`,
      templatePdf(facts, {
        panels: [plate(facts, i).panel.id],
        paper: system === 'inch' ? 'letter' : 'a4',
        fonts: { plain: bookFont(400), bold: bookFont(700) },
      }),
    ]),
  svg: perPlate('svg', (f, i, system) => patternSvg(flatPattern(plate(f, i)), system)),
  stl: perPlate('stl', (f, i) => stl(`plate ${plate(f, i).panel.mark}`, foldedSolid(plate(f, i)))),
  glb: facts => [
    [
      `${facts.document.plan.id}.glb`,
      glb(
        facts.document.plan.name,
        facts.panels.map(p => ({
          name: `${p.panel.mark} ${p.panel.name}`,
          family: p.material.family,
          triangles: foldedSolid(p),
        })),
      ),
    ],
  ],
  csv: (facts, units) => [
    ['hardware-list.csv', hardwareListCsv(hardwareList(facts.joints))],
    ['tools.csv', toolListCsv(toolList(facts.joints, facts), units)],
    ['bends.csv', bendTableCsv(facts.panels, shopOf(facts.document.plan), units)],
    ['holes.csv', holeTableCsv(facts.panels, facts.joints, units)],
    ...(facts.rig.bars.length > 0 ? [['crossbars.csv', barCutsCsv(cutsOf(facts), units)] as const] : []),
  ],
  pdf: (facts, units) => [
    [
      `${facts.document.plan.id}-build-book.pdf`,
      buildBook(facts, {
        fonts: { plain: bookFont(400), bold: bookFont(700) },
        units,
        side: 'head-front',
        at: Date.now(),
      }),
    ],
  ],
  ics: facts => [
    [
      `${facts.document.plan.id}.ics`,
      remindersIcs(
        facts.document.plan.name,
        // a plan file holds no log: reminders as if it were installed today
        dueList(
          facts.document,
          facts.rig,
          [{ id: 'today', kind: 'install', at: Date.now() }],
          Date.now(),
        ).map(d => ({
          uid: `${facts.document.plan.id}-${d.id}@plate-fold`,
          at: d.at,
          what: `${d.what}: ${facts.document.rig.name}`,
          why: d.why,
        })),
        Date.now(),
      ),
    ],
  ],
  json: facts => [[`${facts.document.plan.id}.platefold.json`, writeDocument(facts.document)]],
};

/** Writes the files of an export into a folder, which is made if need be. Returns their paths. */
export async function exportFiles(
  facts: Facts,
  as: string,
  out: string,
  system: UnitSystem,
): Promise<readonly string[]> {
  const files = EXPORTS[as]?.(facts, system) ?? [];
  await mkdir(out, { recursive: true });
  // names come from the plan: whatever they hold, a file lies in the folder that was named
  const paths = files.map(([name, content]) => [join(out, basename(name)), content] as const);
  for (const [path, content] of paths) await writeFile(path, content);
  return paths.map(([path]) => path);
}
