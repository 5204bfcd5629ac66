import type { FigureId } from '@plate-fold/core/explain';
import { Popover } from 'radix-ui';
import { lazy, type ReactNode, Suspense } from 'react';

const HowTold = lazy(() => import('./how-told'));

/** The name of a computed figure, which tells how it was computed when it is pressed. */
export function How({ of, children }: { of: FigureId; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        title="How this was computed"
        className="cursor-help text-left underline decoration-scribe decoration-dotted underline-offset-4 hover:decoration-ink"
      >
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          className="z-50 w-84 max-w-[calc(100vw-1.5rem)] rounded-edge border border-ink bg-paper p-4 text-body leading-snug text-ink shadow-lg"
        >
          <Suspense fallback={null}>
            <HowTold of={of} />
          </Suspense>
          <Popover.Arrow className="fill-[var(--ink)]" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
