import * as yup from 'yup';

export const id = () => yup.string().required();
export const text = () => yup.string().defined();
export const oneOf = (values: readonly string[]) =>
  yup
    .string()
    .oneOf([...values])
    .required();
export const number = () => yup.number().required();
export const positive = () => number().moreThan(0);
export const notNegative = () => number().min(0);
export const list = <T extends yup.Schema>(of: T) => yup.array().of(of).required();
export const tuple = (...names: string[]) =>
  yup.tuple(names.map(n => yup.number().required().label(n)) as never).required();
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
