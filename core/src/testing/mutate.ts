import fc from 'fast-check';

/** Values that files come with when a disk, a hand or somebody ill-meaning has been at them. */
const STRANGE: readonly unknown[] = [
  null,
  undefined,
  0,
  -0,
  -1,
  1,
  2,
  0.5,
  1e-12,
  1e6,
  -1e6,
  1e9,
  1e300,
  Infinity,
  Number.NaN,
  true,
  false,
  '',
  ' ',
  'A',
  'x\ny',
  '\u202e',
  '../../x',
  '<script>',
  'far',
  'auto',
  [],
  {},
  [[0, 0]],
  [
    [0, 0],
    [1, 1],
    [0, 1],
    [1, 0],
  ],
  { circle: -3 },
];

type Way = readonly (string | number)[];

/** Every place of a value, from the whole down. */
function places(value: unknown, way: Way = []): Way[] {
  const below =
    typeof value === 'object' && value !== null
      ? Object.entries(value).flatMap(([k, v]) => places(v, [...way, Array.isArray(value) ? Number(k) : k]))
      : [];
  return [way, ...below];
}

function setAt(value: unknown, [step, ...rest]: Way, put: (before: unknown) => unknown): unknown {
  if (step === undefined) return put(value);
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<
    string | number,
    unknown
  >;
  copy[step] = setAt(copy[step], rest, put);
  return copy;
}

/**
 * A value with one to four of its places changed: put out, doubled, shrunk, swollen, or filled with what does not belong there. `mild`: only
 * what often passes for a plan, so that what works from plans is tried and not only what reads them.
 */
export function anyMutation(value: unknown, mild = false): fc.Arbitrary<unknown> {
  const all = places(value).slice(1);
  const change = fc.record({
    way: fc.constantFrom(...all),
    kind: mild
      ? fc.constantFrom('scale', 'scale', 'nudge', 'drop')
      : fc.constantFrom('strange', 'strange', 'scale', 'drop', 'double', 'nudge'),
    strange: fc.constantFrom(...STRANGE),
    by: fc.double({ min: mild ? -2 : -4, max: mild ? 2 : 4, noNaN: true }),
  });
  return fc.array(change, { minLength: 1, maxLength: 4 }).map(changes =>
    changes.reduce((now: unknown, { way, kind, strange, by }) => {
      try {
        return setAt(now, way, before => {
          if (kind === 'scale' && typeof before === 'number') return before * 10 ** by;
          if (kind === 'nudge' && typeof before === 'number') return before + by;
          if (kind === 'drop' && Array.isArray(before)) return before.slice(1);
          if (kind === 'double' && Array.isArray(before)) return [...before, ...before];
          return mild ? before : strange;
        });
      } catch {
        // an earlier change took the place away
        return now;
      }
    }, value),
  );
}
