import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { focusRules } from './focus';

/** What had the focus before a dialog may be gone by the time that the dialog closes. */
function focusIfLost() {
  if (document.activeElement === document.body) focusRules();
}

/** A dialog with a title; Escape and a click outside close it. */
export function Modal({
  title,
  children,
  onClose,
  wide,
}: {
  title: string;
  children: ReactNode;
  onClose(): void;
  wide?: boolean;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-shade" />
        <Dialog.Content
          aria-describedby={undefined}
          onKeyDown={(e) => e.stopPropagation()}
          onCloseAutoFocus={() => setTimeout(focusIfLost)}
          className={`fixed top-[12vh] left-1/2 z-50 max-h-[76vh] -translate-x-1/2 overflow-auto rounded-md border border-line bg-sheet p-4 shadow-xl ${
            wide ? 'w-[680px]' : 'w-[460px]'
          } max-w-[94vw]`}
        >
          <Dialog.Title className="mb-3 text-[15px] font-semibold">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
