import { FROM_MEMORY, figureSources, jointCapacity, type ResolvedJoint } from '@plate-fold/core/bolt';
import type { Facts } from '@plate-fold/core/derive';
import { fixed, loadFigure, type UnitSystem } from '@plate-fold/core/units';
import { Fig } from '../../ui/figure';
import type { Asked } from './use-shares';

/** What gives first in a joint, pulled and sheared, and how much of it a strike asks for. */
export function JointBears({
  joint,
  facts,
  units,
  asked,
}: {
  joint: ResolvedJoint;
  facts: Facts;
  units: UnitSystem;
  asked: Asked | undefined;
}) {
  const { elements, pull, shear } = jointCapacity(joint, facts.panels);
  const percent = asked ? asked.share * 100 : 0;
  return (
    <section className="mt-4" aria-label="Strength">
      <h3 className="font-bold">Strength</h3>
      <p className="text-body">
        Pulled <Fig of={loadFigure(pull.force, units)} /> ({pull.what}), sheared{' '}
        <Fig of={loadFigure(shear.force, units)} /> ({shear.what}).
      </p>
      {asked ? (
        <>
          <div
            className="mt-1.5 h-4 w-full overflow-hidden rounded-tight border border-ink2 bg-paper"
            role="meter"
            aria-label="Share of its strength used by a strike"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(percent)}
          >
            <div
              className={`h-full ${percent > 100 ? 'bg-oxide' : percent > 80 ? 'bg-marker' : 'bg-fluid'}`}
              style={{ width: `${Math.min(100, percent)}%` }}
            />
          </div>
          <p className="mt-1 text-small text-ink2">
            A strike uses <b className="text-ink">{fixed(percent, 0)} %</b>: pulled{' '}
            <Fig of={loadFigure(asked.pullN, units)} /> with what prying adds, sheared{' '}
            <Fig of={loadFigure(asked.shearN, units)} />, combined.
          </p>
        </>
      ) : (
        <p className="mt-1 text-small text-ink2">Run Strike to see how much of it a strike uses.</p>
      )}
      <details className="mt-1">
        <summary className="min-h-11 py-2.5">Limited by</summary>
        <table className="w-full text-small">
          <tbody>
            {[...elements]
              .sort((a, b) => a.force - b.force)
              .map(e => (
                <tr key={`${e.what} ${e.acts}`} className="border-b border-scribe/60 align-top">
                  <th scope="row" className="py-1 pr-2 text-left font-normal first-letter:uppercase">
                    {e.what}, {e.acts === 'pull' ? 'pulled' : 'sheared'}
                    <span className="block text-fine text-ink2">{e.source}</span>
                  </th>
                  <td className="py-1 text-right">
                    <Fig of={loadFigure(e.force, units)} />
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
        <p className="mt-1 text-note text-ink2">
          Nominal strengths without a safety factor. Estimates, not certificates.
        </p>
      </details>
      <details>
        <summary className="min-h-11 py-2.5">Where its figures come from</summary>
        <dl className="text-small">
          {figureSources(joint, facts.panels).map(s => (
            <div key={s.what} className="border-b border-scribe/60 py-1">
              <dt className="first-letter:uppercase">{s.what}</dt>
              <dd className="text-ink2">{s.source}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-1 text-note text-ink2">{FROM_MEMORY}</p>
      </details>
    </section>
  );
}
