import type { ReactNode } from 'react';
import type { Drawing } from './guide';

const SHEET = { fill: 'var(--scribe)', stroke: 'var(--ink)', strokeWidth: 1 } as const;
const STEEL = { fill: 'var(--ink2)', stroke: 'var(--ink)', strokeWidth: 1 } as const;
const LINE = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.5 } as const;
const MARK = { fill: 'none', stroke: 'var(--fluid)', strokeWidth: 2 } as const;

/** A hex bolt from below through what lies on y = 40, its head down. */
const Bolt = ({ x = 60, from = 12, to = 66 }: { x?: number; from?: number; to?: number }) => (
  <>
    <rect x={x - 4} y={from} width={8} height={to - from} {...STEEL} />
    <rect x={x - 10} y={to} width={20} height={7} {...STEEL} />
  </>
);

/** Sections of 120 by 80, the ground below. */
const DRAWN: Readonly<Record<Drawing, ReactNode>> = {
  'rivet-nut': (
    <>
      <rect x={10} y={36} width={100} height={8} {...SHEET} />
      <path
        d="M46 44H74V48H46ZM50 36V26Q50 20 56 20V36M70 36V26Q70 20 64 20V36M50 30Q42 28 44 36M70 30Q78 28 76 36"
        {...LINE}
      />
      <Bolt from={16} to={56} />
    </>
  ),
  'clinch-nut': (
    <>
      <rect x={10} y={40} width={100} height={8} {...SHEET} />
      <path d="M44 24H76V40H70L68 44L70 48H50L52 44L50 40H44Z" {...STEEL} />
      <path d="M56 24V48M64 24V48" {...LINE} />
    </>
  ),
  'captive-nut': (
    <>
      <path d="M10 10H110V18H18V44H10ZM10 44H110V52H10Z" {...SHEET} />
      <path d="M46 32H74V44H46Z" {...STEEL} />
      <Bolt from={26} to={62} />
    </>
  ),
  slot: (
    <>
      <rect x={15} y={12} width={90} height={56} {...SHEET} />
      <rect x={36} y={30} width={48} height={20} rx={10} fill="var(--paper)" stroke="var(--ink)" />
      <circle cx={52} cy={40} r={9} {...MARK} />
      <path d="M64 40H76M72 36L77 40L72 44" {...MARK} />
    </>
  ),
  flange: (
    <>
      <path d="M10 56H84L108 22L114 26L88 64H10Z" {...SHEET} />
      <path d="M84 48A14 14 0 0 1 92 36" {...MARK} />
    </>
  ),
  'catch-edge': (
    <>
      <rect x={6} y={26} width={48} height={7} {...SHEET} />
      <rect x={58} y={44} width={56} height={7} {...SHEET} />
      <path d="M36 62Q48 44 58 47" {...MARK} />
      <path d="M50 50L58 47L52 41" {...MARK} />
    </>
  ),
  lap: (
    <>
      <rect x={8} y={30} width={62} height={8} {...SHEET} />
      <rect x={46} y={38} width={66} height={8} {...SHEET} />
      <Bolt x={58} from={18} to={46} />
    </>
  ),
  grip: (
    <>
      <rect x={30} y={20} width={60} height={10} {...SHEET} />
      <rect x={30} y={30} width={60} height={14} {...SHEET} />
      <rect x={30} y={44} width={60} height={10} {...SHEET} />
      <Bolt from={8} to={54} />
      <path d="M98 20V54M94 20H102M94 54H102" {...MARK} />
    </>
  ),
  'k-factor': (
    <>
      <path d="M10 66H50A36 36 0 0 0 86 30V8H70V30A20 20 0 0 1 50 50H10Z" {...SHEET} />
      <path d="M10 57H50A27 27 0 0 0 77 30V8" strokeDasharray="4 3" {...MARK} />
    </>
  ),
  breakover: (
    <>
      <circle cx={26} cy={50} r={14} {...SHEET} />
      <circle cx={94} cy={50} r={14} {...SHEET} />
      <path d="M14 38H106" {...LINE} />
      <path d="M26 64L60 40L94 64" {...MARK} />
    </>
  ),
  crossbar: (
    <>
      <path d="M14 8H26V72H14ZM94 8H106V72H94Z" {...SHEET} />
      <rect
        x={26}
        y={34}
        width={68}
        height={12}
        fill="var(--fluid)"
        fillOpacity={0.3}
        stroke="var(--fluid)"
      />
      <circle cx={20} cy={40} r={3} {...STEEL} />
      <circle cx={100} cy={40} r={3} {...STEEL} />
    </>
  ),
  countersunk: (
    <>
      <path d="M10 40H48L42 56H10ZM110 40H72L78 56H110Z" {...SHEET} />
      <path d="M44 56H76L66 40V14H54V40Z" {...STEEL} />
    </>
  ),
  spacer: (
    <>
      <rect x={10} y={10} width={100} height={10} {...SHEET} />
      <rect x={48} y={20} width={8} height={30} {...STEEL} />
      <rect x={64} y={20} width={8} height={30} {...STEEL} />
      <rect x={10} y={50} width={100} height={8} {...SHEET} />
      <Bolt from={6} to={58} />
    </>
  ),
  post: (
    <>
      <rect x={10} y={10} width={100} height={10} {...SHEET} />
      <rect x={55} y={6} width={10} height={14} {...STEEL} />
      <path d="M48 20H72V50H65V28H55V50H48Z" {...STEEL} />
      <rect x={10} y={50} width={100} height={8} {...SHEET} />
      <Bolt from={34} to={58} />
    </>
  ),
  prying: (
    <>
      <rect x={10} y={14} width={70} height={10} {...SHEET} />
      <path d="M10 24H40Q70 24 110 52L106 60Q68 34 40 32H10Z" {...SHEET} />
      <Bolt x={46} from={6} to={34} />
      <path d="M104 66V78M100 74L104 78L108 74M16 40V32" {...MARK} />
    </>
  ),
};

/** A term of the glossary, drawn in section. */
export const GlossaryDrawing = ({ of, term }: { of: Drawing; term: string }) => (
  <svg
    role="img"
    aria-label={`Drawing: ${term}`}
    viewBox="0 0 120 80"
    className="h-20 w-30 shrink-0 rounded-tight bg-paper"
  >
    {DRAWN[of]}
  </svg>
);
