import type { FastenerFinish, Lube, NutKind } from '../plan';
import type { Thread } from './thread';

/** A serrated face that is turned digs in: so much more torque for the same clamp. Common practice, no source. */
const SERRATED = 1.15;

/**
 * Nut factor K for T = K·d·F (Shigley Table 8-15): plain and dry 0.30, zinc 0.20, lubricated 0.18, anti-seize 0.12. Stainless with anti-seize
 * 0.15 (makers' tables give 0.14 to 0.16; from memory): it stays rougher under it. Dry stainless is taken as plain, threadlocker as
 * lubricated: common practice, no source. A plain (black) bolt as it comes from its box is oiled, not dry. `serrated`: the face that turns is.
 */
export function nutFactor(finish: FastenerFinish, lube: Lube, serrated = false): number {
  return smoothFactor(finish, lube) * (serrated ? SERRATED : 1);
}

function smoothFactor(finish: FastenerFinish, lube: Lube): number {
  if (lube === 'anti-seize') return finish === 'stainless' ? 0.15 : 0.12;
  if (lube === 'threadlocker' || lube === 'oil') return 0.18;
  return finish === 'zinc' ? 0.2 : 0.3;
}

/** Torque in N·m for a clamp force: T = K·d·F (Shigley Eq. 8-27); d in mm, F in N. */
export const torqueFor = (k: number, d: number, force: number): number => (k * d * force) / 1000;

/**
 * How far the clamp may be off at one torque, as a share, since K is never known: 35 % unlubricated, 25 % lubricated
 * (NASA RP-1228).
 */
export const clampScatter = (lube: Lube): number => (lube === 'dry' ? 0.35 : 0.25);

/** Most a lock nut may ask for at first before it clamps anything, N·m: ISO 2320, class 8; inch IFI-100/107 grade B (from memory). */
const PREVAILS: Readonly<Record<string, number>> = {
  M5: 1.6,
  M6: 3,
  M8: 6,
  M10: 10.5,
  M12: 15.5,
  M14: 24,
  '1/4': 3.4,
  '5/16': 6.8,
  '3/8': 9,
  '7/16': 11.3,
  '1/2': 16.9,
};

/** The greatest torque with which a nut that locks by itself turns before it clamps, N·m; nought for one that does not. */
export const prevailingTorque = (nut: NutKind, t: Thread): number =>
  nut === 'nylon-lock' || nut === 'all-metal-lock' ? (PREVAILS[t.size] ?? 0) : 0;
