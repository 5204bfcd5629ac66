import {
  EMPTY_KIT,
  type Facts,
  type KitState,
  kitComplete,
  kitGaps,
  shoppingList,
  toolRoll,
} from '@plate-fold/core';
import { useMemo } from 'react';
import { useKeepKitMutation, useKitQuery } from '../../app/api';

/** The kit of the active build, as far as it has been gone through. */
export function useKit({ document, build, joints, panels, rig }: Facts) {
  const of = { document: document.plan.id, build: build.id };
  const { data, isError } = useKitQuery(of, { refetchOnMountOrArgChange: true });
  const [keep, kept] = useKeepKitMutation();
  const parts = useMemo(() => shoppingList(joints), [joints]);
  const tools = useMemo(() => toolRoll(joints, { panels, rig }), [joints, panels, rig]);
  const kit: KitState = data ?? EMPTY_KIT;
  const gaps = kitGaps(parts, tools, kit);
  const change = (part: Partial<KitState>): void =>
    void keep({ ...of, kit: { counted: kit.counted, tried: kit.tried, ...part } });
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
    count: (name: string, n: number): void => change({ counted: { ...kit.counted, [name]: Math.max(0, n) } }),
    tried: (tool: string, on: boolean): void =>
      change({ tried: on ? [...kit.tried, tool] : kit.tried.filter(t => t !== tool) }),
  };
}
