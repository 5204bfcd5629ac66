import { barCuts } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { Button } from '../../ui/button';

/** Crossbars by name, each to be chosen; on the map a plate may hide them. */
export function BarList(props: {
  readonly facts: Facts;
  readonly units: UnitSystem;
  /** only those that this plate is bolted to */
  readonly panel?: string;
  readonly onChoose: (id: string) => void;
}) {
  const { facts, units, panel, onChoose } = props;
  const holding = new Set(
    facts.joints
      .filter(j => panel === undefined || j.joint.panels.includes(panel))
      .flatMap(j => j.mount?.member ?? []),
  );
  const bars = barCuts(facts.document.plan.crossbars, []).filter(
    b => panel === undefined || holding.has(b.bar.id),
  );
  if (bars.length === 0) return null;
  return (
    <section aria-label={panel === undefined ? 'Crossbars' : 'Crossbars it is bolted to'} className="mb-4">
      <h3 className="mb-1 font-bold">{panel === undefined ? 'Crossbars' : 'Bolted to'}</h3>
      <ul className="grid gap-1.5">
        {bars.map(({ bar, length }) => (
          <li key={bar.id}>
            <Button className="w-full justify-between gap-2" onClick={() => onChoose(bar.id)}>
              <span>{bar.name}</span>
              <span className="fig">{formatLength(length, units)}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
