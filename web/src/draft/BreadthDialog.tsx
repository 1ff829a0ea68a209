import { useState } from 'react';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import type { DraftHandle } from './useDraft';

const PARTS = ['people', 'applications', 'sites', 'services', 'devices', 'times', 'file kinds'];

/** When a rule that allows is too broad: what excuses it, and from how many addresses on. */
export default function BreadthDialog({
  handle,
  onClose,
}: {
  handle: DraftHandle;
  onClose(): void;
}) {
  const now = handle.draft!.tooBroad;
  const [counting, setCounting] = useState<string[]>(now.counting ?? []);
  const [addresses, setAddresses] = useState(String(now.addresses ?? 1));
  const toggle = (part: string) =>
    setCounting(
      counting.includes(part) ? counting.filter((one) => one !== part) : [...counting, part],
    );
  return (
    <FormDialog
      title="When a rule is too broad"
      onClose={onClose}
      onSave={() =>
        handle.edit({
          kind: 'setBreadth',
          tooBroad: {
            counting: PARTS.filter((part) => counting.includes(part)),
            addresses: Number(addresses),
          },
        })
      }
    >
      <fieldset className="mb-3">
        <legend className="mb-1">
          A rule that allows is too broad unless it narrows one of these:
        </legend>
        {PARTS.map((part) => (
          <label key={part} className="flex min-h-[24px] items-center gap-2">
            <input
              type="checkbox"
              checked={counting.includes(part)}
              onChange={() => toggle(part)}
            />
            {part}
          </label>
        ))}
      </fieldset>
      <Field
        label="Fewest addresses on both ends"
        type="number"
        min={1}
        required
        value={addresses}
        onChange={(e) => setAddresses(e.target.value)}
        hint="A rule with fewer addresses at one end is not too broad. 1 for any ends."
      />
    </FormDialog>
  );
}
