import { undersideAt } from '@plate-fold/core/cover';
import type { Facts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { strikeForce, wishOf } from '@plate-fold/core/strike';
import { useEffect, useMemo, useState } from 'react';
import { found, remember, wishKey } from '../../state/strikes/answers';
import { strikeInPool } from '../../work/strike-pool';

/** The plate that lies lowest under a place; undefined where there is none. */
export function plateUnder(facts: Facts, [x, y]: Vec2): string | undefined {
  const under = facts.panels.flatMap(p => {
    const z = undersideAt(p, x, y);
    return z === undefined ? [] : [{ id: p.panel.id, z }];
  });
  return under.sort((a, b) => a.z - b.z)[0]?.id;
}

/** The dent Strike foresees at a place with half the heavier axle set down there, mm; undefined while it is computed, null where it finds none. */
export function useForeseen(
  facts: Facts,
  place: Vec2 | undefined,
  panel: string | undefined,
): number | null | undefined {
  const folded = facts.panels.find(p => p.panel.id === panel);
  const [, setCount] = useState(0);
  const asked = useMemo(() => {
    if (!place || !folded) return undefined;
    const wish = wishOf(facts, folded, strikeForce(facts.rig.rig, 'set-down'), { at: place });
    return { key: wishKey(wish), wish };
  }, [facts, folded, place]);
  useEffect(() => {
    if (!asked || found(asked.key)) return;
    strikeInPool({ ...asked, soon: true }, answer => {
      remember(asked.key, answer);
      setCount(n => n + 1);
    });
  }, [asked]);
  if (!asked) return undefined;
  const answer = found(asked.key);
  if (!answer) return undefined;
  return answer.ok ? (answer.value.dentMm ?? null) : null;
}
