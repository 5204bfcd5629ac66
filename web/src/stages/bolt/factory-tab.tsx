import { removals } from '@plate-fold/core/bolt';
import { useFacts } from '../../state/derived';

/** What the factory used and must come off: how, with what, and what takes its place. */
export function FactoryTab() {
  const { rig } = useFacts();
  if (rig.factoryParts.length === 0) return <p className="p-4">No factory parts to remove.</p>;
  return (
    <div className="max-w-4xl p-4">
      <h2 className="text-title font-bold">Factory parts to remove</h2>
      <p className="text-small text-ink2">
        A marked bag for each part. Common practice, no source; the vehicle maker’s way comes first. Eye
        protection when drilling rivets and under rust.
      </p>
      <ul className="mt-2 grid gap-3">
        {rig.factoryParts.map(f => (
          <li key={f.id}>
            <h3 className="font-bold first-letter:uppercase">{f.name}</h3>
            <ul className="grid">
              {removals(f).map(r => (
                <li
                  key={`${r.head} ${r.thread}`}
                  className="grid grid-cols-[auto_1fr] gap-x-3 border-b border-scribe/70 py-1.5"
                >
                  <span className="fig w-14 text-right text-title">{r.count} ×</span>
                  <div>
                    <p>
                      <b>{`${r.head} ${r.thread}`.trim()}</b>, {r.tool}
                    </p>
                    <p className="text-small leading-snug">{r.how}.</p>
                    <p className="text-small text-ink2">
                      {r.reusable ? 'Reused' : 'Not reused'}: {r.replacement}.
                    </p>
                  </div>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </div>
  );
}
