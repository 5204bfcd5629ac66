import { randomInt, timingSafeEqual } from 'node:crypto';

/** Letters and figures that are not taken for one another on a dirty screen. */
const ALPHABET = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const LENGTH = 8;
export const CODE_MS = 10 * 60_000;
/** Wrong tries of one address while a code is good. */
export const MOST_TRIES = 5;
/**
 * Wrong tries of all addresses together while a code is good. With 32 to the power of 8 codes a thousand tries find one once in a
 * thousand million times.
 */
export const MOST_IN_ALL = 1000;

/** A code that lets one device in once, and who has tried it in vain. */
export interface OneTimeCode {
  readonly text: string;
  readonly expiresAt: number;
  /** wrong tries by address */
  readonly tries: ReadonlyMap<string, number>;
}

export const freshCode = (now: number): OneTimeCode => ({
  text: Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join(''),
  expiresAt: now + CODE_MS,
  tries: new Map(),
});

/** `often`: this address has tried too often; `stopped`: all together have, and nobody is let in before there is a fresh code. */
export type CodeAnswer = 'right' | 'wrong' | 'expired' | 'spent' | 'often' | 'stopped';

export const wrongInAll = (code: OneTimeCode): number => [...code.tries.values()].reduce((a, b) => a + b, 0);

/**
 * Whether what an address has typed is the code; small letters and blanks are let pass. Wrong tries count against the address that makes
 * them, never against the code, so that a stranger who guesses keeps no friend out.
 */
export function tryCode(code: OneTimeCode | undefined, typed: string, now: number, from: string): CodeAnswer {
  if (!code) return 'spent';
  if (now > code.expiresAt) return 'expired';
  if ((code.tries.get(from) ?? 0) >= MOST_TRIES) return 'often';
  if (wrongInAll(code) >= MOST_IN_ALL) return 'stopped';
  const said = Buffer.from(typed.toUpperCase().replace(/[^A-Z0-9]/g, ''));
  const right = Buffer.from(code.text);
  return said.length === right.length && timingSafeEqual(said, right) ? 'right' : 'wrong';
}

/** The code after a wrong try. */
export const withWrongTry = (code: OneTimeCode, from: string): OneTimeCode => ({
  ...code,
  tries: new Map(code.tries).set(from, (code.tries.get(from) ?? 0) + 1),
});
