import type { FoldedPanel } from '@plate-fold/core/fold';
import type { Vec2 } from '@plate-fold/core/geometry';
import { flatsFromAbove, pathOf } from './paths';

/** The flats of a plate that lies behind another, as a drawing shows what is hidden. */
export const HiddenOutline = ({
  p,
  put,
  tone = 'var(--ink)',
  wide = 1.2,
}: {
  p: FoldedPanel;
  put: (q: Vec2) => Vec2;
  tone?: string;
  wide?: number;
}) => (
  <path
    d={flatsFromAbove(p)
      .map(flat => pathOf([flat], put))
      .join('')}
    fill="none"
    stroke={tone}
    strokeWidth={wide}
    strokeDasharray="5 3"
    pointerEvents="none"
  />
);
