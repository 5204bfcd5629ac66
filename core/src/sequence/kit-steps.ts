import { hardwareList, toolList } from '../bolt';
import type { FoldedPanel } from '../fold';
import { panelWord } from '../plan';
import { nameIn } from '../units';
import { addTools, isFastFirst, type Job } from './job';

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
  const benches = hung.map(p => {
    const mine = joints.filter(j => j.joint.panels[0] === p.panel.id && !isFastFirst(doc, j));
    const lubes = [...new Set(mine.filter(j => j.joint.lube !== 'dry').map(j => j.joint.lube))];
    return add(
      {
        id: `bench-${p.panel.id}`,
        stage: 'bench',
        title: `Prepare ${panelWord(p.panel)} on the bench`,
        why: 'Hole by hole, in the order of the list.',
        hows: [
          'Deburr every hole and edge, and touch up bare edges.',
          'Mark FRONT and the driver\u2019s side on its underside.',
          ...(mine.length > 0
            ? ['Lay its bolts out hole by hole, with washers and spacers in their order.']
            : []),
          ...(lubes.length > 0 ? [`${lubes.join(' and ')} on the threads listed, a thin film.`] : []),
        ],
        panels: [p.panel.id],
        joints: mine.map(j => j.id),
        makes: ['deburred', 'painted'],
        needs: [kit],
        tools: addTools(['deburring tool', 'marker'], lubes),
      },
      mine.length,
    );
  });
  return benches.at(-1) ?? kit;
}
