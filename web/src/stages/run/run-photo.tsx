import { useEffect, useState } from 'react';
import { waitingPhoto } from './photos';

/** A photo of what was off: from this device while it waits, else from the server. */
export function RunPhoto({ run, id }: { run: string; id: string }) {
  const [here, setHere] = useState<string>();
  useEffect(() => {
    let url: string | undefined;
    let gone = false;
    void waitingPhoto(run, id).then(blob => {
      if (!blob || gone) return;
      url = URL.createObjectURL(blob);
      setHere(url);
    });
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [run, id]);
  return (
    <img
      src={here ?? `/api/runs/${run}/photos/${id}`}
      alt="What was off"
      loading="lazy"
      className="mt-1.5 max-h-56 max-w-full"
    />
  );
}
