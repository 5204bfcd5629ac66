import { BOLT_COMMANDS } from '@plate-fold/core/bolt';
import { type Call, type Command, commandOf, PLAN_COMMANDS } from '@plate-fold/core/plan';

/** Changes that are shown before they are made, or offered as remedies: known by name. */
const NAMED: readonly Command[] = [...PLAN_COMMANDS, ...BOLT_COMMANDS];

/** The command that a call names. */
export const commandNamed = (call: Call): Command => commandOf(NAMED, call);
