import type * as yup from 'yup';
import { type Fault, faultsAgainst } from './faults';

/** Whether a value is right. `before`: what stood in its place and was right; what is the same object or value still is. */
type Yes = (value: unknown, before?: unknown) => boolean;

interface TestOptions {
  readonly name?: string;
  readonly skipAbsent?: boolean;
  readonly test: (this: unknown, value: unknown, context: unknown) => unknown;
}
/** What of a schema's inside is read here. */
interface Inside {
  readonly type: string;
  readonly spec: {
    readonly optional?: boolean;
    readonly nullable?: boolean;
    readonly meta?: { readonly recordOf?: yup.Schema; readonly anyOf?: readonly [string, yup.Schema] };
    readonly types?: readonly yup.Schema[];
  };
  readonly tests: readonly { readonly OPTIONS: TestOptions }[];
  readonly _typeCheck: Yes;
  readonly _whitelist: { readonly size: number; readonly has: (v: unknown) => boolean };
  readonly fields?: Readonly<Record<string, yup.Schema>>;
  readonly innerType?: yup.Schema;
  readonly builder?: (value: unknown, options: unknown) => yup.Schema;
}

/** Of these the schema tells in its meta data what they ask; asking by the library would take most of the time. */
const TOLD = ['record', 'wordOr'];

/** A schema's own tests, without its parts. */
function ownTests(s: Inside): Yes {
  const tests = s.tests.map(t => t.OPTIONS).filter(o => !TOLD.includes(o.name ?? ''));
  if (tests.length === 0) return () => true;
  const context = { resolve: (x: unknown) => x, path: '', createError: () => false };
  return value => tests.every(o => o.test.call(context, value, context) === true);
}

const made = new WeakMap<object, Yes>();

/**
 * The yes or no of a schema as one plain function, some thirty times as fast as asking the library, which goes over every value with a
 * context and a path. It answers no question of where and why: what it refuses is asked of the schema itself. Made once for each schema.
 */
export function quickYes(schema: yup.Schema): Yes {
  const known = made.get(schema);
  if (known) return known;
  const s = schema as unknown as Inside;
  if (s.builder) {
    const { builder } = s;
    const yes: Yes = (v, b) => quickYes(builder(v, {}))(v, b);
    made.set(schema, yes);
    return yes;
  }
  const { optional, nullable, meta } = s.spec;
  const own = ownTests(s);
  const listed = s._whitelist.size > 0 ? (v: unknown) => s._whitelist.has(v) : () => true;
  const parts = partsOf(s, meta);
  const yes: Yes = (v, b) => {
    if (b !== undefined && v === b) return true;
    if (v === undefined) return optional === true && !meta?.anyOf;
    if (v === null) return nullable === true;
    return s._typeCheck(v) && listed(v) && own(v) && parts(v, b);
  };
  made.set(schema, yes);
  return yes;
}

/** What stood in a place of what was there before. */
const within = (before: unknown, key: string | number): unknown =>
  typeof before === 'object' && before !== null
    ? (before as Record<string | number, unknown>)[key]
    : undefined;

function partsOf(s: Inside, meta: Inside['spec']['meta']): Yes {
  if (meta?.anyOf) {
    const [word, n] = meta.anyOf;
    const number = quickYes(n);
    return v => v === word || (typeof v === 'number' && number(v));
  }
  if (meta?.recordOf) {
    const of = quickYes(meta.recordOf);
    return (v, b) => Object.entries(v as object).every(([k, x]) => of(x, within(b, k)));
  }
  if (s.fields) {
    const fields = Object.entries(s.fields).map(([k, f]) => [k, quickYes(f)] as const);
    return (v, b) => fields.every(([k, yes]) => yes((v as Record<string, unknown>)[k], within(b, k)));
  }
  if (s.type === 'tuple') {
    const types = (s.spec.types ?? []).map(quickYes);
    return (v, b) => types.every((yes, i) => yes((v as unknown[])[i], within(b, i)));
  }
  if (s.type === 'array' && s.innerType) {
    const of = quickYes(s.innerType);
    // a hole in a list is no entry
    return (v, b) => Array.from(v as unknown[]).every((x, i) => of(x, within(b, i)));
  }
  return () => true;
}

/** Faults told at once; who mends these asks again. */
const MOST_FAULTS = 50;

interface Asked {
  readonly path?: string;
  readonly most?: number;
  /** what was right before in the same place */
  readonly before?: unknown;
}

/**
 * Where and why a value is not what a schema asks, in the order of the schema. Only parts that fail are gone into and only their leaves are
 * asked of the library, so that a long wrong document is told in time that grows with its length.
 */
export function faultsWithin(
  schema: yup.Schema,
  value: unknown,
  { path = '', most = MOST_FAULTS, before }: Asked = {},
): Fault[] {
  if (most <= 0 || quickYes(schema)(value, before)) return [];
  const s = schema as unknown as Inside;
  if (s.builder) return faultsWithin(s.builder(value, {}), value, { path, most });
  const gone = typeof value === 'object' && value !== null && s._typeCheck(value) && ownTests(s)(value);
  const found: Fault[] = [];
  const into = (of: yup.Schema, v: unknown, at: string): void => {
    if (found.length < most) found.push(...faultsWithin(of, v, { path: at, most: most - found.length }));
  };
  if (gone) {
    const entries = value as Readonly<Record<string, unknown>>;
    const below = (k: string): string => (path === '' ? k : `${path}.${k}`);
    const { recordOf } = s.spec.meta ?? {};
    if (recordOf) for (const [k, v] of Object.entries(entries)) into(recordOf, v, below(k));
    else if (s.fields) for (const [k, f] of Object.entries(s.fields)) into(f, entries[k], below(k));
    else if (s.type === 'array' && s.innerType)
      for (const [i, v] of (value as unknown[]).entries()) into(s.innerType, v, `${path}[${i}]`);
  }
  return found.length > 0 ? found : faultsAgainst(schema, value, path);
}
