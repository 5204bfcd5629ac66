import type { Vec3 } from '@plate-fold/core';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { EYES, frontLies } from './eyes';
import {
  type ColouredSurface,
  type Eye,
  type Ghost,
  makeScene,
  type Section,
  type Solid,
  type SpaceScene,
} from './scene';

interface Props {
  readonly label: string;
  readonly solids: readonly Solid[];
  readonly ghosts: readonly Ghost[];
  readonly section?: Section;
  readonly field?: readonly ColouredSurface[];
  readonly rocks?: readonly Vec3[];
  readonly eye: keyof typeof EYES;
  /** what the picture is fitted to when it changes */
  readonly about: string;
  readonly theme: string;
  readonly width: number;
  readonly height: number;
  /** the browser took the drawing context away */
  readonly onLost: () => void;
}

/** Plates in space, turned by dragging, pinched nearer, or moved by keys. */
export default function SpaceView(props: Props) {
  const { label, solids, ghosts, section, field, rocks, eye, about, theme, width, height, onLost } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<SpaceScene | undefined>(undefined);
  const [seen, setSeen] = useState<Eye>(EYES[eye]);
  const lost = useRef(onLost);
  lost.current = onLost;
  useEffect(() => {
    const el = canvas.current;
    if (!el) return;
    let made: SpaceScene;
    try {
      made = makeScene(el, () => setSeen(made.eye()));
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
  useEffect(() => scene.current?.ghosts(ghosts), [ghosts]);
  useEffect(() => scene.current?.solids(solids), [solids]);
  useEffect(() => {
    if (field) scene.current?.field(field, rocks ?? []);
  }, [field, rocks]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's colours are read from the page
  useEffect(() => scene.current?.recolour(), [theme]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another plate or another place of the eye is looked at anew
  useEffect(() => {
    scene.current?.lookFrom(EYES[eye]);
    scene.current?.fit();
  }, [about, eye, width > 0]);
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
      className="relative cursor-grab"
      style={{ width, height, touchAction: 'none' }}
    >
      <canvas ref={canvas} className="block" style={{ width, height }} />
      <p className="pointer-events-none absolute bottom-1.5 left-3 text-[12px] text-ink2">{words}</p>
    </div>
  );
}
