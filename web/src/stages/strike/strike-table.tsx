import { jointCapacity } from '@plate-fold/core/bolt';
import { jointShare } from '@plate-fold/core/checks';
import type { Facts } from '@plate-fold/core/derive';
import type { FigureId } from '@plate-fold/core/explain';
import { buildOf } from '@plate-fold/core/plan';
import { type Figure, fixed, lengthFigure, loadFigure, type UnitSystem } from '@plate-fold/core/units';
import type { Belly, Struck } from '../../state/strikes/use-strikes';
import { Fig } from '../../ui/figure';
import { How } from '../../ui/how';
import { sheetName } from '../../ui/names';

const NONE: Figure = { value: '\u2013', unit: '' };

/** The most any joint of a plate is asked for, as a share of what it bears. */
function dearest(struck: Struck, { joints, panels }: Belly) {
  if (!struck.answer?.ok) return undefined;
  return struck.answer.value.reactionsN
    .flatMap(r => {
      const joint = joints.find(j => j.id === r.joint);
      return joint ? [{ r, share: jointShare(r, jointCapacity(joint, panels)) }] : [];
    })
    .sort((a, b) => b.share - a.share)[0];
}

/** Every plate of every build that is looked at, figure by figure. */
export function StrikeTable({
  bellies,
  struck,
  facts,
  units,
}: {
  bellies: readonly Belly[];
  struck: readonly (readonly Struck[])[];
  facts: Facts;
  units: UnitSystem;
}) {
  const size = (mm: number | undefined): Figure =>
    mm === undefined ? NONE : lengthFigure(mm, units, units === 'metric');
  const head: readonly (readonly [string, FigureId?])[] = [
    ['Plate'],
    ['Build'],
    ['Force'],
    ['Deflection', 'deflection'],
    ['Clearance', 'gap-struck'],
    ['Stress', 'stress'],
    ['Dent', 'dent'],
    ['Lowest vibration', 'vibration'],
    ['Joint', 'joint-share'],
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
    <section className="h-full overflow-auto bg-ground p-3" aria-label="Figures of every plate" tabIndex={0}>
      <p className="sticky left-0 pb-2 text-small text-ink2">
        Stress as a share of yield, away from bolts; the most loaded joint as a share of its strength.
        Estimates.
      </p>
      <table className="w-full border-collapse text-body">
        <caption className="sr-only">Strike results, plate by plate</caption>
        <thead>
          <tr className="border-b border-ink text-left">
            {head.map(([h, how], i) => (
              <th key={h} scope="col" className={`py-1.5 pr-3 font-bold ${i > 1 ? 'text-right' : ''}`}>
                {how ? <How of={how}>{h}</How> : h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {(struck[0] ?? []).flatMap((_, p) =>
            bellies.map((belly, b) => {
              const s = struck[b]?.[p];
              if (!s) return null;
              const v = s.answer?.ok ? s.answer.value : undefined;
              const part = facts.rig.components.find(c => c.id === v?.gapTo);
              const joint = dearest(s, belly);
              const cell = (of: Figure, below?: string, warn = false) => (
                <td className="py-1.5 pr-3 text-right align-top">
                  <Fig of={of} className={warn ? 'font-bold text-oxide' : ''} />
                  {below && <span className="block text-note text-ink2">{below}</span>}
                </td>
              );
              return (
                <tr
                  key={`${belly.build} ${s.folded.panel.id}`}
                  className={b === bellies.length - 1 ? 'border-b border-scribe' : ''}
                >
                  <th scope="row" className="py-1.5 pr-3 text-left align-top font-bold">
                    {b === 0 && `${s.folded.panel.mark} ${s.folded.panel.name}`}
                  </th>
                  <td className="py-1.5 pr-3 align-top">
                    {buildOf(belly.document.plan, belly.build).name}
                    <span className="block text-note text-ink2">{sheetName(s.folded.sheet)}</span>
                  </td>
                  {v ? (
                    <>
                      {cell(
                        loadFigure(v.forceN, units),
                        v.reached < 1
                          ? `collapses at ${fixed((v.gaveWayAt ?? v.reached) * 100, 0)} %`
                          : undefined,
                        v.reached < 1,
                      )}
                      {cell(size(v.deflectionMm))}
                      {cell(
                        size(v.gapMm),
                        part ? `to ${part.name}` : 'nothing above',
                        (v.gapMm ?? 1) < (part?.keepOut ?? 0),
                      )}
                      {cell({ value: fixed((v.vonMisesMPa / v.yieldMPa) * 100, 0), unit: '%' })}
                      {cell(size(v.dentMm))}
                      {cell({ value: fixed(v.ringHz, 0), unit: 'Hz' })}
                      {joint
                        ? cell(
                            { value: fixed(joint.share * 100, 0), unit: '%' },
                            joint.r.joint,
                            joint.share > 1,
                          )
                        : cell(NONE)}
                    </>
                  ) : (
                    <td colSpan={7} className="py-1.5 text-ink2">
                      {s.answer?.ok === false ? `No answer: ${s.answer.fault}.` : 'striking …'}
                    </td>
                  )}
                </tr>
              );
            }),
          )}
        </tbody>
      </table>
    </section>
  );
}
