import { useState } from 'react';
import { type Options, useHotkeys } from 'react-hotkeys-hook';
import { useNavigate, useParams } from 'react-router';
import { buildActivated, redone, undone } from '../state/plan-slice';
import { useApp, useDo } from '../state/store';
import { panelSelected, sideTurned, unitsSwitched } from '../state/view-slice';
import { Dialog } from '../ui/dialog';
import { STAGES } from './stages';

/** A sheet that was just chosen still has the focus: the keys go on from there as from anywhere but a field for text. */
const ON = { enableOnFormTags: ['radio'] } satisfies Options;

const KEYS: readonly (readonly [keys: string, does: string])[] = [
  [`1 to ${STAGES.length}`, 'stages'],
  ['[ and ]', 'plate before and after'],
  ['B', 'next build'],
  ['V', 'view side'],
  ['P', 'propose a set (on Cover)'],
  ['arrows, Shift+arrows', 'nudge what is held by 1 mm, 10 mm'],
  ['U', 'units'],
  ['Ctrl+Z', 'undo'],
  ['Ctrl+Shift+Z', 'redo'],
  ['Esc', 'nothing selected'],
  ['?', 'this list'],
];

/** The keys of the planning stages. */
export function usePlanKeys() {
  const dispatch = useDo();
  const navigate = useNavigate();
  const { planId } = useParams();
  const plan = useApp(s => s.plan.present?.plan);
  const panel = useApp(s => s.view.panel);
  const [shown, setShown] = useState(false);
  useHotkeys(
    STAGES.map((_, i) => `${i + 1}`),
    e => {
      const stage = STAGES[Number(e.key) - 1];
      if (stage) navigate(`/plan/${planId}/${stage.id}`);
    },
    { ...ON, useKey: true },
  );
  const turn = (by: number): void => {
    const ids = plan?.panels.map(p => p.id) ?? [];
    const at = panel === undefined ? (by > 0 ? -1 : 0) : ids.indexOf(panel);
    dispatch(panelSelected(ids[(at + by + ids.length) % ids.length]));
  };
  useHotkeys('[', () => turn(-1), { ...ON, useKey: true });
  useHotkeys(']', () => turn(1), { ...ON, useKey: true });
  useHotkeys(
    'b',
    () => {
      const ids = plan?.builds.map(b => b.id) ?? [];
      const next = ids[(ids.indexOf(plan?.activeBuild ?? '') + 1) % ids.length];
      if (next) dispatch(buildActivated(next));
    },
    ON,
  );
  useHotkeys('v', () => void dispatch(sideTurned()), ON);
  useHotkeys('u', () => void dispatch(unitsSwitched()), ON);
  useHotkeys('mod+z', () => void dispatch(undone()), { ...ON, preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => void dispatch(redone()), { ...ON, preventDefault: true });
  useHotkeys('escape', () => void dispatch(panelSelected(undefined)), ON);
  useHotkeys('?', () => setShown(true), { ...ON, useKey: true });
  return { shown, open: () => setShown(true), close: () => setShown(false) };
}

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[9rem_1fr] gap-y-2">
        {KEYS.map(([keys, does]) => (
          <div key={keys} className="contents">
            <dt className="fig font-semibold">{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
