import { useState } from 'react';
import { Button } from '../../ui/button';
import type { RunState } from './use-run';

/** Leaves a bolt that is not sound as it is, with the reason that stands in the record. */
export function LeaveSo(props: {
  readonly joint: string;
  readonly stepId: string;
  readonly record: RunState['record'];
}) {
  const [why, setWhy] = useState('');
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={e => {
        e.preventDefault();
        if (why.trim() === '') return;
        props.record({ stepId: props.stepId, jointId: props.joint, kind: 'override', note: why.trim() });
      }}
    >
      <input
        aria-label={`Why ${props.joint} is left as it is`}
        placeholder="leave it as it is, because …"
        maxLength={500}
        value={why}
        onChange={e => setWhy(e.target.value)}
        className="min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-3 text-lead placeholder:text-ink2"
      />
      <Button type="submit" className="shrink-0" disabled={why.trim() === ''}>
        Leave it as it is
      </Button>
    </form>
  );
}
