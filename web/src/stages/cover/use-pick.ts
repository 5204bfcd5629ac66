import { attached } from '@plate-fold/core/bolt';
import { assemble } from '@plate-fold/core/derive';
import { contains, distance2, type Vec2 } from '@plate-fold/core/geometry';
import {
  type BarEnd,
  barEnd,
  crossbarAdded,
  holeDrilled,
  newHole,
  type PlanDocument,
} from '@plate-fold/core/plan';
import type { Result } from '@plate-fold/core/units';
import { useState } from 'react';
import { useFacts } from '../../state/derived';
import { useDo } from '../../state/store';
import { useEdit } from '../../state/use-edit';
import { noticeGiven } from '../../state/view-slice';

/** What a tap on the map is for. */
export type Pick = 'bar' | 'hole';

/** A plate bolted at a place: to the hole there, or to a new one in the member or crossbar over it. */
function boltedAt(doc: PlanDocument, panel: string, at: Vec2, reach: number): Result<PlanDocument> {
  const drawn = doc.plan.builds[0]?.id;
  const { rig, panels } = assemble(doc, drawn);
  const near = rig.mounts
    .map(m => ({ m, off: distance2([m.at[0], m.at[1]], at) }))
    .sort((a, b) => a.off - b.off)[0];
  if (near && near.off <= reach) return attached(doc, rig, panels, near.m.id, panel);
  const over = rig.members.filter(m => contains(m.footprint, at)).sort((a, b) => a.zBottom - b.zBottom)[0];
  if (!over) return { ok: false, fault: 'there is no member and no crossbar over that place to drill' };
  const hole = newHole(doc, over.id, [at[0], at[1], over.zBottom]);
  const next = holeDrilled(doc, hole);
  return attached(next, assemble(next, drawn).rig, panels, hole.id, panel);
}

/** Taps on the map that lay a crossbar (its two ends, one after the other) or bolt the chosen plate at a new hole. */
export function usePick(panel: string | undefined, onBar: (id: string) => void, onDone: () => void) {
  const facts = useFacts();
  const edit = useEdit();
  const dispatch = useDo();
  const [first, setFirst] = useState<BarEnd>();
  const pick = (what: Pick, at: Vec2, reach: number): void => {
    if (what === 'hole') {
      if (panel !== undefined && edit('hole drilled', doc => boltedAt(doc, panel, at, reach))) onDone();
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
    let id = '';
    const made = edit('crossbar added', doc => {
      const r = crossbarAdded(doc, first, end.value);
      if (!r.ok) return r;
      id = r.value.id;
      return r.value.document;
    });
    setFirst(undefined);
    if (made) {
      onBar(id);
      onDone();
    }
  };
  return {
    pick,
    first: first && ([first.hole.at[0], first.hole.at[1]] as Vec2),
    reset: () => setFirst(undefined),
  };
}
