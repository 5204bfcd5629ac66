import { toolList, toolName } from '@plate-fold/core/bolt';
import { fileName, toolListCsv } from '@plate-fold/core/formats';
import { buildName } from '@plate-fold/core/plan';
import type { UnitSystem } from '@plate-fold/core/units';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { type Column, DataTable } from '../../ui/data-table';
import { ListHead } from './list-head';
import { OwnWrenches } from './own-wrenches';

type Line = ReturnType<typeof toolList>[number];
/** Joints that are named before the rest is left out. */
const NAMED = 12;
const columnsIn = (units: UnitSystem): readonly Column<Line>[] => [
  {
    id: 'tool',
    head: 'Tool',
    names: true,
    headClass: 'py-1 font-normal',
    cellClass: 'py-2 text-left font-semibold first-letter:uppercase',
    cell: l => toolName(l.tool, units),
  },
  {
    id: 'joints',
    head: 'Joints',
    headClass: 'w-24 py-1 text-right font-normal',
    cellClass: 'fig py-2 text-right text-sub',
    cell: l => l.for.length,
  },
  {
    id: 'which',
    head: 'Which',
    headClass: 'py-1 pl-5 font-normal max-desk:hidden',
    cellClass: 'fig py-2 pl-5 text-note text-ink2 max-desk:hidden',
    cell: l => (l.for.length > NAMED ? `${l.for.slice(0, NAMED).join(' ')} …` : l.for.join(' ')),
  },
];

/** Everything to lay out before the vehicle is in the air. */
export function ToolList() {
  const { joints, document, build, panels, rig } = useFacts();
  const units = useAppSelector(s => s.view.units);
  const lines = toolList(joints, { panels, rig });
  return (
    <div className="max-w-3xl p-4">
      <ListHead
        title={`Tools for ${buildName(build)}`}
        file={`${fileName(document.plan.id, build.name, 'tools')}.csv`}
        text={() => toolListCsv(lines, units)}
      />
      <DataTable
        className="w-full"
        headClass="border-b border-ink2 text-left text-note text-ink2"
        columns={columnsIn(units)}
        rows={lines}
        rowKey={l => l.tool}
        rowClass={() => 'border-b border-scribe/70 align-top'}
      />
      <OwnWrenches />
    </div>
  );
}
