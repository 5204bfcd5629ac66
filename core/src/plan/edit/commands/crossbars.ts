import type { Vec2 } from '../../../geometry';
import { ok } from '../../../units';
import type { Crossbar, PlanDocument } from '../../plan';
import { presentOf } from '../../present';
import { command } from '../command';
import {
  type BarEnd,
  barEnd,
  crossbarAdded,
  crossbarEnded,
  crossbarRemoved,
  crossbarSet,
} from '../crossbars';

const named = (doc: PlanDocument, id: string): string =>
  doc.plan.crossbars.find(c => c.id === id)?.name ?? id;

/** Between two ends; `z` is the height of its axis, mm, where it hangs lower than its holes let it. */
export const addCrossbar = command<{
  readonly ends: readonly [BarEnd, BarEnd];
  readonly part?: Partial<Pick<Crossbar, 'name' | 'section' | 'material'>>;
  readonly z?: number;
}>({
  id: 'crossbar.add',
  label: () => 'add a crossbar',
  run: (doc, { ends, part, z }) => {
    const made = crossbarAdded(doc, ends[0], ends[1], part);
    if (!made.ok) return made;
    const { document, id } = made.value;
    const bar = document.plan.crossbars.find(c => c.id === id);
    return ok(
      z === undefined || !bar
        ? document
        : crossbarSet(document, id, { from: [bar.from[0], bar.from[1], z], to: [bar.to[0], bar.to[1], z] }),
    );
  },
});

export const changeCrossbar = command<{
  readonly bar: string;
  readonly part: Partial<Omit<Crossbar, 'id' | 'mounts'>>;
}>({
  id: 'crossbar.change',
  label: (doc, { bar }) => `change ${named(doc, bar)}`,
  run: (doc, { bar, part }) => crossbarSet(doc, bar, part),
});

/** Up by so much, mm. */
export const raiseCrossbar = command<{ readonly bar: string; readonly by: number }>({
  id: 'crossbar.raise',
  label: (doc, { bar }) => `move ${named(doc, bar)}`,
  run: (doc, { bar, by }) => {
    const now = doc.plan.crossbars.find(c => c.id === bar);
    return now && by !== 0
      ? crossbarSet(doc, bar, {
          from: [now.from[0], now.from[1], now.from[2] + by],
          to: [now.to[0], now.to[1], now.to[2] + by],
        })
      : doc;
  },
});

/** One end to the hole nearest to a place within `reach` mm, or to a new one in the member over it. */
export const moveBarEnd = command<{
  readonly bar: string;
  readonly end: 0 | 1;
  readonly at: Vec2;
  readonly reach: number;
}>({
  id: 'crossbar.end',
  label: (doc, { bar }) => `move an end of ${named(doc, bar)}`,
  run: (doc, { bar, end, at, reach }) => {
    const to = barEnd(doc, presentOf(doc), at, reach);
    return to.ok ? crossbarEnded(doc, bar, end, to.value) : to;
  },
});

export const removeCrossbar = command<{ readonly bar: string }>({
  id: 'crossbar.remove',
  label: (doc, { bar }) => `delete ${named(doc, bar)}`,
  run: (doc, { bar }) => crossbarRemoved(doc, bar),
});
