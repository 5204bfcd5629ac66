import { toolList } from '@plate-fold/core/bolt';
import { toolListCsv } from '@plate-fold/core/formats';
import { useFacts } from '../../state/derived';
import { type Column, DataTable } from '../../ui/data-table';
import { ListHead } from './list-head';
import { OwnWrenches } from './own-wrenches';

type Line = ReturnType<typeof toolList>[number];
/** Joints that are named before the rest is left out. */
const NAMED = 12;
const COLUMNS: readonly Column<Line>[] = [
  {
    id: 'tool',
    head: 'Tool',
    names: true,
    headClass: 'py-1 font-normal',
    cellClass: 'py-2 text-left font-semibold first-letter:uppercase',
    cell: l => l.tool,
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
  const lines = toolList(joints, { panels, rig });
  return (
    <div className="max-w-3xl p-4">
      <ListHead
        title={`Tool roll for build ${build.id}`}
        file={`${document.plan.id}-${build.id}-tool-roll.csv`}
        text={() => toolListCsv(lines)}
      />
      <DataTable
        className="w-full"
        headClass="border-b border-ink2 text-left text-note text-ink2"
        columns={COLUMNS}
        rows={lines}
        rowKey={l => l.tool}
        rowClass={() => 'border-b border-scribe/70 align-top'}
      />
      <OwnWrenches />
    </div>
  );
}
