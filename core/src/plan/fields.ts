import * as yup from 'yup';
import { ADDRESSABLE, LIMITS } from './limits';

export const id = () => yup.string().required();
/** An id that stands in addresses and in names of files. */
export const addressable = () =>
  id().test(
    'addressable',
    `must be at most ${LIMITS.id} characters without / \\ ? # % and line breaks, and not . or ..: it stands in addresses and file names`,
    v => v === undefined || (v.length <= LIMITS.id && ADDRESSABLE.test(v)),
  );
export const text = () => yup.string().defined();
export const oneOf = (values: readonly string[]) =>
  yup
    .string()
    .oneOf([...values])
    .required();
/** A number that can be a measure of anything on a vehicle. */
export const num = () =>
  yup.number().test(
    'measure',
    ({ value }) => `is ${value}, beyond ${LIMITS.number} either way`,
    v => v === undefined || v === null || Math.abs(v) <= LIMITS.number,
  );
export const number = () => num().required();
export const positive = () => number().moreThan(0);
export const notNegative = () => number().min(0);
/** A list of entries; an empty place in it, which no file can hold but a program can, is no entry. */
export const list = <T extends yup.Schema>(of: T) =>
  yup
    .array()
    .of(of)
    .required()
    .max(LIMITS.entries)
    .test('whole', 'has an empty place where an entry belongs', v => !v?.includes(undefined as never));
export const tuple = (...names: string[]) =>
  yup.tuple(names.map(n => num().required().label(n)) as never).required();
export const point2 = () => tuple('x', 'y');
export const point3 = () => tuple('x', 'y', 'z');
export const outline = () => list(point2()).min(3);

/** A record of any keys whose values all answer one schema. */
export const record = (of: yup.Schema, what: string) =>
  yup
    .object()
    .required()
    .meta({ recordOf: of })
    .test('record', '', (value, context) => {
      const inner: yup.ValidationError[] = [];
      for (const [key, v] of Object.entries(value ?? {})) {
        try {
          of.validateSync(v, { strict: true, abortEarly: false });
        } catch (e) {
          if (!(e instanceof yup.ValidationError)) throw e;
          for (const one of e.inner.length > 0 ? e.inner : [e]) {
            const path = `${context.path}.${key}${one.path ? `.${one.path}` : ''}`;
            const made = context.createError({
              path,
              message: one.message || what,
              params: { ...one.params, path },
            });
            made.type = one.type;
            inner.push(made);
          }
        }
      }
      return inner.length === 0 || new yup.ValidationError(inner);
    });

/** `first` or a number. */
export const wordOr = (word: string, n: yup.NumberSchema) =>
  yup
    .mixed()
    .required()
    .meta({ anyOf: [word, n] })
    .test(
      'wordOr',
      `must be "${word}" or a number`,
      v => v === word || (typeof v === 'number' && n.isValidSync(v)),
    );
