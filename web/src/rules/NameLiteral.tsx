import { useState } from 'react';
import type { Problem } from '../api/client';
import { PUT_EDITS, type Edit, type Rule } from '../api/types';
import { allRules } from '../draft/applyEdit';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { Modal } from '../ui/Modal';
import { kindOfLiteral } from './completion';
import { withChip, type Chip } from '../draft/criteria';

/** Makes a literal a named object and puts that into the rule, as one change. */
export function NameLiteral({
  rule,
  chip,
  handle,
  onClose,
}: {
  rule: Rule;
  chip: Chip;
  handle: DraftHandle;
  onClose(): void;
}) {
  const [name, setName] = useState('');
  const [error, setError] = useState<Problem | null>(null);
  const save = async () => {
    const put: Edit = {
      kind: PUT_EDITS[kindOfLiteral(chip.criterion)],
      object: { name, members: [chip.text] },
    };
    const problem = await handle.edit((now) => ({
      kind: 'batch',
      edits: [
        put,
        {
          kind: 'replaceRules',
          rules: allRules(now)
            .filter((r) => r.id === rule.id)
            .map((r) => withChip(r, { ...chip, text: name })),
        },
      ],
    }));
    if (problem) setError(problem);
    else onClose();
  };
  return (
    <Modal title={`Name ${chip.text}`} onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Faults error={error} />
        <Field
          label="Name of the new object"
          autoFocus
          required
          maxLength={100}
          value={name}
          onChange={(e) => setName(e.target.value)}
          hint="The rule will mean it by this name, and other rules can too."
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit">
            Create and use
          </Button>
        </div>
      </form>
    </Modal>
  );
}
