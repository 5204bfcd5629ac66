import type { Vec3 } from '@plate-fold/core/geometry';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { ColoredSurface, Eye, Ghost, Section, Solid, Stand } from './contents';
import { EYES, frontLies } from './eyes';
import { makeScene, type SpaceScene } from './scene';

interface Props {
  readonly label: string;
  readonly solids: readonly Solid[];
  readonly ghosts: readonly Ghost[];
  readonly stand?: Stand;
  readonly section?: Section;
  readonly field?: readonly ColoredSurface[];
  readonly rocks?: readonly Vec3[];
  readonly eye: keyof typeof EYES;
  /** what the picture is fitted to when it changes */
  readonly about: string;
  readonly theme: string;
  readonly width: number;
  readonly height: number;
  /** a rock is dragged, or the belly is tapped: over which surface, and where */
  readonly onRock?: (id: string, at: Vec3) => void;
  /** where the eye of a picture beside this one stands, and what hears of this one's */
  readonly follow?: Eye;
  readonly onEye?: (eye: Eye) => void;
  /** the browser took the drawing context away */
  readonly onLost: () => void;
}

/** A rock is grasped this near to it, and a touch that moves less than this is a tap, px. */
const GRASP = 30;
const TAP = 5;

/** Plates in space, turned by dragging, pinched nearer, or moved by keys. */
export default function SpaceView(props: Props) {
  const { label, solids, ghosts, stand, section, field, rocks, eye, about, theme, width, height, onLost } =
    props;
  const { onRock, follow, onEye } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<SpaceScene | undefined>(undefined);
  const [seen, setSeen] = useState<Eye>(EYES[eye]);
  const lost = useRef(onLost);
  lost.current = onLost;
  const heard = useRef(onEye);
  heard.current = onEye;
  /** true while this picture is turned after another */
  const led = useRef(false);
  useEffect(() => {
    const el = canvas.current;
    if (!el) return;
    let made: SpaceScene;
    try {
      made = makeScene(el, () => {
        const now = made.eye();
        setSeen(now);
        if (!led.current) heard.current?.(now);
      });
    } catch {
      lost.current();
      return;
    }
    const gone = (): void => lost.current();
    el.addEventListener('webglcontextlost', gone);
    scene.current = made;
    return () => {
      el.removeEventListener('webglcontextlost', gone);
      made.dispose();
      scene.current = undefined;
    };
  }, []);
  useEffect(() => scene.current?.resize(width, height), [width, height]);
  useEffect(() => scene.current?.section(section), [section]);
  useEffect(() => scene.current?.ghosts(ghosts, stand), [ghosts, stand]);
  useEffect(() => scene.current?.solids(solids), [solids]);
  useEffect(() => {
    if (field) scene.current?.field(field, rocks ?? []);
  }, [field, rocks]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's colors are read from the page
  useEffect(() => scene.current?.recolor(), [theme]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another plate or another place of the eye is looked at anew
  useEffect(() => {
    scene.current?.lookFrom(EYES[eye]);
    scene.current?.fit();
  }, [about, eye, width > 0]);
  useEffect(() => {
    const s = scene.current;
    if (!follow || !s) return;
    const now = s.eye();
    if (Math.abs(now.turn - follow.turn) + Math.abs(now.lift - follow.lift) < 0.01) return;
    led.current = true;
    s.lookFrom(follow);
    led.current = false;
  }, [follow]);
  /** the pointer that holds a rock, and where it went down */
  const hold = useRef<{ id: number; rock: boolean; x: number; y: number } | undefined>(undefined);
  const place = (e: PointerEvent): readonly [number, number] => {
    const box = e.currentTarget.getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  const put = (px: number, py: number): void => {
    const hit = scene.current?.under(px, py);
    if (hit) onRock?.(hit.id, hit.at);
  };
  // before the picture's own turning hears of it
  const down = (e: PointerEvent): void => {
    const s = scene.current;
    if (!s || !onRock || hold.current) return;
    const [x, y] = place(e);
    const rock = (rocks ?? []).some(r => {
      const at = s.seenAt([r[0], r[1], r[2] - 40]);
      return at && Math.hypot(at[0] - x, at[1] - y) < GRASP;
    });
    hold.current = { id: e.pointerId, rock, x, y };
    s.turns(!rock);
  };
  const drag = (e: PointerEvent): void => {
    if (hold.current?.rock && hold.current.id === e.pointerId) put(...place(e));
  };
  const lift = (e: PointerEvent): void => {
    const h = hold.current;
    if (h?.id !== e.pointerId) return;
    hold.current = undefined;
    scene.current?.turns(true);
    const [x, y] = place(e);
    if (!h.rock && e.type === 'pointerup' && Math.hypot(x - h.x, y - h.y) < TAP) put(x, y);
  };
  const key = (e: KeyboardEvent): void => {
    const s = scene.current;
    if (!s) return;
    const turns: Record<string, readonly [number, number]> = {
      ArrowLeft: [-8, 0],
      ArrowRight: [8, 0],
      ArrowUp: [0, 8],
      ArrowDown: [0, -8],
    };
    const by = turns[e.key];
    const now = s.eye();
    if (by) s.lookFrom({ turn: now.turn + by[0], lift: now.lift + by[1] });
    else if (e.key === '+' || e.key === '=') s.nearer(1.15);
    else if (e.key === '-') s.nearer(1 / 1.15);
    else if (e.key === 'Home') {
      s.lookFrom(EYES.below);
      s.fit();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const words = `seen from ${seen.lift < 0 ? 'below' : 'above'}, ${frontLies(seen)}`;
  return (
    <div
      role="slider"
      aria-label={`${label}: arrow keys turn it, plus and minus come nearer, Home looks from below`}
      aria-valuenow={Math.round(seen.turn)}
      aria-valuetext={words}
      tabIndex={0}
      onKeyDown={key}
      onPointerDownCapture={down}
      onPointerMoveCapture={drag}
      onPointerUpCapture={lift}
      onPointerCancelCapture={lift}
      className="relative cursor-grab"
      style={{ width, height, touchAction: 'none' }}
    >
      <canvas ref={canvas} className="block" style={{ width, height }} />
      <p className="pointer-events-none absolute bottom-1.5 left-3 text-note text-ink2">{words}</p>
    </div>
  );
}
