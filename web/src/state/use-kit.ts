import {
  EMPTY_KIT,
  hardwareList,
  type KitChange,
  type KitState,
  kitComplete,
  kitGaps,
  toolList,
} from '@plate-fold/core/bolt';
import type { Assembly } from '@plate-fold/core/derive';
import { useMemo } from 'react';
import { useChangeKitMutation, useKitQuery } from './api';

/** The kit of a build, or of what of it is fitted by the end of a phase, as far as it has been gone through. */
export function useKit({ document, build, joints, panels, rig }: Assembly) {
  const of = { document: document.plan.id, build: build.id };
  const { data, isError } = useKitQuery(of, { refetchOnMountOrArgChange: true });
  const [keep, kept] = useChangeKitMutation();
  const parts = useMemo(() => hardwareList(joints), [joints]);
  const tools = useMemo(() => toolList(joints, { panels, rig }), [joints, panels, rig]);
  const kit: KitState = data ?? EMPTY_KIT;
  const gaps = kitGaps(parts, tools, kit);
  const change = (made: KitChange): void => void keep({ ...of, change: made });
  return {
    parts,
    tools,
    kit,
    gaps,
    complete: kitComplete(gaps),
    known: data !== undefined,
    fault:
      isError || kept.isError
        ? 'The server does not answer: what you tick is not kept. Try again.'
        : undefined,
    /** one more, one less */
    add: (name: string, n: number): void => change({ add: { [name]: n } }),
    /** counted through: so many there are */
    count: (name: string, n: number): void => change({ set: { [name]: n } }),
    tried: (tool: string, on: boolean): void => change({ tried: { [tool]: on } }),
  };
}
