import { wrenchTolerance } from '@plate-fold/core/sequence';
import { fixed, NM_PER_LBF_FT, torqueFigure, type UnitSystem } from '@plate-fold/core/units';

/** How a reading compares with its target as it is shown on the screen, in words. Both in N·m. */
export function judge(reading: number, target: number, units: UnitSystem): { near: boolean; text: string } {
  const per = units === 'inch' ? NM_PER_LBF_FT : 1;
  const { value, unit } = torqueFigure(target, units);
  const want = Number(value);
  const off = reading / per - want;
  if (Math.abs(off) <= wrenchTolerance(target) * want + 1e-9) return { near: true, text: 'on target' };
  return { near: false, text: `${fixed(Math.abs(off), 1)} ${unit} ${off > 0 ? 'over' : 'under'}` };
}
