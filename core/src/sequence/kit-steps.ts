import { hardwareList, toolList } from '../bolt';
import { sameBracket } from '../bracket';
import type { FoldedPanel } from '../fold';
import { isBracket, panelWord } from '../plan';
import { listed, nameIn } from '../units';
import { CAUTIONS } from './cautions';
import { addTools, isFastFirst, type Job } from './job';
import { pilotsOf } from './pilots';

/** Plates as they are made ready on the bench: each by itself, brackets of one shape and sheet together. */
function benched(hung: readonly FoldedPanel[]): readonly (readonly [FoldedPanel, ...FoldedPanel[]])[] {
  const out: [FoldedPanel, ...FoldedPanel[]][] = [];
  for (const p of hung) {
    const alike = out.find(
      ([q]) =>
        isBracket(p.panel) &&
        isBracket(q.panel) &&
        q.material === p.material &&
        q.sheet.thickness === p.sheet.thickness &&
        sameBracket(q.panel, p.panel),
    );
    if (alike) alike.push(p);
    else out.push([p]);
  }
  return out;
}

/** The bench step of plates that are made ready together, whatever order they come in. */
const benchId = (group: readonly FoldedPanel[]): string => `bench-${group.map(p => p.panel.id).sort()[0]}`;

/** The bench steps of plates, of those that are hung at all. */
export const benchOf = (hung: readonly FoldedPanel[], ids: readonly string[]): readonly string[] => [
  ...new Set(
    benched(hung).flatMap(group => (group.some(p => ids.includes(p.panel.id)) ? [benchId(group)] : [])),
  ),
];

/** What is done at the bench before the vehicle is raised; gives the step after which everything is laid out. */
export function kitSteps(job: Job, hung: readonly FoldedPanel[]): string {
  const { doc, panels, joints, add } = job;
  const options = doc.rig.options.flatMap(o => {
    const choice = o.choices.find(c => c.id === doc.rig.selected[o.id]);
    return choice ? [nameIn(`${o.name}: ${choice.name}`, job.units)] : [];
  });
  const first =
    options.length > 0
      ? [
          add({
            id: 'options',
            stage: 'kit',
            title: 'Check that this is the vehicle planned for',
            why: `${options.join('; ')}. Other options bring other brackets, spacers and bolts.`,
          }),
        ]
      : [];
  const kit = add(
    {
      id: 'kit',
      stage: 'kit',
      title: 'Count the parts and try every bit',
      why: 'Find a missing bolt or a wrong bit now, not under the vehicle.',
      needs: first,
    },
    hardwareList(joints).length + toolList(joints).length,
  );
  for (const p of panels.filter(x => !hung.includes(x)))
    add({
      id: `leave-off-${p.panel.id}`,
      stage: 'kit',
      title: `Leave ${panelWord(p.panel)} off: no bolt holds it in this plan`,
      why: 'Add bolts on Cover first.',
      panels: [p.panel.id],
      needs: [kit],
    });
  const benches = benched(hung).map(group => {
    const [p] = group;
    const ids = group.map(q => q.panel.id);
    const mine = joints.filter(j => ids.includes(j.joint.panels[0] ?? '') && !isFastFirst(doc, j));
    const what = group.length === 1 ? panelWord(p.panel) : `brackets ${listed(group.map(q => q.panel.mark))}`;
    // what another plate marks is opened here; what it marks itself, when that is done
    const pilots = group.map(q => pilotsOf(job, q, false));
    const lubes = [...new Set(mine.filter(j => j.joint.lube !== 'dry').map(j => j.joint.lube))];
    return add(
      {
        id: benchId(group),
        stage: 'bench',
        title: `Prepare ${what} on the bench`,
        why: 'Hole by hole, in the order of the list.',
        hows: [
          ...pilots.flatMap(x => x.sizes).map(s => `Open the pilots of ${s}.`),
          'Deburr every hole and edge, and touch up bare edges.',
          group.length === 1
            ? 'Mark FRONT and the driver\u2019s side on its underside.'
            : 'They look alike: write its mark on each, with FRONT and the driver\u2019s side.',
          ...(mine.length > 0
            ? ['Lay its bolts out hole by hole, with washers and spacers in their order.']
            : []),
          ...(lubes.length > 0 ? [`${lubes.join(' and ')} on the threads listed, a thin film.`] : []),
        ],
        panels: ids,
        joints: mine.map(j => j.id),
        makes: ['deburred', 'painted'],
        needs: [kit],
        tools: addTools(
          ['deburring tool', 'marker'],
          lubes,
          pilots.flatMap(x => x.tools),
        ),
        ...(pilots.some(x => x.joints.length > 0) ? { cautions: [CAUTIONS.bench] } : {}),
      },
      mine.length,
    );
  });
  return benches.at(-1) ?? kit;
}
