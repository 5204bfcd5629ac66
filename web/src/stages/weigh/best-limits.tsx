import { HEARD_BELOW, leastSteelOf } from '@plate-fold/core/checks';
import { DENT_UNLESS_SET, GOALS, type Goal } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { type Limits, setLimits } from '@plate-fold/core/plan';
import {
  EXPOSURES,
  type Exposure,
  LEAST_STEEL,
  leastThickness,
  MATERIAL_IDS,
  MATERIALS,
} from '@plate-fold/core/sheet';
import { fixed, formatLength, formatMass, type UnitSystem } from '@plate-fold/core/units';
import { useRun } from '../../state/commands/run';
import { Chips } from '../../ui/chips';
import { MeasureInput } from '../../ui/measure-input';

export const GOAL_NAMES: Readonly<Record<Goal, string>> = {
  mass: 'lightest',
  cost: 'cheapest',
  gap: 'most clearance',
  stiff: 'stiffest',
};

/** What a strike has to leave to the parts; any other figure in a file is kept. */
const GAPS: readonly (readonly [string, string?])[] = [
  ['room', 'full clearance at every part'],
  ['5'],
  ['0', 'no contact'],
];

const EXPOSURE_NAMES: Readonly<Record<Exposure, string>> = {
  tank: 'Least steel under a fuel tank',
  hits: 'Least steel where it takes hits',
  deters: 'Least steel where it only deters',
};

/** What the best build is best at, and the limits it keeps; the limits are the plan's own. */
export function BestLimits({
  facts,
  units,
  goal,
  onGoal,
}: {
  facts: Facts;
  units: UnitSystem;
  goal: Goal;
  onGoal: (g: Goal) => void;
}) {
  const run = useRun();
  const { limits } = facts.document.plan;
  const set = (part: Limits, gone?: keyof Limits): void => {
    run(setLimits, { part, ...(gone ? { drop: gone } : {}) });
  };
  const least = leastSteelOf(limits);
  const allowed = limits.materials ?? MATERIAL_IDS;
  const sheets = (['any', '1', '2', '3'] as const).find(n => n === String(limits.maxSheets)) ?? 'any';
  const gap = GAPS.find(([v]) => v === (limits.minGap === undefined ? 'room' : String(limits.minGap)))?.[0];
  const said = [
    limits.minGap === undefined
      ? 'full clearance at every part'
      : limits.minGap === 0
        ? 'no contact'
        : `leaves ${formatLength(limits.minGap, units)}`,
    `dent ${formatLength(limits.maxDent ?? DENT_UNLESS_SET, units)} at most`,
    ...(limits.maxLiftKg === undefined ? [] : [`one person lifts ${formatMass(limits.maxLiftKg, units)}`]),
    limits.budget === undefined ? 'no budget' : `$${fixed(limits.budget, 0)} total`,
    ...(limits.maxTotalKg === undefined ? [] : [`plates ${formatMass(limits.maxTotalKg, units)} together`]),
    (limits.minRing ?? HEARD_BELOW) > 0 ? 'no drumming' : 'drumming allowed',
    limits.least?.off ? 'any thickness' : 'no thinner than is usual',
    ...(limits.materials ? [`of ${limits.materials.map(m => MATERIALS[m].short).join(', ')}`] : []),
  ];
  return (
    <div className="grid gap-1">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Chips
          label="Best at"
          value={goal}
          choices={GOALS.map(g => [g, GOAL_NAMES[g]] as const)}
          onChoose={onGoal}
        />
        <Chips
          label="Different sheets at most"
          value={sheets}
          choices={(['any', '1', '2', '3'] as const).map(
            n => [n, n === 'any' ? 'any sheets' : `${n} at most`] as const,
          )}
          onChoose={n => (n === 'any' ? set({}, 'maxSheets') : set({ maxSheets: Number(n) }))}
        />
      </div>
      <details>
        <summary className="min-h-11 py-2.5">
          <b>Limits</b>: {said.join(', ')}
        </summary>
        <div className="mb-2 flex flex-wrap items-center gap-x-3">
          <span className="text-note text-ink2">Clearance under a strike</span>
          <Chips
            label="Clearance under a strike"
            value={gap ?? ''}
            choices={GAPS.map(([v, name]) => [v, name ?? formatLength(Number(v), units)] as const)}
            onChoose={v => (v === 'room' ? set({}, 'minGap') : set({ minGap: Number(v) }))}
          />
        </div>
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <MeasureInput
            label="Dent at most"
            value={limits.maxDent ?? DENT_UNLESS_SET}
            units={units}
            least={0}
            most={200}
            onEnter={maxDent => set({ maxDent })}
            className="w-32"
          />
          <MeasureInput
            label="One person lifts (0: no limit)"
            value={limits.maxLiftKg ?? 0}
            units={units}
            mass
            least={0}
            most={200}
            onEnter={kg => (kg === 0 ? set({}, 'maxLiftKg') : set({ maxLiftKg: kg }))}
            className="w-44"
          />
          <MeasureInput
            label="All plates weigh (0: no limit)"
            value={limits.maxTotalKg ?? 0}
            units={units}
            mass
            least={0}
            most={1000}
            onEnter={kg => (kg === 0 ? set({}, 'maxTotalKg') : set({ maxTotalKg: kg }))}
            className="w-44"
          />
          <MeasureInput
            label="Budget (0: none)"
            plain="$"
            value={limits.budget ?? 0}
            units={units}
            least={0}
            most={1e6}
            onEnter={budget => (budget === 0 ? set({}, 'budget') : set({ budget }))}
            className="w-36"
          />
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-6 accent-[var(--fluid)]"
              checked={(limits.minRing ?? HEARD_BELOW) > 0}
              onChange={e => (e.target.checked ? set({}, 'minRing') : set({ minRing: 0 }))}
            />
            no drumming
          </label>
        </div>
        <label className="mt-1 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-6 accent-[var(--fluid)]"
            checked={!limits.least?.off}
            onChange={e => {
              const { off: _, ...own } = limits.least ?? {};
              if (!e.target.checked) set({ least: { ...own, off: true } });
              else if (Object.keys(own).length === 0) set({}, 'least');
              else set({ least: own });
            }}
          />
          no thinner than is usual (10 gauge under a fuel tank, 12 where it takes hits, 16 where it only
          deters; common practice, no source)
        </label>
        {!limits.least?.off && (
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
            {EXPOSURES.map(d => (
              <MeasureInput
                key={d}
                label={`${EXPOSURE_NAMES[d]} (aluminum ${formatLength(leastThickness(least[d], 'aluminum') ?? 0, units, true)})`}
                value={least[d]}
                units={units}
                least={0}
                most={50}
                onEnter={mm => {
                  const { [d]: _, ...own } = limits.least ?? {};
                  const next = Math.abs(mm - LEAST_STEEL[d]) < 0.01 ? own : { ...own, [d]: mm };
                  if (Object.keys(next).length === 0) set({}, 'least');
                  else set({ least: next });
                }}
                className="w-72"
              />
            ))}
          </div>
        )}
        <fieldset className="mt-2 flex flex-wrap gap-x-4">
          <legend className="text-note text-ink2">Allowed sheet</legend>
          {MATERIAL_IDS.map(m => (
            <label key={m} className="flex min-h-11 items-center gap-2 first-letter:uppercase">
              <input
                type="checkbox"
                className="size-6 accent-[var(--fluid)]"
                checked={allowed.includes(m)}
                disabled={allowed.length === 1 && allowed.includes(m)}
                onChange={e => {
                  const next = MATERIAL_IDS.filter(x => (x === m ? e.target.checked : allowed.includes(x)));
                  if (next.length === MATERIAL_IDS.length) set({}, 'materials');
                  else set({ materials: next });
                }}
              />
              {MATERIALS[m].short}
            </label>
          ))}
        </fieldset>
      </details>
    </div>
  );
}
