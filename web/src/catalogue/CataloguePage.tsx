import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { api } from '../api/client';
import type { Application, Draft } from '../api/types';
import type { Place } from '../app/Rail';
import { allRules } from '../draft/applyEdit';
import { LibraryTabs } from '../library/LibraryTabs';
import { Faults } from '../ui/Faults';
import { ApplicationPanel, Grade } from './ApplicationPanel';
import { applicationsOf, search } from './catalogue';
import { EditionDialog } from './EditionDialog';

const ROW = 26;

/** The applications of the draft's edition: found by any property, one of them in full. */
export default function CataloguePage({
  draft,
  mayEdit,
  numbers,
  onRule,
  onGo,
}: {
  draft: Draft;
  mayEdit: boolean;
  numbers: Map<string, number>;
  onRule(id: string): void;
  onGo(place: Place): void;
}) {
  const pinned = draft.editions.application;
  const { data, error } = useQuery({
    queryKey: ['edition', pinned],
    queryFn: () => api.edition(pinned!),
    enabled: pinned !== undefined,
    staleTime: Infinity,
  });
  const all = useMemo(() => (data ? applicationsOf(data) : []), [data]);
  const rules = useMemo(() => allRules(draft), [draft]);
  const [params, setParams] = useSearchParams();
  const [query, setQuery] = useState(params.get('q') ?? '');
  const [category, setCategory] = useState(params.get('category') ?? '');
  const [risk, setRisk] = useState(Number(params.get('risk') ?? 1));
  const chosen = params.get('application');
  const found = useMemo(() => search(all, query, category, risk), [all, query, category, risk]);
  const shown = all.find((a) => a.name === chosen) ?? found[0];
  const categories = useMemo(() => [...new Set(all.map((a) => a.category))].sort(), [all]);

  const remember = (next: { [key: string]: string }) => {
    const params = new URLSearchParams({
      q: query,
      category,
      risk: risk > 1 ? `${risk}` : '',
      application: chosen ?? '',
      ...next,
    });
    [...params.entries()].forEach(([key, value]) => value || params.delete(key));
    setParams(params, { replace: true });
  };
  const choose = (name: string) => remember({ application: name });

  if (!pinned) {
    return (
      <div className="p-6">
        <LibraryTabs place="applications" onGo={onGo} />
        <p className="mt-4 text-dim">
          This rulebase has no catalogue yet, so its rules cannot ask for applications.
        </p>
        <Editions draft={draft} mayEdit={mayEdit} onRule={onRule} />
      </div>
    );
  }
  return (
    <div className="flex min-h-0 flex-1 flex-col p-6 pb-0">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <LibraryTabs place="applications" onGo={onGo} />
        <Editions draft={draft} mayEdit={mayEdit} onRule={onRule} />
      </div>
      <Faults error={error} />
      <div className="mb-2 flex items-center gap-2">
        <input
          type="search"
          aria-label="Search applications"
          placeholder="name, feature, tag, host, port, risk 5"
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            remember({ q: e.target.value, application: '' });
          }}
          className="w-[280px] rounded border border-line px-2 py-1"
        />
        <select
          aria-label="Category"
          value={category}
          onChange={(e) => {
            setCategory(e.target.value);
            remember({ category: e.target.value, application: '' });
          }}
          className="rounded border border-line bg-sheet px-2 py-1"
        >
          <option value="">every category</option>
          {categories.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        <select
          aria-label="Least risk"
          value={risk}
          onChange={(e) => {
            setRisk(Number(e.target.value));
            remember({ risk: e.target.value === '1' ? '' : e.target.value, application: '' });
          }}
          className="rounded border border-line bg-sheet px-2 py-1"
        >
          {[1, 2, 3, 4, 5].map((least) => (
            <option key={least} value={least}>
              {least === 1 ? 'any risk' : least === 5 ? 'risk 5' : `risk ${least} or more`}
            </option>
          ))}
        </select>
        <span role="status" className="text-[12px] text-dim">
          {found.length} of {all.length}
        </span>
      </div>
      <div className="flex min-h-0 flex-1 gap-6">
        <List found={found} shown={shown} onChoose={choose} />
        <div className="min-h-0 min-w-0 flex-1 overflow-y-auto pb-6">
          {shown && (
            <ApplicationPanel
              application={shown}
              all={all}
              rules={rules}
              numbers={numbers}
              onChoose={choose}
              onRule={onRule}
            />
          )}
        </div>
      </div>
    </div>
  );
}

function List({
  found,
  shown,
  onChoose,
}: {
  found: Application[];
  shown: Application | undefined;
  onChoose(name: string): void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: found.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const at = found.findIndex((application) => application === shown);
  const step = (to: number) => {
    const next = found[Math.max(0, Math.min(found.length - 1, to))];
    if (next) {
      onChoose(next.name);
      rows.scrollToIndex(found.indexOf(next));
    }
  };
  if (found.length === 0) {
    return <p className="w-[420px] shrink-0 text-dim">No application fits.</p>;
  }
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label="Applications"
      aria-activedescendant={at >= 0 ? `application-${at}` : undefined}
      onKeyDown={(e) => {
        const page = 12;
        const to = { ArrowDown: at + 1, ArrowUp: at - 1, PageDown: at + page, PageUp: at - page }[
          e.key
        ];
        if (to !== undefined) {
          e.preventDefault();
          step(to);
        }
      }}
      className="w-[420px] shrink-0 overflow-y-auto border-t border-line"
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((row) => {
          const application = found[row.index]!;
          return (
            <div
              key={application.name}
              id={`application-${row.index}`}
              role="option"
              aria-selected={application === shown}
              onClick={() => onChoose(application.name)}
              style={{ height: ROW, transform: `translateY(${row.start}px)` }}
              className={`absolute inset-x-0 flex cursor-pointer items-center gap-2 border-b border-line px-2 ${
                application === shown ? 'bg-accent-soft' : 'hover:bg-band'
              }`}
            >
              <span className="min-w-0 flex-1 truncate">{application.name}</span>
              <span className="w-[130px] shrink-0 truncate text-[12px] text-dim">
                {application.category}
              </span>
              <span
                className="w-[76px] shrink-0 text-[12px] whitespace-nowrap text-dim"
                title={`Risk ${application.risk} of 5`}
              >
                risk <Grade of={application.risk} />
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** Which edition the draft has, which others there are, and the way to bring one in. */
function Editions({
  draft,
  mayEdit,
  onRule,
}: {
  draft: Draft;
  mayEdit: boolean;
  onRule(id: string): void;
}) {
  const cache = useQueryClient();
  const { data: editions = [] } = useQuery({ queryKey: ['editions'], queryFn: api.editions });
  const [compared, setCompared] = useState<string | null>(null);
  const [error, setError] = useState<unknown>(null);
  const pinned = draft.editions.application;
  const bring = async (file: File | undefined) => {
    if (!file) return;
    setError(null);
    try {
      await api.importEdition(file);
      await cache.invalidateQueries({ queryKey: ['editions'] });
    } catch (e) {
      setError(e);
    }
  };
  const takeFirst = async (name: string) => {
    try {
      await api.takeEdition(draft.id, name, draft.version);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px]">
      {pinned && <span>Edition {pinned} is in this draft.</span>}
      {editions
        .filter((edition) => edition.name !== pinned)
        .filter(() => pinned || mayEdit)
        .map((edition) => (
          <button
            key={edition.name}
            type="button"
            onClick={() => (pinned ? setCompared(edition.name) : void takeFirst(edition.name))}
            className="cursor-pointer text-accent underline underline-offset-2"
          >
            {pinned ? `What would ${edition.name} change?` : `Take edition ${edition.name}`}
          </button>
        ))}
      {mayEdit && (
        <label className="cursor-pointer rounded border border-line px-2 leading-[20px] focus-within:outline hover:bg-band">
          Bring in an edition…
          <input
            type="file"
            accept=".json,application/json"
            className="sr-only"
            onChange={(e) => {
              void bring(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
      )}
      <Faults error={error} />
      {compared && pinned && (
        <EditionDialog
          draft={draft}
          edition={compared}
          mayEdit={mayEdit}
          onClose={() => setCompared(null)}
          onRule={onRule}
        />
      )}
    </div>
  );
}
