/** What a sheet of paper holds between its margins, px at 96 an inch: Letter upright, which is the shorter and wider, within A4's width. */
const PAPER = { width: 718, height: 960 };
/** Smaller than this nobody reads; larger than it stands on the screen it need not be. */
const SMALLEST = 0.5;
const LARGEST = 0.9;
/** A column of what is written beside the work is as wide as on the screen, px. */
const COLUMN = 348;
/** Room for the page's head, px. */
const HEAD = 60;

/** Height of an element with all that scrolls in it, px. */
const whole = (el: Element | null): number =>
  el
    ? Math.max(
        el.scrollHeight,
        ...[...el.querySelectorAll('*')].map(e => (e.scrollHeight > e.clientHeight + 8 ? e.scrollHeight : 0)),
      )
    : 0;

/**
 * How small a stage is printed so that its work, and what is written beside it in columns below, go on one page; what does not, even
 * at the smallest that can be read, goes on over the next.
 */
export function printedAt(
  workWidth: number,
  workHeight: number,
  besideHeight: number,
): { zoom: number; columns: number } {
  const columnsAt = (zoom: number): number => Math.max(1, Math.floor(PAPER.width / zoom / COLUMN));
  const fits = (zoom: number): boolean =>
    workWidth * zoom <= PAPER.width &&
    (HEAD + workHeight + (besideHeight / columnsAt(zoom)) * 1.08) * zoom <= PAPER.height;
  let zoom = LARGEST;
  while (zoom > SMALLEST && !fits(zoom)) zoom = Math.round((zoom - 0.02) * 100) / 100;
  return { zoom: Math.min(zoom, PAPER.width / workWidth), columns: columnsAt(zoom) };
}

/** Sees to it that a stage is printed as one page, black on white whatever the theme. */
export function attachPrinting(): void {
  const { documentElement: root } = document;
  let theme: string | undefined;
  window.addEventListener('beforeprint', () => {
    theme = root.dataset.theme;
    root.dataset.theme = 'light';
    const work = document.querySelector('[data-stage-scroll] main');
    const { zoom, columns } = printedAt(
      work?.clientWidth ?? PAPER.width,
      whole(work),
      whole(document.querySelector('[data-stage-scroll] aside')),
    );
    if (work) root.style.setProperty('--print-width', `${work.clientWidth}px`);
    root.style.setProperty('--print-zoom', String(zoom));
    root.style.setProperty('--print-columns', String(columns));
  });
  window.addEventListener('afterprint', () => {
    if (theme !== undefined) root.dataset.theme = theme;
  });
}
