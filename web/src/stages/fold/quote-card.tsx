import { SHOPS } from '@plate-fold/core/fold';
import { buildName, isBracket } from '@plate-fold/core/plan';
import { fixed, listed } from '@plate-fold/core/units';
import { quoteBlanks } from '@plate-fold/core/weigh';
import { useEffect, useState } from 'react';
import { api, type Quote } from '../../state/api';
import { useFacts } from '../../state/derived';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { Button } from '../../ui/button';

const ASK_AGAIN_MS = 600;

/** Asks the fabricator what the set costs and how long it takes. The one that ships with the program is simulated. */
export function QuoteCard() {
  const facts = useFacts();
  const dispatch = useAppDispatch();
  const [id, setId] = useState<string>();
  const [answer, setAnswer] = useState<Quote>();
  const [fault, setFault] = useState<string>();
  const { panels } = facts;
  const shop = facts.document.plan.shop ?? SHOPS[0];
  useEffect(() => {
    if (!id) return;
    let gone = false;
    const listen = async (): Promise<void> => {
      const call = dispatch(api.endpoints.quote.initiate(id, { forceRefetch: true }));
      const { data, error } = await call;
      call.unsubscribe();
      if (gone) return;
      if (data?.state === 'working') setTimeout(() => void listen(), ASK_AGAIN_MS);
      else if (data) setAnswer(data);
      else
        setFault((error as { data?: { fault?: string } }).data?.fault ?? 'The fabricator does not answer.');
    };
    void listen();
    return () => {
      gone = true;
    };
  }, [id, dispatch]);
  const units = useAppSelector(s => s.view.units);
  const ask = async (): Promise<void> => {
    if (!shop) return;
    setAnswer(undefined);
    setFault(undefined);
    const sent = await dispatch(
      api.endpoints.askQuote.initiate({ blanks: quoteBlanks(panels), shop, units }),
    );
    if (sent.data) setId(sent.data.id);
    else
      setFault(
        (sent.error as { data?: { fault?: string } }).data?.fault ?? 'The fabricator does not answer.',
      );
  };
  const waiting = id !== undefined && !answer && !fault;
  const some = (n: number, one: string): readonly string[] =>
    n === 0 ? [] : [`${n} ${one}${n === 1 ? '' : 's'}`];
  const brackets = panels.filter(p => isBracket(p.panel)).length;
  const pieces = listed([...some(panels.length - brackets, 'plate'), ...some(brackets, 'bracket')]);
  return (
    <section aria-label="Quote" className="mt-4">
      <h3 className="font-bold">Quote from the shop</h3>
      <p className="text-small text-ink2">Simulated fabricator, invented rates.</p>
      <Button className="mt-1 w-full" disabled={waiting || panels.length === 0} onClick={() => void ask()}>
        {waiting
          ? 'Waiting for the fabricator …'
          : `Get a quote for all ${pieces} of ${buildName(facts.build)}`}
      </Button>
      {answer?.state === 'offered' && (
        <p role="status" className="mt-2 text-sub">
          <span className="fig text-large font-semibold">{fixed(answer.price, 0)}</span> $, in{' '}
          <span className="fig font-semibold">{answer.days}</span> days
          <span className="block text-small text-ink2">
            {answer.lines.map(l => `${l.mark} ${fixed(l.price, 0)} $`).join(', ')}; the rest is setup
          </span>
        </p>
      )}
      {answer?.state === 'refused' && (
        <div role="alert" className="mt-2 border-l-[6px] border-oxide bg-oxidesoft px-3 py-2">
          <p className="font-semibold">They cannot make it:</p>
          <ul className="list-disc pl-5 text-body">
            {answer.reasons.map(r => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </div>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-oxide">
          {fault}
        </p>
      )}
    </section>
  );
}
