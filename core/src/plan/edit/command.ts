import { ok, type Result } from '../../units';
import type { PlanDocument } from '../plan';
import { panelNamed } from '../select';

/**
 * A change of a plan by name: what it is called, and the plan after it. Its arguments are plain data, so that a change can be kept, shown
 * before it is made, and offered as a remedy. `run` looks at nothing but the plan and its arguments, and does nothing else.
 */
export interface Command<A = unknown> {
  readonly id: string;
  /** what it does to this plan, as a button, undo and a screen reader say it: `move plate B` */
  label(doc: PlanDocument, args: A): string;
  /** the plan after it, the same object where nothing changes; a fault where it cannot be */
  run(doc: PlanDocument, args: A): PlanDocument | Result<PlanDocument>;
}

/** A command with its arguments: plain data. */
export interface Call<A = unknown> {
  readonly command: string;
  readonly args: A;
}

/** Says what a command's arguments are, and no more. */
export const command = <A>(c: Command<A>): Command<A> => c;

/** A command with its arguments, to be run later or by somebody else. */
export const callOf = <A>({ id }: Command<A>, args: A): Call<A> => ({ command: id, args });

/** Runs a command: the plan after it, or why it cannot be. */
export function done<A>(c: Command<A>, doc: PlanDocument, args: A): Result<PlanDocument> {
  const made = c.run(doc, args);
  return 'ok' in made ? made : ok(made);
}

/** The command that a call names. Throws where there is none: calls are made by this program, never by a user. */
export function commandOf(all: readonly Command[], { command: id }: Call): Command {
  const found = all.find(c => c.id === id);
  if (!found) throw new Error(`there is no command ${id}`);
  return found;
}

/** A plate as undo names it: `plate B`. */
export const plateNamed = (doc: PlanDocument, id: string): string => panelNamed(doc, id);

/** Several things in a sentence: `bolt j01`, `3 bolts`. */
export const counted = (ids: readonly string[], one: string): string =>
  ids.length === 1 ? `${one} ${ids[0]}` : `${ids.length} ${one}s`;
