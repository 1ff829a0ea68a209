import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { api } from '../api/client';
import type { Application, Draft, Rule } from '../api/types';
import { DecidingRules } from '../rules/DecidingRules';
import { familyOf, saidOf, whomOf } from './catalogue';
import { wordsOf } from './conditions';
import { FamilyPicture } from './FamilyPicture';

/** The catalogue entry of one application, and the rules that decide on it. */
export function ApplicationPanel({
  draft,
  application,
  all,
  byId,
  numbers,
  onChoose,
  onRule,
}: {
  draft: Draft;
  application: Application;
  all: Application[];
  byId: Map<string, Rule>;
  numbers: Map<string, number>;
  onChoose(name: string): void;
  onRule(id: string): void;
}) {
  const { data, error } = useQuery({
    queryKey: ['application', draft.id, draft.version, application.name],
    queryFn: ({ signal }) => api.rulesOfApplication(draft.id, application.name, signal),
    staleTime: Infinity,
  });
  return (
    <article aria-label={application.name} className="min-w-0">
      <h2 className="text-[15px] font-semibold">{application.name}</h2>
      <p className="mt-1 mb-3">{application.summary}</p>
      <dl className="grid grid-cols-[110px_1fr] gap-x-3 gap-y-1">
        <Line word="Category">{application.category}</Line>
        <Line word="Tags">{(application.tags ?? []).join(', ') || 'none'}</Line>
        <Line word="Risk">
          <Grade of={application.risk} /> {application.risk} of 5
        </Line>
        <Line word="Usefulness">
          <Grade of={application.usefulness} /> {application.usefulness} of 5
        </Line>
        <Line word="Usual ports">
          <span className="font-mono text-[12px]">{(application.ports ?? []).join(' ')}</span>
        </Line>
        <Line word="Hosts">
          <span className="font-mono text-[12px]">
            {(application.hosts ?? []).join(' ') || 'none'}
          </span>
        </Line>
        <Line word="Features">
          {application.features?.length ? (
            <ul>
              {application.features.map((feature) => (
                <li key={feature.name}>
                  {feature.name}{' '}
                  <span className="text-[12px] text-dim">
                    {feature.seenSealed ? 'shows when sealed too' : 'shows only when opened'}
                  </span>
                </li>
              ))}
            </ul>
          ) : (
            'no features'
          )}
        </Line>
        <Line word="Recognised by">
          {application.hosts?.length ? <p>TLS or HTTP for one of its hosts</p> : null}
          <ul>
            {(application.signatures ?? []).map((signature) => (
              <li key={JSON.stringify(signature)}>
                {signature.feature && <b className="font-semibold">{signature.feature}: </b>}
                <span className="text-[12px]">{wordsOf(signature)}</span>
              </li>
            ))}
          </ul>
          {!application.hosts?.length && !application.signatures?.length && 'nothing yet'}
        </Line>
      </dl>
      <h3 className="mt-4 mb-1 font-semibold">Dependencies</h3>
      <FamilyPicture
        name={application.name}
        family={familyOf(application, all)}
        onChoose={onChoose}
      />
      <h3 className="mt-4 mb-1 font-semibold">
        {application.ports?.length
          ? 'Rules that can decide it on its usual ports'
          : 'Rules that can decide it'}
      </h3>
      <DecidingRules
        found={data}
        error={error}
        byId={byId}
        numbers={numbers}
        said={(rule) => [...saidOf(application, rule), ...whomOf(rule)]}
        onRule={onRule}
      />
    </article>
  );
}

function Line({ word, children }: { word: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-dim">{word}</dt>
      <dd className="min-w-0">{children}</dd>
    </>
  );
}

/** A grade from 1 to 5 as small marks. */
export function Grade({ of }: { of: number }) {
  return (
    <span aria-hidden className="inline-flex gap-[2px] align-middle">
      {[1, 2, 3, 4, 5].map((step) => (
        <span
          key={step}
          className={`h-[9px] w-[5px] border border-dim ${step <= of ? 'bg-dim' : ''}`}
        />
      ))}
    </span>
  );
}
