import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useUrlState } from '../shell/useUrlState';
import { api } from '../api/client';
import type { Draft, Rule } from '../api/types';
import type { Place } from '../shell/places';
import { EditionChoice } from '../library/EditionChoice';
import { LibraryTabs } from '../library/LibraryTabs';
import { OLD_SNAPSHOT } from '../ui/age';
import { Age } from '../ui/Age';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { PickList } from '../ui/PickList';
import { PersonPanel } from './PersonPanel';

const MOST = 500;

/** The people of the draft's snapshot of the directory: found by anything, one of them in full. */
export default function PeoplePage({
  draft,
  mayEdit,
  numbers,
  byId,
  onRule,
  onGo,
}: {
  draft: Draft;
  mayEdit: boolean;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
  onGo(place: Place): void;
}) {
  const pinned = draft.editions.person;
  const { values, set, step } = useUrlState('people', ['q', 'person']);
  const query = values.q;
  const { data: state } = useQuery({ queryKey: ['directory'], queryFn: api.directory });
  const ours = state?.snapshots.some((snapshot) => snapshot.name === pinned) ?? false;
  const { data, error } = useQuery({
    queryKey: ['people', pinned, query],
    queryFn: () => api.people(pinned!, query, MOST),
    enabled: ours,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const people = data?.people ?? [];
  const shown = people.find((person) => person.id === values.person) ?? people[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col p-6 pb-0">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <LibraryTabs place="people" onGo={onGo} />
        <Snapshots draft={draft} mayEdit={mayEdit} onRule={onRule} />
      </div>
      <Faults error={error} />
      {!pinned && (
        <p className="text-dim">
          This draft has no snapshot of the directory yet, so its rules cannot use people.
        </p>
      )}
      {pinned && state && !ours && (
        <p className="text-dim">
          The people of this draft ({pinned}) did not come from the directory that is read here, so
          nothing more is known of them.
        </p>
      )}
      {data && (
        <>
          {data.remarks.length > 0 && (
            <details className="mb-2 text-[12px]">
              <summary className="cursor-pointer">
                {data.remarks.length} {data.remarks.length === 1 ? 'problem' : 'problems'} in the
                directory
              </summary>
              <ul className="max-h-[120px] list-disc overflow-y-auto pl-5">
                {data.remarks.map((remark) => (
                  <li key={remark}>{remark}</li>
                ))}
              </ul>
            </details>
          )}
          <div className="mb-2 flex items-center gap-2">
            <input
              type="search"
              aria-label="Search people"
              placeholder="name, group, title"
              value={query}
              onChange={(e) => set({ q: e.target.value, person: '' })}
              className="w-[280px] rounded border border-dim px-2 py-1"
            />
            <span role="status" className="text-[12px] text-dim">
              {data.fitting} of {data.total}
              {data.fitting > people.length && `; the first ${people.length} are shown`}
            </span>
          </div>
          <div className="flex min-h-0 flex-1 gap-6">
            <PickList
              name="People"
              none="Nobody fits."
              items={people}
              chosen={shown}
              keyOf={(person) => person.id}
              onChoose={(person, passing) => (passing ? set : step)({ person: person.id })}
            >
              {(person) => (
                <>
                  <span className="min-w-0 flex-1 truncate">{person.name}</span>
                  <span className="w-[190px] shrink-0 truncate text-[12px] text-dim">
                    {person.groups
                      .filter((group) => group.through.length === 0)
                      .map((group) => group.name)
                      .join(', ')}
                  </span>
                </>
              )}
            </PickList>
            <div className="min-h-0 min-w-0 flex-1 overflow-y-auto pb-6">
              {shown && (
                <PersonPanel
                  draft={draft}
                  person={shown}
                  numbers={numbers}
                  byId={byId}
                  onRule={onRule}
                />
              )}
            </div>
          </div>
        </>
      )}
    </div>
  );
}

/** Which snapshot the draft has, how old it is, and what another would change. */
function Snapshots({
  draft,
  mayEdit,
  onRule,
}: {
  draft: Draft;
  mayEdit: boolean;
  onRule(id: string): void;
}) {
  const cache = useQueryClient();
  const { data: state } = useQuery({ queryKey: ['directory'], queryFn: api.directory });
  const pinned = draft.editions.person;
  const newest = state?.snapshots[0]?.name;
  const read = useMutation({
    mutationFn: api.readDirectory,
    onSuccess: (next) => cache.setQueryData(['directory'], next),
  });
  return (
    <EditionChoice
      draft={draft}
      of="person"
      word="the snapshot of"
      offered={newest ? [newest] : []}
      mayEdit={mayEdit}
      onRule={onRule}
      inForce={
        <span>
          The snapshot of {pinned} is in this draft
          <Age
            word="read"
            at={
              newest === pinned
                ? state?.readAt
                : state?.snapshots.find((s) => s.name === pinned)?.readAt
            }
            old={OLD_SNAPSHOT}
          />
          .
        </span>
      }
    >
      {state && !state.address && <span className="text-dim">No directory is configured.</span>}
      {state?.address && mayEdit && (
        <Button small disabled={read.isPending} onClick={() => read.mutate()}>
          {read.isPending ? 'Reading…' : 'Read the directory now'}
        </Button>
      )}
      {state?.fault && (
        <p role="alert" className="basis-full text-drop">
          The directory does not answer; what was read last stays in force
          <Age word="read" at={state.readAt} old={1} />. {state.fault}
        </p>
      )}
      <Faults error={read.error} />
    </EditionChoice>
  );
}
