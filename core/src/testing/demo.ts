import { readFileSync } from 'node:fs';
import { type PlanDocument, readDocument } from '../plan';

/** A demo plan by its name, read as any other file. */
export function demoDocument(name: string): PlanDocument {
  const r = readDocument(
    readFileSync(new URL(`../../../demo/${name}.platefold.json`, import.meta.url), 'utf8'),
  );
  if (!r.ok) throw new Error(r.faults[0]?.fault);
  return r.document;
}
