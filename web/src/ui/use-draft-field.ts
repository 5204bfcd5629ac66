import { type ChangeEvent, type KeyboardEvent, useState } from 'react';

type Field = HTMLInputElement | HTMLTextAreaElement;

/**
 * A field that is typed into freely and taken on Enter or when it is left; Escape puts back what stands there. What was typed over a value
 * that has meanwhile become another (undone, taken from elsewhere, shown in other units) is forgotten, never written back.
 */
export function useDraftField(of: {
  /** as it is shown while nobody types */
  readonly value: string;
  /** takes what was typed: why it cannot be, or nothing */
  readonly onEnter: (text: string) => string | undefined;
  /** Enter makes a new line instead */
  readonly lines?: boolean;
}) {
  const { value, onEnter, lines = false } = of;
  const [draft, setDraft] = useState<{
    readonly over: string;
    readonly text: string;
    readonly fault?: string;
  }>();
  const now = draft?.over === value ? draft : undefined;
  const take = (text = now?.text): void => {
    if (text === undefined) return;
    if (text === value) {
      setDraft(undefined);
      return;
    }
    const fault = onEnter(text);
    setDraft(fault === undefined ? undefined : { over: value, text, fault });
  };
  return {
    fault: now?.fault,
    take,
    field: {
      value: now?.text ?? value,
      'aria-invalid': now?.fault !== undefined,
      onChange: (e: ChangeEvent<Field>) => setDraft({ over: value, text: e.target.value }),
      onBlur: () => take(),
      onKeyDown: (e: KeyboardEvent<Field>) => {
        if (e.key === 'Enter' && !lines) {
          // a dialog that this opens must not take the same key for its first button
          e.preventDefault();
          take();
        }
        if (e.key === 'Escape') setDraft(undefined);
      },
    },
  };
}
