import type { KeyboardEvent } from 'react';

/** What is drawn as a button answers to Enter and Space as one. */
export const press = (act: () => void) => (e: KeyboardEvent) => {
  if (e.key === 'Enter' || e.key === ' ') {
    e.preventDefault();
    e.stopPropagation();
    act();
  }
};
