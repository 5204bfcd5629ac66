import { lengthName, type ResolvedJoint } from '@plate-fold/core/bolt';
import { torqueFigure } from '@plate-fold/core/units';
import { selectFindings, useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { panelSelected } from '../../state/view-slice';
import { Fig } from '../../ui/figure';
import { CONDITION_NAMES } from '../../ui/names';

/** All joints, by plate: which bolt, how tight. */
export function JointTable({
  joints,
  chosen,
  onChoose,
}: {
  joints: readonly ResolvedJoint[];
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const { units, panel } = useAppSelector(s => s.view);
  const findings = useAppSelector(selectFindings);
  const mark = (id: string): string => facts.document.plan.panels.find(p => p.id === id)?.mark ?? '';
  return (
    <div className="shrink-0 overflow-y-auto border-scribe bg-sheet max-desk:max-h-72 max-desk:border-b desk:w-[19rem] desk:border-r">
      {panel !== undefined && (
        <p className="flex items-center justify-between border-b border-scribe px-3 text-small">
          Only plate {mark(panel)}
          <button
            type="button"
            className="min-h-11 px-2 underline"
            onClick={() => dispatch(panelSelected(undefined))}
          >
            show all
          </button>
        </p>
      )}
      <ul aria-label="Joints">
        {joints.map(j => {
          const on = j.id === chosen;
          const bad = findings.some(f => f.about.includes(j.id) && f.severity !== 'note');
          return (
            <li key={j.id}>
              <button
                type="button"
                aria-pressed={on}
                onClick={() => onChoose(j.id)}
                className={`grid min-h-13 w-full grid-cols-[3.1rem_1fr_auto] items-center gap-x-2 border-b border-scribe/70 px-3 py-1 text-left leading-tight ${on ? 'bg-fluid text-onfluid [&_*]:text-onfluid' : 'hover:bg-paper'}`}
              >
                <span>
                  <span className="fig block font-semibold">{j.id}</span>
                  <span className="text-note text-ink2">{j.joint.panels.map(mark).join(' + ')}</span>
                </span>
                <span>
                  <span className="fig block text-small">
                    {j.thread.designation} × {lengthName(j.lengthMm, j.thread)}
                  </span>
                  <span className="text-note text-ink2">
                    {j.nut?.name ?? 'tapped'}
                    {j.mount && j.mount.condition !== 'good'
                      ? `, hole ${CONDITION_NAMES[j.mount.condition]}`
                      : ''}
                  </span>
                </span>
                <span className="text-right">
                  {bad && (
                    <span className="mr-1.5 inline-block rounded-full bg-marker px-1.5 text-note font-bold text-[#13181d]!">
                      !<span className="sr-only"> to fix</span>
                    </span>
                  )}
                  <Fig of={torqueFigure(j.torqueNm, units)} className="text-lead" />
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
