import { Camera } from 'lucide-react';
import { useRef, useState } from 'react';
import { Button } from './button';
import { smallPhoto } from './small-photo';

/** Takes a photo with the camera, or picks one, and makes it small enough to keep. */
export function PhotoButton(props: {
  readonly photo: Blob | undefined;
  readonly onPhoto: (photo: Blob | undefined) => void;
  /** what the button says before there is one */
  readonly ask: string;
  readonly className?: string;
}) {
  const { photo, onPhoto, ask, className = '' } = props;
  const [fault, setFault] = useState<string>();
  const file = useRef<HTMLInputElement>(null);
  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const made = await smallPhoto(chosen);
    setFault('fault' in made ? made.fault : undefined);
    onPhoto('fault' in made ? undefined : made.photo);
  };
  return (
    <div className={className}>
      <Button
        className="min-h-12 w-full"
        aria-pressed={photo !== undefined}
        onClick={() => file.current?.click()}
      >
        <Camera size={19} aria-hidden="true" />
        {photo ? `A photo of ${Math.max(1, Math.round(photo.size / 1000))} kB attached` : ask}
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
        <p role="alert" className="mt-1 text-oxide">
          {fault}
        </p>
      )}
    </div>
  );
}
