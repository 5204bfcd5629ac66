import type { MaterialFamily } from '@plate-fold/core/sheet';

/** Material is told by hatch as well as by tone: dense and sparse strokes, crossed strokes, dots. */
export function HatchDefs({ id }: { id: string }) {
  return (
    <defs>
      <pattern
        id={`${id}-steel`}
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="5" height="5" fill="var(--steel)" />
        <path d="M0 0V5" stroke="var(--hatch)" strokeWidth="1.1" opacity="0.55" />
      </pattern>
      <pattern
        id={`${id}-stainless`}
        width="8"
        height="8"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="8" height="8" fill="var(--stainless)" />
        <path d="M0 0V8M0 0H8" stroke="var(--hatch)" strokeWidth="0.9" opacity="0.5" />
      </pattern>
      <pattern
        id={`${id}-aluminum`}
        width="13"
        height="13"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="13" height="13" fill="var(--aluminum)" />
        <path d="M0 0V13" stroke="var(--hatch)" strokeWidth="1" opacity="0.5" />
      </pattern>
      <pattern id={`${id}-plastic`} width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--plastic)" />
        <circle cx="2" cy="2" r="1.1" fill="var(--hatch)" opacity="0.6" />
        <circle cx="6" cy="6" r="1.1" fill="var(--hatch)" opacity="0.6" />
      </pattern>
      <pattern
        id={`${id}-bare`}
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <rect width="6" height="6" fill="var(--oxidesoft)" opacity="0.75" />
        <path d="M0 0V6" stroke="var(--oxide)" strokeWidth="1.6" />
      </pattern>
      <pattern
        id={`${id}-member`}
        width="9"
        height="9"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <rect width="9" height="9" fill="var(--ghost)" />
        <path d="M0 0V9" stroke="var(--hatch)" strokeWidth="0.9" opacity="0.55" />
      </pattern>
      <pattern id={`${id}-louvers`} width="5" height="5" patternUnits="userSpaceOnUse">
        <path d="M1 0V5" stroke="var(--ink)" strokeWidth="1.4" opacity="0.75" />
      </pattern>
    </defs>
  );
}

export const hatch = (id: string, family: MaterialFamily | 'member'): string => `url(#${id}-${family})`;

/** A small piece of sheet, for buttons: one half each where a build mixes families. */
export function Swatch({ families, size = 24 }: { families: readonly MaterialFamily[]; size?: number }) {
  const id = `sw-${families.join('-')}`;
  const [first = 'steel', second] = [...new Set(families)];
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0 rounded-tight">
      <HatchDefs id={id} />
      <rect width="24" height="24" fill={hatch(id, first)} />
      {second && <path d="M24 0V24H0Z" fill={hatch(id, second)} />}
      <rect x="0.5" y="0.5" width="23" height="23" fill="none" stroke="var(--hatch)" rx="2.5" />
    </svg>
  );
}

/** A strip of sheet as wide as there is room for. */
export function HatchStrip({ family }: { family: MaterialFamily }) {
  const id = `strip-${family}`;
  return (
    <svg className="block h-4 w-full" aria-hidden="true">
      <HatchDefs id={id} />
      <rect width="100%" height="100%" fill={hatch(id, family)} />
    </svg>
  );
}
