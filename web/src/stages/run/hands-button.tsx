import { UserRound } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { keepHands, whoseHands } from './hands';

/** Whose hands the ticks of this device are, for the record. */
export function HandsButton() {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(whoseHands);
  return (
    <>
      <button
        type="button"
        className="-my-2 inline-flex min-h-11 max-w-28 items-center gap-1 px-1.5"
        onClick={() => setOpen(true)}
      >
        <UserRound size={18} aria-hidden="true" className="shrink-0" />
        <span className="truncate">
          <span className="sr-only">Who is working: </span>
          {name || 'who?'}
        </span>
      </button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Who is working?"
        about="Stored with every torque this device records."
      >
        <form
          className="flex gap-2"
          onSubmit={e => {
            e.preventDefault();
            keepHands(name.trim());
            setOpen(false);
          }}
        >
          <input
            aria-label="Name"
            value={name}
            maxLength={40}
            onChange={e => setName(e.target.value)}
            className="min-h-12 w-full min-w-0 rounded-edge border border-scribe bg-paper px-3 text-sub"
          />
          <Button type="submit" look="strong">
            Save
          </Button>
        </form>
      </Dialog>
    </>
  );
}
