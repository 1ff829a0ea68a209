import { useState } from 'react';
import { api } from '../api/client';
import type { FeedSummary } from '../api/types';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { KINDS } from './feeds';

/** Adds a feed, or edits its settings. */
export function FeedDialog({
  feed,
  onClose,
}: {
  feed: FeedSummary | null;
  /** Told the name of a feed that may have been added. */
  onClose(added?: string): void;
}) {
  const [name, setName] = useState('');
  const [kind, setKind] = useState<FeedSummary['kind']>('addresses');
  const [url, setUrl] = useState(feed?.settings.url ?? '');
  const [minutes, setMinutes] = useState(`${feed?.settings.everyMinutes ?? 360}`);
  const [bytes, setBytes] = useState(`${feed?.settings.mostBytes ?? 5_000_000}`);
  const [percent, setPercent] = useState(`${feed?.settings.mostPercent ?? 25}`);
  const [sure, setSure] = useState(false);
  const settings = () => ({
    url: url.trim() || undefined,
    everyMinutes: Number(minutes),
    mostBytes: Number(bytes),
    mostPercent: Number(percent),
  });
  const save = async () => {
    if (feed) await api.changeFeed(feed.name, settings());
    else await api.addFeed({ name, kind, settings: settings() });
  };
  const forget = async () => {
    if (sure) await api.removeFeed(feed!.name);
    setSure(true);
  };
  return (
    <FormDialog
      title={feed ? `Settings of ${feed.name}` : 'New feed'}
      onSave={save}
      onClose={() => onClose(name)}
      beside={
        feed && (
          <Button className="mr-auto" onClick={() => void forget().then(() => sure && onClose())}>
            {sure ? 'Really delete it and its editions' : 'Delete this feed'}
          </Button>
        )
      }
    >
      {!feed && (
        <>
          <Field
            label="Name"
            autoFocus
            required
            maxLength={100}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <label className="mb-3 block text-[12px] font-semibold">
            Type
            <select
              value={kind}
              onChange={(e) => setKind(e.target.value as FeedSummary['kind'])}
              className="mt-1 block rounded border border-dim px-2 py-1 text-[13px] font-normal"
            >
              {Object.entries(KINDS).map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </>
      )}
      <Field
        label="URL"
        type="url"
        placeholder="https://lists.example/watch.txt"
        hint="HTTP or HTTPS. Leave empty to upload files by hand."
        value={url}
        onChange={(e) => setUrl(e.target.value)}
      />
      <Field
        label="Fetch interval (minutes)"
        type="number"
        min={1}
        required
        value={minutes}
        onChange={(e) => setMinutes(e.target.value)}
      />
      <Field
        label="Largest file (bytes)"
        type="number"
        min={1}
        required
        value={bytes}
        onChange={(e) => setBytes(e.target.value)}
      />
      <Field
        label="Auto-approve size changes up to (%)"
        type="number"
        min={0}
        hint="A larger change, or a line that cannot be read, needs approval."
        required
        value={percent}
        onChange={(e) => setPercent(e.target.value)}
      />
    </FormDialog>
  );
}
