import type { Tick } from '@plate-fold/core/sequence';
import { and, asc, eq } from 'drizzle-orm';
import type { Store } from '../db/open';
import { ticks } from '../db/schema';

/** The ticks of a run by the device's clock, and the ids of those whose rows cannot be read. */
export interface ReadTicks {
  readonly ticks: readonly Tick[];
  readonly unread?: readonly string[];
}

/** Reads the ticks of a run. A row that cannot be read is named; it does not take the others with it. */
export async function readTicks({ db }: Store, run: string): Promise<ReadTicks> {
  try {
    return {
      ticks: (await db
        .select()
        .from(ticks)
        .where(eq(ticks.runId, run))
        .orderBy(asc(ticks.at), asc(ticks.id))) as Tick[],
    };
  } catch {
    const ids = await db
      .select({ id: ticks.id })
      .from(ticks)
      .where(eq(ticks.runId, run))
      .orderBy(asc(ticks.id));
    const read: Tick[] = [];
    const unread: string[] = [];
    for (const { id } of ids) {
      try {
        const [row] = await db
          .select()
          .from(ticks)
          .where(and(eq(ticks.runId, run), eq(ticks.id, id)));
        if (row) read.push(row as Tick);
      } catch {
        unread.push(id);
      }
    }
    // where no single row is at fault the database itself is
    if (unread.length === 0) throw new Error(`the ticks of run ${run} cannot be read`);
    return { ticks: read.sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)), unread };
  }
}
