import { BOLT_COMMANDS } from '../bolt';
import { BRACKET_COMMANDS } from '../bracket';
import { type Call, type Command, commandOf, done, PLAN_COMMANDS, type PlanDocument } from '../plan';

/** Everything that a finding may offer as its remedy. */
export const MENDING: readonly Command[] = [...PLAN_COMMANDS, ...BOLT_COMMANDS, ...BRACKET_COMMANDS];

/** The plan after a remedy; the same one where it cannot be done. */
export function mended(doc: PlanDocument, mend: Call): PlanDocument {
  const r = done(commandOf(MENDING, mend), doc, mend.args);
  return r.ok ? r.value : doc;
}
