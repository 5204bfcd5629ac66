import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { pinchCount } from './pinch';
import type { SheetScale } from './sheet-scale';
import { useDrop } from './use-drop';

type Spot = readonly [number, number];

let groups = 0;
/** A new name for a run of arrow keys on one thing, which is undone as one. */
const newGroup = (): string => `keys ${++groups}`;
const KEYS_TOGETHER_MS = 1200;
/** A press that moves no further than this is a tap, px. */
const TAP_PX = 4;

/** Where on a drawing a place of the vehicle is, and which way its arrow keys go. */
export interface Plane {
  /** place, mm, under a point of the drawing, px */
  readonly at: (px: number, py: number) => Spot;
  /** mm along the first axis to the right on the screen, along the second up */
  readonly right: -1 | 0 | 1;
  readonly up: -1 | 1;
}
/** The map: along the vehicle and across it. */
export const mapPlane = (scale: SheetScale, height: number): Plane => ({
  at: (px, py) => [scale.xAt(px), scale.yAt(py, height)],
  right: scale.frontAtLeft ? 1 : -1,
  up: scale.rightAtTop ? 1 : -1,
});
/** The side view, where things are moved up and down only: the second of a place is its height. */
export const sidePlane = (zAt: (px: number) => number): Plane => ({
  at: (_, py) => [0, zAt(py)],
  right: 0,
  up: 1,
});

/** What is held in the hand: shown while it moves, made when it is let go, forgotten on Escape or by a second finger. */
export interface Hand<C> {
  readonly show: (change: C) => void;
  readonly letGo: () => void;
  readonly forget: () => void;
}

/** What a thing on a drawing that can be held does when it is moved, mm. */
export interface Grip<C> {
  /** the change that brings it from where it stood to a place */
  readonly to?: (x: number, y: number, from: Spot) => C | undefined;
  /** nudged by keys; what is nudged in one go is one group */
  readonly by?: (dx: number, dy: number, group: string) => void;
  readonly onHold?: () => void;
  readonly onRemove?: () => void;
  readonly onEnter?: () => void;
  readonly onLetGo?: () => void;
}

interface Held {
  readonly box: DOMRect;
  /** where it stood when it was taken, and how far off it was touched */
  readonly from: Spot;
  readonly off: Spot;
}

/**
 * Makes things on a drawing movable by mouse, finger and keys. Arrow keys nudge 1 mm, with Shift 10 mm, in the direction seen on the
 * screen. A grip is held relative to where it was touched, so nothing jumps under the finger.
 */
export function useGrip<C>(plane: Plane, hand: Hand<C>) {
  const keys = useRef({ group: '', at: 0, what: '' });
  const drop = useDrop();
  /** pinches there had been when the last thing was touched */
  const pinches = useRef(0);
  const bind = useDrag<PointerEvent>(
    ({ args, first, last, initial, xy, event, memo, cancel, canceled, tap }): Held | undefined => {
      const [grip, at] = args as [Grip<C>, Spot];
      if (tap) return undefined;
      let held = memo as Held | undefined;
      if (first || !held) {
        const of = event.currentTarget as SVGElement;
        const box = (of.ownerSVGElement ?? of).getBoundingClientRect();
        const [x, y] = plane.at(initial[0] - box.left, initial[1] - box.top);
        held = { box, from: at, off: [x - at[0], y - at[1]] };
        drop.current = cancel;
      }
      if (last) {
        drop.current = undefined;
        if (canceled) hand.forget();
        else hand.letGo();
        grip.onLetGo?.();
        return held;
      }
      // two fingers zoom: what the first one took stands where it stood
      if (pinchCount() !== pinches.current) {
        cancel();
        return held;
      }
      const [x, y] = plane.at(xy[0] - held.box.left, xy[1] - held.box.top);
      const change = grip.to?.(x - held.off[0], y - held.off[1], held.from);
      if (change !== undefined) hand.show(change);
      return held;
    },
    { threshold: TAP_PX, filterTaps: true, pointer: { capture: true, keys: false } },
  );
  return (what: string, grip: Grip<C>, at: Spot) => {
    const drag = bind(grip, at);
    return {
      ...drag,
      onPointerDown: (e: PointerEvent) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        pinches.current = pinchCount();
        grip.onHold?.();
        drag.onPointerDown?.(e);
      },
      onPointerMove: (e: PointerEvent) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) e.stopPropagation();
        drag.onPointerMove?.(e);
      },
      onClick: (e: React.MouseEvent) => e.stopPropagation(),
      onFocus: () => grip.onHold?.(),
      onKeyDown: (e: KeyboardEvent) => {
        const step = e.shiftKey ? 10 : 1;
        const move: Record<string, Spot> = {
          ArrowRight: [plane.right * step, 0],
          ArrowLeft: [-plane.right * step, 0],
          ArrowUp: [0, plane.up * step],
          ArrowDown: [0, -plane.up * step],
        };
        const by = move[e.key];
        if (by && grip.by && (by[0] !== 0 || by[1] !== 0)) {
          e.preventDefault();
          e.stopPropagation();
          const now = Date.now();
          if (keys.current.what !== what || now - keys.current.at > KEYS_TOGETHER_MS)
            keys.current = { group: newGroup(), at: now, what };
          keys.current.at = now;
          grip.by(by[0], by[1], keys.current.group);
        } else if ((e.key === 'Delete' || e.key === 'Backspace') && grip.onRemove) {
          e.preventDefault();
          e.stopPropagation();
          grip.onRemove();
        } else if ((e.key === 'Enter' || e.key === ' ') && grip.onEnter) {
          e.preventDefault();
          e.stopPropagation();
          grip.onEnter();
        }
      },
    };
  };
}
