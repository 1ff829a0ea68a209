import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { saveFile } from '../ui/saveFile';

const save = (name: string, content: unknown) =>
  saveFile(name, 'json', `${JSON.stringify(content, null, 2)}\n`);

/** Writes the draft as RFC 8519, after saying what that cannot hold, or as our own document. */
export function ExportDialog({
  id,
  version,
  name,
  onClose,
}: {
  id: number;
  version: number;
  name: string;
  onClose(): void;
}) {
  const standard = useQuery({
    queryKey: ['rfc8519', id, version],
    queryFn: () => api.exportRfc8519(id),
  });
  const out = standard.data;
  return (
    <Modal title="Export the draft" onClose={onClose} wide>
      <Faults error={standard.error} />
      {out && (
        <>
          <p>
            {out.leftOut.length === 0
              ? 'RFC 8519 can express every rule.'
              : `RFC 8519 cannot express ${out.leftOut.length} of the rules; they are left out:`}
          </p>
          {out.leftOut.length > 0 && (
            <ul className="my-2 max-h-[160px] overflow-auto text-[12px]">
              {out.leftOut.map((rule) => (
                <li key={rule.number}>
                  <span className="font-semibold">
                    {rule.number} {rule.rule}
                  </span>
                  : {rule.reason}
                </li>
              ))}
            </ul>
          )}
          {out.notes.length > 0 && (
            <details className="my-2">
              <summary className="cursor-pointer">
                {out.notes.length} remarks on what is written
              </summary>
              <ul className="max-h-[160px] list-disc overflow-auto pl-5 text-[12px] text-dim">
                {out.notes.map((note) => (
                  <li key={note}>{note}</li>
                ))}
              </ul>
            </details>
          )}
        </>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <Button onClick={() => void api.exportDocument(id).then((d) => save(name, d))}>
          Our document (everything)
        </Button>
        <Button main disabled={!out} onClick={() => out && save(`${name} acls`, out.document)}>
          RFC 8519
        </Button>
      </div>
    </Modal>
  );
}
