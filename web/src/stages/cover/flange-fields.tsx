import { addFlange, changeFlanges, type Flange, removeFlange } from '@plate-fold/core/plan';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';
import { type Of, SMALL } from './shape-parts';

function FlangeRow({ panel, units, flange, depth }: Omit<Of, 'facts'> & { flange: Flange; depth: number }) {
  const run = useRun();
  const change = (part: Parameters<typeof changeFlanges.run>[1]['part']) =>
    run(changeFlanges, { panel: panel.id, flanges: [flange.id], part });
  const where = flange.edge === 'far' ? 'on the flange before' : `edge ${flange.edge + 1}`;
  return (
    <>
      <li className="grid grid-cols-[1fr_1fr_auto_auto] gap-1.5" style={{ marginLeft: depth * 12 }}>
        <MeasureInput
          label={`Length, ${where}`}
          value={flange.length}
          units={units}
          least={5}
          onEnter={v => change({ length: v })}
        />
        <MeasureInput
          label="Up by"
          value={flange.angle}
          units={units}
          plain="°"
          least={-150}
          most={150}
          onEnter={v => change({ angle: v })}
        />
        <button
          type="button"
          className={SMALL}
          aria-label={`Add a lip to flange ${flange.id}`}
          onClick={() =>
            run(addFlange, { panel: panel.id, where: { on: flange.id }, length: 30, angle: -flange.angle })
          }
        >
          <Plus size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          className={SMALL}
          aria-label={`Delete flange ${flange.id}`}
          onClick={() => run(removeFlange, { panel: panel.id, flange: flange.id })}
        >
          <Trash2 size={16} aria-hidden="true" />
        </button>
      </li>
      {flange.flanges?.map(f => (
        <FlangeRow key={f.id} panel={panel} units={units} flange={f} depth={depth + 1} />
      ))}
    </>
  );
}

/** Flanges of the chosen plate: on its edges, and on one another. */
export function Flanges(of: Of) {
  const { panel } = of;
  const run = useRun();
  const taken = new Set(panel.flanges.map(f => f.edge));
  const free = panel.base.outline.map((_, i) => i).filter(i => !taken.has(i));
  const [edge, setEdge] = useState('');
  const chosen = free.includes(Number(edge)) && edge !== '' ? edge : String(free[0] ?? '');
  return (
    <section aria-label="Flanges" className="mt-4">
      <h3 className="mb-1 font-bold">Flanges</h3>
      <ul className="grid gap-1.5">
        {panel.flanges.map(f => (
          <FlangeRow key={f.id} panel={panel} units={of.units} flange={f} depth={0} />
        ))}
      </ul>
      {free.length > 0 && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Select
            label="Edge for a new flange"
            value={chosen}
            choices={free.map(i => ({ value: String(i), name: `edge ${i + 1}` }))}
            onChoose={setEdge}
          />
          <Button onClick={() => run(addFlange, { panel: panel.id, where: { edge: Number(chosen) } })}>
            Add a flange
          </Button>
        </div>
      )}
    </section>
  );
}
