import { randomInt, timingSafeEqual } from 'node:crypto';

/** Letters and figures that are not taken for one another on a dirty screen. */
const ALPHABET = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const LENGTH = 8;
export const CODE_MS = 10 * 60_000;
export const MOST_TRIES = 5;

/** A code that lets one device in once. */
export interface OneTimeCode {
  readonly text: string;
  readonly expiresAt: number;
  readonly tries: number;
}

export const freshCode = (now: number): OneTimeCode => ({
  text: Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join(''),
  expiresAt: now + CODE_MS,
  tries: 0,
});

export type CodeAnswer = 'right' | 'wrong' | 'expired' | 'spent';

/** Whether what was typed is the code; small letters and blanks are let pass. A code is spent after so many wrong tries. */
export function tryCode(code: OneTimeCode | undefined, typed: string, now: number): CodeAnswer {
  if (!code) return 'spent';
  if (now > code.expiresAt) return 'expired';
  if (code.tries >= MOST_TRIES) return 'spent';
  const said = Buffer.from(typed.toUpperCase().replace(/[^A-Z0-9]/g, ''));
  const right = Buffer.from(code.text);
  return said.length === right.length && timingSafeEqual(said, right) ? 'right' : 'wrong';
}
