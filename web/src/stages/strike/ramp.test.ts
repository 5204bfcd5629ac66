import { describe, expect, it } from 'vitest';
import { css, rampColor } from './ramp';

/** Relative luminance (WCAG 2). */
const luminance = (c: readonly number[]): number => {
  const [r, g, b] = c.map(v => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)) as [
    number,
    number,
    number,
  ];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};

describe('the colors of the belly', () => {
  it.each(['light', 'dark'] as const)(
    'go one way in lightness, so that a gray print tells them apart (%s)',
    theme => {
      const steps = Array.from({ length: 21 }, (_, i) => luminance(rampColor(i / 20, theme)));
      const sign = theme === 'light' ? -1 : 1;
      for (let i = 1; i < steps.length; i++) expect(sign * (steps[i]! - steps[i - 1]!)).toBeGreaterThan(0);
    },
  );
  it('end where the most is, and what touches stands out from all of them', () => {
    expect(rampColor(1.7, 'light')).toEqual(rampColor(1, 'light'));
    const touched = rampColor(-1, 'light');
    expect(touched[0]).toBeGreaterThan(touched[2] + 0.3);
    expect(css([1, 0.5, 0])).toBe('rgb(255 128 0)');
  });
});
