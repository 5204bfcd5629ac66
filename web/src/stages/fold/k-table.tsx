import { K_RATIOS, kFactor, kFactorBy } from '@plate-fold/core/fold';
import type { Shop, TestedK } from '@plate-fold/core/plan';
import { MATERIAL_IDS, MATERIALS, type MaterialId } from '@plate-fold/core/sheet';
import { fixed, parseNumber } from '@plate-fold/core/units';
import { useState } from 'react';
import { Dialog } from '../../ui/dialog';

const FOLDED: readonly MaterialId[] = MATERIAL_IDS.filter(id => MATERIALS[id].minRadius !== undefined);
/** An entry belongs to a row of the table when its ratio is this near to it. */
const SAME = 0.005;

const entryAt = (own: readonly TestedK[], material: MaterialId, ratio: number): TestedK | undefined =>
  own.find(t => t.material === material && Math.abs(t.ratio / ratio - 1) < SAME);

/** One K of the table: the standard's in gray until one is entered; empty takes it out again. */
function Cell({
  label,
  shown,
  own,
  onEnter,
}: {
  label: string;
  shown: number;
  own: boolean;
  onEnter: (k: number | undefined) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const [bad, setBad] = useState(false);
  const commit = (): void => {
    if (typed === undefined) return;
    if (typed.trim() === '') onEnter(undefined);
    else {
      const read = parseNumber(typed);
      if (!read.ok || read.value <= 0 || read.value > 0.6) {
        setBad(true);
        return;
      }
      if (fixed(read.value, 3) !== fixed(shown, 3) || own) onEnter(read.value);
    }
    setBad(false);
    setTyped(undefined);
  };
  return (
    <input
      aria-label={label}
      aria-invalid={bad}
      title={bad ? 'K lies between 0 and 0.6' : undefined}
      inputMode="decimal"
      autoComplete="off"
      value={typed ?? fixed(shown, 3)}
      onFocus={e => e.target.select()}
      onChange={e => setTyped(e.target.value)}
      onBlur={commit}
      onKeyDown={e => {
        if (e.key === 'Enter') commit();
        if (e.key === 'Escape' && typed !== undefined) {
          e.stopPropagation();
          setTyped(undefined);
          setBad(false);
        }
      }}
      className={`fig min-h-11 w-full min-w-[3.6rem] border-0 bg-transparent px-1 text-center text-body ${bad ? 'text-oxide' : own ? 'font-bold text-fluid' : 'text-ink2'}`}
    />
  );
}

/** The K-factors the blanks are cut by, by material and ratio of inside radius to thickness. */
export function KTable(props: {
  readonly open: boolean;
  readonly shop: Shop;
  readonly onClose: () => void;
  readonly onChange: (shop: Shop) => void;
}) {
  const { open, shop, onClose, onChange } = props;
  const own = shop.kFactors ?? [];
  const set = (material: MaterialId, ratio: number, k: number | undefined): void => {
    const others = own.filter(t => t !== entryAt(own, material, ratio));
    onChange({ ...shop, kFactors: k === undefined ? others : [...others, { material, ratio, k }] });
  };
  const tests = own.filter(t => K_RATIOS.every(r => entryAt([t], t.material, r) === undefined));
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="K by material and R/t"
      about="Gray is DIN 6935, blue is the shop’s own. K is interpolated between rows. Clear a field to go back to DIN."
    >
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr>
              <th scope="col" className="px-1 text-left text-note text-ink2">
                R/t
              </th>
              {FOLDED.map(m => (
                <th key={m} scope="col" className="px-1 text-note leading-tight">
                  {MATERIALS[m].short}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {K_RATIOS.map(ratio => (
              <tr key={ratio} className="border-t border-scribe/70">
                <th scope="row" className="fig px-1 text-left text-body font-normal">
                  {fixed(ratio, 2)}
                </th>
                {FOLDED.map(m => (
                  <td key={m} className="border-l border-scribe/50 p-0">
                    <Cell
                      label={`K of ${MATERIALS[m].short} at R/t ${ratio}`}
                      shown={kFactorBy(own, m, ratio, 1)}
                      own={entryAt(own, m, ratio) !== undefined}
                      onEnter={k => set(m, ratio, k)}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {tests.length > 0 && (
        <p className="mt-2 text-small text-ink2">
          Also from test bends:{' '}
          {tests
            .map(
              t =>
                `${MATERIALS[t.material].short} at R/t ${fixed(t.ratio, 2)}, K ${fixed(t.k, 3)} (DIN ${fixed(kFactor(t.ratio, 1), 3)})`,
            )
            .join('; ')}
          .
        </p>
      )}
    </Dialog>
  );
}
