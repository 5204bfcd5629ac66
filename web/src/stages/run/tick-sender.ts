import type { Tick } from '@plate-fold/core/sequence';
import { dropTick, setTickAside, waitingTicks } from './tick-store';

/** How many ticks go in one letter. */
const MOST = 500;

/** Ticks that were refused alone, with the reason. */
interface Refused {
  readonly refused?: readonly { readonly id: string | null; readonly fault: string }[];
}

/** What the server says to ticks that were sent. */
export interface TickAnswer {
  readonly data?: Refused & {
    readonly received: readonly string[];
    readonly ticks: readonly Tick[];
    readonly unread?: readonly string[];
  };
  readonly error?: unknown;
}
interface Fault {
  readonly status: number | string;
  readonly data?: { readonly fault?: string } & Refused;
}

/** What became of one letter. */
export interface Sent {
  /** all ticks that the server has, where it answered */
  readonly theirs?: readonly Tick[];
  /** ids the server will never take: set aside on this device, not shown as done */
  readonly gone: ReadonlySet<string>;
  /** how many still wait */
  readonly left: number;
  /** the server took the letter, or named what it will never take: more can go at once */
  readonly heard: boolean;
  /** what is to be said; undefined in it: nothing is wrong any more. Missing: what was said before still holds. */
  readonly tell?: { readonly fault: string | undefined };
}

export const SHARE_ENDED =
  'The desk stopped sharing. Your ticks are kept on this device; reload and enter a new code to send them.';

/** Which ticks of a run could not be read from the database, in words. */
export const unreadWords = (unread?: readonly string[]): string | undefined =>
  unread && unread.length > 0
    ? `${unread.length === 1 ? 'One tick' : `${unread.length} ticks`} of this run cannot be read from the database (${unread.slice(0, 3).join(', ')}): what it said is open again.`
    : undefined;

/**
 * Sends what waits on this device for a run, one letter at a time: a tick leaves the device only when the server has it, or has refused it
 * for good (then it is set aside with the reason). `post` never throws. Undefined while another letter is on its way.
 */
export function tickSender(
  run: string,
  post: (ticks: readonly Tick[]) => Promise<TickAnswer>,
): () => Promise<Sent | undefined> {
  let busy = false;
  // why a tick was set aside, by its step: told until that step is done again, or the next good letter would wipe it within the second
  const toDoAgain = new Map<string, string>();
  const placeOf = (t: Tick): string => `${t.stepId} ${t.jointId ?? ''}`;
  return async () => {
    if (busy) return undefined;
    busy = true;
    const letter = waitingTicks(run).slice(0, MOST);
    const { data, error } = await post(letter);
    busy = false;
    const fault = error as Fault | undefined;
    const refused = (data ?? fault?.data)?.refused ?? [];
    const sentAs = (id: string | null): Tick | undefined => letter.find(t => t.id === id);
    for (const id of data?.received ?? []) {
      const tick = sentAs(id);
      if (tick) toDoAgain.delete(placeOf(tick));
      dropTick(run, id);
    }
    for (const r of refused) {
      const tick = sentAs(r.id);
      toDoAgain.set(tick ? placeOf(tick) : '', r.fault);
      if (r.id !== null) setTickAside(run, r.id, r.fault);
    }
    const [first] = toDoAgain.values();
    const one = toDoAgain.size === 1;
    const aside =
      first === undefined
        ? undefined
        : `${one ? 'One tick was' : `${toDoAgain.size} ticks were`} not taken: ${first} ${one ? 'It is' : 'They are'} set aside on this device; do that step again.`;
    // one that no step is known of cannot be done again: told once
    toDoAgain.delete('');
    const tell = (): Sent['tell'] => {
      if (data || refused.length > 0) return { fault: aside ?? unreadWords(data?.unread) };
      if (fault?.status === 401) return { fault: SHARE_ENDED };
      // away, or broken: it is tried again without a word beyond the count of what waits
      return typeof fault?.status === 'number' && fault.status < 500
        ? { fault: fault.data?.fault }
        : undefined;
    };
    const said = tell();
    return {
      ...(data ? { theirs: data.ticks } : {}),
      gone: new Set(refused.flatMap(r => (r.id === null ? [] : [r.id]))),
      left: waitingTicks(run).length,
      heard: data !== undefined || refused.length > 0,
      ...(said ? { tell: said } : {}),
    };
  };
}
