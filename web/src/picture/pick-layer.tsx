import type { Vec2 } from '@plate-fold/core/geometry';
import type { SheetScale } from './sheet-scale';

/** Takes a tap anywhere on the map as a place on the ground plane; holes that it may catch are ringed. */
export function PickLayer(props: {
  readonly scale: SheetScale;
  readonly height: number;
  /** holes that a tap near them means, and what was tapped already */
  readonly holes: readonly Vec2[];
  readonly first?: Vec2;
  readonly onPick: (at: Vec2) => void;
}) {
  const { scale, height, holes, first, onPick } = props;
  const put = (p: Vec2): Vec2 => [scale.X(p[0]), scale.Y(p[1], height)];
  return (
    <g>
      {holes.map(h => {
        const [x, y] = put(h);
        return (
          <circle
            key={`${h[0]} ${h[1]}`}
            cx={x}
            cy={y}
            r="9"
            fill="none"
            stroke="var(--fluid)"
            strokeWidth="1.6"
            pointerEvents="none"
          />
        );
      })}
      {first && (
        <circle
          cx={put(first)[0]}
          cy={put(first)[1]}
          r="8"
          fill="var(--fluid)"
          stroke="var(--paper)"
          strokeWidth="2"
          pointerEvents="none"
        />
      )}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a map is pointed at; the keyboard has the lists at the right */}
      <rect
        width={scale.width}
        height={height}
        fill="transparent"
        className="cursor-crosshair"
        style={{ touchAction: 'none' }}
        onPointerDown={e => e.stopPropagation()}
        onPointerUp={e => {
          e.stopPropagation();
          const box = (e.currentTarget.ownerSVGElement as SVGSVGElement).getBoundingClientRect();
          onPick([scale.xAt(e.clientX - box.left), scale.yAt(e.clientY - box.top, height)]);
        }}
        onClick={e => e.stopPropagation()}
      />
    </g>
  );
}
