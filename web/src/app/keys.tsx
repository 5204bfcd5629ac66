import { useState } from 'react';
import { type Options, useHotkeys } from 'react-hotkeys-hook';
import { useNavigate, useParams } from 'react-router';
import { BOUND, type Bound } from '../state/commands/bound';
import { useBound } from '../state/commands/use-bound';
import { Dialog } from '../ui/dialog';
import { STAGES } from './stages';

/** A sheet that was just chosen still has the focus: the keys go on from there as from anywhere but a field for text. */
const ON = { enableOnFormTags: ['radio'] } satisfies Options;

/** What the key sheet says beside what the frame's own commands say. */
const KEYS: readonly (readonly [keys: string, does: string])[] = [
  [`1 to ${STAGES.length}`, 'stages'],
  ...BOUND.flatMap(b => (b.shown === undefined ? [] : [[b.shown, b.says] as const])),
  ['P', 'suggest plates (on Cover)'],
  ['arrows, Shift+arrows', 'nudge the selection by 1 mm, 10 mm'],
  ['Ctrl+K', 'find a command, plate, bolt or finding'],
  ['?', 'this list'],
];

/** Listens for the keys of one command. */
function BoundKeys({ of }: { of: Bound }) {
  const { enabled, run } = useBound(of);
  useHotkeys(
    [...(of.keys ?? [])],
    () => {
      if (enabled) run();
    },
    { ...ON, useKey: of.useKey ?? false, preventDefault: of.keys?.some(k => k.startsWith('mod')) ?? false },
  );
  return null;
}

/** The keys of the planning stages. */
export const PlanKeys = () => BOUND.map(b => <BoundKeys key={b.id} of={b} />);

/** The key sheet and the keys of the stages. */
export function useKeySheet() {
  const navigate = useNavigate();
  const { planId } = useParams();
  const [shown, setShown] = useState(false);
  useHotkeys(
    STAGES.map((_, i) => `${i + 1}`),
    e => {
      const stage = STAGES[Number(e.key) - 1];
      if (stage) navigate(`/plan/${planId}/${stage.id}`);
    },
    { ...ON, useKey: true },
  );
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
