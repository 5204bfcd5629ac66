import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { strikeForce, wishOf } from '@plate-fold/core/strike';
import { useEffect, useMemo } from 'react';
import { found, useAnswers, useAsker } from '../../state/strikes/store';
import { wishKey } from '../../state/strikes/wish-key';

/** The dent Strike foresees at a place with half the heavier axle set down there, mm; undefined while it is computed, null where it finds none. */
export function useForeseen(
  facts: Facts,
  place: Vec2 | undefined,
  panel: string | undefined,
): number | null | undefined {
  const folded = facts.panels.find(p => p.panel.id === panel);
  const asker = useAsker();
  useAnswers();
  const asked = useMemo(() => {
    if (!place || !folded) return undefined;
    const wish = wishOf(facts, folded, strikeForce(facts.rig.rig, 'set-down'), { at: place });
    return { key: wishKey(wish), wish };
  }, [facts, folded, place]);
  useEffect(() => {
    if (asked) asker.ask({ ...asked, soon: true });
    return asker.forget;
  }, [asked, asker]);
  if (!asked) return undefined;
  const answer = found(asked.key);
  if (!answer) return undefined;
  return answer.ok ? (answer.value.dentMm ?? null) : null;
}
