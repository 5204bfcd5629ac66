import type { Vec2 } from '@plate-fold/core/geometry';
import { placeSeen, VIEWS } from '@plate-fold/core/scan';
import { PictureMarker } from './picture-marker';
import type { Laying } from './scan-part';

/** One side of a scan that is being laid on, to mark points on; a mark where the scan shows nothing is not taken. */
export function ScanMarker(props: {
  readonly laying: Laying;
  readonly onLaying: (l: Laying) => void;
  readonly width: number;
  readonly height: number;
  readonly names: ReadonlyMap<string, string>;
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
}) {
  const { laying, onLaying, onPoint, ...rest } = props;
  const { look, marks } = laying;
  if (!look) return null;
  const mark = (point: string, px: Vec2, nudged: boolean): void => {
    const view = VIEWS.find(v => v.id === laying.view);
    const at = view && placeSeen(look.heights, view, px);
    if (!at) return;
    const made = { point, px, at };
    onLaying({
      ...laying,
      marks: marks.some(m => m.point === point)
        ? marks.map(m => (m.point === point ? made : m))
        : [...marks, made],
    });
    if (!nudged) onPoint(undefined);
  };
  return (
    <PictureMarker
      {...rest}
      label={`Scan ${laying.name}`}
      size={[look.heights.width, look.heights.height]}
      url={look.url}
      marks={marks}
      onPoint={onPoint}
      onMark={mark}
      onUnmark={id => onLaying({ ...laying, marks: marks.filter(m => m.point !== id) })}
    />
  );
}
