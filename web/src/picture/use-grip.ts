import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { pinchCount } from './pinch';
import type { SheetScale } from './sheet-scale';

let strokes = 0;
/** A new name for a stroke: a drag from press to lift, or a run of arrow keys on one thing. */
export const newStroke = (): string => `stroke ${++strokes}`;

const KEYS_TOGETHER_MS = 1200;

/** What a thing on the map that can be held does when it is moved: to a place, or by a nudge. mm. */
export interface Grip {
  readonly to?: (x: number, y: number, stroke: string) => void;
  readonly by?: (dx: number, dy: number, stroke: string) => void;
  readonly onHold?: () => void;
  readonly onRemove?: () => void;
  readonly onEnter?: () => void;
}

/**
 * Makes things on the map movable by mouse, finger and keys. Arrow keys nudge 1 mm, with Shift 10 mm, in the direction
 * seen on the screen. A grip is held relative to where it was touched, so nothing jumps under the finger.
 */
export function useGrip(scale: SheetScale, height: number) {
  const held = useRef<
    | {
        readonly id: number;
        readonly stroke: string;
        readonly x: number;
        readonly y: number;
        /** where it stood when it was taken */
        readonly from: readonly [number, number];
        readonly pinches: number;
        moved: boolean;
      }
    | undefined
  >(undefined);
  const keys = useRef({ stroke: '', at: 0, what: '' });
  const place = (e: PointerEvent): readonly [number, number] => {
    const svg = (e.currentTarget as SVGElement).ownerSVGElement ?? (e.currentTarget as SVGElement);
    const box = svg.getBoundingClientRect();
    return [scale.xAt(e.clientX - box.left), scale.yAt(e.clientY - box.top, height)];
  };
  return (what: string, grip: Grip, at: readonly [number, number]) => ({
    onPointerDown: (e: PointerEvent) => {
      if (e.button !== 0) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      const [x, y] = place(e);
      held.current = {
        id: e.pointerId,
        stroke: newStroke(),
        x: x - at[0],
        y: y - at[1],
        from: at,
        pinches: pinchCount(),
        moved: false,
      };
      grip.onHold?.();
    },
    onPointerMove: (e: PointerEvent) => {
      const h = held.current;
      if (h?.id !== e.pointerId) return;
      e.stopPropagation();
      // two fingers zoom: what the first one took stands where it stood
      if (pinchCount() !== h.pinches) {
        if (h.moved) grip.to?.(h.from[0], h.from[1], h.stroke);
        held.current = undefined;
        return;
      }
      const [x, y] = place(e);
      if (!h.moved && Math.hypot(x - h.x - at[0], y - h.y - at[1]) * scale.k < 4) return;
      h.moved = true;
      grip.to?.(x - h.x, y - h.y, h.stroke);
    },
    onPointerUp: (e: PointerEvent) => {
      if (held.current?.id === e.pointerId) held.current = undefined;
    },
    onPointerCancel: () => {
      held.current = undefined;
    },
    onClick: (e: React.MouseEvent) => e.stopPropagation(),
    onFocus: () => grip.onHold?.(),
    onKeyDown: (e: KeyboardEvent) => {
      const step = e.shiftKey ? 10 : 1;
      const right = scale.frontAtLeft ? step : -step;
      const up = scale.rightAtTop ? step : -step;
      const move: Record<string, readonly [number, number]> = {
        ArrowRight: [right, 0],
        ArrowLeft: [-right, 0],
        ArrowUp: [0, up],
        ArrowDown: [0, -up],
      };
      const by = move[e.key];
      if (by && grip.by) {
        e.preventDefault();
        e.stopPropagation();
        const now = Date.now();
        if (keys.current.what !== what || now - keys.current.at > KEYS_TOGETHER_MS)
          keys.current = { stroke: newStroke(), at: now, what };
        keys.current.at = now;
        grip.by(by[0], by[1], keys.current.stroke);
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
  });
}
