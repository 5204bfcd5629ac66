import { barCuts } from '@plate-fold/core/bolt';
import { type FoldedPanel, flatPattern, foldedSolid, shopOf } from '@plate-fold/core/fold';
import {
  barCutsCsv,
  bendTableCsv,
  glb,
  holeTableCsv,
  patternDxf,
  patternSvg,
  plateFiles,
  stl,
} from '@plate-fold/core/formats';
import { Download } from 'lucide-react';
import { TemplateButton } from '../../shared/template-button';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { saveFile } from '../../ui/save-file';

/** What a shop is sent, as files. */
export function ShopFiles({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { panel } = folded;
  const file = plateFiles(facts.panels.map(p => p.panel))[
    facts.panels.findIndex(p => p.panel.id === panel.id)
  ];
  const part = (p: FoldedPanel) => ({
    name: `${p.panel.mark} ${p.panel.name}`,
    family: p.material.family,
    triangles: foldedSolid(p),
  });
  const files: readonly (readonly [string, () => void])[] = [
    ['Blank, DXF', () => saveFile(`${file}.dxf`, patternDxf(flatPattern(folded), units), 'image/vnd.dxf')],
    ['Blank, SVG', () => saveFile(`${file}.svg`, patternSvg(flatPattern(folded), units), 'image/svg+xml')],
    [
      'Folded, STL',
      () => saveFile(`${file}.stl`, stl(`plate ${panel.mark}`, foldedSolid(folded)), 'model/stl'),
    ],
    ['Folded, GLB', () => saveFile(`${file}.glb`, glb(panel.name, [part(folded)]), 'model/gltf-binary')],
    [
      'Whole set, GLB',
      () =>
        saveFile(
          `${facts.document.plan.id}.glb`,
          glb(facts.document.plan.name, facts.panels.map(part)),
          'model/gltf-binary',
        ),
    ],
    [
      'Bends, CSV',
      () => saveFile('bends.csv', bendTableCsv(facts.panels, shopOf(facts.document.plan), units), 'text/csv'),
    ],
    ['Holes, CSV', () => saveFile('holes.csv', holeTableCsv(facts.panels, facts.joints, units), 'text/csv')],
    ...(facts.rig.bars.length > 0
      ? [
          [
            'Crossbars, CSV',
            () =>
              saveFile(
                'crossbars.csv',
                barCutsCsv(
                  barCuts(facts.document.plan.crossbars, facts.joints, facts.document.plan.holes),
                  units,
                ),
                'text/csv',
              ),
          ] as const,
        ]
      : []),
  ];
  return (
    <section aria-label="Files for the shop" className="mt-4">
      <h3 className="mb-1 font-bold">For the shop</h3>
      <p className="mb-2 text-small">
        Before metal is cut: print the plate at full size, glue it on cardboard, hold it up. What does not
        meet goes back in on Bolt, under Will it bolt up.
      </p>
      <div className="mb-2">
        <TemplateButton facts={facts} panels={[panel.id]} name={panel.mark} wide />
      </div>
      <div className="grid grid-cols-2 gap-2">
        {files.map(([name, save]) => (
          <Button key={name} onClick={save}>
            <Download size={16} aria-hidden="true" /> {name}
          </Button>
        ))}
      </div>
      <p className="mt-1 text-note text-ink2">
        DXF in {units === 'inch' ? 'inches' : 'millimeters'}: every bolt hole is on CUT, or on PILOT where it
        is opened at fit-up; CSK shows countersinks; BEND_UP, BEND_DOWN and ETCH are not cut. GLB opens in any
        3D viewer.
      </p>
    </section>
  );
}
