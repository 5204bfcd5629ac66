import { toolRoll } from '@plate-fold/core/bolt';
import { toolRollCsv } from '@plate-fold/core/formats';
import { useFacts } from '../../state/derived';
import { ListHead } from './list-head';
import { OwnWrenches } from './own-wrenches';

/** Everything to lay out before the vehicle is in the air. */
export function ToolRoll() {
  const { joints, document, build, panels, rig } = useFacts();
  const lines = toolRoll(joints, { panels, rig });
  return (
    <div className="max-w-3xl p-4">
      <ListHead
        title={`Tool roll for build ${build.id}`}
        file={`${document.plan.id}-${build.id}-tool-roll.csv`}
        text={() => toolRollCsv(lines)}
      />
      <table className="w-full">
        <thead className="text-left text-[12.5px] text-ink2">
          <tr className="border-b border-ink2">
            <th scope="col" className="py-1 font-normal">
              Tool
            </th>
            <th scope="col" className="w-24 py-1 text-right font-normal">
              Joints
            </th>
            <th scope="col" className="py-1 pl-5 font-normal max-desk:hidden">
              Which
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map(l => (
            <tr key={l.tool} className="border-b border-scribe/70 align-top">
              <th scope="row" className="py-2 text-left font-semibold first-letter:uppercase">
                {l.tool}
              </th>
              <td className="fig py-2 text-right text-[16px]">{l.for.length}</td>
              <td className="fig py-2 pl-5 text-[12px] text-ink2 max-desk:hidden">
                {l.for.length > 12 ? `${l.for.slice(0, 12).join(' ')} …` : l.for.join(' ')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <OwnWrenches />
    </div>
  );
}
