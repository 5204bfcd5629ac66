import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';

/** How much of what is seen a press on the hint brings on. */
const PAGE = 0.8;

/**
 * A row that is wider than its place: it scrolls, says at which end there is more, and shows what is chosen in it (marked `data-shown`)
 * whenever `shown` changes.
 */
export function ScrollRow({ what, shown, children }: { what: string; shown: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState({ before: false, after: false });
  const look = useCallback(() => {
    const el = box.current;
    if (!el) return;
    const before = el.scrollLeft > 1;
    const after = el.scrollLeft + el.clientWidth < el.scrollWidth - 1;
    setMore(m => (m.before === before && m.after === after ? m : { before, after }));
  }, []);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const watch = new ResizeObserver(look);
    watch.observe(el);
    if (el.firstElementChild) watch.observe(el.firstElementChild);
    return () => watch.disconnect();
  }, [look]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is chosen is found by its mark
  useEffect(() => {
    box.current?.querySelector('[data-shown]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [shown]);
  const turn = (way: 1 | -1): void =>
    box.current?.scrollBy({ left: way * PAGE * box.current.clientWidth, behavior: 'smooth' });
  const hint = (way: 1 | -1, is: boolean) =>
    is && (
      <button
        type="button"
        aria-label={way > 0 ? `More ${what} to the right` : `More ${what} to the left`}
        className={`absolute inset-y-0 z-10 grid w-8 place-items-center bg-sheet/90 ${way > 0 ? 'right-0' : 'left-0'}`}
        onClick={() => turn(way)}
      >
        {way > 0 ? (
          <ChevronRight size={18} aria-hidden="true" />
        ) : (
          <ChevronLeft size={18} aria-hidden="true" />
        )}
      </button>
    );
  return (
    <div className="relative min-w-0">
      {hint(-1, more.before)}
      <div ref={box} onScroll={look} className="overflow-x-auto [scrollbar-width:none]">
        {children}
      </div>
      {hint(1, more.after)}
    </div>
  );
}
