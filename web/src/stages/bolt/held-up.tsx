import type { Facts } from '@plate-fold/core/derive';
import { noteMisfit } from '@plate-fold/core/survey';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { Chips } from '../../ui/chips';
import { MeasureInput } from '../../ui/measure-input';
import { Select } from '../../ui/select';

/** How far a hole is off in one direction, and which way. */
function Off<W extends string>(props: {
  readonly label: string;
  readonly mm: number;
  readonly onMm: (mm: number) => void;
  readonly way: W;
  readonly ways: readonly [W, W];
  readonly onWay: (way: W) => void;
}) {
  const units = useAppSelector(s => s.view.units);
  return (
    <div>
      <MeasureInput
        label={props.label}
        value={props.mm}
        units={units}
        least={0}
        most={100}
        onEnter={v => props.onMm(v)}
        className="w-32"
      />
      <Chips
        label={`Which way, ${props.label.toLowerCase()}`}
        value={props.way}
        choices={props.ways.map(w => [w, w] as const)}
        onChoose={props.onWay}
      />
    </div>
  );
}

/** What a template that was held up showed, hole by hole: it goes into the survey. */
export function HeldUp({ facts }: { facts: Facts }) {
  const run = useRun();
  const holes = facts.joints.filter(
    j =>
      j.mount && j.mount.hole.kind !== 'drill' && facts.document.rig.mounts.some(m => m.id === j.mount?.id),
  );
  const [joint, setJoint] = useState(holes[0]?.id ?? '');
  const [back, setBack] = useState<'forward' | 'rearward'>('rearward');
  const [side, setSide] = useState<'left' | 'right'>('right');
  const [x, setX] = useState(0);
  const [y, setY] = useState(0);
  const [told, setTold] = useState<string>();
  if (holes.length === 0) return null;
  const note = (): void => {
    const mount = holes.find(j => j.id === joint)?.mount?.id;
    if (mount === undefined) return;
    const by = [back === 'rearward' ? x : -x, side === 'right' ? y : -y] as const;
    if (run(noteMisfit, { mount, by }) === false) return;
    setTold(`Hole ${mount} was moved, and its readings stand in the survey on Rig.`);
    setX(0);
    setY(0);
  };
  return (
    <section aria-label="A template was held up" className="border border-scribe p-3">
      <h2 className="font-semibold">Held a template up and a hole did not meet?</h2>
      <p className="mb-2 text-small text-ink2">
        Locate the cardboard by the holes that do meet. Enter how far the vehicle’s hole lies from the one
        drawn.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Select
          label="Bolt"
          value={joint}
          choices={holes.map(j => ({ value: j.id, name: j.id }))}
          onChoose={setJoint}
          className="w-32"
        />
        <Off
          label="Fore and aft"
          mm={x}
          onMm={setX}
          way={back}
          ways={['forward', 'rearward']}
          onWay={setBack}
        />
        <Off label="Across" mm={y} onMm={setY} way={side} ways={['left', 'right']} onWay={setSide} />
        <Button disabled={x === 0 && y === 0} onClick={note}>
          Put it into the survey
        </Button>
      </div>
      {told && (
        <p role="status" className="mt-2 text-small">
          {told}
        </p>
      )}
    </section>
  );
}
