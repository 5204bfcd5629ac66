import type { Vec2 } from '@plate-fold/core/geometry';
import { useDrag, useGesture } from '@use-gesture/react';
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { useDrop } from '../../picture/use-drop';

/** The glass over the place under the finger: how large, how far above it, and how much nearer than the picture; px. */
const [GLASS, ABOVE, TIMES] = [62, 104, 3];
const WHEEL = 1.2;
/** Nearest and farthest, beside the whole picture. */
const [FARTHEST, NEAREST] = [1, 24];

/** What of a picture is shown: how much nearer than whole, and the pixel in the middle. */
interface Look {
  readonly near: number;
  readonly at: Vec2;
}

const NOWHERE: ReadonlyMap<string, Vec2> = new Map();
const BUTTON =
  'grid size-11 place-items-center rounded-edge border border-scribe bg-sheet/90 hover:border-ink2';

/**
 * A picture on which points are marked: two fingers or the wheel bring it nearer, one finger moves it, or sets the chosen point where it is let go,
 * with a glass over what it covers. Where the camera is known every point has a ring where it is expected.
 */
export function PictureMarker(props: {
  readonly label: string;
  readonly size: Vec2;
  readonly url: string;
  readonly marks: readonly { readonly point: string; readonly px: Vec2 }[];
  /** where points are expected, by point */
  readonly expected?: ReadonlyMap<string, Vec2>;
  /** the mark that does not go with the others */
  readonly suspect?: string;
  readonly width: number;
  readonly height: number;
  readonly names: ReadonlyMap<string, string>;
  /** the point that is being marked; nothing while one only looks */
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
  /** false where it was not taken */
  readonly onMark: (id: string, px: Vec2, nudged: boolean) => unknown;
  readonly onUnmark: (id: string) => void;
}) {
  const { label, size, url, marks, suspect, width, height, names, point } = props;
  const expected = props.expected ?? NOWHERE;
  const box = useRef<HTMLDivElement>(null);
  const clip = useId();
  const [missing, setMissing] = useState(false);
  const [look, setLook] = useState<Look>({ near: 1, at: [size[0] / 2, size[1] / 2] });
  const [held, setHeld] = useState<Vec2>();
  const drop = useDrop();
  // on a phone the picture is above what it was opened from
  useEffect(() => {
    box.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  const whole = Math.min(width / size[0], height / size[1]);
  const scale = whole * look.near;
  const put = ([u, v]: Vec2): Vec2 => [
    width / 2 + (u - look.at[0]) * scale,
    height / 2 + (v - look.at[1]) * scale,
  ];
  const pixelAt = (clientX: number, clientY: number): Vec2 => {
    const rect = box.current?.getBoundingClientRect();
    return [
      look.at[0] + (clientX - (rect?.left ?? 0) - width / 2) / scale,
      look.at[1] + (clientY - (rect?.top ?? 0) - height / 2) / scale,
    ];
  };
  const kept = (near: number, [u, v]: Vec2): Look => ({
    near,
    at: [Math.min(size[0], Math.max(0, u)), Math.min(size[1], Math.max(0, v))],
  });
  /** nearer by a factor, the pixel under the hand staying there */
  const nearer = (by: number, on: Vec2 = look.at): void => {
    const near = Math.min(NEAREST, Math.max(FARTHEST, look.near * by));
    const k = look.near / near;
    setLook(kept(near, [on[0] + (look.at[0] - on[0]) * k, on[1] + (look.at[1] - on[1]) * k]));
  };
  const inside = ([u, v]: Vec2): boolean => u >= 0 && v >= 0 && u <= size[0] && v <= size[1];
  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        if (dy !== 0) nearer(dy < 0 ? WHEEL : 1 / WHEEL, pixelAt(event.clientX, event.clientY));
      },
      onPinch: ({ origin: [x, y], movement: [spread], memo }) => {
        setHeld(undefined);
        nearer(spread / ((memo as number | undefined) ?? 1), pixelAt(x, y));
        return spread;
      },
    },
    { target: box, eventOptions: { passive: false, capture: true }, pinch: { pinchOnWheel: false } },
  );
  const drag = useDrag(
    ({ xy: [x, y], delta: [dx, dy], first, last, touches, pinching, cancel, canceled, event }) => {
      const many = pinching || touches > 1;
      if (point === undefined || many || ('shiftKey' in event && event.shiftKey)) {
        setHeld(undefined);
        if (!first && !last && !many)
          setLook(kept(look.near, [look.at[0] - dx / scale, look.at[1] - dy / scale]));
        return;
      }
      const on = pixelAt(x, y);
      drop.current = last ? undefined : cancel;
      if (!last) return setHeld(on);
      setHeld(undefined);
      if (!canceled && inside(on)) props.onMark(point, on, false);
    },
    { pointer: { capture: true, keys: false } },
  );
  const name = (id: string): string => names.get(id) ?? id;
  const nudge = (e: KeyboardEvent, id: string, [u, v]: Vec2): void => {
    const step = e.shiftKey ? 10 : 1;
    const by: Readonly<Record<string, Vec2>> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const move = by[e.key];
    if (move) {
      e.preventDefault();
      props.onMark(id, [u + move[0], v + move[1]], true);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      props.onUnmark(id);
    } else if (e.key === 'Enter' || e.key === ' ') {
      e.preventDefault();
      props.onPoint(id);
    }
  };
  const [left, top] = put([0, 0]);
  const glass = held && put(held);
  const picture = { href: url, preserveAspectRatio: 'none' } as const;
  return (
    <div
      ref={box}
      className={`relative touch-none overflow-hidden bg-[#0c0e10] ${point === undefined ? 'cursor-grab' : 'cursor-crosshair'}`}
      style={{ width, height }}
      {...drag()}
    >
      <svg width={width} height={height} role="group" aria-label={label} className="block select-none">
        <image
          {...picture}
          x={left}
          y={top}
          width={size[0] * scale}
          height={size[1] * scale}
          aria-hidden="true"
          onError={() => setMissing(true)}
          onLoad={() => setMissing(false)}
        />
        {missing && (
          <text x={width / 2} y={height / 2} textAnchor="middle" fontSize="15" fill="#fff">
            The picture itself is not with this plan.
          </text>
        )}
        <g aria-hidden="true">
          {[...expected].map(([id, px]) => {
            const [x, y] = put(px);
            const mark = marks.find(m => m.point === id);
            const [mx, my] = mark ? put(mark.px) : [x, y];
            return (
              <g key={id}>
                <circle
                  cx={x}
                  cy={y}
                  r="9"
                  fill="none"
                  stroke="#ffd34d"
                  strokeWidth="1.6"
                  strokeDasharray={mark ? undefined : '3 3'}
                />
                {mark && <path d={`M${mx} ${my}L${x} ${y}`} stroke="#ffd34d" strokeWidth="1.4" />}
                {!mark && (
                  <text
                    x={x + 12}
                    y={y + 4}
                    fontSize="12"
                    style={{ fill: '#ffd34d' }}
                    stroke="#000"
                    strokeWidth="3"
                    paintOrder="stroke"
                  >
                    {name(id)}
                  </text>
                )}
              </g>
            );
          })}
        </g>
        {marks.map(m => {
          const [x, y] = put(m.px);
          const color = m.point === suspect ? '#ff6b5e' : m.point === point ? '#5ad1ff' : '#fff';
          return (
            <g
              key={m.point}
              role="button"
              tabIndex={0}
              aria-pressed={m.point === point}
              aria-label={`Mark of ${name(m.point)}`}
              onKeyDown={e => nudge(e, m.point, m.px)}
              onPointerDown={e => {
                if (point !== undefined) return;
                e.stopPropagation();
                props.onPoint(m.point);
              }}
            >
              <circle cx={x} cy={y} r="18" fill="transparent" />
              <path
                d={`M${x - 12} ${y}H${x - 3}M${x + 3} ${y}H${x + 12}M${x} ${y - 12}V${y - 3}M${x} ${y + 3}V${y + 12}`}
                stroke="#000"
                strokeWidth="4"
                opacity="0.6"
              />
              <path
                d={`M${x - 12} ${y}H${x - 3}M${x + 3} ${y}H${x + 12}M${x} ${y - 12}V${y - 3}M${x} ${y + 3}V${y + 12}`}
                stroke={color}
                strokeWidth="2"
              />
              <text
                x={x + 13}
                y={y - 8}
                fontSize="13"
                fontWeight="700"
                style={{ fill: color }}
                stroke="#000"
                strokeWidth="3"
                paintOrder="stroke"
              >
                {name(m.point)}
              </text>
            </g>
          );
        })}
        {held && glass && (
          <g
            aria-hidden="true"
            transform={`translate(${glass[0]} ${glass[1] + (glass[1] > ABOVE + GLASS ? -ABOVE : ABOVE)})`}
          >
            <clipPath id={clip}>
              <circle r={GLASS} />
            </clipPath>
            <circle r={GLASS} fill="#0c0e10" />
            <g clipPath={`url(#${clip})`}>
              <image
                {...picture}
                x={-held[0] * scale * TIMES}
                y={-held[1] * scale * TIMES}
                width={size[0] * scale * TIMES}
                height={size[1] * scale * TIMES}
              />
              <path
                d={`M${-GLASS} 0H-5M5 0H${GLASS}M0 ${-GLASS}V-5M0 5V${GLASS}`}
                stroke="#5ad1ff"
                strokeWidth="1.6"
              />
            </g>
            <circle r={GLASS} fill="none" stroke="#fff" strokeWidth="2.5" />
          </g>
        )}
      </svg>
      <div data-tools className="absolute right-2 bottom-2 flex gap-1">
        <button type="button" className={BUTTON} aria-label="Nearer" onClick={() => nearer(1.6)}>
          <ZoomIn size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          className={BUTTON}
          aria-label="Farther"
          disabled={look.near <= FARTHEST}
          onClick={() => nearer(1 / 1.6)}
        >
          <ZoomOut size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          className={BUTTON}
          aria-label="Whole picture"
          disabled={look.near <= FARTHEST}
          onClick={() => setLook({ near: 1, at: [size[0] / 2, size[1] / 2] })}
        >
          <Maximize2 size={17} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}
