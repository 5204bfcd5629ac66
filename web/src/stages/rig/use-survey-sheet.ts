import type { Adjustment } from '@plate-fold/core/survey';
import { useMemo, useState } from 'react';
import { moved, type Stretch, sheetScale, wholeVehicle, zoomed } from '../../picture/sheet-scale';
import type { useSheet } from '../../shared/bench';
import { useFacts } from '../../state/derived';
import { useAppSelector } from '../../state/store';

/** Room around the points of a survey on its map, mm. */
const ROOM = 260;

/** The map's own scale: the points of the survey, and from there nearer or farther. */
export function useSurveySheet(a: Adjustment, width: number, height: number): ReturnType<typeof useSheet> {
  const side = useAppSelector(s => s.view.side);
  const facts = useFacts();
  const all = useMemo(() => wholeVehicle(facts), [facts]);
  const whole = useMemo((): Stretch => {
    if (a.points.length < 2) return all;
    const [xs, ys] = [0, 1].map(k => a.points.map(p => p.at[k] as number)) as [number[], number[]];
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const span = Math.max(
      x1 - x0 + 2 * ROOM,
      ((y1 - y0 + 2 * ROOM) * Math.max(width, 1)) / Math.max(height - 40, 1),
    );
    const middle = (x0 + x1) / 2;
    return { from: middle - span / 2, to: middle + span / 2, yMid: (y0 + y1) / 2 };
  }, [a, all, width, height]);
  const [near, setNear] = useState<Stretch>();
  const now = near ?? whole;
  const scale = useMemo(() => sheetScale(now, Math.max(width, 1), side), [now, width, side]);
  return {
    scale,
    zoom: (factor, about = (now.from + now.to) / 2) => setNear(zoomed(now, whole, factor, about)),
    move: (dx, dy) => setNear(moved(now, whole, dx, dy)),
    reset: () => setNear(undefined),
    wholeK: width / (whole.to - whole.from),
    zoomedIn: now.to - now.from < whole.to - whole.from - 1,
  } as ReturnType<typeof useSheet>;
}
