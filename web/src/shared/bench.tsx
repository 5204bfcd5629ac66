import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type PointerEvent, type ReactNode, useRef } from 'react';
import { Keel } from '../picture/keel';
import { pinchBegan } from '../picture/pinch';
import { moved, type SheetScale, sheetScale, wholeVehicle, zoomed } from '../picture/sheet-scale';
import { useSize } from '../picture/use-size';
import { useFacts } from '../state/derived';
import { useApp, useDo } from '../state/store';
import { panelSelected, stretchMoved } from '../state/view-slice';
import { useNarrow, useShort } from '../ui/use-narrow';

/** The scale that keel, map and strip share, with what moves it. */
export function useSheet(width: number) {
  const facts = useFacts();
  const dispatch = useDo();
  const { stretch, side } = useApp(s => s.view);
  const whole = wholeVehicle(facts);
  const now = stretch ?? whole;
  const scale = sheetScale(now, Math.max(width, 1), side);
  return {
    scale,
    zoom: (factor: number, about = (now.from + now.to) / 2) =>
      dispatch(stretchMoved(zoomed(now, whole, factor, about))),
    move: (dx: number, dy: number) => dispatch(stretchMoved(moved(now, whole, dx, dy))),
    reset: () => dispatch(stretchMoved(undefined)),
    zoomedIn: now.to - now.from < whole.to - whole.from - 1,
  };
}

/** Wheel, drag and two fingers move the sheet; a tap that does not move stays a tap, and two fingers never move what one of them touched. */
export function Pannable({ sheet, children }: { sheet: ReturnType<typeof useSheet>; children: ReactNode }) {
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const { scale } = sheet;
  const others = (id: number) => [...fingers.current.entries()].filter(([k]) => k !== id);
  // seen on the way down, so that a finger on a corner counts as well
  const touch = (e: PointerEvent): void => {
    fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
    if (fingers.current.size < 2) return;
    pinchBegan();
    e.stopPropagation();
  };
  const pinch = (e: PointerEvent<HTMLDivElement>): void => {
    const before = fingers.current.get(e.pointerId);
    const other = others(e.pointerId)[0]?.[1];
    if (!before || !other) return;
    const now = { x: e.clientX, y: e.clientY };
    const spread = (p: { x: number; y: number }): number =>
      Math.max(20, Math.hypot(p.x - other.x, p.y - other.y));
    const middle = (now.x + other.x) / 2 - e.currentTarget.getBoundingClientRect().left;
    sheet.zoom(spread(now) / spread(before), scale.xAt(middle));
    fingers.current.set(e.pointerId, now);
  };
  const drag = (e: PointerEvent): void => {
    const before = fingers.current.get(e.pointerId);
    if (!before || others(e.pointerId).length > 0) return;
    const now = { x: e.clientX, y: e.clientY };
    if (sheet.zoomedIn) {
      const along = ((before.x - now.x) / scale.k) * (scale.frontAtLeft ? 1 : -1);
      const across = ((before.y - now.y) / scale.k) * (scale.side === 'head-front' ? 1 : -1);
      sheet.move(along, across);
    }
    fingers.current.set(e.pointerId, now);
  };
  const lift = (e: PointerEvent): void => void fingers.current.delete(e.pointerId);
  return (
    <div
      className="relative touch-pan-y"
      onWheel={e => {
        if (!e.ctrlKey && !e.altKey && Math.abs(e.deltaY) < Math.abs(e.deltaX)) return;
        sheet.zoom(
          e.deltaY < 0 ? 1.15 : 1 / 1.15,
          scale.xAt(e.clientX - e.currentTarget.getBoundingClientRect().left),
        );
      }}
      onPointerDownCapture={touch}
      onPointerMoveCapture={pinch}
      onPointerMove={drag}
      onPointerUpCapture={lift}
      onPointerCancelCapture={lift}
      onPointerLeave={lift}
    >
      {children}
    </div>
  );
}

const ZOOM =
  'grid size-10 place-items-center rounded-[4px] border border-scribe bg-sheet/90 hover:border-ink2';

export function ZoomButtons({ sheet }: { sheet: ReturnType<typeof useSheet> }) {
  return (
    <div className="absolute right-2 bottom-7 flex gap-1">
      <button type="button" className={ZOOM} aria-label="Nearer" onClick={() => sheet.zoom(1.5)}>
        <ZoomIn size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={ZOOM}
        aria-label="Farther"
        disabled={!sheet.zoomedIn}
        onClick={() => sheet.zoom(1 / 1.5)}
      >
        <ZoomOut size={18} aria-hidden="true" />
      </button>
      {sheet.zoomedIn && (
        <button type="button" className={ZOOM} aria-label="Whole vehicle" onClick={sheet.reset}>
          <Maximize2 size={17} aria-hidden="true" />
        </button>
      )}
    </div>
  );
}

/**
 * The bench of a stage: the keel on top, the work below it, the selected thing at the right. `work` gets the
 * shared scale and the height it may fill.
 */
export function Bench({
  work,
  aside,
  asideName,
  keelOver,
}: {
  work: (sheet: ReturnType<typeof useSheet>, height: number) => ReactNode;
  aside: ReactNode;
  asideName: string;
  /** what a stage draws over the keel; Z puts a height on the screen, zAt takes it off */
  keelOver?: (
    sheet: ReturnType<typeof useSheet>,
    Z: (z: number) => number,
    zAt: (px: number) => number,
  ) => ReactNode;
}) {
  const facts = useFacts();
  const dispatch = useDo();
  const { units, panel, joint } = useApp(s => s.view);
  const [ref, size] = useSize<HTMLDivElement>();
  const sheet = useSheet(size.width);
  const narrow = useNarrow();
  const short = useShort();
  // on a short screen the side view folds to a line; where that would show the ground alone it is left out
  const line = 470 * sheet.scale.k + 8 < 60 ? 44 : 0;
  const full = narrow ? 104 : Math.round(Math.max(140, Math.min(250, 690 * sheet.scale.k + 16)));
  const keelHeight = short ? line : full;
  const scale: SheetScale = sheet.scale;
  return (
    <div data-stage-scroll className="flex min-h-0 flex-1 max-desk:flex-col max-desk:overflow-y-auto">
      <main ref={ref} className="flex min-w-0 flex-1 flex-col max-desk:flex-none">
        <div data-keel className="shrink-0 border-b border-scribe bg-ground">
          {size.width > 0 && keelHeight > 0 && (
            <Keel
              facts={facts}
              scale={scale}
              height={keelHeight}
              units={units}
              panel={panel}
              joint={joint}
              onPanel={id => dispatch(panelSelected(id))}
            >
              {keelOver && ((Z, zAt) => keelOver(sheet, Z, zAt))}
            </Keel>
          )}
        </div>
        <div className="min-h-0 flex-1">
          {size.width > 0 &&
            work(sheet, narrow ? Math.min(420, Math.max(240, 1650 * scale.k)) : size.height - keelHeight - 1)}
        </div>
      </main>
      <aside
        aria-label={asideName}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
        tabIndex={0}
        className="border-scribe bg-sheet max-desk:border-t desk:w-[348px] desk:shrink-0 desk:overflow-y-auto desk:border-l"
      >
        {aside}
      </aside>
    </div>
  );
}
