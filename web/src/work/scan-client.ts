import type { Heights, Placing } from '@plate-fold/core/scan';
import type { Picture } from '@plate-fold/core/survey';
import type { Result } from '@plate-fold/core/units';
import { type Remote, releaseProxy, transfer, wrap } from 'comlink';
import type { ScanLook, ScanRead, ScanWorker } from './scan.worker';

/** A scan held in a worker of its own while it is laid on the vehicle. */
export interface HeldScan {
  readonly read: (name: string, bytes: ArrayBuffer) => Promise<Result<ScanRead>>;
  readonly sides: (pixels: number) => Promise<readonly Picture[]>;
  readonly look: (view: string, pixels: number) => Promise<ScanLook | undefined>;
  readonly grid: (
    placing: Placing,
  ) => Promise<{ readonly heights: Heights; readonly packed: Uint8Array<ArrayBuffer> } | undefined>;
  readonly close: () => void;
}

export function holdScan(): HeldScan {
  const worker = new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' });
  let closed = false;
  const remote: Remote<ScanWorker> = wrap<ScanWorker>(worker);
  return {
    read: (name, bytes) => remote.read(name, transfer(bytes, [bytes])) as Promise<Result<ScanRead>>,
    sides: pixels => remote.sides(pixels) as Promise<readonly Picture[]>,
    look: (view, pixels) => remote.look(view, pixels) as Promise<ScanLook | undefined>,
    grid: placing => remote.grid(placing) as ReturnType<HeldScan['grid']>,
    close: () => {
      if (closed) return;
      closed = true;
      remote[releaseProxy]();
      worker.terminate();
    },
  };
}
