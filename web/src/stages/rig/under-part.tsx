import type { SurveyPhoto } from '@plate-fold/core/rig';
import type { Adjustment } from '@plate-fold/core/survey';
import type { UnitSystem } from '@plate-fold/core/units';
import { Chips } from '../../ui/chips';
import { MeasureInput } from '../../ui/measure-input';

/** What lies under the map: a photo and at which height, or the scan. */
export type Under = { readonly photo: string; readonly z: number } | 'scan';

/** What of photos and scan is laid under the map. */
export function UnderPart(props: {
  readonly photos: readonly SurveyPhoto[];
  readonly scan: string | undefined;
  readonly adjustment: Adjustment;
  readonly units: UnitSystem;
  readonly under: Under | undefined;
  readonly onUnder: (u: Under | undefined) => void;
}) {
  const { photos, scan, adjustment, units, under, onUnder } = props;
  const setUp = photos.filter(p => adjustment.photos.some(a => a.id === p.id));
  if (setUp.length === 0 && scan === undefined) return null;
  const heights = adjustment.points.map(p => p.at[2]).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] ?? 0;
  const photo = under !== undefined && under !== 'scan' ? under : undefined;
  return (
    <section className="border-b border-scribe p-3" aria-label="Under the map">
      <h2 className="mb-1 font-semibold">Under the map</h2>
      <Chips
        label="Under the map"
        value={photo ? `photo ${photo.photo}` : under === 'scan' ? 'scan' : ''}
        choices={[
          ['', 'nothing'],
          ...(scan === undefined ? [] : [['scan', `scan ${scan}`] as const]),
          ...setUp.map(p => [`photo ${p.id}`, p.name] as const),
        ]}
        onChoose={v =>
          onUnder(v === '' ? undefined : v === 'scan' ? 'scan' : { photo: v.slice(6), z: photo?.z ?? usual })
        }
      />
      {photo && (
        <MeasureInput
          label="Flattened at this height"
          value={photo.z}
          units={units}
          onEnter={z => onUnder({ ...photo, z })}
          className="mt-1 w-44"
        />
      )}
    </section>
  );
}
