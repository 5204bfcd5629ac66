import { NavLink, useParams } from 'react-router';
import { selectFindings } from '../state/derived';
import { useAppSelector } from '../state/store';
import { STAGES } from './stages';

/** Stages in the order of the work, each with what waits there: at the left on a desk, at the foot on a phone. */
export function StageRail() {
  const { planId } = useParams();
  const findings = useAppSelector(selectFindings);
  return (
    <nav
      aria-label="Stages"
      className="flex bg-sheet print:hidden max-desk:order-last max-desk:border-t max-desk:border-scribe flat:order-none! flat:w-16 flat:flex-col flat:overflow-y-auto flat:border-t-0! flat:border-r desk:w-19 desk:flex-col desk:border-r desk:border-scribe"
    >
      {STAGES.map((s, i) => {
        const waiting = findings.filter(f => s.holds.includes(f.where) && f.severity !== 'note');
        const stop = waiting.some(f => f.severity === 'stop');
        return (
          <NavLink
            key={s.id}
            to={`/plan/${planId}/${s.id}`}
            aria-keyshortcuts={`${i + 1}`}
            className={({ isActive }) =>
              `relative flex flex-1 flex-col items-center justify-center gap-1 text-small max-desk:min-h-14.5 flat:min-h-11! flat:shrink-0 flat:gap-0 flat:text-note desk:h-18.5 desk:flex-none ${isActive ? 'bg-fluid font-bold text-onfluid' : 'hover:bg-paper'}`
            }
          >
            <s.icon size={22} strokeWidth={1.8} aria-hidden="true" />
            {s.name}{' '}
            {waiting.length > 0 && (
              <span
                className={`absolute top-1.5 right-2 grid h-4.75 min-w-4.75 place-items-center rounded-full px-1 text-note font-bold max-desk:right-[22%] ${stop ? 'bg-oxide text-paper' : 'bg-marker text-[#13181d]'}`}
              >
                {waiting.length}
                <span className="sr-only"> findings</span>
              </span>
            )}
          </NavLink>
        );
      })}
    </nav>
  );
}
