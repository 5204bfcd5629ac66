import type { NutElement } from '@plate-fold/core/bolt';
import { box } from './box';
import { hatch } from './hatch';

interface NutShapeProps {
  readonly kind: NutElement;
  /** middle of the bolt, half the nut's width, half the bolt, px */
  readonly cx: number;
  readonly half: number;
  readonly bore: number;
  /** the face toward the head and the face away from it, px */
  readonly near: number;
  readonly far: number;
  /** px in a mm */
  readonly scale: number;
  readonly ink: {
    readonly stroke: string;
    readonly strokeWidth: number;
    readonly strokeLinejoin: 'round';
  };
}

/** What takes the thread, cut through as it is: each kind by its own shape, so that nobody picks up the wrong one. */
export function NutShape({ kind, cx, half, bore, near, far, scale, ink }: NutShapeProps) {
  const way = Math.sign(far - near) || 1;
  const both = (draw: (side: 1 | -1) => string): string => `${draw(-1)}${draw(1)}`;
  const plain = both(s => box(cx + s * half, cx + s * bore, near, far));
  switch (kind) {
    case 'flange-serrated':
    case 'stud': {
      const step = near + (far - near) * 0.28;
      return (
        <path
          d={both(
            s =>
              `M${cx + s * bore} ${near}H${cx + s * half}L${cx + s * half * 0.96} ${step}H${cx + s * half * 0.74}V${far}H${cx + s * bore}Z`,
          )}
          fill="var(--stainless)"
          {...ink}
        />
      );
    }
    case 'nylon-lock':
    case 'all-metal-lock': {
      const collar = near + (far - near) * 0.7;
      return (
        <g {...ink}>
          <path d={both(s => box(cx + s * half, cx + s * bore, near, collar))} fill="var(--stainless)" />
          <path
            d={both(
              s => `M${cx + s * half} ${collar}L${cx + s * half * 0.78} ${far}H${cx + s * bore}V${collar}Z`,
            )}
            fill={kind === 'nylon-lock' ? hatch('section', 'plastic') : 'var(--stainless)'}
          />
        </g>
      );
    }
    case 'rivet-nut': {
      // flange on the near side of the wall, a bulge that grips it behind
      const rim = 1.1 * scale;
      const bulge = near + (far - near) * 0.42;
      return (
        <path
          d={both(
            s =>
              `M${cx + s * bore} ${near - way * rim}H${cx + s * half * 1.35}V${near}H${cx + s * half * 0.86}V${near + (far - near) * 0.24}L${cx + s * half * 1.3} ${bulge}L${cx + s * half * 0.86} ${near + (far - near) * 0.6}V${far}H${cx + s * bore}Z`,
          )}
          fill="var(--stainless)"
          {...ink}
        />
      );
    }
    case 'clip':
    case 'spring':
      // a folded sheet clip; the thread is a drawn collar
      return (
        <path
          d={both(
            s =>
              `M${cx + s * bore} ${near}H${cx + s * half}V${near + way * 1.4 * scale}H${cx + s * bore * 1.9}V${far}H${cx + s * bore}Z`,
          )}
          fill="var(--stainless)"
          {...ink}
        />
      );
    case 'nut-strip': {
      // a strip that lies in the channel, held by its turned-in lips
      const wide = half * 1.7;
      const lip = 2.5 * scale;
      return (
        <g {...ink}>
          <path
            d={both(s => box(cx + s * wide, cx + s * bore, near, far))}
            fill={hatch('section', 'steel')}
          />
          <path
            d={both(
              s => `M${cx + s * wide * 1.08} ${near}V${far + way * lip}H${cx + s * wide * 0.78}V${far}`,
            )}
            fill="none"
            strokeWidth={ink.strokeWidth * 1.6}
          />
        </g>
      );
    }
    case 'nut-plate':
    case 'weld-tab': {
      const wide = half * 1.9;
      const tab = near + way * 2.5 * scale;
      return (
        <g {...ink}>
          <path
            d={both(s => box(cx + s * wide, cx + s * bore, near, tab))}
            fill={hatch('section', 'steel')}
          />
          <path d={both(s => box(cx + s * half * 0.8, cx + s * bore, tab, far))} fill="var(--stainless)" />
          <path
            d={both(
              s => `M${cx + s * half * 0.8} ${far}L${cx + s * half * 1.12} ${tab}H${cx + s * half * 0.8}Z`,
            )}
            fill="var(--ink)"
          />
        </g>
      );
    }
    default:
      return <path d={plain} fill="var(--stainless)" {...ink} />;
  }
}
