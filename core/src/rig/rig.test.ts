import { describe, expect, it } from 'vitest';
import { holds } from './index';

describe('when', () => {
  const selected = { drivetrain: '4wd', engine: 'six' };
  it('holds without conditions and with all of them met', () => {
    expect(holds(undefined, selected)).toBe(true);
    expect(holds({ drivetrain: ['4wd'], engine: ['four', 'six'] }, selected)).toBe(true);
  });
  it('fails when one is not met or the option is not chosen', () => {
    expect(holds({ drivetrain: ['2wd'] }, selected)).toBe(false);
    expect(holds({ drivetrain: ['4wd'], sliders: ['bolted'] }, selected)).toBe(false);
  });
});
