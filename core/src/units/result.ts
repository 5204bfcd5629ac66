/** What a user can cause comes back as a value, never as an exception. `fault` is a plain sentence. */
export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly fault: string };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const err = (fault: string): Result<never> => ({ ok: false, fault });
