import { type AsBuiltLine, asBuilt, asBuiltCsv } from '@plate-fold/core/formats';
import { buildNameIn, buildOf } from '@plate-fold/core/plan';
import type { Tick } from '@plate-fold/core/sequence';
import { torqueFigure, type UnitSystem } from '@plate-fold/core/units';
import { Download, Printer } from 'lucide-react';
import type { Run } from '../../state/api';
import { Button } from '../../ui/button';
import { type Column, DataTable } from '../../ui/data-table';
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
      <span className="block text-fine text-ink2">
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
  const of = {
    vehicle: rig.name,
    plan: plan.name,
    build: buildOf(plan, run.buildId).name,
    startedAt: run.startedAt,
  };
  type Line = typeof last extends Map<string, infer L> ? L : never;
  const fine = ({ readNm, targetNm }: Line): boolean =>
    readNm === undefined || targetNm === undefined || judge(readNm, targetNm, units).near;
  const columns: readonly Column<Line>[] = [
    {
      id: 'bolt',
      head: 'Bolt',
      names: true,
      headClass: 'py-1 font-normal',
      cellClass: 'py-1.5 pr-2 text-left font-normal',
      cell: l => (
        <>
          <span className="fig font-semibold">{l.joint}</span>
          <span className="block text-note leading-tight text-ink2">{l.bolt}</span>
        </>
      ),
    },
    {
      id: 'asked',
      head: 'Asked',
      headClass: 'py-1 pr-3 text-right font-normal',
      cellClass: 'fig py-1.5 pr-3 text-right',
      cell: l => <Both nm={l.targetNm} units={units} />,
    },
    {
      id: 'read',
      head: 'Read',
      headClass: 'py-1 pr-3 text-right font-normal',
      cellClass: 'fig py-1.5 pr-3 text-right',
      cell: l => (
        <span className={fine(l) ? '' : 'font-bold text-oxide'}>
          <Both nm={l.readNm} units={units} />
        </span>
      ),
    },
    {
      id: 'when',
      head: 'When, who, with',
      headClass: 'py-1 font-normal',
      cellClass: 'py-1.5 leading-tight',
      cell: l => (
        <>
          {l.at === undefined ? <b>not done</b> : [when(l.at), l.who, l.wrench].filter(Boolean).join(', ')}
          {l.fault && <p className="font-semibold text-oxide">{l.fault}</p>}
          {l.notes.map(n => (
            <p key={n} className="text-oxide">
              {n}
            </p>
          ))}
          {l.photos.map(p => (
            <RunPhoto key={p} run={run.id} id={p} />
          ))}
        </>
      ),
    },
  ];
  return (
    <section aria-label="As built" className="mt-5">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="flex-1 text-title font-bold">As built</h2>
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
      <p className="text-body">
        <b>{rig.name}</b>, {plan.name}, {buildNameIn(plan, run.buildId)}, revision {run.revision} of the plan;
        begun {when(run.startedAt)}
        {run.endedAt === null ? '' : `, ended ${when(run.endedAt)}`}.
      </p>
      <p className="text-small text-ink2">The last round of each bolt; all rounds stand in the CSV.</p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it */}
      <div className="overflow-x-auto" role="region" aria-label="Torques as built" tabIndex={0}>
        <DataTable
          className="mt-1 w-full text-body"
          headClass="border-b border-ink2 text-left text-ink2"
          columns={columns}
          rows={[...last.values()]}
          rowKey={l => l.joint}
          rowClass={() => 'border-b border-scribe/70 align-top'}
        />
      </div>
      <p className="text-note text-ink2">Torque in {torqueFigure(1, units).unit}, the other unit below it.</p>
    </section>
  );
}
