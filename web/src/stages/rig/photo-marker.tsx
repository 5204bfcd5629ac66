import type { Vec2 } from '@plate-fold/core/geometry';
import type { SurveyPhoto } from '@plate-fold/core/rig';
import { type Adjustment, markPhoto, seen, unmarkPhoto } from '@plate-fold/core/survey';
import { useDrag, useGesture } from '@use-gesture/react';
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { useRun } from '../../state/commands/run';

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

const BUTTON =
  'grid size-11 place-items-center rounded-edge border border-scribe bg-sheet/90 hover:border-ink2';

/**
 * A picture on which points are marked: two fingers or the wheel bring it nearer, one finger moves it, or sets the chosen point where it is let go,
 * with a glass over what it covers. Where the camera is known every point has a ring where it is expected.
 */
export function PhotoMarker(props: {
  readonly photo: SurveyPhoto;
  readonly url: string;
  readonly adjustment: Adjustment;
  readonly width: number;
  readonly height: number;
  readonly names: ReadonlyMap<string, string>;
  /** the point that is being marked; nothing while one only looks */
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
  readonly onMarked: (id: string) => void;
}) {
  const { photo, url, adjustment, width, height, names, point } = props;
  const run = useRun();
  const box = useRef<HTMLDivElement>(null);
  const clip = useId();
  const [missing, setMissing] = useState(false);
  const [look, setLook] = useState<Look>({ near: 1, at: [photo.width / 2, photo.height / 2] });
  const [held, setHeld] = useState<Vec2>();
  const drop = useRef<(() => void) | undefined>(undefined);
  // on a phone the picture is above what it was opened from
  useEffect(() => {
    box.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  useEffect(() => {
    const onKey = (e: globalThis.KeyboardEvent): void => {
      if (e.key !== 'Escape' || !drop.current) return;
      e.stopPropagation();
      drop.current();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
  const whole = Math.min(width / photo.width, height / photo.height);
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
    at: [Math.min(photo.width, Math.max(0, u)), Math.min(photo.height, Math.max(0, v))],
  });
  /** nearer by a factor, the pixel under the hand staying there */
  const nearer = (by: number, on: Vec2 = look.at): void => {
    const near = Math.min(NEAREST, Math.max(FARTHEST, look.near * by));
    const k = look.near / near;
    setLook(kept(near, [on[0] + (look.at[0] - on[0]) * k, on[1] + (look.at[1] - on[1]) * k]));
  };
  const inside = ([u, v]: Vec2): boolean => u >= 0 && v >= 0 && u <= photo.width && v <= photo.height;
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
      if (!canceled && inside(on) && run(markPhoto, { photo: photo.id, point, px: on }) !== false)
        props.onMarked(point);
    },
    { pointer: { capture: true, keys: false } },
  );
  const camera = adjustment.photos.find(p => p.id === photo.id);
  const size = [photo.width, photo.height] as const;
  const expected = new Map(
    camera
      ? adjustment.points.flatMap(p => {
          const px = seen(camera, size, p.at);
          return px && inside(px) ? [[p.id, px] as const] : [];
        })
      : [],
  );
  const odd = adjustment.readings[adjustment.suspects[0] ?? -1];
  const suspect = odd?.photo === photo.id ? odd.point : undefined;
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
      run(markPhoto, { photo: photo.id, point: id, px: [u + move[0], v + move[1]] });
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      run(unmarkPhoto, { photo: photo.id, point: id });
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
      <svg
        width={width}
        height={height}
        role="group"
        aria-label={`Photo ${photo.name}`}
        className="block select-none"
      >
        <image
          {...picture}
          x={left}
          y={top}
          width={photo.width * scale}
          height={photo.height * scale}
          aria-hidden="true"
          onError={() => setMissing(true)}
          onLoad={() => setMissing(false)}
        />
        {missing && (
          <text x={width / 2} y={height / 2} textAnchor="middle" fontSize="15" fill="#fff">
            The picture itself is not with this plan; its marks are.
          </text>
        )}
        <g aria-hidden="true">
          {[...expected].map(([id, px]) => {
            const [x, y] = put(px);
            const mark = photo.marks.find(m => m.point === id);
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
        {photo.marks.map(m => {
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
                width={photo.width * scale * TIMES}
                height={photo.height * scale * TIMES}
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
          onClick={() => setLook({ near: 1, at: [photo.width / 2, photo.height / 2] })}
        >
          <Maximize2 size={17} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}
