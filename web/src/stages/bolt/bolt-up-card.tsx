import { type BoltUp, boltUpWords } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { KNOWN } from '@plate-fold/core/fitup';
import { formatLength } from '@plate-fold/core/units';
import { useEffect, useState } from 'react';
import { runCall } from '../../state/commands/run';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';
import { boltUpInWorker } from '../../work/bolt-up-client';

/** The holes as they are known, and all of them measured first. */
const WAYS = [false, true] as const;

/**
 * The changes of holes that together make the plan bolt up, looked for when it is asked: as the holes are known, and with all of them
 * measured first. What was found goes with the plan that it was found for.
 */
export function BoltUpCard({ facts }: { readonly facts: Facts }) {
  const { document, build } = facts;
  const units = useAppSelector(s => s.view.units);
  const dispatch = useAppDispatch();
  const [asked, setAsked] = useState<typeof document>();
  const [found, setFound] = useState<ReadonlyMap<boolean, BoltUp | string>>(new Map());
  const looking = asked === document;
  useEffect(() => {
    setFound(new Map());
    if (!looking) return;
    const jobs = WAYS.map(measured => {
      const job = boltUpInWorker(document, build.id, measured);
      const tell = (x: BoltUp | string): void => setFound(all => new Map(all).set(measured, x));
      job.result.then(tell, (e: Error) => tell(e.message));
      return job;
    });
    return () => {
      for (const j of jobs) j.cancel();
    };
  }, [looking, document, build.id]);
  return (
    <section aria-label="What makes it bolt up" className="grid gap-2">
      <h2 className="font-semibold">What makes it bolt up, all together</h2>
      {!looking ? (
        <div>
          <Button onClick={() => setAsked(document)}>Find what makes it bolt up</Button>
        </div>
      ) : (
        <ul className="grid gap-2 sm:grid-cols-2">
          {WAYS.map(measured => {
            const x = found.get(measured);
            const mend = typeof x === 'object' ? x.mend : undefined;
            return (
              <li key={String(measured)} className="grid content-start gap-1.5 border border-scribe p-2.5">
                <h3 className="font-semibold">
                  {measured
                    ? `Every hole measured to ${formatLength(KNOWN, units, true)} first, from a survey or a template`
                    : 'The holes known as they are now'}
                </h3>
                {x === undefined ? (
                  <p role="status">Trying larger holes, slots and holes marked from the vehicle …</p>
                ) : typeof x === 'string' ? (
                  <p className="text-oxide">It could not be tried: {x}</p>
                ) : (
                  boltUpWords(x, units).map(w => (
                    <p key={w}>
                      {w.split(/(?<= )/).map((word, i) => (
                        // biome-ignore lint/suspicious/noArrayIndexKey: words of a sentence, in their order; a bolt's name is not broken
                        <span key={i} className={/\d/.test(word) ? 'whitespace-nowrap' : ''}>
                          {word}
                        </span>
                      ))}
                    </p>
                  ))
                )}
                {mend && (
                  <div>
                    <Button onClick={() => dispatch(runCall(mend))}>Change these holes</Button>
                  </div>
                )}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
