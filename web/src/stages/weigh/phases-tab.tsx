import { hardwareList } from '@plate-fold/core/bolt';
import { type PhaseReport, phaseReports } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import {
  addPhase,
  isBracket,
  MOST_PHASES,
  moveToPhase,
  type Phase,
  panelNamed,
  phasesOf,
  removePhase,
  renamePhase,
} from '@plate-fold/core/plan';
import { fixed, massFigure, sentence, type UnitSystem } from '@plate-fold/core/units';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Row } from '../../ui/figure';
import { Select } from '../../ui/select';
import { useDraftField } from '../../ui/use-draft-field';

/** What is fitted when: each phase as a plan that must hold alone, with what is bought for it. */
export function PhasesTab({ facts }: { facts: Facts }) {
  const run = useRun();
  const { units } = useAppSelector(s => s.view);
  const reports = useMemo(() => phaseReports(facts, units), [facts, units]);
  const add = (
    <Button onClick={() => run(addPhase, {})} disabled={reports.length >= MOST_PHASES}>
      <Plus size={17} aria-hidden="true" /> {reports.length === 0 ? 'Fit in phases' : 'Another phase'}
    </Button>
  );
  if (reports.length === 0)
    return (
      <section aria-label="Phases" className="max-w-[36rem] p-4">
        <h2 className="text-head font-bold">All plates are fitted at once</h2>
        <p className="mt-1 mb-3 text-ink2">
          In phases, some plates are bought and fitted now and the others later. Each phase is checked as if
          nothing came after it: what it covers, how long its bolts are, what it costs. Each has a run of its
          own.
        </p>
        {facts.plates.length < 2 ? <p>A plan with one plate has nothing to put off.</p> : add}
      </section>
    );
  return (
    <section aria-label="Phases" className="p-3">
      <p className="mb-2 text-small text-ink2">
        Figures of {sentence(facts.build.name)}. Brackets and crossbars come with the first plate they hold.
      </p>
      <ol className="grid gap-3 desk:grid-cols-[repeat(auto-fit,minmax(20rem,1fr))]">
        {reports.map((r, i) => (
          <PhaseCard key={r.phase.id} report={r} number={i + 1} facts={facts} units={units} />
        ))}
      </ol>
      <div className="mt-3">{add}</div>
    </section>
  );
}

function PhaseName({ phase, number }: { phase: Phase; number: number }) {
  const run = useRun();
  const { field } = useDraftField({
    value: phase.name,
    onEnter: name => {
      if (name.trim() === '') return 'A phase needs a name.';
      return run(renamePhase, { phase: phase.id, name: name.trim() }) ? undefined : 'Taken already.';
    },
  });
  return (
    <input
      aria-label={`Name of phase ${number}`}
      maxLength={60}
      className="min-h-11 min-w-0 flex-1 rounded-edge border border-scribe bg-paper px-2 font-bold"
      {...field}
    />
  );
}

function PhaseCard({
  report,
  number,
  facts,
  units,
}: {
  report: PhaseReport;
  number: number;
  facts: Facts;
  units: UnitSystem;
}) {
  const run = useRun();
  const { phase, facts: then, replaced, findings } = report;
  const { plan } = facts.document;
  const phases = phasesOf(plan);
  const plates = plan.panels.filter(p => phase.panels.includes(p.id) && !isBracket(p));
  const brackets = report.fitted.filter(m => m.startsWith('K'));
  return (
    <li
      aria-label={`Phase ${number}, ${phase.name}`}
      className="list-none rounded-tight border border-scribe bg-sheet p-3"
    >
      <div className="flex items-center gap-2">
        <span className="fig text-title font-semibold" aria-hidden="true">
          {number}
        </span>
        <PhaseName phase={phase} number={number} />
        <Button
          aria-label={`Remove phase ${number}`}
          data-tip="Its plates come with the phase before"
          onClick={() => run(removePhase, { phase: phase.id })}
        >
          <Trash2 size={17} aria-hidden="true" />
        </Button>
      </div>
      {plates.length === 0 ? (
        <p className="mt-2 text-ink2">No plate yet: move one here from another phase.</p>
      ) : (
        <ul className="mt-2">
          {plates.map(p => (
            <li key={p.id} className="flex min-h-12 items-center gap-2 border-b border-scribe/60">
              <span className="min-w-0 flex-1 truncate">
                <b>{p.mark}</b> {p.name}
              </span>
              <Select
                label={`Phase of ${panelNamed(facts.document, p.id)}`}
                value={phase.id}
                choices={phases.map(f => ({ value: f.id, name: f.name }))}
                onChoose={to => run(moveToPhase, { panel: p.id, phase: to })}
                className="w-36"
              />
            </li>
          ))}
        </ul>
      )}
      {brackets.length > 0 && (
        <p className="mt-1 text-small text-ink2">With brackets {brackets.join(', ')}.</p>
      )}
      <dl className="mt-1">
        <Row
          name="Paid then"
          of={{ value: fixed(report.dollars, 0), unit: '$' }}
          meaning={replaced.length > 0 ? 'with the bolts bought twice' : 'plates and hardware'}
        />
        <Row name="Added" of={massFigure(report.addedKg, units, true)} meaning="with this phase" />
        <Row
          name="Bolts"
          of={{ value: `${report.bolts}`, unit: 'new' }}
          meaning={replaced.length === 0 ? 'none is replaced' : <Replaced report={report} />}
        />
        <Row
          name="Coverage"
          how="covered"
          of={{ value: fixed(then.coverage.fraction * 100, 0), unit: '%' }}
          meaning="of the parts to protect, once it is fitted"
        />
      </dl>
      {report.bought.length > 0 && (
        <details>
          <summary className="min-h-11 py-2.5 text-small">Parts bought for it</summary>
          <ul className="fig text-small">
            {hardwareList(report.bought).map(l => (
              <li key={l.part} className="flex gap-3">
                <span className="w-8 shrink-0 text-right">{l.count}</span> {l.part}
              </li>
            ))}
          </ul>
        </details>
      )}
      {findings.length > 0 && (
        <section aria-label={`Only until the next phase, ${phase.name}`} className="mt-2">
          <h3 className="text-small font-bold">Only until the next phase</h3>
          <ul className="mt-1 grid gap-1">
            {findings.map(f => (
              <li
                key={f.text}
                className={`border-l-[6px] px-2 py-1 text-small ${f.severity === 'stop' ? 'border-oxide bg-oxidesoft' : 'border-marker bg-markersoft'}`}
              >
                {f.text}
                {f.remedy && <span className="block text-ink2">{f.remedy}</span>}
              </li>
            ))}
          </ul>
        </section>
      )}
    </li>
  );
}

/** The bolts that are bought a second time, by what takes the place of what. */
function Replaced({ report: { replaced } }: { report: PhaseReport }) {
  const kinds = new Map<string, string[]>();
  for (const r of replaced) {
    const [kind] = r.from.split(' \u00d7 ');
    const to = r.to.startsWith(`${kind} \u00d7`) ? r.to.slice((kind ?? '').length + 1) : r.to;
    const key = `${r.from}, then ${to}`;
    kinds.set(key, [...(kinds.get(key) ?? []), r.joint]);
  }
  return (
    <>
      {[...kinds].map(([what, joints]) => (
        <span key={what} className="block">
          {joints.join(', ')}: {what}
        </span>
      ))}
    </>
  );
}
