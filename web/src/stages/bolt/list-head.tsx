import { Download } from 'lucide-react';
import { Button } from '../../ui/button';
import { saveFile } from '../../ui/save-file';

/** The head of a list that goes out as CSV. */
export function ListHead({ title, file, text }: { title: string; file: string; text: () => string }) {
  return (
    <div className="mb-2 flex items-center justify-between gap-3">
      <h2 className="text-title font-bold">{title}</h2>
      <Button onClick={() => saveFile(file, text(), 'text/csv')}>
        <Download size={17} aria-hidden="true" /> CSV
      </Button>
    </div>
  );
}
