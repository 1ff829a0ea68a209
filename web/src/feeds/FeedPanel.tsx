import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from '../api/client';
import type { Draft, FeedSummary, FeedEditionSummary, PinnedFeed } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { EditionDialog } from '../library/EditionDialog';
import { many } from '../draft/Effects';
import { Users } from '../library/Users';
import { usersOf } from '../library/usersOf';
import { Age } from '../ui/Age';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { FileButton } from '../ui/FileButton';
import { EditionReport } from './EditionReport';
import { every, KINDS, oldAfter, SETS } from './feeds';

const STATES = { offered: '', held: 'awaiting approval', refused: 'rejected' };

/** One feed: how it is fetched, its editions, and what the rules of the draft say of it. */
export function FeedPanel({
  draft,
  feed,
  pinned,
  mayEdit,
  onRule,
  onChange,
  onSettings,
}: {
  draft: Draft;
  feed: FeedSummary;
  pinned: PinnedFeed | undefined;
  mayEdit: boolean;
  onRule(id: string): void;
  onChange(feeds: FeedSummary[]): void;
  onSettings: (() => void) | undefined;
}) {
  const [compared, setCompared] = useState<FeedEditionSummary | null>(null);
  const [looked, setLooked] = useState<string | null>(null);
  const open = feed.editions.find((edition) => edition.name === looked) ?? feed.editions[0];
  const {
    mutate: run,
    isPending: busy,
    error,
  } = useMutation({
    mutationFn: (work: () => Promise<FeedSummary[] | void>) => work(),
    onSuccess: (next) => next && onChange(next),
  });
  const take = async (edition: string) => {
    await api.takeFeed(draft.id, feed.name, edition, draft.version);
  };
  const { settings } = feed;
  return (
    <>
      <h2 className="text-[15px] font-semibold">{feed.name}</h2>
      <p className="text-dim">
        {KINDS[feed.kind]}
        {settings.url ? (
          <>
            , fetched {every(settings.everyMinutes)} from{' '}
            <span className="font-mono text-[12px] break-all text-ink">{settings.url}</span>
          </>
        ) : (
          ', uploaded by hand'
        )}
        <Age word="last fetched" at={feed.readAt} old={oldAfter(feed)} />.
      </p>
      <p className="mb-2 text-[12px] text-dim">
        At most {settings.mostBytes.toLocaleString('en')} bytes; an edition whose size differs by
        more than {settings.mostPercent} % from the one before needs approval.
      </p>
      {feed.fault && (
        <p role="alert" className="mb-2 text-drop">
          Fetch failed; the last edition stays in use. {feed.fault}
        </p>
      )}
      <Faults error={error} />
      <div className="mb-4 flex flex-wrap items-center gap-2">
        {mayEdit && settings.url && (
          <Button small disabled={busy} onClick={() => run(() => api.fetchFeed(feed.name))}>
            {busy ? 'Fetching…' : 'Fetch now'}
          </Button>
        )}
        {mayEdit && (
          <FileButton
            accept=".txt,.csv,text/plain,text/csv"
            onFile={(file) => run(() => api.uploadFeed(feed.name, file))}
          >
            Upload a file…
          </FileButton>
        )}
        {onSettings && (
          <Button small onClick={onSettings}>
            Settings…
          </Button>
        )}
      </div>
      <h3 className="font-semibold">Editions</h3>
      <ul className="mb-4 divide-y divide-line border-y border-line">
        {feed.editions.map((edition) => (
          <li key={edition.name} className="py-1">
            <div className="flex flex-wrap items-baseline gap-x-3">
              <button
                type="button"
                aria-pressed={edition === open}
                onClick={() => setLooked(edition.name)}
                className={`min-h-[24px] cursor-pointer text-left tabular-nums ${
                  edition === open ? 'font-semibold' : 'text-accent underline underline-offset-2'
                }`}
              >
                {edition.name}
              </button>
              <span className="text-[12px] text-dim">
                {many(edition.entries, 'line')}
                {edition.by && `, uploaded by ${edition.by}`}
                {edition.decidedBy &&
                  `, ${edition.state === 'offered' ? 'approved' : 'rejected'} by ${edition.decidedBy}`}
              </span>
              {pinned?.edition === edition.name && (
                <span className="text-[12px]">in this draft</span>
              )}
              {STATES[edition.state] && !edition.decidedBy && (
                <span className="text-[12px] text-caution">{STATES[edition.state]}</span>
              )}
              <span className="ml-auto flex gap-1">
                {mayEdit && edition.state === 'held' && (
                  <>
                    <Button
                      small
                      disabled={busy}
                      onClick={() =>
                        run(() => api.decideFeedEdition(feed.name, edition.name, true))
                      }
                    >
                      Approve
                    </Button>
                    <Button
                      small
                      disabled={busy}
                      onClick={() =>
                        run(() => api.decideFeedEdition(feed.name, edition.name, false))
                      }
                    >
                      Reject
                    </Button>
                  </>
                )}
                {pinned
                  ? pinned.edition !== edition.name &&
                    edition.state !== 'refused' && (
                      <Button small onClick={() => setCompared(edition)}>
                        What would it change?
                      </Button>
                    )
                  : mayEdit &&
                    edition.state === 'offered' && (
                      <Button small onClick={() => run(() => take(edition.name))}>
                        Adopt in the draft
                      </Button>
                    )}
              </span>
            </div>
            {edition.reasons.map((reason) => (
              <p key={reason} className="text-[12px]">
                {reason}
              </p>
            ))}
          </li>
        ))}
      </ul>
      {open && <EditionReport feed={feed.name} edition={open.name} kind={feed.kind} />}
      {pinned && <Sets draft={draft} pinned={pinned} onRule={onRule} />}
      {compared && pinned && (
        <EditionDialog
          draft={draft}
          compared={{
            of: feed.name,
            word: 'Edition',
            edition: compared.name,
            had: pinned.edition,
            things: SETS[feed.kind],
            mayTake: compared.state === 'offered',
            effect: (signal) => api.effectOfFeed(draft.id, feed.name, compared.name, signal),
            take: () => take(compared.name),
          }}
          mayEdit={mayEdit}
          onClose={() => setCompared(null)}
          onRule={onRule}
        />
      )}
    </>
  );
}

/** What the draft's edition offers to rules, and which say it. */
function Sets({
  draft,
  pinned,
  onRule,
}: {
  draft: Draft;
  pinned: PinnedFeed;
  onRule(id: string): void;
}) {
  const users = useMemo(() => usersOf(draft, allRules(draft)), [draft]);
  const kind = pinned.kind === 'categories' ? 'host list' : 'address';
  return (
    <>
      <h3 className="font-semibold">Names that rules can use, with the edition in this draft</h3>
      <ul className="divide-y divide-line border-y border-line">
        {pinned.sets.map((set) => (
          <li key={set.name} className="flex items-baseline gap-3 py-1">
            <span className="w-[170px] shrink-0 truncate font-semibold" title={set.name}>
              {set.name}
            </span>
            <span className="w-[60px] shrink-0 text-right text-[12px] text-dim tabular-nums">
              {set.entries}
            </span>
            <span className="min-w-0 flex-1 truncate font-mono text-[12px]">
              {set.some.join(', ')}
            </span>
            <Users rules={users.get(`${kind}:${set.name.toLowerCase()}`) ?? []} onRule={onRule} />
          </li>
        ))}
      </ul>
    </>
  );
}
