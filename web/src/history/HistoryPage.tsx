import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api } from '../api/client';
import { rulesIn, type Change, type Draft } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { describeEdit } from '../draft/describeEdit';
import { NamedStates } from '../restore/NamedStates';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';

const PAGE = 100;

/** Every change of the draft: who, when, what. */
export default function HistoryPage({ draft, mayEdit }: { draft: Draft; mayEdit: boolean }) {
  const { id, version } = draft;
  const cache = useQueryClient();
  const pages = useInfiniteQuery({
    queryKey: ['history', id],
    queryFn: ({ pageParam }) => api.changes(id, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last[last.length - 1]?.version),
  });
  useEffect(() => {
    void cache.invalidateQueries({ queryKey: ['history', id] });
  }, [cache, id, version]);
  const names = new Map(allRules(draft).map((rule) => [rule.id, rule.name]));
  const changes = pages.data?.pages.flat() ?? [];
  for (const change of changes) {
    for (const rule of rulesIn(change.edit)) {
      if (rule.id && rule.name && !names.has(rule.id)) names.set(rule.id, rule.name);
    }
  }
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-6">
      <h1 className="mb-4 text-[17px] font-semibold">History of the draft</h1>
      <NamedStates draft={draft} mayEdit={mayEdit} />
      <Faults error={pages.error} />
      {pages.isSuccess && changes.length === 0 && (
        <p className="text-dim">
          Nothing was changed since revision {draft.revision}. Every change will stand here with who
          made it and when.
        </p>
      )}
      {byDay(changes).map(([day, list]) => (
        <section key={day} className="mb-5">
          <h2 className="mb-1 text-[12px] font-semibold text-dim">{day}</h2>
          <ol className="divide-y divide-line border-y border-line">
            {list.map((change) => (
              <li key={change.version} className="flex gap-3 py-1">
                <span className="w-[46px] shrink-0 text-right text-dim">{change.version}</span>
                <time className="w-[70px] shrink-0 text-dim" dateTime={change.at}>
                  {new Date(change.at).toLocaleTimeString(undefined, { hour12: false })}
                </time>
                <span className="w-[140px] shrink-0 truncate">{change.by}</span>
                <span className="min-w-0 break-words">
                  {change.kind === 'edit' ? '' : `${change.kind}: `}
                  {describeEdit(change.edit, (rule) => names.get(rule), change.inverse)}
                </span>
              </li>
            ))}
          </ol>
        </section>
      ))}
      {pages.hasNextPage && (
        <Button onClick={() => void pages.fetchNextPage()}>Show older changes</Button>
      )}
    </div>
  );
}

function byDay(changes: Change[]): [string, Change[]][] {
  const days = new Map<string, Change[]>();
  for (const change of changes) {
    const day = new Date(change.at).toLocaleDateString(undefined, { dateStyle: 'full' });
    days.set(day, [...(days.get(day) ?? []), change]);
  }
  return [...days];
}
