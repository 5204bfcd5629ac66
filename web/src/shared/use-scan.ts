import type { RigScan } from '@plate-fold/core/rig';
import { type Heights, heightsFrom, relief } from '@plate-fold/core/scan';
import { useEffect, useState } from 'react';
import type { GroundPhoto } from '../picture/laid-out';
import { pictureUrl } from '../ui/picture-url';

/** The heights of a plan's scan; what is wrong where they are not there. */
export interface ScanHeights {
  readonly heights?: Heights;
  readonly fault?: string;
}

const held = new Map<string, Promise<ScanHeights>>();
/** Scans whose heights are held: few, since each is some megabytes. */
const HELD = 3;

async function fetched(url: string, scan: RigScan): Promise<ScanHeights> {
  try {
    const answer = await fetch(url);
    if (!answer.ok)
      return { fault: 'The heights of the scan are not with this plan: lay the scan on again.' };
    const r = heightsFrom(scan, new Uint8Array(await answer.arrayBuffer()));
    return r.ok ? { heights: r.value } : { fault: `${r.fault}: lay the scan on again` };
  } catch {
    return { fault: 'The server does not answer: the scan is not shown.' };
  }
}

/** The heights of a scan, fetched once. */
export function useScanHeights(plan: string, scan: RigScan | undefined): ScanHeights {
  const [made, setMade] = useState<ScanHeights>({});
  useEffect(() => {
    if (!scan) {
      setMade({});
      return;
    }
    let gone = false;
    const url = `/api/documents/${encodeURIComponent(plan)}/scans/${encodeURIComponent(scan.id)}`;
    let one = held.get(url);
    if (!one) {
      one = fetched(url, scan);
      held.set(url, one);
      const [oldest] = held.keys();
      if (held.size > HELD && oldest !== undefined) held.delete(oldest);
    }
    one.then(h => {
      if (h.fault) held.delete(url);
      if (!gone) setMade(h);
    });
    return () => {
      gone = true;
    };
  }, [plan, scan]);
  return made;
}

/** A scan's heights as a shaded picture on the ground plane; empty while it is made, and where there are none. */
export function useGroundScan(heights: Heights | undefined): GroundPhoto {
  const [made, setMade] = useState<GroundPhoto>({});
  useEffect(() => {
    setMade({});
    if (!heights) return;
    let gone = false;
    let url: string | undefined;
    pictureUrl(relief(heights)).then(shown => {
      if (!shown) return;
      if (gone) return URL.revokeObjectURL(shown);
      url = shown;
      const { from, step, width, height } = heights;
      // a height's place is the middle of its pixel
      setMade({
        url,
        ground: { from: [from[0] - step / 2, from[1] - step / 2], mmPerPx: step, width, height },
      });
    });
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [heights]);
  return made;
}
