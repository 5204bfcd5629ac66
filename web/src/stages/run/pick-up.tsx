import { hardwareList, type KitGaps, partNames, toolName } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import { boltByBolt, type Step } from '@plate-fold/core/sequence';
import type { UnitSystem } from '@plate-fold/core/units';
import { TriangleAlert } from 'lucide-react';
import { useAppSelector } from '../../state/store';

/** What of a step's parts and tools the kit check found missing. */
function missing(step: Step, facts: Facts, gaps: KitGaps | undefined, units: UnitSystem): readonly string[] {
  if (!gaps || step.stage === 'kit') return [];
  const parts = new Set(facts.joints.filter(j => step.joints.includes(j.id)).flatMap(partNames));
  return [
    ...gaps.parts.filter(g => parts.has(g.part)).map(g => `${g.missing} × ${g.part}`),
    ...gaps.tools.filter(t => step.tools.includes(t)).map(t => toolName(t, units)),
  ];
}

/** Says what this step needs and the kit check did not find. */
export function Missing({ step, facts, gaps }: { step: Step; facts: Facts; gaps?: KitGaps }) {
  const units = useAppSelector(s => s.view.units);
  const lacks = missing(step, facts, gaps, units);
  if (lacks.length === 0) return null;
  return (
    <p className="mb-2 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2 text-lead leading-snug">
      <b>Missing by the kit check:</b> {lacks.join('; ')}.
    </p>
  );
}

/** What to have in hand: tools, the parts of this step where parts are counted, and hole by hole where they are laid out or put in. */
export function PickUp({ step, facts, gaps }: { step: Step; facts: Facts; gaps?: KitGaps }) {
  const counted = step.id === 'kit';
  const byHole = (step.stage === 'bench' || step.stage === 'start') && !boltByBolt(step);
  const parts = counted ? hardwareList(facts.joints) : [];
  const joints = byHole ? step.joints.flatMap(id => facts.joints.find(j => j.id === id) ?? []) : [];
  const tools = boltByBolt(step) ? [] : step.tools;
  const units = useAppSelector(s => s.view.units);
  const lacks = missing(step, facts, gaps, units);
  if (parts.length + tools.length + joints.length + lacks.length === 0) return null;
  return (
    <section aria-label="Pick up" className="mt-3">
      <Missing step={step} facts={facts} gaps={gaps} />
      {tools.length > 0 && (
        <p className="text-sub">
          <b>Pick up:</b> {tools.map(t => toolName(t, units)).join(', ')}
        </p>
      )}
      {joints.length > 0 && (
        <ol className="mt-1" aria-label="What goes in each hole">
          {joints.map((j, i) => (
            <li
              key={j.id}
              className="grid grid-cols-[2.2rem_3.6rem_1fr] border-b border-scribe/70 py-1.5 text-lead leading-snug"
            >
              <span className="fig font-semibold">{i + 1}</span>
              <span className="fig text-ink2">{j.id}</span>
              <span>
                {partNames(j).join(', ')}
                {j.joint.lube === 'dry' ? '' : `, ${j.joint.lube} on the threads`}
              </span>
            </li>
          ))}
        </ol>
      )}
      {parts.length > 0 && (
        <ul className="mt-1">
          {parts.map(p => (
            <li
              key={p.part}
              className="grid grid-cols-[2.4rem_1fr] border-b border-scribe/70 py-1.5 text-sub"
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
          className="flex items-start gap-2.5 border-l-[6px] border-marker bg-markersoft px-3 py-2 text-lead leading-snug"
        >
          <TriangleAlert size={19} className="mt-0.5 shrink-0" aria-hidden="true" />
          {c}
        </li>
      ))}
    </ul>
  );
}
