import plain from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import type { Facts } from '@plate-fold/core/derive';
import { Ruler } from 'lucide-react';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../state/store';
import { noticeGiven } from '../state/view-slice';
import { Button } from '../ui/button';
import { saveFile } from '../ui/save-file';
import { templateInWorker } from '../work/book-client';

/** A paper template of a plate at full size, tiled onto the sheets that the reader's printer has. */
export function TemplateButton(props: {
  readonly facts: Facts;
  readonly panels: readonly string[];
  readonly name: string;
  /** with its words on a phone too */
  readonly wide?: boolean;
}) {
  const { facts, panels, name, wide = false } = props;
  const units = useAppSelector(s => s.view.units);
  const dispatch = useAppDispatch();
  const [busy, setBusy] = useState(false);
  const make = async (): Promise<void> => {
    setBusy(true);
    try {
      const made = await templateInWorker({
        document: facts.document,
        build: facts.build.id,
        panels,
        paper: units === 'inch' ? 'letter' : 'a4',
        fonts: { plain, bold },
      }).result;
      saveFile(
        `${facts.document.plan.id}-${name.replace(/\W+/g, '-')}-template.pdf`,
        made,
        'application/pdf',
      );
    } catch (e) {
      dispatch(noticeGiven(`The template could not be made: ${(e as Error).message}.`));
    }
    setBusy(false);
  };
  return (
    <Button
      disabled={busy}
      onClick={() => void make()}
      aria-label={`Paper template of ${name}`}
      title="Full size on paper: glue it on cardboard and hold it up before metal is cut"
    >
      <Ruler size={16} aria-hidden="true" />
      <span className={wide ? '' : 'max-desk:sr-only'}>
        {busy ? 'Drawing …' : wide ? 'Paper template' : 'Template'}
      </span>
    </Button>
  );
}
