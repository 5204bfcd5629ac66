import { toolName } from '@plate-fold/core/bolt';
import { buildName } from '@plate-fold/core/plan';
import { Minus, Plus } from 'lucide-react';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { useKit } from '../../state/use-kit';
import { Button } from '../../ui/button';

/** Every part counted and every tool tried on its fastener, before the vehicle is in the air. */
export function KitTab() {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const { parts, tools, kit, gaps, complete, fault, add, count, tried } = useKit(facts);
  const missing = gaps.parts.reduce((s, p) => s + p.missing, 0);
  return (
    <div className="max-w-3xl p-4">
      <h2 className="text-title font-bold">Kit for {buildName(facts.build)}</h2>
      <p role="status" className={`mt-1 text-lead font-semibold ${complete ? '' : 'text-oxide'}`}>
        {complete
          ? 'Everything is here and fits.'
          : [
              ...(missing > 0 ? [`${missing} parts missing`] : []),
              ...(gaps.tools.length > 0 ? [`${gaps.tools.length} tools not checked`] : []),
            ].join(', ')}
      </p>
      <p className="text-small text-ink2">
        Lay it all out, count every part, and try every bit and socket on its fastener. The count is saved; a
        run asks for it.
      </p>
      {fault && (
        <p role="alert" className="mt-1 text-oxide">
          {fault}
        </p>
      )}
      <h3 className="mt-3 font-bold">Parts</h3>
      <ul aria-label="Parts to count">
        {parts.map(p => {
          const have = kit.counted[p.part] ?? 0;
          const whole = have >= p.count;
          return (
            <li key={p.part} className="flex items-center gap-3 border-b border-scribe/70 py-1.5">
              <span className="min-w-0 flex-1 leading-tight">{p.part}</span>
              <Button
                className="min-w-11 px-2"
                aria-label={`One less: ${p.part}`}
                disabled={have === 0}
                onClick={() => add(p.part, -1)}
              >
                <Minus size={17} aria-hidden="true" />
              </Button>
              <span className={`fig w-20 text-center text-title ${whole ? 'font-semibold' : 'text-oxide'}`}>
                {have} of {p.count}
              </span>
              <Button
                className="min-w-11 px-2"
                aria-label={`One more: ${p.part}`}
                onClick={() => add(p.part, 1)}
              >
                <Plus size={17} aria-hidden="true" />
              </Button>
              <Button
                className="w-16"
                look={whole ? 'strong' : 'plain'}
                aria-pressed={whole}
                aria-label={`All of ${p.part}`}
                onClick={() => count(p.part, whole ? 0 : p.count)}
              >
                All
              </Button>
            </li>
          );
        })}
      </ul>
      <h3 className="mt-4 font-bold">Tools, each checked</h3>
      <ul aria-label="Tools to check">
        {tools.map(t => (
          <li key={t.tool} className="border-b border-scribe/70">
            <label className="flex min-h-12 items-center gap-3">
              <input
                type="checkbox"
                className="size-7 accent-[var(--fluid)]"
                checked={kit.tried.includes(t.tool)}
                onChange={e => tried(t.tool, e.target.checked)}
              />
              <span className="first-letter:uppercase">{toolName(t.tool, units)}</span>
              <span className="fig ml-auto text-note text-ink2">
                {t.for.length > 6 ? `${t.for.length} joints` : t.for.join(' ')}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </div>
  );
}
