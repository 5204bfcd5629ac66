import { MENDING } from '@plate-fold/core/checks';
import { type Call, type Command, commandOf } from '@plate-fold/core/plan';

/** The command that a call names: a change that is shown before it is made, or offered as a remedy. */
export const commandNamed = (call: Call): Command => commandOf(MENDING, call);
