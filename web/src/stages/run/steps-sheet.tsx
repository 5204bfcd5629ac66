import type { Screen } from '@plate-fold/core/sequence';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { whoseHands } from './hands';
import type { Walked } from './use-screens';

type Standing = 'open' | 'not sound' | 'done';

/** How a screen stands: all of it done, some of it waiting for a repair, or open. */
export function standing({ states }: Walked, s: Screen): Standing {
  if (s.moves.some(m => m.fault === undefined && !states.get(m.id)?.done)) return 'open';
  return s.moves.some(m => m.fault === 'open') ? 'not sound' : 'done';
}

/** All steps of a run, the open ones first, each a press away; and who does which plate. */
export function StepsSheet(props: {
  readonly open: boolean;
  readonly walked: Walked;
  readonly at: number;
  readonly onClose: () => void;
  readonly onGo: (screen: number) => void;
  readonly onClaim: (panel: string, who: string | null) => void;
}) {
  const { open, walked, at, onGo } = props;
  const { screens, facts, claims } = walked;
  const me = whoseHands();
  const list = open ? screens.map((s, i) => ({ s, i, is: standing(walked, s) })) : [];
  const groups = (['not sound', 'open', 'done'] as const).map(
    g => [g, list.filter(x => x.is === g)] as const,
  );
  const names = { 'not sound': 'Not sound', open: 'Open', done: 'Done' } as const;
  return (
    <Dialog open={open} onClose={props.onClose} title="All steps">
      {groups.map(([g, all]) =>
        all.length === 0 ? null : (
          <section key={g} aria-label={names[g]} className="mb-3">
            <h3 className="border-b border-scribe pb-0.5 text-body font-semibold text-ink2">
              {names[g]}: <span className="fig">{all.length}</span>
            </h3>
            <ul>
              {all.map(({ s, i }) => (
                <li key={s.id}>
                  <button
                    type="button"
                    aria-current={i === at ? 'step' : undefined}
                    onClick={() => onGo(i)}
                    className={`flex min-h-11 w-full items-center gap-3 border-b border-scribe/70 px-1 py-1 text-left leading-tight ${i === at ? 'bg-paper font-semibold' : ''}`}
                  >
                    <span className="fig w-7 shrink-0 text-right text-small text-ink2">{i + 1}</span>
                    <span className="flex-1">{s.steps.map(x => x.title).join(', then ')}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ),
      )}
      <Button className="mb-4 w-full" onClick={() => onGo(screens.length)}>
        To the end of the run
      </Button>
      {facts.panels.length > 1 && (
        <section aria-label="Who does which plate">
          <h3 className="border-b border-scribe pb-0.5 text-body font-semibold text-ink2">
            Who does which plate
          </h3>
          {me === '' && <p className="mt-1 text-body">First enter who is working, at the top of the page.</p>}
          <ul>
            {facts.panels.map(({ panel }) => {
              const who = claims.get(panel.id);
              return (
                <li key={panel.id} className="flex min-h-12 items-center gap-2 border-b border-scribe/70">
                  <span className="flex-1">
                    {panel.mark}, {panel.name}: <b>{who ?? 'anybody'}</b>
                  </span>
                  <Button
                    disabled={me === ''}
                    onClick={() => props.onClaim(panel.id, who === me ? null : me)}
                  >
                    {who === me ? 'Give it up' : 'I’ll do it'}
                  </Button>
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </Dialog>
  );
}
