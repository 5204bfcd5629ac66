import plain from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import type { Facts } from '@plate-fold/core/derive';
import { BookOpen, Download } from 'lucide-react';
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
  /** Shown first, in a page of its own, where it is read and printed; saved where that is asked for, or where no page may be opened. */
  const make = async (save: boolean): Promise<void> => {
    // opened by the press itself, or the browser takes it for something that nobody asked for
    const page = save ? null : window.open('', '_blank');
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
      if (page && !page.closed)
        page.location.href = URL.createObjectURL(new Blob([made as BlobPart], { type: 'application/pdf' }));
      else saveFile(`${document.plan.id}-build-book.pdf`, made, 'application/pdf');
    } catch (e) {
      page?.close();
      setFault(`The book could not be made: ${(e as Error).message}.`);
    }
    setBusy(false);
  };
  return (
    <div>
      <div className="flex gap-2">
        <Button className="flex-1" disabled={busy} onClick={() => void make(false)}>
          <BookOpen size={17} aria-hidden="true" /> {busy ? 'Drawing …' : 'Build book'}
        </Button>
        <Button
          aria-label="Save the build book"
          title="Save as a PDF file"
          disabled={busy}
          onClick={() => void make(true)}
        >
          <Download size={17} aria-hidden="true" />
        </Button>
      </div>
      {fault && (
        <p role="alert" className="text-small text-oxide">
          {fault}
        </p>
      )}
    </div>
  );
}
