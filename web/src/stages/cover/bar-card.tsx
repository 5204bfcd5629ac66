import { barCuts, barHoleWords } from '@plate-fold/core/bolt';
import { RULES } from '@plate-fold/core/checks';
import { barFace, type Crossbar, changeCrossbar, removeCrossbar } from '@plate-fold/core/plan';
import { MATERIAL_IDS, MATERIALS, type MaterialId } from '@plate-fold/core/sheet';
import { fixed, formatLength, formatMass } from '@plate-fold/core/units';
import { besideOld, crossbarMass } from '@plate-fold/core/weigh';
import { Trash2, X } from 'lucide-react';
import { FindingCard } from '../../shared/finding-card';
import { useRun } from '../../state/commands/run';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';

/** Wall that a tube gets when it stops being solid, mm: 1/8 in. */
const USUAL_WALL = 3.175;
const METALS = MATERIAL_IDS.filter(m => MATERIALS[m].family !== 'plastic');

const NOTHING = 'nothing';

/** The factory part whose place the bar takes, and how it stands beside it. */
function Replaces({ bar, onReplace }: { bar: Crossbar; onReplace: (part: string | undefined) => void }) {
  const { rig } = useFacts();
  const units = useAppSelector(s => s.view.units);
  const parts = rig.factoryParts.filter(f => f.carries !== undefined || f.section || f.id === bar.replaces);
  if (parts.length === 0) return null;
  const old = parts.find(f => f.id === bar.replaces);
  const beside = old && besideOld(bar, old);
  return (
    <section aria-label="In place of" className="mt-3">
      <span className="block text-note text-ink2">In place of</span>
      <Select
        label="In place of"
        value={bar.replaces ?? NOTHING}
        choices={[{ value: NOTHING, name: 'nothing' }, ...parts.map(f => ({ value: f.id, name: f.name }))]}
        onChoose={v => onReplace(v === NOTHING ? undefined : v)}
        className="w-full"
      />
      {beside && (
        <p className="mt-1 text-small leading-snug">
          {formatMass(Math.abs(beside.moreKg), units)} {beside.moreKg < 0 ? 'lighter' : 'heavier'} than that
          part
          {beside.modulus !== undefined && (
            <>
              , with <span className="fig">{fixed(beside.modulus, 2)}</span> of its section modulus
            </>
          )}
          . An estimate for one load from below; the vehicle maker’s part was made for more than that.
        </p>
      )}
    </section>
  );
}

/** One crossbar: what it is of, where it hangs, its holes, and what is wrong with it. */
export function BarCard({ bar, onClose }: { bar: Crossbar; onClose: () => void }) {
  const facts = useFacts();
  const units = useAppSelector(s => s.view.units);
  const run = useRun();
  const set = (part: Parameters<typeof changeCrossbar.run>[1]['part']) =>
    run(changeCrossbar, { bar: bar.id, part });
  const { section } = bar;
  const { plan } = facts.document;
  const [cut] = barCuts([bar], facts.joints, plan.holes);
  const bolts = facts.joints.filter(j => j.mount && bar.mounts.includes(j.mount.id));
  const mine = new Set([bar.id, ...bolts.map(j => j.id)]);
  const findings = useAppSelector(selectFindings).filter(f => f.about.some(id => mine.has(id)));
  return (
    <div className="p-4">
      <header className="mb-3 flex items-start justify-between gap-3">
        <div>
          <h2 className="text-head leading-tight font-bold first-letter:uppercase">{bar.name}</h2>
          <p className="text-small text-ink2">
            {cut ? formatLength(cut.length, units, true) : ''} long, {formatMass(crossbarMass(bar), units)}
          </p>
        </div>
        <button
          type="button"
          className="-mt-1.5 -mr-2 grid size-11 place-items-center rounded-edge hover:bg-paper"
          aria-label="Show the whole set"
          onClick={onClose}
        >
          <X size={19} aria-hidden="true" />
        </button>
      </header>
      <label className="block text-note text-ink2">
        Name
        <input
          key={bar.name}
          className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-2 text-lead text-ink"
          defaultValue={bar.name}
          onBlur={e => {
            const name = e.target.value.trim();
            if (name !== '' && name !== bar.name) set({ name });
          }}
          onKeyDown={e => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      </label>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <MeasureInput
          label="Width"
          value={section.width}
          units={units}
          least={10}
          most={200}
          onEnter={width => set({ section: { ...section, width } })}
        />
        <MeasureInput
          label="Height"
          value={section.height}
          units={units}
          least={5}
          most={200}
          onEnter={height => set({ section: { ...section, height } })}
        />
        <Select
          label="Bar or tube"
          value={section.wall === 'solid' ? 'solid' : 'tube'}
          choices={[
            { value: 'solid', name: 'solid bar' },
            { value: 'tube', name: 'tube' },
          ]}
          onChoose={v => set({ section: { ...section, wall: v === 'solid' ? 'solid' : USUAL_WALL } })}
        />
        {section.wall !== 'solid' && (
          <MeasureInput
            label="Wall"
            value={section.wall}
            units={units}
            least={0.8}
            most={Math.min(section.width, section.height) / 2}
            onEnter={t => set({ section: { ...section, wall: t } })}
          />
        )}
        <Select<MaterialId>
          label="Of"
          value={bar.material}
          choices={METALS.map(id => ({ value: id, name: MATERIALS[id].short }))}
          onChoose={material => set({ material })}
        />
        <MeasureInput
          label="Top above ground"
          value={barFace(bar, bar.from, 1)}
          units={units}
          least={30}
          onEnter={z => {
            const by = z - barFace(bar, bar.from, 1);
            set({
              from: [bar.from[0], bar.from[1], bar.from[2] + by],
              to: [bar.to[0], bar.to[1], bar.to[2] + by],
            });
          }}
        />
      </div>
      <Replaces bar={bar} onReplace={replaces => set({ replaces })} />
      <section aria-label="Holes of the crossbar" className="mt-3">
        <h3 className="font-bold">Cutting and drilling</h3>
        <ul className="text-small leading-snug">
          {cut?.holes.map(x => (
            <li key={x.id} className="border-b border-scribe/70 py-1.5">
              {barHoleWords(x, cut, units)}
            </li>
          ))}
        </ul>
        <p className="mt-1 text-note text-ink2">
          Choose a plate and press <b>Drill a hole</b> to bolt it to this bar.
        </p>
      </section>
      {findings.length > 0 && (
        <ul className="mt-3 grid gap-2" aria-label="Findings of the crossbar">
          {findings.map(f => (
            <FindingCard
              key={`${f.rule} ${f.about.join()} ${f.text}`}
              finding={f}
              why={RULES.find(r => r.id === f.rule)?.why}
            />
          ))}
        </ul>
      )}
      <Button
        className="mt-3 w-full"
        onClick={() => {
          run(removeCrossbar, { bar: bar.id });
          onClose();
        }}
      >
        <Trash2 size={16} aria-hidden="true" /> Delete the crossbar
      </Button>
    </div>
  );
}
