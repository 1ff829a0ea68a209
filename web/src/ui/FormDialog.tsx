import { useState, type ReactNode } from 'react';
import { Button } from './Button';
import { Faults } from './Faults';
import { Modal } from './Modal';

/** A dialog with a form that is saved or left; what the server finds wrong stands above it. */
export function FormDialog({
  title,
  onSave,
  onClose,
  beside,
  children,
}: {
  title: string;
  /** Gives, or throws, what is wrong; nothing if it was saved. */
  onSave(): Promise<unknown>;
  onClose(): void;
  /** What else can be done, at the left of the buttons. */
  beside?: ReactNode;
  children: ReactNode;
}) {
  const [error, setError] = useState<unknown>(null);
  const save = async () => {
    try {
      const problem = await onSave();
      if (problem) setError(problem);
      else onClose();
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Modal title={title} onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Faults error={error} />
        {children}
        <div className="flex justify-end gap-2">
          {beside}
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit">
            Save
          </Button>
        </div>
      </form>
    </Modal>
  );
}
