import * as yup from 'yup';
import { err, ok, type Result } from '../units';

/** One thing wrong with a document: where, in the file's own keys, and what, in plain words. */
export interface Fault {
  readonly path: string;
  readonly fault: string;
}

const KIND: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  boolean: 'true or false',
  array: 'a list',
  object: 'a group of keys',
  tuple: 'a point with the right count of numbers',
  mixed: 'a value',
};

const show = (v: unknown): string => {
  const s = typeof v === 'string' ? `"${v}"` : JSON.stringify(v);
  if (s === undefined) return 'nothing';
  return s.length > 40 ? `${s.slice(0, 37)}...` : s;
};

function plain(e: yup.ValidationError): string {
  const p = (e.params ?? {}) as Record<string, unknown>;
  const given = p.originalValue ?? p.value;
  switch (e.type) {
    case 'required':
    case 'optionality':
    case 'defined':
    case 'nullable':
      return given === '' ? 'is empty' : 'is missing';
    case 'typeError':
      return Number.isNaN(given)
        ? 'is not a number'
        : `is ${show(given)}, which is not ${KIND[String(p.type)] ?? 'what belongs here'}`;
    case 'oneOf':
      return `is ${show(given)}, but must be one of ${String(p.values)}`;
    case 'min':
      return Array.isArray(given)
        ? `has ${given.length} entries and needs at least ${String(p.min)}`
        : `is ${show(given)}, but must be ${p.more === undefined ? `${String(p.min)} or more` : `above ${String(p.more)}`}`;
    case 'max':
      if (Array.isArray(given)) return `has ${given.length} entries; ${String(p.max)} is the most`;
      return `is ${show(given)}, but must be ${String(p.max)} or less`;
    case 'integer':
      return `is ${show(given)}, but must be a whole number`;
    default:
      return e.message;
  }
}

/** Yup's complaint as plain faults, in the order of the document. */
export function faultsOf(e: yup.ValidationError, root = ''): Fault[] {
  const all = e.inner.length > 0 ? e.inner.flatMap(x => (x.inner.length > 0 ? x.inner : [x])) : [e];
  return all.map(one => ({
    path: [root, one.path].filter(Boolean).join('.') || 'file',
    fault: plain(one),
  }));
}

/** Checks a value against a schema without changing it. */
export function faultsAgainst(schema: yup.Schema, value: unknown, root = ''): Fault[] {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return [];
  } catch (e) {
    if (e instanceof yup.ValidationError) return faultsOf(e, root);
    throw e;
  }
}

/** So many faults are told at once. */
const TOLD = 3;

/**
 * A value from outside as its schema asks for it, unchanged, or one line with what is wrong and where: `Not a tick: at is missing.`
 * `what` names it with its article.
 */
export function checked<T>(schema: yup.Schema<T>, value: unknown, what: string): Result<T> {
  const faults = faultsAgainst(schema, value);
  if (faults.length === 0) return ok(value as T);
  const told = faults.slice(0, TOLD).map(f => `${f.path === 'file' ? 'it' : f.path} ${f.fault}`);
  const more = faults.length > TOLD ? `; and ${faults.length - TOLD} more` : '';
  return err(`Not ${what}: ${told.join('; ')}${more}.`);
}
