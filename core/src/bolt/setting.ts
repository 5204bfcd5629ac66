import { formatLength, formatTorque, type UnitSystem } from '../units';
import { drillName, rivetNutHole } from './drill';
import { ELEMENTS, SETTING_TOOL } from './elements';
import { nutFlats, sizeName } from './heads';
import type { ResolvedJoint } from './joint';

/** Whether a nut has to be set before the bolt; one that came with its hole sits already. */
export const setsNut = ({ nut }: Pick<ResolvedJoint, 'nut'>): boolean =>
  nut !== undefined && !nut.own && ELEMENTS[nut.kind].setFirst === true;

/** How a nut is set so that a bolt can be started in it: what it takes, move by move, how it is known to sit, and what to do if it spins. */
export interface NutSetting {
  readonly kind:
    | 'rivet nut'
    | 'clinch nut'
    | 'clip nut'
    | 'spring nut'
    | 'welded tab'
    | 'threaded post'
    | 'tube clamp';
  readonly tools: readonly string[];
  readonly moves: readonly string[];
}

/** What the mandrel of a threaded setting tool is pulled to, N\u00b7m by thread diameter, mm: common practice scaled with d\u00b3, a guess. */
const SETTING_NM = { at: 10, nm: 25 } as const;
const settingNm = (d: number): number => SETTING_NM.nm * (d / SETTING_NM.at) ** 3;
/** How far the body of a rivet nut shortens as it swells, in thread diameters: common practice, a guess. */
const STROKE = 0.45;
/** Over the nominal hole, mm: as the sheets of rivet-nut sellers say it (common practice, no source). */
const HOLE_OVER = 0.1;

/**
 * How the nut of a joint is set, where it is new there and must sit before a bolt goes in; undefined where nothing is set.
 * `sheetMm` is what it grips. Common practice, no source: grip of a rivet nut is read off its packet and compared with the sheet.
 */
export function nutSetting(j: ResolvedJoint, units: UnitSystem): NutSetting | undefined {
  const kind = j.nut?.kind;
  if (!kind || !setsNut(j)) return undefined;
  const sheetMm = j.member?.wall ?? j.layers.filter(l => l.kind === 'plate').at(-1)?.thickness ?? 0;
  const sheet = formatLength(sheetMm, units, true);
  const size = j.thread.size;
  const prove = `Test it: run its bolt in by hand for five turns, snug it with a short wrench, and look that the nut has not turned. Take the bolt out again.`;
  switch (kind) {
    case 'rivet-nut': {
      const hole = rivetNutHole(j.thread);
      return {
        kind: 'rivet nut',
        tools: [SETTING_TOOL, 'calipers'],
        moves: [
          `Measure the hole: ${drillName(hole, units)}, no more than ${formatLength(HOLE_OVER, units, true)} over. In a loose hole it spins. Deburred on both faces.`,
          `Compare the grip range on the package with the sheet, ${sheet}: the sheet must lie within it.`,
          `Screw the ${size} rivet nut onto the mandrel until it sits against the tool, a drop of grease on the thread.`,
          'Push it in square until the flange lies flush all round; hold it square and pressed home while it is set.',
          `Pull until it firms up: about ${formatLength(STROKE * j.thread.d, units, true)} of stroke, or ${formatTorque(settingNm(j.thread.d), units)} on a tool that is turned with a wrench. Both are estimates; the nut maker’s figures come first. Then stop.`,
          'Unscrew the mandrel. Set right, the flange is flush, nothing rocks, and the bulge can be felt behind the sheet.',
          prove,
          'If it spins: hold its flange with pliers, drill the flange off, push the body through, and set the next size up or use a nut plate.',
        ],
      };
    }
    case 'clinch':
      return {
        kind: 'clinch nut',
        tools: ['arbor press or a bolt with a hard washer'],
        moves: [
          `Deburr the hole; the sheet, ${sheet}, must be at least as thick as the nut asks for.`,
          'Lay the nut in from the side away from the bolt head, its knurl in the hole.',
          'Press it square, with a press or drawn in by a bolt over a hard washer, until its shoulder lies flush.',
          'Never hammer it in: it goes in crooked and turns later.',
          prove,
          'If it turns: press it out, use a hex nut held with a wrench, or the next size up.',
        ],
      };
    case 'clip':
      return {
        kind: 'clip nut',
        tools: ['pliers'],
        moves: [
          `Deburr the hole and the edge; the clip must be made for a sheet of ${sheet}.`,
          'Push it over the edge with the nut on the side away from the bolt head until its spring drops into the hole.',
          prove,
          'If it slides or turns: open the hole to the size on the packet, or use the next thickness of clip.',
        ],
      };
    case 'spring':
      return {
        kind: 'spring nut',
        tools: ['pliers'],
        moves: [
          `The spring nut must be made for a sheet of ${sheet}.`,
          'Slide it over the hole with its arch toward the bolt.',
          'Test it: run the screw in by hand and only snug it. A spring nut never takes torque.',
          'If it spreads, use a new one.',
        ],
      };
    case 'tube-clamp':
      return {
        kind: 'tube clamp',
        tools: ['hex keys', 'tape measure'],
        moves: [
          'Clean the tube; a turn of rubber or cloth tape where paint should stay whole.',
          'Both halves round the tube, foot down, its two screws even and only snug: it must still turn and slide.',
          `Set it by a tape to where the plate\u2019s hole comes, its foot square to the plate, ${formatLength(j.joint.spacer, units, true)} below the tube.`,
          'Run the plate\u2019s bolt into the foot by hand for five turns and out again.',
          'Tighten the two screws half a turn each in turn, by the clamp maker\u2019s figure: the gap stays alike on both sides.',
          'Twist it by hand: it does not move on the tube.',
        ],
      };
    case 'post':
      return {
        kind: 'threaded post',
        tools: [`wrench ${sizeName(nutFlats(j.thread), j.thread)}`, 'threadlocker'],
        moves: [
          'Run a bolt into the hole by hand and out again: the thread is clean. Wipe it free of oil.',
          `Threadlocker on the stud; screw the post in by hand until its shoulder lies flat on the frame all round. It stands ${formatLength(j.joint.spacer, units, true)} high.`,
          `Tighten it to ${formatTorque(j.torqueNm, units)} with a wrench on its flats: the plate\u2019s bolt goes into its free end.`,
          'Lay a straightedge over the posts of the plate: none stands askew, and none higher than its own height. Let the threadlocker set.',
          'Run the plate\u2019s bolt in by hand for five turns and out again.',
          'If the post turns when the bolt is taken out later: hold its flats with the wrench.',
        ],
      };
    case 'weld-tab':
      return {
        kind: 'welded tab',
        tools: [],
        moves: [
          'A welder puts the tab with its nut to the member: battery off, tank and lines clear, by the vehicle maker\u2019s rules for the frame.',
          'A bolt stands in the nut while it is welded, so that the thread stays clean and in line.',
          'Let it cool, brush it, paint it.',
          prove,
        ],
      };
    default:
      return undefined;
  }
}
