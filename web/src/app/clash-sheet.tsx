import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import type { Clash } from './use-take-in';

/** Asked when an archive brings plans that are here already: nothing is changed before the owner has said what becomes of them. */
export function ClashSheet({
  clash,
  onTake,
  onCancel,
}: {
  clash: Clash | undefined;
  onTake: (clash: Clash, existing: 'replace' | 'both') => void;
  onCancel: () => void;
}) {
  if (!clash) return null;
  const one = clash.names.length === 1;
  return (
    <Dialog
      open
      onClose={onCancel}
      title={one ? 'You already have this plan' : 'You already have some of these plans'}
      about={`${clash.names.map(n => `“${n}”`).join(', ')}. Nothing was changed yet.`}
    >
      <div className="grid gap-2">
        <Button look="strong" onClick={() => onTake(clash, 'both')}>
          Keep both
        </Button>
        <Button onClick={() => onTake(clash, 'replace')}>
          {clash.document
            ? 'Replace mine: its runs and log stay'
            : `Replace mine: ${one ? 'its' : 'their'} runs and log are deleted`}
        </Button>
        <Button look="quiet" onClick={onCancel}>
          Cancel
        </Button>
      </div>
    </Dialog>
  );
}
