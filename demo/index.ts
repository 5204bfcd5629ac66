import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { type PlanDocument, readDocument } from '@plate-fold/core/plan';

/** Where a demo plan lies, as an absolute path: bramble, heron, pebble or wren. */
export const demoPath = (name: string): string =>
  fileURLToPath(new URL(`./${name}.platefold.json`, import.meta.url));

/** A demo plan as the text of its file. */
export const demoText = (name: string): string => readFileSync(demoPath(name), 'utf8');

/** A demo plan, read and checked as any other file: a fresh one at every call. Throws where it is no sound plan. */
export function demo(name: string): PlanDocument {
  const read = readDocument(demoText(name));
  if (!read.ok) throw new Error(`${name}: ${read.faults[0]?.path} ${read.faults[0]?.fault}`);
  return read.document;
}
