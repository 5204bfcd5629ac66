import {
  COMPONENT_KINDS,
  type ComponentKind,
  type Rig,
  type RigScan,
  wholeSurvey,
} from '@plate-fold/core/rig';
import { removeScan } from '@plate-fold/core/scan';
import { spoken, tapeLength, type UnitSystem } from '@plate-fold/core/units';
import { X } from 'lucide-react';
import { useRun } from '../../state/commands/run';
import { Button } from '../../ui/button';

/** What a press on the map takes from the scan. */
export type Taking = { readonly hole: string } | { readonly part: string } | { readonly kind: ComponentKind };

/** A scan that lies on the vehicle: how well, and what a press on the map takes from it. */
export function LaidScan(props: {
  readonly rig: Rig;
  readonly scan: RigScan;
  readonly units: UnitSystem;
  readonly taking: Taking | undefined;
  readonly onTaking: (t: Taking | undefined) => void;
  readonly fault: string | undefined;
}) {
  const { rig, scan, units, taking, onTaking } = props;
  const run = useRun();
  // the survey says where its own holes are
  const surveyed = new Set(wholeSurvey(rig.survey).points.map(p => p.mount));
  return (
    <div className="grid gap-2">
      <p className="text-small">
        <b>{scan.name}</b>, lined up on {scan.pairs.length} points, which are off by{' '}
        <span className="fig">
          {tapeLength(
            Math.sqrt(scan.pairs.reduce((s, p) => s + p.off ** 2, 0) / Math.max(1, scan.pairs.length)),
            units,
          )}
        </span>
        .
      </p>
      {props.fault && <p className="text-small text-oxide">{props.fault}</p>}
      <label className="text-note text-ink2">
        Tap the map to take
        <select
          className="min-h-12 w-full rounded-edge border border-scribe bg-paper px-2 text-lead text-ink"
          value={
            taking
              ? 'hole' in taking
                ? `hole ${taking.hole}`
                : 'part' in taking
                  ? `part ${taking.part}`
                  : `kind ${taking.kind}`
              : ''
          }
          onChange={e => {
            const [what, ...rest] = e.target.value.split(' ');
            const id = rest.join(' ');
            onTaking(
              what === 'hole'
                ? { hole: id }
                : what === 'part'
                  ? { part: id }
                  : what === 'kind'
                    ? { kind: id as ComponentKind }
                    : undefined,
            );
          }}
        >
          <option value="">nothing</option>
          <optgroup label="the place of a hole">
            {rig.mounts
              .filter(m => !surveyed.has(m.id))
              .map(m => (
                <option key={m.id} value={`hole ${m.id}`}>
                  {m.id}
                </option>
              ))}
          </optgroup>
          <optgroup label="the outline of a part">
            {rig.components.map(c => (
              <option key={c.id} value={`part ${c.id}`}>
                {c.name}
              </option>
            ))}
          </optgroup>
          <optgroup label="a part that is not there yet">
            {COMPONENT_KINDS.map(k => (
              <option key={k} value={`kind ${k}`}>
                {spoken(k)}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => run(removeScan, { scan: scan.id })}>
          <X size={16} aria-hidden="true" /> Remove the scan
        </Button>
      </div>
    </div>
  );
}
