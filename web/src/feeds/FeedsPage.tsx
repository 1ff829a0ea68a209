import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useUrlState } from '../shell/useUrlState';
import { api } from '../api/client';
import type { Draft, FeedSummary } from '../api/types';
import type { Place } from '../shell/places';
import { useSession } from '../shell/session';
import { LibraryTabs } from '../library/LibraryTabs';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { PickList } from '../ui/PickList';
import { FeedDialog } from './FeedDialog';
import { FeedPanel } from './FeedPanel';
import { stateOf } from './feeds';

/** Lists from outside: where they come from, their editions, and which of these the draft has. */
export default function FeedsPage({
  draft,
  mayEdit,
  onRule,
  onGo,
}: {
  draft: Draft;
  mayEdit: boolean;
  onRule(id: string): void;
  onGo(place: Place): void;
}) {
  const { person } = useSession();
  const admin = person.role === 'admin';
  const cache = useQueryClient();
  const { data: feeds, error } = useQuery({ queryKey: ['feeds'], queryFn: api.feeds });
  const { values, set, step } = useUrlState('feeds', ['feed']);
  const [asked, setAsked] = useState<FeedSummary | 'new' | null>(null);
  const shown = feeds?.find((feed) => feed.name === values.feed) ?? feeds?.[0];
  const pinned = (feed: FeedSummary) => draft.feeds.find((own) => own.name === feed.name);
  const choose = (name: string) => step({ feed: name });
  return (
    <div className="flex min-h-0 flex-1 flex-col p-6 pb-0">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <LibraryTabs place="feeds" onGo={onGo} />
        {admin && (
          <Button small onClick={() => setAsked('new')}>
            New feed
          </Button>
        )}
      </div>
      <Faults error={error} />
      {feeds?.length === 0 && (
        <p className="max-w-[560px] text-dim">
          No feeds yet. A feed is a list from outside: addresses to block, countries by address, or
          categories by host. {admin ? 'Add one above.' : 'An admin can add one.'}
        </p>
      )}
      {feeds && shown && (
        <div className="flex min-h-0 flex-1 gap-6">
          <PickList
            name="Feeds"
            none=""
            items={feeds}
            chosen={shown}
            keyOf={(feed) => feed.name}
            onChoose={(feed, passing) => (passing ? set : step)({ feed: feed.name })}
            className="w-[330px] shrink-0"
          >
            {(feed) => {
              const [word, toDo] = stateOf(feed, pinned(feed));
              return (
                <>
                  <span className="min-w-0 flex-1 truncate">{feed.name}</span>
                  <span className={`shrink-0 text-[12px] ${toDo ? 'text-caution' : 'text-dim'}`}>
                    {word}
                  </span>
                </>
              );
            }}
          </PickList>
          <div className="min-h-0 min-w-0 flex-1 overflow-y-auto pb-6">
            <FeedPanel
              key={shown.name}
              draft={draft}
              feed={shown}
              pinned={pinned(shown)}
              mayEdit={mayEdit}
              onRule={onRule}
              onChange={(next) => cache.setQueryData(['feeds'], next)}
              onSettings={admin ? () => setAsked(shown) : undefined}
            />
          </div>
        </div>
      )}
      {asked && (
        <FeedDialog
          feed={asked === 'new' ? null : asked}
          onClose={(name) => {
            setAsked(null);
            if (name) choose(name);
            void cache.invalidateQueries({ queryKey: ['feeds'] });
          }}
        />
      )}
    </div>
  );
}
