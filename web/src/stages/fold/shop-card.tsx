import { type FoldedPanel, SHOPS, shopOf } from '@plate-fold/core/fold';
import { type Shop, setShop } from '@plate-fold/core/plan';
import { formatForce, formatLength } from '@plate-fold/core/units';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Select } from '../../ui/select';
import { KTable } from './k-table';
import { ShopSheet } from './shop-sheet';
import { TestBendForm } from './test-bend';

/** The shop that folds the plates: which one, what its brake can do, and the K it bends by. */
export function ShopCard({ folded }: { folded: FoldedPanel }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const shop = shopOf(facts.document.plan);
  const [open, setOpen] = useState<'shop' | 'k'>();
  const known = SHOPS.some(s => s.id === shop.id) ? SHOPS : [...SHOPS, shop];
  const keep = (next: Shop): void => void run(setShop, { shop: next });
  const stock = shop.sheets.map(([l, w]) => `${formatLength(l, units)} × ${formatLength(w, units)}`);
  return (
    <section aria-label="Shop" className="mt-4">
      <h3 className="font-bold">Shop</h3>
      <Select
        label="Shop"
        value={shop.id}
        choices={known.map(s => ({ value: s.id, name: s.id === shop.id ? shop.name : s.name }))}
        onChoose={v => {
          const next = SHOPS.find(s => s.id === v);
          // what was tested goes along: it belongs to the sheet as much as to the brake
          if (next && next.id !== shop.id) keep({ ...next, kFactors: shop.kFactors });
        }}
        className="w-full"
      />
      <p className="mt-1 text-small text-ink2">
        Brake {formatLength(shop.brake.length, units)}, {formatForce(shop.brake.force, units)}; dies{' '}
        {shop.dies.map(d => formatLength(d, units)).join(', ') || 'none'}; sheets {stock.join(', ') || 'none'}
        .
      </p>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Button onClick={() => setOpen('shop')}>Change it</Button>
        <Button onClick={() => setOpen('k')}>K table</Button>
      </div>
      <ShopSheet open={open === 'shop'} shop={shop} onClose={() => setOpen(undefined)} onChange={keep} />
      <KTable open={open === 'k'} shop={shop} onClose={() => setOpen(undefined)} onChange={keep} />
      <TestBendForm
        key={`${folded.sheet.material} ${folded.sheet.thickness}`}
        thickness={folded.sheet.thickness}
        material={folded.sheet.material}
        shop={shop}
      />
    </section>
  );
}
