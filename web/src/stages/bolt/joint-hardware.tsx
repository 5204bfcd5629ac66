import { GOES_THROUGH, type ResolvedJoint, SPACER_NAMES, THREADS } from '@plate-fold/core/bolt';
import { addTopPlate } from '@plate-fold/core/bracket';
import {
  CLASSES,
  changeJoints,
  FASTENER_FINISHES,
  FITS,
  growSpacers,
  HEAD_SIDES,
  HEADS,
  HOLE_CUTS,
  type HoleCut,
  type Joint,
  NUTS,
  SPACERS,
  WASHERS,
  type WasherKind,
} from '@plate-fold/core/plan';
import { memberName } from '@plate-fold/core/rig';
import type { UnitSystem } from '@plate-fold/core/units';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { Button } from '../../ui/button';
import { MeasureInput } from '../../ui/measure-input';
import { FASTENER_FINISH_NAMES, headName, NUT_NAMES, WASHER_NAMES } from '../../ui/names';
import { Select } from '../../ui/select';

/** Sets of washers in order from the head; one that a file has beside these is kept. */
const WASHER_SETS: readonly (readonly WasherKind[])[] = [
  [],
  ...WASHERS.map(w => [w]),
  ['flat', 'flat'],
  ['flat', 'lock'],
  ['fender', 'lock'],
];
const washerWords = (w: readonly WasherKind[]): string =>
  w.length === 0 ? 'no washer' : w.map(x => WASHER_NAMES[x]).join(' + ');

const CUT_NAMES: Readonly<Record<HoleCut, string>> = {
  full: 'full size',
  pilot: 'as a pilot hole, opened at fit-up',
  none: 'not at all: marked and drilled at fit-up',
};

/** Makes a joint's hole in one plate a slot: how long, and which way it lies. */
function SlotFields({
  joint,
  panel,
  mark,
  units,
  onSlots,
}: {
  joint: Joint;
  panel: string;
  mark: string;
  units: UnitSystem;
  onSlots: (slots: Joint['slots']) => void;
}) {
  const slot = joint.slots?.[panel];
  const others = Object.entries(joint.slots ?? {}).filter(([p]) => p !== panel);
  const put = (next: NonNullable<Joint['slots']>[string] | undefined): void => {
    const all = Object.fromEntries(next ? [...others, [panel, next]] : others);
    onSlots(Object.keys(all).length > 0 ? all : undefined);
  };
  return (
    <>
      <Select
        label={`Hole in plate ${mark}`}
        value={slot ? (slot.along === 90 ? 'across' : 'along') : 'round'}
        choices={[
          { value: 'round', name: 'round' },
          { value: 'along', name: 'slot, fore and aft' },
          { value: 'across', name: 'slot, across' },
        ]}
        onChoose={v =>
          put(v === 'round' ? undefined : { length: slot?.length ?? 25, along: v === 'across' ? 90 : 0 })
        }
        className={slot ? '' : 'col-span-2'}
      />
      {slot && (
        <MeasureInput
          label="Slot, end to end"
          value={slot.length}
          units={units}
          least={6}
          most={200}
          onEnter={length => put({ ...slot, length })}
        />
      )}
    </>
  );
}

/** The hardware of one joint, changed by hand: what is changed is kept from being chosen anew. */
export function JointHardware({
  joint: { id, joint, mount },
  units,
}: {
  joint: ResolvedJoint;
  units: UnitSystem;
}) {
  const run = useRun();
  const facts = useFacts();
  const marks = (p: string): string => facts.document.plan.panels.find(x => x.id === p)?.mark ?? p;
  const set = (part: Partial<Joint>): void => {
    run(changeJoints, { joints: [{ joint: id, part: { ...part, lock: true } }] });
  };
  const fastener = (part: Partial<Joint['fastener']>): void =>
    set({ fastener: { ...joint.fastener, length: 'auto', ...part } });
  const washers = joint.washers.join('+');
  const sets = WASHER_SETS.some(w => w.join('+') === washers) ? WASHER_SETS : [joint.washers, ...WASHER_SETS];
  const gives = mount?.hole.thread;
  return (
    <details className="mt-4">
      <summary className="min-h-11 py-2.5 font-bold">Change its hardware</summary>
      <div className="grid grid-cols-2 gap-2">
        <Select
          label="Head"
          value={joint.fastener.head}
          choices={HEADS.map(h => ({ value: h, name: headName(h) }))}
          onChoose={head => fastener({ head })}
          className="col-span-2"
        />
        <Select
          label="Thread"
          value={joint.fastener.thread}
          choices={[
            ...THREADS.map(t => ({
              value: t.designation,
              name: t.designation === gives ? `${t.designation} (the hole\u2019s thread)` : t.designation,
            })),
          ]}
          onChoose={thread => fastener({ thread })}
        />
        <Select
          label="Class"
          value={joint.fastener.class}
          choices={CLASSES.map(c => ({ value: c, name: c.replace('-', ' ') }))}
          onChoose={c => fastener({ class: c })}
        />
        <Select
          label="Finish"
          value={joint.fastener.finish}
          choices={FASTENER_FINISHES.map(f => ({ value: f, name: FASTENER_FINISH_NAMES[f] }))}
          onChoose={finish => fastener({ finish })}
        />
        <Select
          label="Head side"
          value={joint.headSide}
          choices={HEAD_SIDES.map(s => ({ value: s, name: `head ${s}` }))}
          onChoose={headSide => set({ headSide })}
        />
        <Select
          label="Nut"
          value={joint.nut}
          choices={NUTS.map(n => ({ value: n, name: NUT_NAMES[n] }))}
          onChoose={nut => set({ nut })}
          className="col-span-2"
        />
        <Select
          label="Washers, from the head"
          value={washers}
          choices={sets.map(w => ({ value: w.join('+'), name: washerWords(w) }))}
          onChoose={w => set({ washers: (sets.find(x => x.join('+') === w) ?? []) as WasherKind[] })}
          className="col-span-2"
        />
        <MeasureInput
          label="Spacer"
          value={joint.spacer}
          units={units}
          least={0}
          most={120}
          // what this build adds to the spacer as it is drawn stays out of the plan
          onEnter={mm => run(growSpacers, { by: { [id]: mm - joint.spacer }, lock: true })}
        />
        <Select
          label="Holes in the plates"
          value={joint.fit ?? 'normal'}
          choices={FITS.map(f => ({ value: f, name: `${f} fit` }))}
          onChoose={fit => set({ fit })}
          className="self-end"
        />
        <Select
          label="Cut by the shop"
          value={joint.cut ?? 'usual'}
          choices={[
            { value: 'usual', name: 'as the drilling method says' },
            ...HOLE_CUTS.map(c => ({ value: c, name: CUT_NAMES[c] })),
          ]}
          onChoose={c => set({ cut: c === 'usual' ? undefined : (c as HoleCut) })}
          className="col-span-2"
        />
        {joint.panels
          .filter(p => p !== joint.threadIn)
          .map(p => (
            <SlotFields
              key={p}
              joint={joint}
              panel={p}
              mark={marks(p)}
              units={units}
              onSlots={slots => set({ slots })}
            />
          ))}
        {mount && GOES_THROUGH.has(mount.hole.kind) && joint.threadIn === undefined && (
          <Button className="col-span-2" onClick={() => run(addTopPlate, { joint: id })}>
            Thread in a top plate on the {memberName(facts.rig, mount.member)}
          </Button>
        )}
        {joint.spacer > 0 && (
          <Select
            label="Spacer of"
            value={joint.spacerOf ?? 'steel'}
            choices={SPACERS.map(x => ({ value: x, name: `${SPACER_NAMES[x]} spacer` }))}
            onChoose={spacerOf => set({ spacerOf })}
            className="self-end"
          />
        )}
      </div>
    </details>
  );
}
