import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { numbersOf } from '../draft/findings';
import type { DraftHandle } from '../draft/useDraft';
import { RulePanel } from '../rules/RulePanel';
import { RulesPage, type RulesHandle } from '../rules/RulesPage';
import { Faults } from '../ui/Faults';
import { Working } from '../ui/QuestionProgress';
import { originsOf, allRules } from '../draft/applyEdit';

/** The rules of one revision with its findings; nothing can be changed here. */
export default function RevisionView() {
  const params = useParams();
  const id = Number(params.id);
  const number = Number(params.number);
  const { data: revision, error } = useQuery({
    queryKey: ['revision', id, number],
    queryFn: ({ signal }) => api.revisionRules(id, number, signal),
    staleTime: Infinity,
    retry: false,
  });
  useEffect(() => {
    document.title = `Revision ${number} · Iron Sieve`;
  }, [number]);
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[44px] shrink-0 items-center gap-3 bg-iron px-3 text-on-iron">
        <Link
          to={`/rulebases/${id}/rules`}
          className="rounded px-2 py-1 font-semibold hover:bg-sheen"
        >
          {revision?.name ?? 'Iron Sieve'}
        </Link>
        <h1 className="font-semibold">Revision {number}</h1>
        <span className="text-on-iron-dim">as it was published, to read only</span>
        <Link
          to={`/rulebases/${id}/publish?revision=${number}`}
          className="ml-auto rounded px-2 py-1 hover:bg-sheen"
        >
          All revisions
        </Link>
      </header>
      {error && (
        <main className="p-6">
          <Faults error={error} />
        </main>
      )}
      {!revision && !error && (
        <main className="p-6">
          <Working on="The analysis" />
        </main>
      )}
      {/* What a common draft does below it is no question of a revision. */}
      {revision && <Rules revision={{ ...revision, kind: 'traffic' }} />}
    </div>
  );
}

function Rules({ revision }: { revision: Draft }) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const [filter, setFilter] = useState('');
  const [focus, setFocus] = useState<string | null>(null);
  const [rules, setRules] = useState<RulesHandle | null>(null);
  const numbers = useMemo(() => numbersOf(revision), [revision]);
  const byId = useMemo(
    () => new Map(allRules(revision).map((rule) => [rule.id, rule])),
    [revision],
  );
  const origins = useMemo(() => originsOf(revision), [revision]);
  const handle = useMemo(() => readOnly(revision), [revision]);
  const bench = `/rulebases/${revision.id}`;
  const probe = (line: string) => void navigate(`${bench}/rules?probe=${encodeURIComponent(line)}`);
  const log = (rule: string) =>
    void navigate(`${bench}/traffic?q=${encodeURIComponent(`rule ${numbers.get(rule)}`)}`);
  const focused = focus ? byId.get(focus) : undefined;
  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-w-0 flex-1 flex-col">
        <RulesPage
          handle={handle}
          filter={filter}
          mayEdit={false}
          answer={undefined}
          initialRule={search.get('rule')}
          onProbe={probe}
          onFocus={setFocus}
          onReady={setRules}
          onLog={log}
          onFilter={setFilter}
          past
        />
      </main>
      <aside
        aria-label="Rule"
        className="w-[300px] shrink-0 overflow-y-auto border-l border-line bg-panel"
      >
        <div className="border-b border-line p-3">
          <input
            type="search"
            aria-label="Filter the rules"
            placeholder="filter: words, objects, drop, shadowed"
            value={filter}
            onChange={(e) => setFilter(e.target.value)}
            className="w-full rounded border border-dim bg-sheet px-2 py-1"
          />
        </div>
        {focused && rules && (
          <RulePanel
            draft={revision}
            rule={focused}
            standing={revision.standings[focused.id]}
            numbers={numbers}
            byId={byId}
            mayEdit={false}
            origin={origins.get(focused.id)}
            actions={rules.actions}
            onMend={() => undefined}
            onLog={log}
          />
        )}
      </aside>
    </div>
  );
}

/** A handle of something that takes no edits. */
function readOnly(draft: Draft): DraftHandle {
  return {
    draft,
    latest: () => draft,
    error: null,
    people: [],
    unsaved: 0,
    waiting: 0,
    conflict: null,
    settleConflict: () => undefined,
    edit: () => Promise.resolve(null),
    preview: () => undefined,
    refresh: () => undefined,
    undo: () => Promise.resolve(null),
    redo: () => Promise.resolve(null),
    lastChange: null,
  };
}
