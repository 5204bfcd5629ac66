import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef } from 'react';

/** A sheet laid over the bench. */
export function Dialog(props: {
  readonly open: boolean;
  readonly onClose?: () => void;
  readonly title: string;
  readonly about?: string;
  readonly children: ReactNode;
}) {
  // what opened it, which the focus goes back to
  const from = useRef<Element | null>(null);
  return (
    <Radix.Root open={props.open} onOpenChange={open => !open && props.onClose?.()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/55" />
        <Radix.Content
          onOpenAutoFocus={() => {
            from.current = document.activeElement;
          }}
          onCloseAutoFocus={e => {
            e.preventDefault();
            if (from.current instanceof HTMLElement) from.current.focus();
          }}
          {...(props.about ? {} : { 'aria-describedby': undefined })}
          className="fixed inset-x-0 bottom-0 z-50 max-h-[92dvh] overflow-auto border-t-4 border-fluid bg-sheet p-5 text-ink shadow-xl desk:inset-x-auto desk:top-1/2 desk:bottom-auto desk:left-1/2 desk:w-[30rem] desk:-translate-x-1/2 desk:-translate-y-1/2 desk:rounded-edge desk:border"
        >
          <div className="mb-2 flex items-start justify-between gap-4">
            <Radix.Title className="text-head font-bold">{props.title}</Radix.Title>
            {props.onClose && (
              <Radix.Close aria-label="Close" className="-mt-2 -mr-2 grid size-11 place-items-center">
                <X size={20} aria-hidden="true" />
              </Radix.Close>
            )}
          </div>
          {props.about && <Radix.Description className="mb-4 text-ink2">{props.about}</Radix.Description>}
          {props.children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
