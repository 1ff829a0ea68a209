import { useMutation } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from './Button';
import { Faults } from './Faults';
import { Modal } from './Modal';

/** A dialog with a form that is saved or cancelled; problems that the server finds are above it. */
export function FormDialog({
  title,
  save = 'Save',
  wide,
  onSave,
  onSaved,
  onClose,
  beside,
  children,
}: {
  title: string;
  /** The label of the button that saves. */
  save?: string;
  wide?: boolean;
  /** Returns or throws the problem; nothing if the form was saved. */
  onSave(): Promise<unknown>;
  /** What follows when the form was saved; the dialog closes if this is left out. */
  onSaved?(): void;
  onClose(): void;
  /** Other actions, at the left of the buttons. */
  beside?: ReactNode;
  children: ReactNode;
}) {
  const saving = useMutation({
    mutationFn: async () => {
      const problem = await onSave();
      if (problem) throw problem;
    },
    onSuccess: onSaved ?? onClose,
  });
  return (
    <Modal title={title} onClose={onClose} wide={wide}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!saving.isPending) saving.mutate();
        }}
      >
        <Faults error={saving.error} />
        {children}
        <div className="flex justify-end gap-2">
          {beside}
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={saving.isPending}>
            {save}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
