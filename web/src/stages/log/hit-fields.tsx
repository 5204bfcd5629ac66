import { plateUnder } from '@plate-fold/core/cover';
import { lengthFigure } from '@plate-fold/core/units';
import { MeasureInput } from '../../ui/measure-input';
import { PhotoButton } from '../../ui/photo-button';
import type { FormProps } from './form-props';

/** Where it hit, how deep, and what Strike foresees there. */
export function Hit({
  facts,
  units,
  draft,
  onChange,
  foreseen,
  photo,
  onPhoto,
}: Omit<FormProps, 'log' | 'busy' | 'onKeep' | 'onLeave'>) {
  return (
    <>
      <p className="border-l-[6px] border-fluid bg-paper px-3 py-2 text-body leading-snug">
        {draft.place
          ? `Marked on the map${draft.panel ? `, plate ${facts.document.plan.panels.find(p => p.id === draft.panel)?.mark}` : ', no plate there'}. Tap again to move it.`
          : 'Tap the map where it hit.'}
      </p>
      <div className="grid grid-cols-2 gap-2">
        {(['Behind the front axle', 'Right of center'] as const).map((label, i) => (
          <MeasureInput
            key={label}
            label={label}
            value={draft.place?.[i] ?? 0}
            units={units}
            least={-3000}
            most={9000}
            onEnter={v => {
              const at = [draft.place?.[0] ?? 0, draft.place?.[1] ?? 0] as const;
              const place: readonly [number, number] = i === 0 ? [v, at[1]] : [at[0], v];
              onChange({ ...draft, place, panel: plateUnder(facts.panels, place) });
            }}
          />
        ))}
      </div>
      <MeasureInput
        label="Dent depth, straightedge across it"
        value={draft.dentMm ?? 0}
        units={units}
        least={0}
        most={300}
        onEnter={v => onChange({ ...draft, dentMm: v })}
      />
      <PhotoButton
        photo={photo}
        onPhoto={onPhoto}
        ask={draft.photo ? 'Another photo in place of the one kept' : 'Take a photo of it'}
      />
      {draft.place && draft.panel && (
        <p className="text-small leading-snug text-ink2" role="status">
          {foreseen === undefined
            ? 'Striking there …'
            : foreseen === null
              ? 'Strike predicts no dent there.'
              : `Strike predicts ${lengthFigure(foreseen, units, true).value} ${lengthFigure(foreseen, units, true).unit} of dent there, with half the heavier axle on a rock. ${draft.dentMm === undefined ? '' : draft.dentMm > 2 * foreseen + 1 ? 'The hit was harder than that: check what is above.' : 'The hit was about that hard.'} An estimate.`}
        </p>
      )}
    </>
  );
}
