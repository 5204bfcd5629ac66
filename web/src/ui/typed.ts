import { parseTorque, type Result, type UnitSystem } from '@plate-fold/core/units';
import * as yup from 'yup';

/*
 * Fields of forms that are typed as text and read in the reader's units, as Yup schemas: what does not fit comes back in the same plain
 * words as everywhere else.
 */

/** A text that a reader of `system` types, taken apart by `read`; `fits` says what is wrong with a figure that can be read. */
export const typed = (
  read: (text: string, system: UnitSystem) => Result<number>,
  system: UnitSystem,
  fits: (value: number) => string | undefined = () => undefined,
): yup.StringSchema<string> =>
  yup
    .string()
    .trim()
    .required('is empty')
    .test(
      'figure',
      ({ value }) => String(value),
      (text, context) => {
        const r = read(text, system);
        const fault = r.ok ? fits(r.value) : r.fault;
        return fault === undefined || context.createError({ message: fault });
      },
    );

export const typedTorque = (system: UnitSystem, fits?: (nm: number) => string | undefined) =>
  typed(parseTorque, system, fits);

/** A name of at most so many letters. */
export const typedName = (most: number): yup.StringSchema<string> =>
  yup.string().trim().defined().max(most, `has more than ${most} letters`);
