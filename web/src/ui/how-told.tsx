import { EXPLAINED, type Explained, type FigureId } from '@plate-fold/core/explain';

/** How a figure is computed: formula in words, what goes in, where it is published, what of it is an estimate. */
export default function HowTold({ of }: { of: FigureId }) {
  const e: Explained = EXPLAINED[of];
  return (
    <section aria-label={`How ${e.name} was computed`}>
      <h4 className="font-bold">{e.name}: how this was computed</h4>
      <p className="mt-1">{e.formula}</p>
      <dl className="mt-2 grid grid-cols-[4.6rem_1fr] gap-x-2 gap-y-1 text-small text-ink2">
        <dt>From</dt>
        <dd>{e.from}</dd>
        <dt>Source</dt>
        <dd>{e.source}</dd>
        {e.estimated && (
          <>
            <dt>Estimate</dt>
            <dd>{e.estimated}</dd>
          </>
        )}
      </dl>
    </section>
  );
}
