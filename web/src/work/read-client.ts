import type { DrawnPlates, LaidIn } from '@plate-fold/core/formats';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { RigList } from '@plate-fold/core/rig';
import { err, type Result, type UnitSystem } from '@plate-fold/core/units';
import type { Remote } from 'comlink';
import { inWorker } from './job';
import type { ReadWorker } from './read.worker';

/** Nobody waits longer for a file to be read, ms. */
const MOST_MS = 10_000;
const WHY = `it was not read within ${MOST_MS / 1000} s: it is too large, or no file of this kind`;

/** Reads what came from outside in a worker of its own, which is ended when it takes too long; the page itself never waits. */
async function read<T>(
  ask: (w: Remote<ReadWorker>) => Promise<T>,
  otherwise: (why: string) => T,
): Promise<T> {
  const job = inWorker<ReadWorker, T>(
    new Worker(new URL('./read.worker.ts', import.meta.url), { type: 'module' }),
    ask,
  );
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<T>(done => {
    timer = setTimeout(() => {
      job.cancel();
      done(otherwise(WHY));
    }, MOST_MS);
  });
  try {
    return await Promise.race([job.result, late]);
  } catch (e) {
    return otherwise(`it could not be read (${(e as Error).message})`);
  } finally {
    clearTimeout(timer);
  }
}

/** Plate outlines of a drawing; `perUnit` where the drawing does not say its unit. */
export const readDxfInWorker = (text: string, perUnit?: number): Promise<Result<DrawnPlates>> =>
  read<Result<DrawnPlates>>(w => w.dxf(text, perUnit) as Promise<Result<DrawnPlates>>, err);

/** A table laid into the rig of a plan, all of it or nothing. */
export const layInWorker = (
  doc: PlanDocument,
  list: RigList,
  text: string,
  units: UnitSystem,
): Promise<LaidIn> =>
  read<LaidIn>(
    w => w.table(doc, list, text, units),
    fault => ({
      ok: false,
      faults: [{ row: 1, column: '', fault }],
    }),
  );
