import { Camera } from 'lucide-react';
import { useRef, useState } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { smallPhoto } from './photos';
import { USUAL } from './usual';

/** What did not go by the plan: two taps for the usual, a note and a photo for the rest. */
export function DeviationSheet(props: {
  readonly open: boolean;
  readonly what: string;
  readonly onClose: () => void;
  readonly onNote: (note: string, photo?: Blob) => void;
}) {
  const [note, setNote] = useState('');
  const [photo, setPhoto] = useState<Blob>();
  const [fault, setFault] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const tell = (text: string): void => {
    props.onNote(text, photo);
    setNote('');
    setPhoto(undefined);
    setFault(undefined);
  };
  const take = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    const made = await smallPhoto(picked);
    if ('fault' in made) {
      setFault(made.fault);
      setPhoto(undefined);
    } else {
      setFault(undefined);
      setPhoto(made.photo);
    }
  };
  return (
    <Dialog open={props.open} onClose={props.onClose} title="What is off?" about={`Kept with ${props.what}.`}>
      <Button
        className="mb-2 min-h-14 w-full"
        aria-pressed={photo !== undefined}
        onClick={() => file.current?.click()}
      >
        <Camera size={19} aria-hidden="true" />
        {photo
          ? `A photo of ${Math.max(1, Math.round(photo.size / 1000))} kB goes with it`
          : 'Photo first, if it helps'}
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label="Photo"
        className="sr-only"
        tabIndex={-1}
        onChange={e => void take(e.target.files?.[0])}
      />
      {fault && (
        <p role="alert" className="mb-2 text-oxide">
          {fault}
        </p>
      )}
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
        <Button
          type="submit"
          look="strong"
          className="shrink-0 whitespace-nowrap"
          disabled={note.trim() === ''}
        >
          Note it
        </Button>
      </form>
    </Dialog>
  );
}
