import { err, ok, type Result } from './result';

const FRACTION = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/;
const DECIMAL = /^\d*\.?\d+(?:e-?\d+)?$|^\d+\.$/i;

/**
 * Reads a number as a person types it: `4.8`, `4,8`, `3/16`, `1 1/2`, `-12`.
 * A comma followed by exactly three digits and more digits before it is refused as ambiguous.
 */
export function parseNumber(text: string): Result<number> {
  let s = text.trim().replace(/\u2212/g, '-');
  let sign = 1;
  if (s.startsWith('-')) {
    sign = -1;
    s = s.slice(1).trim();
  } else if (s.startsWith('+')) s = s.slice(1).trim();
  if (s === '') return err('no number given');
  const fraction = FRACTION.exec(s);
  if (fraction) {
    const below = Number(fraction[3]);
    if (below === 0) return err(`"${text.trim()}" divides by zero`);
    return ok(sign * (Number(fraction[1] ?? 0) + Number(fraction[2]) / below));
  }
  if (/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(s))
    return err(`"${text.trim()}" could mean two numbers: write it without the comma`);
  const plain = s.replace(',', '.');
  if (!DECIMAL.test(plain)) return err(`"${text.trim()}" is not a number`);
  return ok(sign * Number(plain));
}

/** Rounds half away from zero to `digits` decimals and never returns negative zero. */
export function roundTo(value: number, digits: number): number {
  const f = 10 ** digits;
  const r = (Math.sign(value) * Math.round((Math.abs(value) + Number.EPSILON * Math.abs(value)) * f)) / f;
  return r === 0 ? 0 : r;
}

/** Fixed decimals with a true minus sign, e.g. `−4.10`. */
export function fixed(value: number, digits: number): string {
  const r = roundTo(value, digits);
  return r < 0 ? `\u2212${(-r).toFixed(digits)}` : r.toFixed(digits);
}

/** As `fixed`, with a plus sign in front of what is above zero: for changes. */
export function signed(value: number, digits: number): string {
  const s = fixed(value, digits);
  return roundTo(value, digits) > 0 ? `+${s}` : s;
}
