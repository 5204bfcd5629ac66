import { useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';

const USUAL = [
  'Part missing',
  'Hole does not line up',
  'Hole drilled off its mark',
  'Cross-threaded',
  'Turns without getting tighter',
  'Other bolt used',
  'Touches something above',
] as const;

/** What did not go by the plan: two taps for the usual, a note for the rest. */
export function DeviationSheet(props: {
  readonly open: boolean;
  readonly what: string;
  readonly onClose: () => void;
  readonly onNote: (note: string) => void;
}) {
  const [note, setNote] = useState('');
  const tell = (text: string): void => {
    props.onNote(text);
    setNote('');
  };
  return (
    <Dialog open={props.open} onClose={props.onClose} title="What is off?" about={`Kept with ${props.what}.`}>
      <div className="grid grid-cols-2 gap-2">
        {USUAL.map(u => (
          <Button key={u} className="min-h-14 text-left leading-tight" onClick={() => tell(u)}>
            {u}
          </Button>
        ))}
      </div>
      <form
        className="mt-3 flex gap-2"
        onSubmit={e => {
          e.preventDefault();
          if (note.trim()) tell(note.trim());
        }}
      >
        <input
          aria-label="In your own words"
          placeholder="in your own words"
          maxLength={2000}
          value={note}
          onChange={e => setNote(e.target.value)}
          className="min-h-12 w-full min-w-0 rounded-[4px] border border-scribe bg-paper px-3 text-[16px] placeholder:text-ink2"
        />
        <Button type="submit" look="strong" disabled={note.trim() === ''}>
          Note it
        </Button>
      </form>
    </Dialog>
  );
}
