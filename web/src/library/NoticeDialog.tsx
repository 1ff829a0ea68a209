import { useState } from 'react';
import type { Notice } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Area, Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';

/** Makes or changes the page that people are shown, and shows it. */
export function NoticeDialog({
  notice,
  handle,
  onClose,
}: {
  notice: Notice | null;
  handle: DraftHandle;
  onClose(): void;
}) {
  const [seen] = useState(handle.draft!.version);
  const [name, setName] = useState(notice?.name ?? '');
  const [heading, setHeading] = useState(notice?.heading ?? '');
  const [text, setText] = useState(notice?.text ?? '');
  const save = () =>
    handle.edit(
      { kind: 'putNotice', notice: { name, heading, text }, replaces: notice?.name },
      seen,
    );
  return (
    <FormDialog
      title={notice ? `Edit ${notice.name}` : 'New notice'}
      onSave={save}
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
        label="Heading"
        required
        maxLength={100}
        value={heading}
        onChange={(e) => setHeading(e.target.value)}
      />
      <Area
        label="Text"
        required
        rows={4}
        maxLength={2000}
        hint="Plain text. Empty lines part paragraphs."
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {(heading || text) && (
        <section aria-label="As people see it" className="mb-3 rounded border border-line p-3">
          <h3 className="text-[15px] font-semibold break-words">{heading}</h3>
          <p className="break-words whitespace-pre-wrap">{text}</p>
        </section>
      )}
    </FormDialog>
  );
}
