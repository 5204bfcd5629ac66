import {
  baseFrame,
  baseSet,
  cornerAdded,
  cornerMoved,
  cornerRemoved,
  type Facts,
  type Flange,
  flangeAdded,
  flangeChanged,
  flangeRemoved,
  freshId,
  OPENING_KINDS,
  type Opening,
  openingRemoved,
  openingSet,
  type Panel,
  panelMoved,
  toSpace,
  type UnitSystem,
  underGround,
  type Vec2,
  withPanel,
} from '@plate-fold/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useEdit } from '../../app/use-edit';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { OPENING_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';

const SMALL =
  'grid size-11 shrink-0 place-items-center self-end rounded-[4px] border border-scribe bg-paper hover:border-ink2';

interface Of {
  readonly facts: Facts;
  readonly panel: Panel;
  readonly units: UnitSystem;
}

function Place({ panel, units }: Of) {
  const edit = useEdit();
  const [x, y, z] = panel.base.origin;
  return (
    <section aria-label="Place">
      <h3 className="mb-1 font-bold">Place and tilt</h3>
      <div className="grid grid-cols-2 gap-2">
        <MeasureInput
          label="Begins behind the axle"
          value={x}
          units={units}
          onEnter={v => edit('plate moved', d => panelMoved(d, panel.id, [v - x, 0, 0]))}
        />
        <MeasureInput
          label="To the right by"
          value={y}
          units={units}
          onEnter={v => edit('plate moved', d => panelMoved(d, panel.id, [0, v - y, 0]))}
        />
        <MeasureInput
          label="Underside above ground"
          value={z}
          units={units}
          least={40}
          onEnter={v => edit('height set', d => baseSet(d, panel.id, { z: v }))}
        />
        <MeasureInput
          label="Front edge up by"
          value={panel.base.pitch}
          units={units}
          plain="°"
          least={-60}
          most={60}
          onEnter={v => edit('pitch set', d => baseSet(d, panel.id, { pitch: v }))}
        />
      </div>
    </section>
  );
}

function Corners({ panel, units }: Of) {
  const edit = useEdit();
  const frame = baseFrame(panel.base.origin, panel.base.pitch, panel.base.roll);
  return (
    <section aria-label="Corners" className="mt-4">
      <h3 className="mb-1 font-bold">
        Corners, from above{' '}
        <span className="text-[12.5px] font-normal text-ink2">
          {units === 'inch' ? 'in' : 'mm'} behind the axle, right
        </span>
      </h3>
      <ul className="grid gap-1.5">
        {panel.base.outline.map((q, i) => {
          const s = toSpace(frame, q);
          const to = (x: number, y: number): boolean =>
            edit('corner moved', d => cornerMoved(d, panel.id, i, underGround(frame, x, y)));
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the outline
            <li key={i} className="grid grid-cols-[1.2rem_1fr_1fr_auto_auto] items-center gap-1.5">
              <span className="fig text-[13px] text-ink2">{i + 1}</span>
              <MeasureInput
                label={`Corner ${i + 1} behind the axle`}
                hideLabel
                bare
                value={s[0]}
                units={units}
                onEnter={v => to(v, s[1])}
              />
              <MeasureInput
                label={`Corner ${i + 1} right of the middle`}
                hideLabel
                bare
                value={s[1]}
                units={units}
                onEnter={v => to(s[0], v)}
              />
              <button
                type="button"
                className={SMALL}
                aria-label={`Put a corner after corner ${i + 1}`}
                onClick={() => edit('corner added', d => cornerAdded(d, panel.id, i))}
              >
                <Plus size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={SMALL}
                aria-label={`Take corner ${i + 1} away`}
                onClick={() => edit('corner removed', d => cornerRemoved(d, panel.id, i))}
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function FlangeRow({ panel, units, flange, depth }: Omit<Of, 'facts'> & { flange: Flange; depth: number }) {
  const edit = useEdit();
  const where = flange.edge === 'far' ? 'on the flange before' : `edge ${flange.edge + 1}`;
  return (
    <>
      <li className="grid grid-cols-[1fr_1fr_auto_auto] gap-1.5" style={{ marginLeft: depth * 12 }}>
        <MeasureInput
          label={`Length, ${where}`}
          value={flange.length}
          units={units}
          least={5}
          onEnter={v => edit('flange changed', d => flangeChanged(d, panel.id, flange.id, { length: v }))}
        />
        <MeasureInput
          label="Up by"
          value={flange.angle}
          units={units}
          plain="°"
          least={-150}
          most={150}
          onEnter={v => edit('flange changed', d => flangeChanged(d, panel.id, flange.id, { angle: v }))}
        />
        <button
          type="button"
          className={SMALL}
          aria-label={`Put a lip on flange ${flange.id}`}
          onClick={() =>
            edit('lip added', d => flangeAdded(d, panel.id, { on: flange.id }, 30, -flange.angle))
          }
        >
          <Plus size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          className={SMALL}
          aria-label={`Take flange ${flange.id} away`}
          onClick={() => edit('flange removed', d => flangeRemoved(d, panel.id, flange.id))}
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

function Flanges(of: Of) {
  const { panel } = of;
  const edit = useEdit();
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
          <Button
            onClick={() => edit('flange added', d => flangeAdded(d, panel.id, { edge: Number(chosen) }))}
          >
            Add a flange
          </Button>
        </div>
      )}
    </section>
  );
}

function OpeningRow({ facts, panel, units, opening: o }: Of & { opening: Opening }) {
  const edit = useEdit();
  const frame = baseFrame(panel.base.origin, panel.base.pitch, panel.base.roll);
  const s = toSpace(frame, o.at);
  const set = (part: Partial<Opening>): boolean =>
    edit('opening changed', d => openingSet(d, panel.id, { ...o, ...part }));
  const at = (x: number, y: number): boolean => set({ at: underGround(frame, x, y) });
  return (
    <li className="border-t border-scribe pt-2">
      <div className="grid grid-cols-[1fr_auto] gap-1.5">
        <Select
          label="Kind of opening"
          value={o.kind}
          choices={OPENING_KINDS.map(k => ({ value: k, name: OPENING_NAMES[k] }))}
          onChoose={kind => set({ kind })}
        />
        <button
          type="button"
          className={SMALL}
          aria-label={`Take the ${OPENING_NAMES[o.kind]} out`}
          onClick={() => edit('opening removed', d => openingRemoved(d, panel.id, o.id))}
        >
          <Trash2 size={16} aria-hidden="true" />
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        {'circle' in o.shape && (
          <MeasureInput
            label="Diameter"
            value={o.shape.circle}
            units={units}
            least={3}
            onEnter={v => set({ shape: { circle: v } })}
          />
        )}
        {'rect' in o.shape && (
          <>
            <MeasureInput
              label="Along"
              value={o.shape.rect[0]}
              units={units}
              least={3}
              onEnter={v => set({ shape: { rect: [v, 'rect' in o.shape ? o.shape.rect[1] : v] } })}
            />
            <MeasureInput
              label="Across"
              value={o.shape.rect[1]}
              units={units}
              least={3}
              onEnter={v => set({ shape: { rect: ['rect' in o.shape ? o.shape.rect[0] : v, v] } })}
            />
          </>
        )}
        <Select
          label="Serves"
          value={o.serves ?? 'none'}
          choices={[
            { value: 'none', name: 'serves nothing' },
            ...facts.rig.servicePoints.map(p => ({ value: p.id, name: p.name })),
          ]}
          onChoose={v => {
            const point = facts.rig.servicePoints.find(p => p.id === v);
            set(
              point ? { serves: v, at: underGround(frame, point.at[0], point.at[1]) } : { serves: undefined },
            );
          }}
        />
        <MeasureInput label="Middle behind the axle" value={s[0]} units={units} onEnter={v => at(v, s[1])} />
        <MeasureInput
          label="Right of the middle line"
          value={s[1]}
          units={units}
          onEnter={v => at(s[0], v)}
        />
      </div>
    </li>
  );
}

function Openings(of: Of) {
  const { facts, panel } = of;
  const edit = useEdit();
  const frame = baseFrame(panel.base.origin, panel.base.pitch, panel.base.roll);
  const us = panel.base.outline.map(q => q[0]);
  const vs = panel.base.outline.map(q => q[1]);
  const middle: Vec2 = [(Math.min(...us) + Math.max(...us)) / 2, (Math.min(...vs) + Math.max(...vs)) / 2];
  const served = new Set(panel.openings.map(o => o.serves));
  const inside = facts.rig.servicePoints.filter(p => {
    const [u, v] = underGround(frame, p.at[0], p.at[1]);
    return (
      !served.has(p.id) &&
      u > Math.min(...us) &&
      u < Math.max(...us) &&
      v > Math.min(...vs) &&
      v < Math.max(...vs)
    );
  });
  const add = (o: Omit<Opening, 'id'>): boolean =>
    edit('opening added', d => openingSet(d, panel.id, { id: freshId(o.kind, panel.openings), ...o }));
  return (
    <section aria-label="Openings" className="mt-4">
      <h3 className="mb-1 font-bold">Openings</h3>
      <div className="grid gap-1.5">
        {inside.map(p => (
          <Button
            key={p.id}
            onClick={() =>
              add({
                kind: p.kind === 'oil-filter' ? 'door' : p.kind === 'converter-view' ? 'view' : 'drain',
                at: underGround(frame, p.at[0], p.at[1]),
                shape: { circle: p.opening },
                serves: p.id,
              })
            }
          >
            Open under {p.name}
          </Button>
        ))}
        <div className="grid grid-cols-2 gap-1.5">
          <Button onClick={() => add({ kind: 'stones', at: middle, shape: { circle: 25 } })}>
            Round hole
          </Button>
          <Button
            onClick={() =>
              add({ kind: 'louvers', at: middle, shape: { rect: [100, 60] }, openFraction: 0.3 })
            }
          >
            Louvers
          </Button>
        </div>
      </div>
      <ul className="mt-2 grid gap-2">
        {panel.openings.map(o => (
          <OpeningRow key={o.id} {...of} opening={o} />
        ))}
      </ul>
    </section>
  );
}

/** The chosen plate's shape in exact figures. */
export function ShapeCard(of: Of) {
  const { facts, panel } = of;
  const edit = useEdit();
  const [name, setName] = useState(panel.name);
  return (
    <div>
      <label className="mb-3 block">
        <span className="block text-[12.5px] text-ink2">Name</span>
        <input
          value={name}
          maxLength={60}
          onChange={e => setName(e.target.value)}
          onBlur={() => {
            const next = name.trim();
            if (next === '') setName(panel.name);
            else if (next !== panel.name)
              edit('plate renamed', d => withPanel(d, panel.id, p => ({ ...p, name: next })));
          }}
          className="min-h-11 w-full rounded-[4px] border border-scribe bg-paper px-2"
        />
      </label>
      <Place {...of} />
      <Corners {...of} />
      <Flanges {...of} />
      <Openings {...of} />
      <section aria-label="Guards" className="mt-4">
        <h3 className="mb-1 font-bold">Guards</h3>
        <ul>
          {facts.rig.components
            .filter(c => c.protect || panel.guards.includes(c.id))
            .map(c => (
              <li key={c.id}>
                <label className="flex min-h-11 items-center gap-3">
                  <input
                    type="checkbox"
                    className="size-5 accent-[var(--fluid)]"
                    checked={panel.guards.includes(c.id)}
                    onChange={e =>
                      edit('guards changed', d =>
                        withPanel(d, panel.id, p => ({
                          ...p,
                          guards: e.target.checked ? [...p.guards, c.id] : p.guards.filter(g => g !== c.id),
                        })),
                      )
                    }
                  />
                  {c.name}
                </label>
              </li>
            ))}
        </ul>
      </section>
    </div>
  );
}
