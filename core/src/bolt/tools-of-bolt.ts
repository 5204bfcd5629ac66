import { type Around, extensionFor } from './access';
import { nutIsTurned, type ResolvedJoint } from './joint';
import { torqueWrench } from './wrench';

/** What is in the hands at one bolt. Tools by their names in the tool list. */
export interface BoltTools {
  /** turns the head, or the nut where the head has nothing to turn it by; empty where nothing does */
  readonly turn: string;
  /** holds the other end while it is turned; undefined where it cannot turn */
  readonly hold?: string;
  /** between ratchet and socket, mm */
  readonly extensionMm?: number;
  /** undefined where the torque lies below the smallest wrench: snug by hand */
  readonly wrench?: string;
}

/** The tools of one bolt: what turns it, what holds against it, the extension that reaches it and the torque wrench for its full torque. */
export function toolsOfBolt(j: ResolvedJoint, around: Around): BoltTools {
  const nutTurned = nutIsTurned(j);
  const flats = j.nut?.flats;
  const turn = nutTurned ? (flats ? `socket ${flats}` : '') : j.head.tool;
  const wrench = torqueWrench(j.torqueNm);
  const extensionMm = extensionFor(j, around);
  return {
    turn,
    ...(!nutTurned && flats ? { hold: `wrench ${flats}` } : {}),
    ...(extensionMm === undefined ? {} : { extensionMm }),
    ...(wrench === undefined ? {} : { wrench }),
  };
}
