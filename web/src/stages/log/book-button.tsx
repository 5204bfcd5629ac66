import plain from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import type { Facts } from '@plate-fold/core/derive';
import { BookOpen } from 'lucide-react';
import { useState } from 'react';
import { useShelfQuery } from '../../state/api';
import { useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { saveFile } from '../../ui/save-file';
import { bookInWorker } from '../../work/book-client';

/** The build book as one PDF, in the reader's units and seen from the reader's side. */
export function BookButton({ facts }: { facts: Facts }) {
  const { units, side } = useAppSelector(s => s.view);
  const { data: shelf = [] } = useShelfQuery();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string>();
  const make = async (): Promise<void> => {
    setBusy(true);
    setFault(undefined);
    const { document, build } = facts;
    try {
      const made = await bookInWorker({
        document,
        build: build.id,
        units,
        side,
        shelf: Object.fromEntries(shelf.filter(e => e.kind === 'part').map(e => [e.name, e.count])),
        fonts: { plain, bold },
      }).result;
      saveFile(`${document.plan.id}-build-book.pdf`, made, 'application/pdf');
    } catch (e) {
      setFault(`The book could not be made: ${(e as Error).message}.`);
    }
    setBusy(false);
  };
  return (
    <div>
      <Button className="w-full" disabled={busy} onClick={() => void make()}>
        <BookOpen size={17} aria-hidden="true" /> {busy ? 'Drawing …' : 'Build book'}
      </Button>
      {fault && (
        <p role="alert" className="text-small text-oxide">
          {fault}
        </p>
      )}
    </div>
  );
}
