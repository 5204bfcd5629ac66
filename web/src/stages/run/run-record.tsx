import { type AsBuiltLine, asBuilt, asBuiltCsv } from '@plate-fold/core/formats';
import type { Tick } from '@plate-fold/core/sequence';
import { torqueFigure, type UnitSystem } from '@plate-fold/core/units';
import { Download, Printer } from 'lucide-react';
import type { Run } from '../../state/api';
import { Button } from '../../ui/button';
import { when } from '../../ui/dates';

import { saveFile } from '../../ui/save-file';
import { judge } from './judge';
import { RunPhoto } from './run-photo';
import type { Walked } from './use-screens';

/** A torque in the reader's unit, the other small behind it. */
function Both({ nm, units }: { nm: number | undefined; units: UnitSystem }) {
  if (nm === undefined) return <>–</>;
  const other = torqueFigure(nm, units === 'inch' ? 'metric' : 'inch');
  return (
    <>
      {torqueFigure(nm, units).value}
      <span className="block text-[11px] text-ink2">
        {other.value} {other.unit}
      </span>
    </>
  );
}

/** As built: vehicle, date, every bolt with its size and torque, who, when and with which wrench, what was wrong and how it was mended. */
export function RunRecord(props: {
  readonly run: Run;
  readonly walked: Walked;
  readonly ticks: readonly Tick[];
  readonly units: UnitSystem;
}) {
  const { run, walked, ticks, units } = props;
  const lines = asBuilt(walked.moves, ticks, walked.facts.joints);
  // the last line of a bolt is what it was left at; what was reported in any round stands with it
  const last = new Map<string, AsBuiltLine>();
  for (const l of lines) {
    const before = last.get(l.joint);
    last.set(l.joint, {
      ...l,
      notes: [...(before?.notes ?? []), ...l.notes],
      photos: [...(before?.photos ?? []), ...l.photos],
    });
  }
  const { rig, plan } = run.document;
  const of = { vehicle: rig.name, plan: plan.name, build: run.buildId, startedAt: run.startedAt };
  return (
    <section aria-label="As built" className="mt-5">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="flex-1 text-[17px] font-bold">As built</h2>
        <Button className="print:hidden" onClick={() => window.print()}>
          <Printer size={17} aria-hidden="true" /> Print
        </Button>
        <Button
          className="print:hidden"
          onClick={() => saveFile(`${run.documentId}-as-built.csv`, asBuiltCsv(of, lines), 'text/csv')}
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
      <p className="text-[14px]">
        <b>{rig.name}</b>, {plan.name}, build {run.buildId}, revision {run.revision} of the plan; begun{' '}
        {when(run.startedAt)}
        {run.endedAt === null ? '' : `, ended ${when(run.endedAt)}`}.
      </p>
      <p className="text-[13px] text-ink2">The last round of each bolt; all rounds stand in the CSV.</p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it */}
      <div className="overflow-x-auto" role="region" aria-label="Torques as built" tabIndex={0}>
        <table className="mt-1 w-full text-[14px]">
          <thead className="text-left text-ink2">
            <tr className="border-b border-ink2">
              <th scope="col" className="py-1 font-normal">
                Bolt
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
            {[...last.values()].map(l => {
              const fine =
                l.readNm === undefined || l.targetNm === undefined || judge(l.readNm, l.targetNm, units).near;
              return (
                <tr key={l.joint} className="border-b border-scribe/70 align-top">
                  <th scope="row" className="py-1.5 pr-2 text-left font-normal">
                    <span className="fig font-semibold">{l.joint}</span>
                    <span className="block text-[12px] leading-tight text-ink2">{l.bolt}</span>
                  </th>
                  <td className="fig py-1.5 pr-3 text-right">
                    <Both nm={l.targetNm} units={units} />
                  </td>
                  <td className={`fig py-1.5 pr-3 text-right ${fine ? '' : 'font-bold text-oxide'}`}>
                    <Both nm={l.readNm} units={units} />
                  </td>
                  <td className="py-1.5 leading-tight">
                    {l.at === undefined ? (
                      <b>not done</b>
                    ) : (
                      [when(l.at), l.who, l.wrench].filter(Boolean).join(', ')
                    )}
                    {l.fault && <p className="font-semibold text-oxide">{l.fault}</p>}
                    {l.notes.map(n => (
                      <p key={n} className="text-oxide">
                        {n}
                      </p>
                    ))}
                    {l.photos.map(p => (
                      <RunPhoto key={p} run={run.id} id={p} />
                    ))}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="text-[12.5px] text-ink2">
        Torque in {torqueFigure(1, units).unit}, the other unit below it.
      </p>
    </section>
  );
}
