import {
  existsIn,
  getIn,
  immutableJSONPatch,
  type JSONPatchDocument,
  parseJSONPointer,
} from 'immutable-json-patch';
import { Refusal } from '../fault';

/** Operations of one change. */
const MOST = 10_000;
const FORBIDDEN = ['__proto__', 'constructor', 'prototype'];

/** What the package lets pass and RFC 6902 does not: places that do not exist, and indices that are none. */
function placed(
  document: unknown,
  operation: { readonly op: string; readonly path: string; readonly from?: string },
): void {
  const path = parseJSONPointer(operation.path);
  const from = operation.from === undefined ? [] : parseJSONPointer(operation.from);
  if ([...path, ...from].some(k => FORBIDDEN.includes(k))) throw new Error('it reaches into the program');
  if (operation.path !== '' && !operation.path.startsWith('/'))
    throw new Error('its path does not begin with /');
  const at = (p: string[]): boolean => existsIn(document as JSONPatchDocument, p);
  if ((operation.op === 'replace' || operation.op === 'remove') && !at(path))
    throw new Error('there is nothing at its path');
  if ((operation.op === 'copy' || operation.op === 'move') && !at(from))
    throw new Error('there is nothing where it takes from');
  if (operation.op === 'add' || operation.op === 'copy' || operation.op === 'move') {
    const parent = getIn(document as JSONPatchDocument, path.slice(0, -1));
    const last = path.at(-1);
    if (Array.isArray(parent) && last !== undefined && last !== '-') {
      if (!/^(0|[1-9]\d*)$/.test(last) || Number(last) > parent.length)
        throw new Error('its index is none of the list');
    } else if (last !== undefined && (typeof parent !== 'object' || parent === null))
      throw new Error('there is nothing at its path');
  }
}

/**
 * A document after the operations of RFC 6902. The document given stays as it is, and what no operation has touched is the same object in
 * both. A Refusal names the operation that cannot be done.
 */
export function changedBy(document: unknown, patch: unknown): unknown {
  if (!Array.isArray(patch) || patch.length > MOST)
    throw new Refusal(400, `patch must be a list of at most ${MOST} operations: nothing was saved.`);
  let n = -1;
  try {
    return immutableJSONPatch(document as JSONPatchDocument, patch, {
      before: (now, operation) => {
        n++;
        placed(now, operation);
        return {};
      },
    });
  } catch (e) {
    throw new Refusal(
      422,
      `Operation ${Math.max(0, n)} of the change cannot be done (${(e as Error).message.slice(0, 200)}): nothing was saved.`,
    );
  }
}
