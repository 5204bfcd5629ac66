import type { ReactNode } from 'react';

/** One section of a column. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="border-b border-scribe p-3" aria-label={title}>
      <h2 className="mb-1 font-semibold">{title}</h2>
      {children}
    </section>
  );
}
