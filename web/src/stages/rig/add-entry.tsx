import { THREADS } from '@plate-fold/core/bolt';
import { boxOf, type Polygon, type Vec2 } from '@plate-fold/core/geometry';
import { PLAIN_HOLES, type PlanDocument } from '@plate-fold/core/plan';
import { COMPONENT_KINDS, type ComponentKind, HOLE_KINDS, type HoleKind } from '@plate-fold/core/rig';
import type { UnitSystem } from '@plate-fold/core/units';
import { spoken } from '@plate-fold/core/units';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { MeasureInput } from '../../ui/measure-input';
import { HOLE_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';

/** A part or a hole that is known but for its place on the map. */
export type Adding =
  | {
      readonly what: 'part';
      readonly kind: ComponentKind;
      readonly name: string;
      readonly z: number;
      readonly tall: number;
    }
  | { readonly what: 'hole'; readonly kind: HoleKind; readonly thread: string; readonly diameter: number };

/** Asks what is to be added before it is placed on the map: kind, name and heights of a part, kind and thread of a hole. */
export function AddEntry(props: {
  readonly what?: 'part' | 'hole';
  readonly doc: PlanDocument;
  readonly units: UnitSystem;
  readonly onPlace: (a: Adding) => void;
  readonly onClose: () => void;
}) {
  const { what, doc, units } = props;
  const lowest = Math.min(
    ...doc.rig.components.map(c => c.zBottom),
    ...doc.rig.members.map(m => m.zBottom),
    400,
  );
  const [kind, setKind] = useState<ComponentKind>('transmission');
  const [name, setName] = useState('');
  const [z, setZ] = useState(lowest);
  const [tall, setTall] = useState(200);
  const [hole, setHole] = useState<HoleKind>('captive-nut');
  const [thread, setThread] = useState('M10x1.5');
  const [diameter, setDiameter] = useState(11);
  return (
    <Dialog
      open={what !== undefined}
      onClose={props.onClose}
      title={what === 'hole' ? 'Add a hole' : 'Add a part'}
      about={
        what === 'hole'
          ? 'Then tap its place on the map. It goes into the member above it.'
          : 'Then draw its outline on the map, seen from below.'
      }
    >
      {what === 'part' ? (
        <div className="grid grid-cols-2 gap-2">
          <Select
            label="Kind of part"
            value={kind}
            choices={COMPONENT_KINDS.map(k => ({ value: k, name: spoken(k) }))}
            onChoose={setKind}
            className="col-span-2"
          />
          <label className="col-span-2 block text-note text-ink2">
            Name
            <input
              className="min-h-11 w-full rounded-edge border border-scribe bg-paper px-2 text-lead text-ink"
              value={name}
              placeholder={spoken(kind)}
              onChange={e => setName(e.target.value)}
            />
          </label>
          <MeasureInput
            label="Bottom above ground"
            value={z}
            units={units}
            least={20}
            onEnter={v => void setZ(v)}
          />
          <MeasureInput
            label="How tall"
            value={tall}
            units={units}
            least={5}
            onEnter={v => void setTall(v)}
          />
        </div>
      ) : (
        <div className="grid grid-cols-2 gap-2">
          <Select
            label="Kind of hole"
            value={hole}
            choices={HOLE_KINDS.map(k => ({ value: k, name: HOLE_NAMES[k] }))}
            onChoose={setHole}
            className="col-span-2"
          />
          {PLAIN_HOLES.has(hole) ? (
            hole !== 'drill' && (
              <MeasureInput
                label="Diameter"
                value={diameter}
                units={units}
                least={3}
                most={60}
                onEnter={v => void setDiameter(v)}
              />
            )
          ) : (
            <Select
              label="Thread"
              value={thread}
              choices={THREADS.map(t => ({ value: t.designation, name: t.designation }))}
              onChoose={setThread}
            />
          )}
        </div>
      )}
      <Button
        look="strong"
        className="mt-3 min-h-12 w-full"
        onClick={() =>
          props.onPlace(
            what === 'hole'
              ? { what: 'hole', kind: hole, thread, diameter }
              : { what: 'part', kind, name, z, tall },
          )
        }
      >
        Place it on the map
      </Button>
    </Dialog>
  );
}

/** The entry that was added last, as the map chooses it. */
export const lastOf = (doc: PlanDocument, what: Adding['what']) =>
  what === 'part'
    ? { list: 'components' as const, id: doc.rig.components.at(-1)?.id ?? '' }
    : { list: 'mounts' as const, id: doc.rig.mounts.at(-1)?.id ?? '' };

/** A drawn outline to the whole millimeter. */
export const rounded = (o: Polygon): Polygon => {
  const { min } = boxOf(o);
  return Number.isFinite(min[0]) ? o.map(([x, y]): Vec2 => [Math.round(x), Math.round(y)]) : o;
};
