import type { FigureId } from '@plate-fold/core/explain';
import type { Figure as Value } from '@plate-fold/core/units';
import { How } from './how';

/** A figure with its unit small behind it. */
export function Fig({ of, className = '' }: { of: Value; className?: string }) {
  return (
    <span className={`fig whitespace-nowrap ${className}`}>
      {of.value}
      <span className="font-sans text-[0.72em] font-normal text-ink2">{of.unit && `\u00a0${of.unit}`}</span>
    </span>
  );
}

/** One line of figures: what it is, the figure, what it means. */
export function Row({
  name,
  of,
  how,
  meaning,
}: {
  name: string;
  of: Value;
  /** what tells how it was computed */
  how?: FigureId;
  meaning?: React.ReactNode;
}) {
  return (
    <div className="grid grid-cols-[5.6rem_5.4rem_1fr] items-baseline gap-x-2.5 border-b border-scribe/60 py-1.5 last:border-0">
      <dt>{how ? <How of={how}>{name}</How> : name}</dt>
      <dd className="text-right text-title">
        <Fig of={of} />
      </dd>
      <dd className="text-note leading-tight text-ink2">{meaning}</dd>
    </div>
  );
}
