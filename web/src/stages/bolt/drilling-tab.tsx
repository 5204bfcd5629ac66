import { drillingCard, toolName } from '@plate-fold/core/bolt';
import { lengthFigure } from '@plate-fold/core/units';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Fig } from '../../ui/figure';
import { CONDITION_NAMES } from '../../ui/names';

/** A card for every hole that has to be drilled in the vehicle. */
export function DrillingTab() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { method } = facts.document.plan;
  const cards = facts.joints.flatMap(j => {
    const card = drillingCard(j, facts.joints, method);
    return card ? [{ j, card }] : [];
  });
  if (cards.length === 0) return <p className="p-4">Nothing to drill: every hole exists and is sound.</p>;
  return (
    <div className="p-4">
      <p role="note" className="max-w-3xl border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-body">
        Drilling overhead: eye and face protection, no loose sleeves or gloves that catch, battery off near
        wiring. Know what is behind the hole first: fuel lines, brake lines, wiring. Drill a frame only where
        its maker allows it.
      </p>
      <ul className="mt-3 grid gap-3 desk:grid-cols-2" aria-label="Drilling cards">
        {cards.map(({ j, card }) => {
          const part = facts.rig.components.find(c => c.id === card.behind?.component);
          return (
            <li key={j.id} className="rounded-edge border border-ink2 bg-paper p-3">
              <h3 className="font-bold">
                <span className="fig">{j.id}</span>,{' '}
                {j.mount?.hole.kind === 'drill'
                  ? 'new hole'
                  : `${CONDITION_NAMES[j.mount?.condition ?? 'good']}, drilled out`}{' '}
                in {j.member?.kind ?? 'its place'} <span className="fig">{j.member?.id}</span>
              </h3>
              {card.fitFirst.length > 0 && (
                <p className="text-body">
                  Fit first: <span className="fig">{card.fitFirst.join(', ')}</span>
                </p>
              )}
              <ol className="mt-1 grid list-decimal gap-1 pl-5">
                {card.moves.map(m => (
                  <li key={`${m.what} ${m.tool}`}>
                    {m.what}
                    {m.tool && <span className="fig block text-lead">{toolName(m.tool, units)}</span>}
                  </li>
                ))}
              </ol>
              {card.behind && card.stopMm !== undefined ? (
                <p className="mt-2 border-l-[6px] border-marker bg-markersoft px-2 py-1">
                  Stop on the drill at <Fig of={lengthFigure(card.stopMm, units)} className="text-title" />:{' '}
                  {part?.name} is <Fig of={lengthFigure(card.behind.depth, units)} /> in.
                </p>
              ) : (
                <p className="mt-2 text-small text-ink2">
                  What is behind this hole is not entered on Rig: look before you drill.
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
