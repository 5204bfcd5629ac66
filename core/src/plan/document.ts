import type { Fault } from './faults';
import { boundsFaults } from './limits';
import { FORMAT, type PlanDocument } from './plan';
import { faultsWithin } from './quick';
import { crossFaults } from './references';
import { documentSchema } from './schema';

export type ReadDocument =
  | { readonly ok: true; readonly document: PlanDocument }
  | { readonly ok: false; readonly faults: readonly Fault[] };

/**
 * Checks any value as a plate-fold/1 document, in time that grows with its size. The document that comes back is the very object given, and
 * what is written of it is accepted again. `before`: a document accepted earlier and not changed since; parts that are the same objects in
 * both are not checked again, what holds across parts is.
 */
export function checkDocument(value: unknown, before?: PlanDocument): ReadDocument {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { ok: false, faults: [{ path: 'file', fault: 'is not a plate-fold document' }] };
  const format = (value as { format?: unknown }).format;
  if (typeof format === 'string' && format !== FORMAT && format.startsWith('plate-fold/'))
    return {
      ok: false,
      faults: [{ path: 'format', fault: `is "${format}"; this version reads "${FORMAT}" only` }],
    };
  const beyond = boundsFaults(value, before);
  if (beyond.length > 0) return { ok: false, faults: beyond };
  const faults = faultsWithin(documentSchema, value, { before });
  if (faults.length > 0) return { ok: false, faults };
  const document = value as PlanDocument;
  const crossed = crossFaults(document, before);
  return crossed.length > 0 ? { ok: false, faults: crossed } : { ok: true, document };
}

/** Reads the text of a file. A torn file is a fault with the place where the text breaks off. */
export function readDocument(text: string): ReadDocument {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (e) {
    const reason = e instanceof Error ? e.message : String(e);
    const at = /position (\d+)/.exec(reason)?.[1];
    const upTo = at === undefined ? text : text.slice(0, Number(at));
    const line = upTo.split('\n').length;
    return {
      ok: false,
      faults: [{ path: `line ${line}`, fault: 'the text breaks off or is not JSON: the file may be torn' }],
    };
  }
  return checkDocument(value);
}

/** The text of a document: two-space JSON with a newline at its end. */
export const writeDocument = (doc: PlanDocument): string => `${JSON.stringify(doc, null, 2)}\n`;

/** Faults as lines for people. */
export const describeFaults = (faults: readonly Fault[]): string =>
  faults.map(f => `${f.path} ${f.fault}`).join('\n');
