import {
  type Adjustment,
  agreementWords,
  type NextReading,
  nextWords,
  readingName,
  suspectWords,
} from '@plate-fold/core/survey';
import { formatLength, tapeLength, type UnitSystem } from '@plate-fold/core/units';

/** The survey on paper, for under the vehicle: what to measure next with room to write it, every reading, every point. Shown by the printer alone. */
export function SurveyPrint(props: {
  readonly name: string;
  readonly adjustment: Adjustment;
  readonly next: readonly NextReading[];
  readonly names: ReadonlyMap<string, string>;
  readonly units: UnitSystem;
}) {
  const { adjustment, names, units } = props;
  const [worst] = adjustment.suspects.map(i => adjustment.readings[i]);
  const cell = 'border-b border-neutral-400 py-1 pr-4 text-left';
  return (
    <div data-print-only data-theme="light" className="hidden bg-white text-black print:block">
      <h1 className="text-large font-extrabold">Survey of {props.name}</h1>
      <p>Level floor, vehicle standing. Never work under it on a jack alone.</p>
      <p className="mt-2">{agreementWords(adjustment)}</p>
      {worst && <p className="font-bold">Read again: {suspectWords(worst, names, units)}.</p>}
      <h2 className="mt-4 font-bold">Measure next</h2>
      <ol>
        {[...props.next, undefined, undefined, undefined].map((n, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines on paper, which never change places
          <li key={i} className="flex justify-between gap-4 border-b border-neutral-400 py-2">
            <span>{n ? nextWords(n, names, units) : 'from __________ to __________'}</span>
            <span>____________ {units === 'inch' ? 'in' : 'mm'}</span>
          </li>
        ))}
      </ol>
      <h2 className="mt-4 font-bold">Readings</h2>
      <table className="w-full">
        <tbody>
          {adjustment.readings.map((r, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines on paper, which never change places
            <tr key={i} className="break-inside-avoid">
              <td className={cell}>{readingName(r, names)}</td>
              <td className={`fig ${cell}`}>{r.kind === 'pixel' ? '' : tapeLength(r.value, units)}</td>
              <td className={`fig ${cell}`}>
                {r.kind === 'pixel' ? '' : `off ${formatLength(Math.abs(r.residual), units, true)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="mt-4 font-bold">Points: behind the axle, right of the center line, up</h2>
      <table className="w-full">
        <tbody>
          {adjustment.points.map(p => (
            <tr key={p.id} className="break-inside-avoid">
              <td className={cell}>{names.get(p.id) ?? p.id}</td>
              {p.at.map((v, k) => (
                <td key={['x', 'y', 'z'][k]} className={`fig ${cell}`}>
                  {tapeLength(v, units)} ± {formatLength(p.sigma[k] as number, units, true)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
