import { asBuilt, asBuiltCsv, type Move, type Tick, torqueFigure, type UnitSystem } from '@plate-fold/core';
import { Download, Printer } from 'lucide-react';
import type { Run } from '../../app/api';
import { Button } from '../../ui/button';
import { when } from '../../ui/names';
import { saveFile } from '../../ui/save-file';
import { judge } from './torque-target';

/** As built: every torque, who, when, with which wrench, kept with the plan's revision. */
export function RunRecord(props: {
  readonly run: Run;
  readonly moves: readonly Move[];
  readonly ticks: readonly Tick[];
  readonly units: UnitSystem;
}) {
  const { run, moves, ticks, units } = props;
  const lines = asBuilt(moves, ticks);
  // the last round is what a bolt was left at
  const last = lines.filter(l => l.pass === undefined || l.pass === Math.max(...lines.map(x => x.pass ?? 0)));
  return (
    <section aria-label="As built" className="mt-5">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="flex-1 text-[17px] font-bold">As built</h2>
        <Button className="print:hidden" onClick={() => window.print()}>
          <Printer size={17} aria-hidden="true" /> Print
        </Button>
        <Button
          className="print:hidden"
          onClick={() => saveFile(`${run.documentId}-as-built.csv`, asBuiltCsv(lines), 'text/csv')}
        >
          <Download size={17} aria-hidden="true" /> CSV
        </Button>
        <Button
          className="print:hidden"
          onClick={() =>
            saveFile(
              `${run.documentId}-run.json`,
              JSON.stringify({ format: 'plate-fold-run/1', ...run, ticks }, null, 2),
              'application/json',
            )
          }
        >
          <Download size={17} aria-hidden="true" /> JSON
        </Button>
      </div>
      <p className="text-[13px] text-ink2">
        {run.document.plan.name}, build {run.buildId}, revision {run.revision} of the plan; begun{' '}
        {when(run.startedAt)}
        {run.endedAt === null ? '' : `, ended ${when(run.endedAt)}`}. The last round of each bolt; all rounds
        stand in the CSV.
      </p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it */}
      <div className="overflow-x-auto" role="region" aria-label="Torques as built" tabIndex={0}>
        <table className="mt-1 w-full text-[14px]">
          <thead className="text-left text-ink2">
            <tr className="border-b border-ink2">
              <th scope="col" className="py-1 font-normal">
                Joint
              </th>
              <th scope="col" className="py-1 pr-3 text-right font-normal">
                Asked
              </th>
              <th scope="col" className="py-1 pr-3 text-right font-normal">
                Read
              </th>
              <th scope="col" className="py-1 font-normal">
                When, who, with
              </th>
            </tr>
          </thead>
          <tbody>
            {last.map(l => {
              const fine = l.readNm === undefined || judge(l.readNm, l.targetNm, units).near;
              return (
                <tr key={`${l.step} ${l.joint}`} className="border-b border-scribe/70 align-top">
                  <th scope="row" className="fig py-1.5 text-left">
                    {l.joint}
                  </th>
                  <td className="fig py-1.5 pr-3 text-right">{torqueFigure(l.targetNm, units).value}</td>
                  <td className={`fig py-1.5 pr-3 text-right ${fine ? '' : 'font-bold text-oxide'}`}>
                    {l.readNm === undefined ? '–' : torqueFigure(l.readNm, units).value}
                  </td>
                  <td className="py-1.5 leading-tight">
                    {l.at === undefined ? (
                      <b>not done</b>
                    ) : (
                      [when(l.at), l.who, l.readNm === undefined ? undefined : l.wrench]
                        .filter(Boolean)
                        .join(', ')
                    )}
                    {l.notes.map(n => (
                      <p key={n} className="text-oxide">
                        {n}
                      </p>
                    ))}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="text-[12.5px] text-ink2">Torque in {torqueFigure(1, units).unit}.</p>
    </section>
  );
}
