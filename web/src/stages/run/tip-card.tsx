import type { Tip } from '@plate-fold/core/sequence';
import { Lightbulb } from 'lucide-react';
import type { ReactElement } from 'react';

const LINE = {
  fill: 'none',
  stroke: 'var(--ink)',
  strokeWidth: 2.5,
  strokeLinecap: 'round',
  strokeLinejoin: 'round',
} as const;
const BLUE = { ...LINE, stroke: 'var(--fluid)', strokeWidth: 3.5 } as const;

/** Tricks that a drawing says better, 120 by 72. */
const DRAWN: Readonly<Record<string, () => ReactElement>> = {
  // a box wrench with a nut in it, reaching in past the edge of a member
  'feed-nut': () => (
    <>
      <path {...LINE} d="M60 8h54M60 34h54M60 8v10" />
      <path {...BLUE} d="M6 58L72 24" />
      <circle {...BLUE} cx="82" cy="20" r="11" />
      <path {...LINE} d="M77 17l5-3 5 3v6l-5 3-5-3z" fill="var(--scribe)" />
    </>
  ),
  // tape over the head of a carriage bolt standing in a plate
  'carriage-tape': () => (
    <>
      <path {...LINE} d="M8 46h104v8H8z" fill="var(--scribe)" />
      <path {...LINE} d="M54 46V12h12v34" />
      <path {...LINE} d="M46 54q14 14 28 0" />
      <path {...BLUE} d="M34 58q26 18 52 0" />
    </>
  ),
  // a drift punch through two holes that do not line up
  'line-up': () => (
    <>
      <path {...LINE} d="M6 20h44M66 20h48M6 34h40M62 34h52" strokeWidth={7} stroke="var(--ink2)" />
      <path {...BLUE} d="M40 68L62 8" />
      <path {...BLUE} d="M94 40l12 0m-5-5l6 5-6 5" />
    </>
  ),
  // a wrench clamped to the tool, two hands
  'rivet-nut-tool': () => (
    <>
      <path {...LINE} d="M8 14h104v7H8z" fill="var(--scribe)" />
      <path {...LINE} d="M52 21h16v8H52z" />
      <path {...BLUE} d="M60 29v34" />
      <path {...BLUE} d="M60 46H18M60 54h42" />
      <path {...LINE} d="M46 70h28" />
    </>
  ),
  // a block on the jack presses a lip up to its tube
  'block-lip': () => (
    <>
      <circle {...LINE} cx="60" cy="16" r="11" fill="var(--scribe)" />
      <path {...BLUE} d="M18 32h76l10-8" />
      <path {...LINE} d="M42 37h36v12H42z" />
      <path {...LINE} d="M60 49v20M46 69h28" />
      <path {...BLUE} d="M98 62v-16m-5 5l5-6 5 6" />
    </>
  ),
  // one wall, the other wall, and the bolt through both
  'boxed-member': () => (
    <>
      <path {...LINE} d="M14 12h92v36H14z" />
      <path {...BLUE} d="M60 64V4" />
      <path {...LINE} d="M48 64h24M50 4h20" strokeWidth={6} />
    </>
  ),
  // washer round a nut that stands proud
  'proud-nut': () => (
    <>
      <path {...LINE} d="M8 20h104v7H8z" fill="var(--scribe)" />
      <path {...LINE} d="M46 27h28v14H46z" />
      <path {...BLUE} d="M28 34h14M78 34h14" strokeWidth={9} />
      <path {...LINE} d="M8 48h104v7H8z" fill="var(--scribe)" />
    </>
  ),
};

/** One trick of the hands, drawn where a drawing says it better. */
export function TipCard({ tip }: { tip: Tip }) {
  const drawn = DRAWN[tip.id];
  return (
    <aside
      aria-label="Tip"
      className="mt-3 flex items-center gap-3 border border-scribe bg-paper px-3 py-2 text-lead leading-snug"
    >
      {drawn ? (
        <svg width="108" height="65" viewBox="0 0 120 72" aria-hidden="true" className="shrink-0">
          {drawn()}
        </svg>
      ) : (
        <Lightbulb size={20} aria-hidden="true" className="shrink-0 text-ink2" />
      )}
      <p>{tip.text}</p>
    </aside>
  );
}
