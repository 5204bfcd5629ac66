import { type Facts, type Step, shoppingList } from '@plate-fold/core';
import { TriangleAlert } from 'lucide-react';

/** What to have in hand: tools, and the parts of this step where parts are counted or laid out. */
export function PickUp({ step, facts }: { step: Step; facts: Facts }) {
  const counted = step.id === 'kit' || (step.stage === 'bench' && step.torqueNm === undefined);
  const joints = step.id === 'kit' ? facts.joints : facts.joints.filter(j => step.joints.includes(j.id));
  const parts = counted ? shoppingList(joints) : [];
  // torqued bolt by bolt: the tool stands in the bolt's own line
  const tools = step.torqueNm === undefined ? step.tools : [];
  if (parts.length === 0 && tools.length === 0) return null;
  return (
    <section aria-label="Pick up" className="mt-3">
      {tools.length > 0 && (
        <p className="text-[16px]">
          <b>Pick up:</b> {tools.join(', ')}
        </p>
      )}
      {parts.length > 0 && (
        <ul className="mt-1">
          {parts.map(p => (
            <li
              key={p.part}
              className="grid grid-cols-[2.4rem_1fr] border-b border-scribe/70 py-1.5 text-[16px]"
            >
              <span className="fig font-semibold">{p.count}</span>
              {p.part}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What to watch for at this step. */
export function Cautions({ of }: { of: readonly string[] }) {
  if (of.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-2" aria-label="Cautions">
      {of.map(c => (
        <li
          key={c}
          className="flex items-start gap-2.5 border-l-[6px] border-marker bg-markersoft px-3 py-2.5 text-[15px] leading-snug"
        >
          <TriangleAlert size={19} className="mt-0.5 shrink-0" aria-hidden="true" />
          {c}
        </li>
      ))}
    </ul>
  );
}
