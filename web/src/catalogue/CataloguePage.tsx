import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useUrlState } from '../shell/useUrlState';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import type { Place } from '../shell/places';
import { allRules } from '../draft/applyEdit';
import { EditionChoice } from '../library/EditionChoice';
import { LibraryTabs } from '../library/LibraryTabs';
import { OLD_CATALOGUE } from '../ui/age';
import { Age } from '../ui/Age';
import { Faults } from '../ui/Faults';
import { FileButton } from '../ui/FileButton';
import { PickList } from '../ui/PickList';
import { ApplicationPanel, Grade } from './ApplicationPanel';
import { applicationsOf, search } from './catalogue';

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
  const byId = useMemo(() => new Map(allRules(draft).map((rule) => [rule.id, rule])), [draft]);
  const { values, set, step } = useUrlState('applications', [
    'q',
    'category',
    'risk',
    'application',
  ]);
  const { q: query, category, application: chosen } = values;
  const risk = Number(values.risk || 1);
  const found = useMemo(() => search(all, query, category, risk), [all, query, category, risk]);
  const shown = all.find((a) => a.name === chosen) ?? found[0];
  const categories = useMemo(() => [...new Set(all.map((a) => a.category))].sort(), [all]);

  const choose = (application: string) => step({ application });

  if (!pinned) {
    return (
      <div className="p-6">
        <LibraryTabs place="applications" onGo={onGo} />
        <p className="mt-4 text-dim">
          This rulebase has no catalogue yet, so its rules cannot use applications.
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
            set({ q: e.target.value, application: '' });
          }}
          className="w-[280px] rounded border border-dim px-2 py-1"
        />
        <select
          aria-label="Category"
          value={category}
          onChange={(e) => {
            set({ category: e.target.value, application: '' });
          }}
          className="rounded border border-dim bg-sheet px-2 py-1"
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
            set({ risk: e.target.value === '1' ? '' : e.target.value, application: '' });
          }}
          className="rounded border border-dim bg-sheet px-2 py-1"
        >
          {[1, 2, 3, 4, 5].map((least) => (
            <option key={least} value={least}>
              {least === 1 ? 'Minimum risk: any' : `Minimum risk: ${least}`}
            </option>
          ))}
        </select>
        <span role="status" className="text-[12px] text-dim">
          {found.length} of {all.length}
        </span>
      </div>
      <div className="flex min-h-0 flex-1 gap-6">
        <PickList
          name="Applications"
          none="No application fits."
          items={found}
          chosen={shown}
          keyOf={(application) => application.name}
          onChoose={(application, passing) =>
            (passing ? set : step)({ application: application.name })
          }
        >
          {(application) => (
            <>
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
            </>
          )}
        </PickList>
        <div className="min-h-0 min-w-0 flex-1 overflow-y-auto pb-6">
          {shown && (
            <ApplicationPanel
              draft={draft}
              application={shown}
              all={all}
              byId={byId}
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
  const pinned = draft.editions.application;
  const bring = useMutation({
    mutationFn: (file: File) => api.importEdition(file),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['editions'] }),
  });
  return (
    <EditionChoice
      draft={draft}
      of="application"
      word="edition"
      offered={editions.map((edition) => edition.name)}
      mayEdit={mayEdit}
      onRule={onRule}
      inForce={
        <span>
          Edition {pinned} is in this draft
          <Age
            word="imported"
            at={editions.find((edition) => edition.name === pinned)?.importedAt}
            old={OLD_CATALOGUE}
          />
          .
        </span>
      }
    >
      {mayEdit && (
        <FileButton accept=".json,application/json" onFile={(file) => bring.mutate(file)}>
          Import an edition…
        </FileButton>
      )}
      <Faults error={bring.error} />
    </EditionChoice>
  );
}
