/** Colors from nought to the most, light theme and dark: lightness alone tells them apart, so that print and any eye can read them. */
const RAMPS = {
  light: [
    [0.9, 0.93, 0.95],
    [0.55, 0.66, 0.92],
    [0.11, 0.24, 0.62],
    [0.03, 0.05, 0.14],
  ],
  dark: [
    [0.12, 0.16, 0.2],
    [0.2, 0.32, 0.72],
    [0.5, 0.64, 1],
    [0.97, 0.98, 1],
  ],
} as const;
/** Where a part is touched. */
const TOUCHED = { light: [0.61, 0.16, 0.1], dark: [1, 0.54, 0.46] } as const;

/** Color of a share of the ramp; below nought: touched. */
export function rampColor(share: number, theme: 'light' | 'dark'): readonly [number, number, number] {
  if (share < 0) return TOUCHED[theme];
  const ramp = RAMPS[theme];
  const at = Math.min(1, share) * (ramp.length - 1);
  const i = Math.min(ramp.length - 2, Math.floor(at));
  const [a, b] = [ramp[i], ramp[i + 1]] as [readonly number[], readonly number[]];
  const t = at - i;
  return [0, 1, 2].map(k => (a[k] as number) * (1 - t) + (b[k] as number) * t) as unknown as readonly [
    number,
    number,
    number,
  ];
}

export const css = (c: readonly number[]): string => `rgb(${c.map(v => Math.round(v * 255)).join(' ')})`;
