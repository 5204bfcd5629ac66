import type { Eye } from './contents';

/** From below and ahead on the left, as a rock meets it; level from ahead; from the left side; from above; the whole belly, lying across. */
export const EYES = {
  below: { turn: 38, lift: -40 },
  ahead: { turn: 0, lift: -8 },
  side: { turn: 90, lift: -6 },
  above: { turn: 38, lift: 40 },
  belly: { turn: 78, lift: -48 },
} as const satisfies Record<string, Eye>;

/** Which way the vehicle's front lies in the picture, in words. */
export function frontLies({ turn }: Eye): string {
  const t = ((turn % 360) + 360) % 360;
  if (t < 45 || t >= 315) return 'front towards you';
  if (t < 135) return 'front to the left';
  return t < 225 ? 'front away from you' : 'front to the right';
}
