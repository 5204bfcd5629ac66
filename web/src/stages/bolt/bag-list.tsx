import { bagListCsv, shoppingList } from '@plate-fold/core';
import { useFacts } from '../../app/derived';
import { ListHead } from './list-head';

/** What to buy for the active build, counted. */
export function BagList() {
  const { joints, document, build } = useFacts();
  const lines = shoppingList(joints);
  return (
    <div className="max-w-3xl p-4">
      <ListHead
        title={`Bag list for build ${build.id}`}
        file={`${document.plan.id}-${build.id}-bag-list.csv`}
        text={() => bagListCsv(lines)}
      />
      <table className="w-full">
        <thead className="text-left text-[12.5px] text-ink2">
          <tr className="border-b border-ink2">
            <th scope="col" className="w-16 py-1 pr-4 text-right font-normal">
              Count
            </th>
            <th scope="col" className="py-1 font-normal">
              Part
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map(l => (
            <tr key={l.part} className="border-b border-scribe/70">
              <td className="fig py-2 pr-4 text-right text-[17px]">{l.count}</td>
              <td className="py-2">{l.part}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-[13px] text-ink2">
        Lengths follow the sheet of build {build.id}: another build may need other bolts. Buy a spare of each.
      </p>
    </div>
  );
}
