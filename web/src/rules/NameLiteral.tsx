import { useState } from 'react';
import { PUT_EDITS, type Edit, type Rule } from '../api/types';
import { allRules } from '../draft/applyEdit';
import type { DraftHandle } from '../draft/useDraft';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
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
  const save = () => {
    const put: Edit = {
      kind: PUT_EDITS[kindOfLiteral(chip.criterion)],
      object: { name, members: [chip.text] },
    };
    return handle.edit((now) => ({
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
  };
  return (
    <FormDialog title={`Name ${chip.text}`} save="Create and use" onSave={save} onClose={onClose}>
      <Field
        label="Name of the new object"
        autoFocus
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
        hint="The rule will mean it by this name, and other rules can too."
      />
    </FormDialog>
  );
}
