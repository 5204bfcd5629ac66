import type { SurveyPhoto } from '@plate-fold/core/rig';
import { type Adjustment, markPhoto, seen, unmarkPhoto } from '@plate-fold/core/survey';
import { useRun } from '../../state/commands/run';
import { PictureMarker } from './picture-marker';

/** A photo on which points of the survey are marked. */
export function PhotoMarker(props: {
  readonly photo: SurveyPhoto;
  readonly url: string;
  readonly adjustment: Adjustment;
  readonly width: number;
  readonly height: number;
  readonly names: ReadonlyMap<string, string>;
  readonly point: string | undefined;
  readonly onPoint: (id: string | undefined) => void;
  readonly onMarked: (id: string) => void;
}) {
  const { photo, adjustment, onMarked, ...rest } = props;
  const run = useRun();
  const size = [photo.width, photo.height] as const;
  const camera = adjustment.photos.find(p => p.id === photo.id);
  const expected = new Map(
    camera
      ? adjustment.points.flatMap(p => {
          const px = seen(camera, size, p.at);
          const inside = px && px[0] >= 0 && px[1] >= 0 && px[0] <= size[0] && px[1] <= size[1];
          return px && inside ? [[p.id, px] as const] : [];
        })
      : [],
  );
  const odd = adjustment.readings[adjustment.suspects[0] ?? -1];
  return (
    <PictureMarker
      {...rest}
      label={`Photo ${photo.name}`}
      size={size}
      marks={photo.marks}
      expected={expected}
      {...(odd?.photo === photo.id && odd.point !== undefined ? { suspect: odd.point } : {})}
      onMark={(point, px, nudged) => {
        if (run(markPhoto, { photo: photo.id, point, px }) !== false && !nudged) onMarked(point);
      }}
      onUnmark={point => run(unmarkPhoto, { photo: photo.id, point })}
    />
  );
}
