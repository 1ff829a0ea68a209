import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, PersonEntry, Rule } from '../api/types';
import { DecidingRules } from '../rules/DecidingRules';
import { Age } from '../ui/Age';
import { saidOf } from './people';

/** Everything about one person: groups, attributes, and what every rule that can decide lets reach. */
export function PersonPanel({
  draft,
  person,
  numbers,
  byId,
  onRule,
}: {
  draft: Draft;
  person: PersonEntry;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
}) {
  const { data, error } = useQuery({
    queryKey: ['person', draft.id, draft.version, person.name],
    queryFn: ({ signal }) => api.rulesOfPerson(draft.id, person.name, signal),
    staleTime: Infinity,
  });
  const { data: places } = useQuery({
    queryKey: ['sign-ins', person.id],
    queryFn: () => api.signInsOf(person.id),
    refetchInterval: 15_000,
  });
  return (
    <article aria-label={person.name} className="min-w-0">
      <h2 className="text-[15px] font-semibold">
        {person.name}{' '}
        <span className="font-mono text-[12px] font-normal text-dim">{person.id}</span>
      </h2>
      <dl className="mt-2 grid grid-cols-[110px_1fr] gap-x-3 gap-y-1">
        {Object.entries(person.attributes).map(([attribute, values]) => (
          <div key={attribute} className="contents">
            <dt className="truncate text-dim" title={attribute}>
              {attribute}
            </dt>
            <dd className="min-w-0">{values.join(', ')}</dd>
          </div>
        ))}
        <dt className="text-dim">Signed in</dt>
        <dd className="min-w-0">
          {places?.length === 0 && 'nowhere'}
          <ul className="empty:hidden">
            {places?.map((place) => (
              <li key={place.address}>
                at <span className="font-mono text-[12px]">{place.address}</span>
                {place.device && <span className="text-dim"> on a device: {place.device}</span>}
                <Age word="came" at={place.since} old={Infinity} />
              </li>
            ))}
          </ul>
        </dd>
        <dt className="text-dim">Groups</dt>
        <dd className="min-w-0">
          {person.groups.length === 0 && 'none'}
          <ul className="empty:hidden">
            {person.groups.map((group) => (
              <li key={group.name}>
                {group.name}{' '}
                {group.through.length > 0 && (
                  <span className="text-[12px] text-dim">through {group.through.join(', ')}</span>
                )}
              </li>
            ))}
          </ul>
        </dd>
      </dl>
      <h3 className="mt-4 mb-1 font-semibold">Rules that can ever decide for them</h3>
      <DecidingRules
        found={data}
        error={error}
        byId={byId}
        numbers={numbers}
        said={(rule) => saidOf(person, rule)}
        onRule={onRule}
      />
    </article>
  );
}
