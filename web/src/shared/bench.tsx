import type { Facts } from '@plate-fold/core/derive';
import { useDrag, useGesture } from '@use-gesture/react';
import { ChevronDown, ChevronUp, Maximize2, ScanLine, ZoomIn, ZoomOut } from 'lucide-react';
import { type ReactNode, useEffect, useMemo, useRef } from 'react';
import { useLocation } from 'react-router';
import { pinchBegan } from '../picture/pinch';
import { moved, type SheetScale, sheetScale, wholeVehicle, zoomed } from '../picture/sheet-scale';
import { SideView } from '../picture/side-view';
import { useSize } from '../picture/use-size';
import { useFacts } from '../state/derived';
import { useAppDispatch, useAppSelector } from '../state/store';
import { foldTurned, panelSelected, stretchMoved } from '../state/view-slice';
import { useNarrow, useShort } from '../ui/use-narrow';

/** The scale that side view, map and strip share, with what moves it. */
export function useSheet(width: number) {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { stretch, side } = useAppSelector(s => s.view);
  const whole = useMemo(() => wholeVehicle(facts), [facts]);
  const { from, to, yMid } = stretch ?? whole;
  // one scale while it shows the same: the drawings on it are kept by it
  const scale = useMemo(
    () => sheetScale({ from, to, yMid }, Math.max(width, 1), side),
    [from, to, yMid, width, side],
  );
  const now = scale.stretch;
  return {
    scale,
    zoom: (factor: number, about = (now.from + now.to) / 2) =>
      dispatch(stretchMoved(zoomed(now, whole, factor, about))),
    move: (dx: number, dy: number) => dispatch(stretchMoved(moved(now, whole, dx, dy))),
    reset: () => dispatch(stretchMoved(undefined)),
    /** pixels a millimeter while the whole vehicle is shown: what is sized by it stays as it is when the sheet comes nearer */
    wholeK: width / (whole.to - whole.from),
    zoomedIn: now.to - now.from < whole.to - whole.from - 1,
  };
}

/** A turn of the wheel brings the sheet nearer by this. */
const WHEEL = 1.15;

/**
 * Wheel, drag and two fingers move the sheet; a tap that does not move stays a tap, and two fingers never move what one of them touched.
 * The page itself stays as it is: neither does it scroll nor grow.
 */
export function Pannable({ sheet, children }: { sheet: ReturnType<typeof useSheet>; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const { scale } = sheet;
  const xAt = (clientX: number): number =>
    scale.xAt(clientX - (box.current?.getBoundingClientRect().left ?? 0));
  // seen on the way down and before the page does anything of its own, so that a finger on a corner counts as well
  useGesture(
    {
      onWheel: ({ event, delta: [dx, dy] }) => {
        if (dy === 0 || (!event.ctrlKey && !event.altKey && Math.abs(dy) < Math.abs(dx))) return;
        event.preventDefault();
        sheet.zoom(dy < 0 ? WHEEL : 1 / WHEEL, xAt(event.clientX));
      },
      onPinch: ({ first, origin: [x], movement: [spread], memo }) => {
        if (first) pinchBegan();
        sheet.zoom(spread / ((memo as number | undefined) ?? 1), xAt(x));
        return spread;
      },
    },
    {
      target: box,
      eventOptions: { passive: false, capture: true },
      pinch: { pinchOnWheel: false },
    },
  );
  const pan = useDrag(
    ({ delta: [dx, dy], touches, pinching }) => {
      if (!sheet.zoomedIn || pinching || touches > 1) return;
      sheet.move(
        (-dx / scale.k) * (scale.frontAtLeft ? 1 : -1),
        (-dy / scale.k) * (scale.side === 'head-front' ? 1 : -1),
      );
    },
    { pointer: { capture: false, keys: false } },
  );
  return (
    <div ref={box} className="relative touch-pan-y" {...pan()}>
      {children}
    </div>
  );
}

const ZOOM =
  'grid size-10 place-items-center rounded-edge border border-scribe bg-sheet/90 hover:border-ink2';

export function ZoomButtons({
  sheet,
  children,
}: {
  readonly sheet: ReturnType<typeof useSheet>;
  /** what else the map is looked at by */
  readonly children?: ReactNode;
}) {
  return (
    <div data-tools className="absolute right-2 bottom-7 flex gap-1">
      {children}
      <button
        type="button"
        className={ZOOM}
        aria-label="Nearer"
        title="Nearer (turn the wheel)"
        onClick={() => sheet.zoom(1.5)}
      >
        <ZoomIn size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={ZOOM}
        aria-label="Farther"
        title="Farther (turn the wheel)"
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

/** What a side view has to show whole: wheels and frame; of taller parts it shows the lower piece, mm. */
const tallest = ({ rig: { rig, members } }: Facts): number =>
  Math.max(2 * rig.tyreRadius, ...members.map(m => m.zTop));

/** A side view folded to a line, px. */
const FOLDED_SIDE = 36;

/**
 * The bench of a stage: the side view on top, the work below it, the selected thing at the right. `work` gets the
 * shared scale and the height it may fill.
 */
export function Bench({
  work,
  aside,
  asideName,
  sideViewOver,
}: {
  work: (sheet: ReturnType<typeof useSheet>, height: number) => ReactNode;
  aside: ReactNode;
  asideName: string;
  /** what a stage draws over the side view; Z puts a height on the screen, zAt takes it off */
  sideViewOver?: (
    sheet: ReturnType<typeof useSheet>,
    Z: (z: number) => number,
    zAt: (px: number) => number,
  ) => ReactNode;
}) {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { units, panel, joint } = useAppSelector(s => s.view);
  const [ref, size] = useSize<HTMLDivElement>();
  const sheet = useSheet(size.width);
  const narrow = useNarrow();
  const short = useShort();
  // on a short screen the side view folds to a line; where that would show the ground alone it is left out
  const line = 470 * sheet.scale.k + 8 < 60 ? 44 : 0;
  const full = narrow ? 104 : Math.round(Math.max(140, tallest(facts) * sheet.wholeK + 20));
  const stage = useLocation().pathname.split('/')[3] ?? '';
  const fold = `${stage}/side`;
  const foldedSide = useAppSelector(s => s.view.folded.includes(fold)) && !narrow;
  const sideViewHeight = foldedSide ? FOLDED_SIDE : short ? line : full;
  const beside = useRef<HTMLElement>(null);
  // what was just chosen is read from its top
  // biome-ignore lint/correctness/useExhaustiveDependencies: scrolled for every other plate
  useEffect(() => {
    beside.current?.scrollTo({ top: 0 });
  }, [panel]);
  const scale: SheetScale = sheet.scale;
  return (
    <div data-stage-scroll className="flex min-h-0 flex-1 max-desk:flex-col max-desk:overflow-y-auto">
      <main ref={ref} className="flex min-w-0 flex-1 flex-col max-desk:flex-none">
        <div data-side-view className="relative shrink-0 border-b border-scribe bg-ground">
          {!narrow && (
            <button
              type="button"
              data-tools
              aria-expanded={!foldedSide}
              title={foldedSide ? 'Show the side view' : 'Fold the side view to a line'}
              aria-label={foldedSide ? 'Show the side view' : 'Fold the side view'}
              className={`z-10 flex h-9 items-center gap-2 rounded-tight px-2 text-small hover:bg-paper ${foldedSide ? 'w-full' : 'absolute top-0 right-0'}`}
              onClick={() => dispatch(foldTurned(fold))}
            >
              {foldedSide ? (
                <>
                  <ChevronDown size={17} aria-hidden="true" /> Side view
                </>
              ) : (
                <ChevronUp size={17} aria-hidden="true" />
              )}
            </button>
          )}
          {size.width > 0 && sideViewHeight > 0 && !foldedSide && (
            <SideView
              facts={facts}
              scale={scale}
              height={sideViewHeight}
              units={units}
              panel={panel}
              joint={joint}
              onPanel={id => dispatch(panelSelected(id))}
            >
              {sideViewOver && ((Z, zAt) => sideViewOver(sheet, Z, zAt))}
            </SideView>
          )}
        </div>
        <div className="min-h-0 flex-1">
          {size.width > 0 &&
            work(
              sheet,
              narrow ? Math.min(420, Math.max(240, 1650 * scale.k)) : size.height - sideViewHeight - 1,
            )}
        </div>
      </main>
      <aside
        ref={beside}
        aria-label={asideName}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
        tabIndex={0}
        className="border-scribe bg-sheet max-desk:border-t desk:w-87 desk:shrink-0 desk:overflow-y-auto desk:border-l"
      >
        {aside}
      </aside>
    </div>
  );
}

/** A scan under the map, seen or not. */
export function ScanButton({
  seen,
  onSeen,
}: {
  readonly seen: boolean;
  readonly onSeen: (seen: boolean) => void;
}) {
  return (
    <button
      type="button"
      className={`${ZOOM} ${seen ? 'border-fluid! bg-fluid! text-onfluid' : ''}`}
      aria-label="Scan"
      title="The scan under the map"
      aria-pressed={seen}
      onClick={() => onSeen(!seen)}
    >
      <ScanLine size={18} aria-hidden="true" />
    </button>
  );
}
