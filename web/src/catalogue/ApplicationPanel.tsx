import type { ReactNode } from 'react';
import type { Application, Rule } from '../api/types';
import { familyOf, rulesAbout } from './catalogue';
import { wordsOf } from '../signatures/conditions';
import { FamilyPicture } from './FamilyPicture';

/** Everything that the catalogue says of one application, and which rules speak of it. */
export function ApplicationPanel({
  application,
  all,
  rules,
  numbers,
  onChoose,
  onRule,
}: {
  application: Application;
  all: Application[];
  rules: Rule[];
  numbers: Map<string, number>;
  onChoose(name: string): void;
  onRule(id: string): void;
}) {
  const about = rulesAbout(application, rules);
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
            {(application.hosts ?? []).join(' ') || 'none of its own'}
          </span>
        </Line>
        <Line word="Features">
          {application.features?.length ? (
            <ul>
              {application.features.map((feature) => (
                <li key={feature.name}>
                  {feature.name}{' '}
                  <span className="text-[12px] text-dim">
                    {feature.seenSealed ? 'seen sealed too' : 'seen only when opened'}
                  </span>
                </li>
              ))}
            </ul>
          ) : (
            'not told apart'
          )}
        </Line>
        <Line word="Told by">
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
      <h3 className="mt-4 mb-1 font-semibold">Family</h3>
      <FamilyPicture
        name={application.name}
        family={familyOf(application, all)}
        onChoose={onChoose}
      />
      <h3 className="mt-4 mb-1 font-semibold">Rules that speak of it</h3>
      {about.length === 0 ? (
        <p className="text-[12px] text-dim">
          None. Rules that ask for no application hold for it like for any other.
        </p>
      ) : (
        <ul className="divide-y divide-line border-y border-line">
          {about.map(({ rule, said }) => (
            <li key={rule.id} className="flex items-baseline gap-3 py-1">
              <button
                type="button"
                onClick={() => onRule(rule.id)}
                className="min-h-[24px] min-w-0 cursor-pointer truncate text-left text-accent underline underline-offset-2"
              >
                {numbers.get(rule.id)} {rule.name}
              </button>
              <span className="ml-auto shrink-0 text-[12px] text-dim">
                {rule.verdict} · {said.join(', ')}
                {rule.enabled === false ? ' · disabled' : ''}
              </span>
            </li>
          ))}
        </ul>
      )}
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

/** Five small marks, as many of them full as the grade says. */
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
