import { fixed, lengthFigure, type UnitSystem } from '@plate-fold/core/units';
import { Fig } from '../../ui/figure';
import { sheetName } from '../../ui/names';
import type { Column } from './use-columns';

const percent = (v: number) => ({ value: fixed(100 * v, 0), unit: '%' });

/** What the plates of every build keep off the converters, and what they still let through. */
export function ShieldTable({ columns, units }: { columns: readonly Column[]; units: UnitSystem }) {
  const rows = columns.flatMap(c => (c.extra?.shields ?? []).map(s => ({ c, s })));
  if (rows.length === 0)
    return columns.some(c => !c.extra) ? (
      <p className="mt-4 text-small text-ink2">Checking the converters …</p>
    ) : null;
  const head = [
    'Build',
    'Converter',
    'Sides',
    'Underside',
    'Bare',
    'Tamper-proof bolts',
    'Thinnest sheet',
    'Left open',
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
    <section aria-label="Converter shield" className="mt-5 overflow-x-auto" tabIndex={0}>
      <h3 className="font-bold">Converter shield</h3>
      <p className="text-small text-ink2">
        Share of the converter that a hand or a tool can no longer reach in a straight line, level or from
        below. Bare is what frame and parts already block. An estimate of reach: it does not say how long a
        plate holds. View holes and louvers allow inspection and let heat out; local rules may ask for both.
      </p>
      <table className="mt-1 w-full text-body">
        <thead>
          <tr className="border-b border-ink text-left align-bottom">
            {head.map((h, i) => (
              <th key={h} scope="col" className={`py-1 pr-3 ${i > 1 && i < 6 ? 'text-right' : ''}`}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ c, s }) => {
            const [thin] = s.sheets;
            return (
              <tr key={`${c.facts.build.id} ${s.component}`} className="border-b border-scribe/60">
                <th scope="row" className="py-1.5 pr-3 text-left">
                  {c.facts.build.name}
                </th>
                <td className="pr-3">{s.name}</td>
                <td className="pr-3 text-right">
                  <Fig of={percent(s.sidesShut)} />
                </td>
                <td className="pr-3 text-right">
                  <Fig of={percent(s.undersideShut)} />
                </td>
                <td className="pr-3 text-right text-ink2">
                  <Fig of={percent(s.bareShut)} />
                </td>
                <td className="pr-3 text-right">
                  <Fig
                    of={s.tamperShare === undefined ? { value: '\u2013', unit: '' } : percent(s.tamperShare)}
                  />
                </td>
                <td className="pr-3">
                  {thin ? (
                    <>
                      {sheetName(thin.sheet)}, <Fig of={lengthFigure(thin.sheet.thickness, units)} />
                    </>
                  ) : (
                    'no plate by it'
                  )}
                </td>
                <td className={s.view + s.louvers === 0 && thin ? 'text-oxide' : ''}>
                  {[
                    ...(s.view > 0 ? [`${s.view} to look through`] : []),
                    ...(s.louvers > 0 ? [`${s.louvers} of louvers`] : []),
                  ].join(', ') || (thin ? 'nothing: heat stays in, and it cannot be inspected' : '')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
