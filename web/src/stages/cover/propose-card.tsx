import { LIFT_LIMIT_KG, panelsRemoved, type SheetChoice, USUAL_SHEET } from '@plate-fold/core/plan';
import { type Proposal, takeProposal, type Wish } from '@plate-fold/core/propose';
import { MATERIAL_IDS, MATERIALS, type MaterialId, stockThicknesses } from '@plate-fold/core/sheet';
import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import type { Job } from '../../work/job';
import { proposeInWorker } from '../../work/propose-client';

/** The options of the last suggestion, by plan. */
const asked = new Map<string, Wish & { readonly replace: boolean }>();

const Check = ({ on, name, onChange }: { on: boolean; name: string; onChange: (on: boolean) => void }) => (
  <label className="flex min-h-11 items-center gap-3 first-letter:uppercase">
    <input
      type="checkbox"
      className="size-5 shrink-0 accent-[var(--fluid)]"
      checked={on}
      onChange={e => onChange(e.target.checked)}
    />
    {name}
  </label>
);

/** Propose: what to cover and within which limits, then the laid-out set with a reason for every cut. */
export function ProposeCard(props: {
  readonly proposal?: Proposal;
  readonly onProposal: (p: Proposal | undefined) => void;
  readonly onClose: () => void;
}) {
  const { proposal, onProposal, onClose } = props;
  const facts = useFacts();
  const { units, stock: kind } = useAppSelector(s => s.view);
  const run = useRun();
  const { plan } = facts.document;
  const parts = facts.rig.components.filter(c => !c.moves);
  // what was asked for last stays asked for, as long as the plan is open
  const last = asked.get(plan.id);
  const here = new Set(parts.map(c => c.id));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    () =>
      new Set(last ? last.components.filter(c => here.has(c)) : parts.filter(c => c.protect).map(c => c.id)),
  );
  const [sheet, setSheet] = useState<SheetChoice>(
    () => last?.sheet ?? Object.values(facts.build.sheets)[0] ?? USUAL_SHEET,
  );
  const [blank, setBlank] = useState<readonly [number, number]>(last?.maxBlank ?? [2440, 1220]);
  const [lift, setLift] = useState(last?.maxLiftKg ?? plan.limits.maxLiftKg ?? LIFT_LIMIT_KG);
  const [clearance, setClearance] = useState(last?.minClearance ?? plan.limits.minClearance ?? 0);
  const [replace, setReplace] = useState(last?.replace ?? true);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [running, setRunning] = useState(false);
  const [fault, setFault] = useState<string>();
  const job = useRef<Job<Proposal> | undefined>(undefined);
  const wish = {
    components: [...chosen],
    sheet,
    maxBlank: blank,
    maxLiftKg: lift,
    minClearance: clearance > 0 ? clearance : undefined,
  };
  const layOut = async (): Promise<void> => {
    asked.set(plan.id, { ...wish, replace });
    setFault(undefined);
    setRunning(true);
    const doc = replace
      ? panelsRemoved(
          facts.document,
          plan.panels.map(p => p.id),
        )
      : facts.document;
    job.current = proposeInWorker(doc, wish, units);
    try {
      onProposal(await job.current.result);
      setLeft(new Set());
    } catch (e) {
      setFault(`No plates were suggested: ${(e as Error).message}.`);
    }
    setRunning(false);
  };
  const take = (): void => {
    if (!proposal) return;
    const ids = proposal.plates.map(p => p.panel.id).filter(id => !left.has(id));
    if (run(takeProposal, { proposal, wish, plates: ids, replace })) onClose();
  };
  const toggle = (set: ReadonlySet<string>, id: string, on: boolean): ReadonlySet<string> => {
    const next = new Set(set);
    if (on) next.add(id);
    else next.delete(id);
    return next;
  };
  const m = MATERIALS[sheet.material];
  return (
    <div className="p-4">
      <header className="mb-2 flex items-start justify-between gap-3">
        <h2 className="text-head font-bold">Suggest plates</h2>
        <button
          type="button"
          className="-mt-1.5 -mr-2 grid size-11 place-items-center rounded-edge hover:bg-paper"
          aria-label="Cancel"
          onClick={onClose}
        >
          <X size={19} aria-hidden="true" />
        </button>
      </header>
      {proposal ? (
        <>
          <p className="mb-2 text-small text-ink2">
            {proposal.plates.length} plates, drawn dashed on the map. Add all, some or none.
          </p>
          <ul className="grid gap-2">
            {proposal.plates.map(p => (
              <li key={p.panel.id} className="rounded-edge border border-scribe bg-paper px-3 pb-2">
                <Check
                  on={!left.has(p.panel.id)}
                  name={`${p.panel.name}, ${p.joints.length} bolts`}
                  onChange={on => setLeft(s => toggle(s, p.panel.id, !on))}
                />
                <ul className="list-disc pl-5 text-small leading-snug text-ink2">
                  {p.reasons.map(r => (
                    <li key={r}>{r}</li>
                  ))}
                </ul>
              </li>
            ))}
          </ul>
          {proposal.prevented.length > 0 && (
            <section className="mt-3" aria-label="Not possible">
              <h3 className="font-bold">Not possible</h3>
              <ul className="mt-1 grid gap-1.5">
                {proposal.prevented.map(p => (
                  <li
                    key={p.text}
                    className="border-l-[6px] border-marker bg-markersoft px-3 py-2 text-small first-letter:uppercase"
                  >
                    {p.text}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <div className="mt-3 grid gap-2">
            <Button look="strong" disabled={left.size >= proposal.plates.length} onClick={take}>
              Add {proposal.plates.length - left.size} of {proposal.plates.length} plates
            </Button>
            <Button onClick={() => onProposal(undefined)}>Change the options</Button>
          </div>
        </>
      ) : (
        <>
          <section aria-label="Parts to cover">
            <h3 className="font-bold">Cover</h3>
            {parts.map(c => (
              <Check
                key={c.id}
                on={chosen.has(c.id)}
                name={c.name}
                onChange={on => setChosen(s => toggle(s, c.id, on))}
              />
            ))}
          </section>
          <section aria-label="Sheet and limits" className="mt-3 grid grid-cols-2 gap-2">
            <Select<MaterialId>
              label="Material"
              value={sheet.material}
              choices={MATERIAL_IDS.map(id => ({ value: id, name: MATERIALS[id].short }))}
              onChoose={material => {
                const stock = stockThicknesses(material, kind);
                const near = stock.reduce((a, b) =>
                  Math.abs(b.thickness - sheet.thickness) < Math.abs(a.thickness - sheet.thickness) ? b : a,
                );
                setSheet({ material, ...near, finish: 'raw' });
              }}
            />
            <Select
              label="Thickness"
              value={String(sheet.thickness)}
              choices={[
                ...stockThicknesses(sheet.material, kind).map(s => ({
                  value: String(s.thickness),
                  name: s.gauge,
                })),
                ...(stockThicknesses(sheet.material, kind).some(s => s.thickness === sheet.thickness)
                  ? []
                  : [{ value: String(sheet.thickness), name: sheet.gauge ?? `${sheet.thickness} mm` }]),
              ]}
              onChoose={t => {
                const s = stockThicknesses(sheet.material, kind).find(x => String(x.thickness) === t);
                if (s) setSheet({ ...sheet, ...s });
              }}
            />
            <MeasureInput
              label="Longest blank"
              value={blank[0]}
              units={units}
              least={200}
              onEnter={v => void setBlank([v, blank[1]])}
            />
            <MeasureInput
              label="Widest blank"
              value={blank[1]}
              units={units}
              least={200}
              onEnter={v => void setBlank([blank[0], v])}
            />
            <MeasureInput
              label="One person lifts"
              value={lift}
              units={units}
              mass
              least={1}
              onEnter={v => void setLift(v)}
            />
            <MeasureInput
              label="Least ground clearance"
              value={clearance}
              units={units}
              least={0}
              onEnter={v => void setClearance(v)}
            />
          </section>
          <p className="mt-1 text-note text-ink2">{m.name}. You can change it plate by plate later.</p>
          {plan.panels.length > 0 && (
            <Check on={replace} name="replace the plates in this plan" onChange={setReplace} />
          )}
          <div className="mt-2 grid gap-2">
            {running ? (
              <>
                <p role="status">Fitting plates between crossmembers …</p>
                <Button
                  onClick={() => {
                    job.current?.cancel();
                    setRunning(false);
                  }}
                >
                  Cancel
                </Button>
              </>
            ) : (
              <Button
                look="strong"
                className="min-h-14"
                disabled={chosen.size === 0}
                onClick={() => void layOut()}
              >
                Suggest
              </Button>
            )}
          </div>
          {fault && (
            <p role="alert" className="mt-2 text-oxide">
              {fault}
            </p>
          )}
        </>
      )}
    </div>
  );
}
