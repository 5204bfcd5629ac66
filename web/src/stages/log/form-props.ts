import type { Facts } from '@plate-fold/core/derive';
import type { LogEntry } from '@plate-fold/core/log';
import type { UnitSystem } from '@plate-fold/core/units';
import type { Draft } from './kinds';

/** The look of a field of the form. */
export const FIELD = 'min-h-11 w-full min-w-0 rounded-edge border border-scribe bg-paper px-2';

/** What the form and its parts are given. */
export interface FormProps {
  readonly facts: Facts;
  readonly units: UnitSystem;
  readonly log: readonly LogEntry[];
  readonly draft: Draft;
  readonly onChange: (draft: Draft) => void;
  /** the dent Strike foresees where the hit was: undefined while it is computed, null where it finds none */
  readonly foreseen: number | null | undefined;
  readonly fault?: string;
  /** taken with the entry, not sent yet */
  readonly photo?: Blob;
  readonly onPhoto: (photo: Blob | undefined) => void;
  readonly busy: boolean;
  readonly onKeep: () => void;
  readonly onLeave: () => void;
}
