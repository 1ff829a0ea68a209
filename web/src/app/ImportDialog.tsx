import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client';
import type { Imported, RulebaseKind } from '../api/types';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { Modal } from '../ui/Modal';

const KINDS: [RulebaseKind, string, string][] = [
  ['traffic', 'Traffic', 'connections through gateways'],
  ['common', 'Common rules', 'rules around those of other rulebases'],
  ['services', 'Gateway services', 'connections to gateways themselves: sign-in, SNMP, SSH'],
];

/** Reads in a document or starts an empty rulebase. A faulty document is shown with its places. */
export function ImportDialog({ onClose }: { onClose(): void }) {
  const cache = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<RulebaseKind>('traffic');
  const [file, setFile] = useState<File | null>(null);
  const [done, setDone] = useState<Imported | null>(null);
  const open = (id: number) => {
    onClose();
    void navigate(`/rulebases/${id}/rules`);
  };
  const save = async () => {
    const read = file ? await api.importRulebase(name, file) : await api.addRulebase(name, kind);
    await cache.invalidateQueries({ queryKey: ['rulebases'] });
    if (read.notes.length) setDone(read);
    else open(read.id);
  };
  if (done) {
    return (
      <Modal title="Imported, with remarks" onClose={() => open(done.id)} wide>
        <p>
          {done.rules} rules were imported. These parts of the document were changed or left out:
        </p>
        <ul className="my-3 max-h-[300px] list-disc overflow-auto pl-5 text-[12px]">
          {done.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
        <div className="flex justify-end">
          <Button main onClick={() => open(done.id)}>
            Open
          </Button>
        </div>
      </Modal>
    );
  }
  return (
    <FormDialog
      title="New rulebase"
      save={file ? 'Import' : 'Create'}
      wide
      onSave={save}
      onSaved={() => undefined} // the remarks or the new rulebase are shown by then
      onClose={onClose}
    >
      <Field
        label="Name"
        autoFocus
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Field
        label="Document"
        type="file"
        accept=".json,application/json"
        hint="RFC 8519 (ietf-access-control-list:acls, JSON) or a document of Iron Sieve. Without a document, the rulebase starts empty."
        onChange={(e) => setFile(e.target.files?.[0] ?? null)}
      />
      {!file && (
        <fieldset className="mb-3">
          <legend className="text-[12px] font-semibold">For</legend>
          {KINDS.map(([one, words, says]) => (
            <label key={one} className="flex cursor-pointer items-baseline gap-2 py-0.5">
              <input
                type="radio"
                name="kind"
                checked={kind === one}
                onChange={() => setKind(one)}
              />
              {words}
              <span className="text-[12px] text-dim">{says}</span>
            </label>
          ))}
        </fieldset>
      )}
    </FormDialog>
  );
}
