import { formatLength, MM_PER_INCH, NM_PER_LBF_FT, type UnitSystem } from '../units';
import { drillName } from './drill';

/** Tools that come in sizes, by their code: the kind, and the size in mm or the range in N·m. Any other tool is called by its name. */
export const SIZED_TOOLS = ['drill', 'twist-drill', 'step-bit', 'extension', 'torque-wrench'] as const;
export type SizedTool = (typeof SIZED_TOOLS)[number];

/** The code of a tool of a size, under which it is counted and ticked whatever units the reader has: `drill:11`, `torque-wrench:20-100`. */
export const toolCode = (kind: SizedTool, ...sizes: readonly number[]): string =>
  `${kind}:${sizes.join('-')}`;

/** A tool as the reader calls it, its size in their units: drills as they are sold there, wrenches by their range. */
export function toolName(tool: string, units: UnitSystem): string {
  const [kind, sizes = ''] = tool.split(':');
  const [low = 0, high = 0] = sizes.split('-').map(Number);
  switch (kind) {
    case 'drill':
      return `drill ${drillName(low, units)}`;
    case 'twist-drill':
      return `twist drill ${drillName(low, units)}`;
    case 'step-bit':
      return `step bit to ${drillName(low, units)}`;
    case 'extension':
      return `extension ${units === 'inch' ? `${Math.round(low / MM_PER_INCH)} in` : formatLength(low, units)}`;
    case 'torque-wrench':
      return units === 'inch'
        ? `torque wrench ${Math.round(low / NM_PER_LBF_FT)}\u2013${Math.round(high / NM_PER_LBF_FT)} ft\u00b7lb`
        : `torque wrench ${low}\u2013${high} N\u00b7m`;
    default:
      return tool;
  }
}
