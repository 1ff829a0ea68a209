import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api, type Problem } from '../api/client';
import { OBJECT_LISTS, type Edit, type NamedObject, type ObjectKind } from '../api/types';
import type { Place } from '../shell/places';
import { useUrlState } from '../shell/useUrlState';
import { allRules } from '../draft/applyEdit';
import { Origin } from '../common/Origin';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Clock } from './Clock';
import { ObjectDialog } from './ObjectDialog';
import { HandlingLists } from './HandlingLists';
import { LibraryTabs } from './LibraryTabs';
import { Users } from './Users';
import { RemovalDialog } from './RemovalDialog';
import { twinsOf } from './twinsOf';
import { holdingKey, useHolding } from './useHolding';
import { usersOf } from './usersOf';

const LISTS: {
  kind: ObjectKind;
  title: string;
  none: string;
  /** Where what it names may come with an edition instead. */
  coordinate?: string;
}[] = [
  { kind: 'zone', title: 'Zones', none: 'any address' },
  { kind: 'address', title: 'Addresses', none: '' },
  { kind: 'service', title: 'Services', none: '' },
  { kind: 'host list', title: 'Host lists', none: '', coordinate: 'site' },
  { kind: 'schedule', title: 'Schedules', none: '', coordinate: 'time' },
  { kind: 'device state', title: 'Device states', none: '', coordinate: 'device' },
];

/** Zones, addresses, services, hosts, times, devices, rate plans and notices by name, with the rules that use them. */
export default function LibraryPage({
  handle,
  mayEdit,
  onRule,
  onGo,
}: {
  handle: DraftHandle;
  mayEdit: boolean;
  onRule(id: string): void;
  onGo(place: Place): void;
}) {
  const draft = handle.draft!;
  const { values, set } = useUrlState('library', ['q']);
  const query = values.q;
  const [open, setOpen] = useState<{ kind: ObjectKind; object: NamedObject | null } | null>(null);
  const [leaving, setLeaving] = useState<{ kind: ObjectKind; name: string } | null>(null);
  const [refused, setRefused] = useState<{ name: string; problem: Problem } | null>(null);
  const users = useMemo(() => usersOf(draft, allRules(draft)), [draft]);
  const fits = (o: NamedObject) =>
    [o.name, o.note ?? '', ...(o.members ?? [])]
      .join('\n')
      .toLowerCase()
      .includes(query.trim().toLowerCase());
  const { data: alike } = useQuery({
    queryKey: ['alike', draft.id, draft.version],
    queryFn: ({ signal }) => api.alikeObjects(draft.id, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const holding = useHolding(draft, query);
  const twins = useMemo(() => twinsOf(alike ?? []), [alike]);
  const remove = async (kind: ObjectKind, name: string) => {
    if (users.has(`${kind}:${name.toLowerCase()}`)) {
      setLeaving({ kind, name });
      return;
    }
    const edit: Edit = { kind: 'deleteObject', objectKind: kind, name };
    const problem = await handle.edit(edit);
    setRefused(problem && { name, problem });
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-6">
      <div className="mb-4 flex items-center gap-4">
        <LibraryTabs place="library" onGo={onGo} />
        <input
          type="search"
          aria-label="Search the library"
          placeholder="name, note, 10.4.3.7, tcp/443"
          value={query}
          onChange={(e) => set({ q: e.target.value })}
          className="w-[280px] rounded border border-dim px-2 py-1"
        />
      </div>
      {LISTS.filter((l) => !l.coordinate || !draft.editions[l.coordinate]).map((list) => {
        const { kind, title, none } = list;
        const objects = draft[OBJECT_LISTS[kind]].filter(
          (object) => fits(object) || holding.has(holdingKey(kind, object.name)),
        );
        return (
          <section key={kind} className="mb-6" aria-label={title}>
            <div className="mb-1 flex items-baseline gap-3">
              <h2 className="font-semibold">{title}</h2>
              <span className="text-[12px] text-dim">{objects.length}</span>
              {kind === 'schedule' && <Clock handle={handle} mayEdit={mayEdit} />}
              {mayEdit && (
                <Button small className="ml-auto" onClick={() => setOpen({ kind, object: null })}>
                  New {kind}
                </Button>
              )}
            </div>
            {objects.length === 0 && (
              <p className="border-y border-line py-2 text-dim">
                {query ? 'Nothing fits the search.' : `There are no ${title.toLowerCase()} yet.`}
              </p>
            )}
            <ul className="divide-y divide-line border-y border-line empty:hidden">
              {objects.map((object) => (
                <li key={object.name} className="group flex items-baseline gap-3 py-1">
                  <span className="w-[190px] shrink-0 truncate font-semibold" title={object.name}>
                    {object.name}
                  </span>
                  <span
                    className="min-w-0 flex-1 truncate font-mono text-[12px]"
                    title={object.members?.join(', ')}
                  >
                    {object.members?.join(', ') || none}
                  </span>
                  <Twins names={twins.get(`${kind}:${object.name.toLowerCase()}`)} />
                  <span
                    className="w-[220px] shrink-0 truncate text-[12px] text-dim"
                    title={object.note}
                  >
                    {object.note}
                  </span>
                  {kind === 'schedule' && (
                    <a
                      href={api.calendarUrl(draft.id, object.name)}
                      download={`${object.name}.ics`}
                      className="shrink-0 text-[12px] text-accent underline underline-offset-2"
                    >
                      iCalendar
                    </a>
                  )}
                  <Users
                    rules={users.get(`${kind}:${object.name.toLowerCase()}`) ?? []}
                    onRule={onRule}
                  />
                  {mayEdit && draft.common?.objects[kind]?.includes(object.name) && (
                    <span className="flex w-[110px] shrink-0 justify-end">
                      <Origin name={draft.common.rulebase} />
                    </span>
                  )}
                  {mayEdit && !draft.common?.objects[kind]?.includes(object.name) && (
                    <span className="flex w-[110px] shrink-0 justify-end gap-1">
                      <Button small onClick={() => setOpen({ kind, object })}>
                        Edit
                      </Button>
                      <Button
                        small
                        aria-label={`Delete ${object.name}`}
                        onClick={() => void remove(kind, object.name)}
                      >
                        Delete
                      </Button>
                    </span>
                  )}
                  {refused?.name === object.name && (
                    <span role="alert" className="text-[12px] text-drop">
                      {refused.problem.message}
                    </span>
                  )}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <HandlingLists
        handle={handle}
        fits={(...texts) => texts.join('\n').toLowerCase().includes(query.trim().toLowerCase())}
        users={users}
        mayEdit={mayEdit}
        onRule={onRule}
      />
      {leaving && <RemovalDialog {...leaving} draft={draft} onClose={() => setLeaving(null)} />}
      {open && <ObjectDialog {...open} handle={handle} onClose={() => setOpen(null)} />}
    </div>
  );
}

function Twins({ names }: { names: string[] | undefined }) {
  return names ? (
    <span
      className="max-w-[180px] shrink-0 truncate text-[12px] text-caution"
      title={names.join(', ')}
    >
      same as {names.join(', ')}
    </span>
  ) : null;
}
