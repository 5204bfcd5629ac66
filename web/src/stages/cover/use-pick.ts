import { boltAt, type ResolvedJoint } from '@plate-fold/core/bolt';
import { addBracket } from '@plate-fold/core/bracket';
import { plateUnder } from '@plate-fold/core/cover';
import { distance2, type Vec2 } from '@plate-fold/core/geometry';
import { addCrossbar, type BarEnd, barEnd, type PlanDocument } from '@plate-fold/core/plan';
import type { Mount, PresentRig } from '@plate-fold/core/rig';
import { useState } from 'react';
import { useRun } from '../../state/commands/run';
import { useFacts } from '../../state/derived';
import { useAppDispatch } from '../../state/store';
import { noticeGiven, panelSelected } from '../../state/view-slice';

/** Holes of the vehicle that no bolt is in yet. */
export const freeHoles = ({ rig, joints }: Holed): readonly Mount[] => {
  const taken = new Set(joints.map(j => j.mount?.id));
  return rig.mounts.filter(m => m.condition !== 'blocked' && !taken.has(m.id));
};
type Holed = { readonly rig: PresentRig; readonly joints: readonly ResolvedJoint[] };

/** What a tap on the map is for. */
export type Pick = 'bar' | 'hole' | 'bracket';

/** Taps on the map that lay a crossbar (its two ends, one after the other), bolt the chosen plate at a new hole, or hang a bracket from a hole to a plate. */
export function usePick(panel: string | undefined, onBar: (id: string) => void, onDone: () => void) {
  const facts = useFacts();
  const run = useRun();
  const dispatch = useAppDispatch();
  const [first, setFirst] = useState<BarEnd>();
  const [from, setFrom] = useState<Mount>();
  const hung = (after: PlanDocument | false): void => {
    if (!after) return;
    setFrom(undefined);
    dispatch(panelSelected(after.plan.panels.at(-1)?.id));
    onDone();
  };
  /** first the hole of the vehicle, then the place on a plate or a second hole */
  const bracket = (at: Vec2, reach: number): void => {
    const near = freeHoles(facts)
      .map(m => ({ m, off: distance2([m.at[0], m.at[1]], at) }))
      .sort((a, b) => a.off - b.off)[0];
    if (!from) {
      if (near && near.off <= 2 * reach) setFrom(near.m);
      else dispatch(noticeGiven('There is no free hole there: press one that is ringed.'));
      return;
    }
    // a second hole: a hat between both, bolted to the plate in its middle
    if (near && near.m !== from && near.off <= reach) {
      const middle: Vec2 = [(from.at[0] + near.m.at[0]) / 2, (from.at[1] + near.m.at[1]) / 2];
      const plate = plateUnder(facts.plates, middle);
      if (plate === undefined) dispatch(noticeGiven('There is no plate between those two holes.'));
      else hung(run(addBracket, { mount: from.id, second: near.m.id, panel: plate, at: middle }));
      return;
    }
    const under = plateUnder(facts.plates, at);
    if (under === undefined) {
      dispatch(noticeGiven('There is no plate there: press the plate that the bracket is to carry.'));
      return;
    }
    hung(run(addBracket, { mount: from.id, panel: under, at }));
  };
  const pick = (what: Pick, at: Vec2, reach: number): void => {
    if (what === 'hole') {
      if (panel !== undefined && run(boltAt, { panel, at, reach })) onDone();
      return;
    }
    if (what === 'bracket') {
      bracket(at, reach);
      return;
    }
    const end = barEnd(facts.document, facts.rig, at, reach);
    if (!end.ok) {
      dispatch(noticeGiven(end.fault));
      return;
    }
    if (!first) {
      setFirst(end.value);
      return;
    }
    const after = run(addCrossbar, { ends: [first, end.value] });
    setFirst(undefined);
    if (after) {
      onBar(after.plan.crossbars.at(-1)?.id ?? '');
      onDone();
    }
  };
  return {
    pick,
    first: first
      ? ([first.hole.at[0], first.hole.at[1]] as Vec2)
      : from && ([from.at[0], from.at[1]] as Vec2),
    reset: () => {
      setFirst(undefined);
      setFrom(undefined);
    },
  };
}
