import { useState } from 'react';
import { api } from '../api/client';
import type { ListedFeed } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { Modal } from '../ui/Modal';
import { KINDS } from './feeds';

/** Adds a feed, or says how one is fetched. */
export function FeedDialog({
  feed,
  onClose,
}: {
  feed: ListedFeed | null;
  /** Told the name of a feed that was added. */
  onClose(added?: string): void;
}) {
  const [error, setError] = useState<unknown>(null);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<ListedFeed['kind']>('addresses');
  const [url, setUrl] = useState(feed?.settings.url ?? '');
  const [minutes, setMinutes] = useState(`${feed?.settings.everyMinutes ?? 360}`);
  const [bytes, setBytes] = useState(`${feed?.settings.mostBytes ?? 5_000_000}`);
  const [percent, setPercent] = useState(`${feed?.settings.mostPercent ?? 25}`);
  const [sure, setSure] = useState(false);
  const run = async (work: () => Promise<void>, added?: string) => {
    try {
      await work();
      onClose(added);
    } catch (e) {
      setError(e);
    }
  };
  const settings = () => ({
    url: url.trim() || undefined,
    everyMinutes: Number(minutes),
    mostBytes: Number(bytes),
    mostPercent: Number(percent),
  });
  return (
    <Modal title={feed ? `How ${feed.name} is fetched` : 'New feed'} onClose={() => onClose()}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void (feed
            ? run(() => api.changeFeed(feed.name, settings()))
            : run(() => api.addFeed({ name, kind, settings: settings() }), name));
        }}
      >
        <Faults error={error} />
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
              What it lists
              <select
                value={kind}
                onChange={(e) => setKind(e.target.value as ListedFeed['kind'])}
                className="mt-1 block rounded border border-line px-2 py-1 text-[13px] font-normal"
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
          label="Where it is"
          type="url"
          placeholder="https://lists.example/watch.txt"
          hint="HTTP or HTTPS. Without it, files are uploaded by hand."
          value={url}
          onChange={(e) => setUrl(e.target.value)}
        />
        <Field
          label="Minutes between two tries"
          type="number"
          min={1}
          required
          value={minutes}
          onChange={(e) => setMinutes(e.target.value)}
        />
        <Field
          label="Largest file, in bytes"
          type="number"
          min={1}
          required
          value={bytes}
          onChange={(e) => setBytes(e.target.value)}
        />
        <Field
          label="Change of size that goes through by itself, in percent"
          type="number"
          min={0}
          hint="A larger change, and any line that cannot be read, waits for a decision."
          required
          value={percent}
          onChange={(e) => setPercent(e.target.value)}
        />
        <div className="flex justify-end gap-2">
          {feed && (
            <Button
              className="mr-auto"
              onClick={() => (sure ? void run(() => api.removeFeed(feed.name)) : setSure(true))}
            >
              {sure ? 'Really forget it and its editions' : 'Forget this feed'}
            </Button>
          )}
          <Button onClick={() => onClose()}>Cancel</Button>
          <Button main type="submit">
            Save
          </Button>
        </div>
      </form>
    </Modal>
  );
}
