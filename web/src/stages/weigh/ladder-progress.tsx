import { Button } from '../../ui/button';
import type { useLadder } from './use-ladder';

/** How far the ladder has come; stops it and lets it go on. */
export function Progress({ ladder }: { ladder: ReturnType<typeof useLadder> }) {
  if (ladder.faults.length > 0)
    return (
      <span role="alert" className="text-oxide">
        {ladder.faults.join(' ')}
      </span>
    );
  if (ladder.waiting === 0)
    return ladder.later === 0 ? null : (
      <span role="status" className="flex items-center gap-3 text-body">
        {ladder.later} thinner sheets skipped
        <Button onClick={ladder.askLater}>Strike them too</Button>
      </span>
    );
  return (
    <span role="status" className="flex items-center gap-3 text-body">
      {ladder.waiting === undefined
        ? 'preparing the sheets …'
        : ladder.stopped
          ? `${ladder.waiting} of ${ladder.total} sheets not struck`
          : `striking ${ladder.waiting} of ${ladder.total} sheets …`}
      <Button onClick={ladder.stopped ? ladder.goOn : ladder.stop}>
        {ladder.stopped ? 'Go on' : 'Stop'}
      </Button>
    </span>
  );
}
