import type { ReactNode } from 'react';
import type { EditionEffect } from '../api/types';

export const many = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** A list of what would change, under a heading that counts it. */
export function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mb-3">
      <h3 className="font-semibold">{title}</h3>
      <ul
        tabIndex={0}
        aria-label={title}
        className="max-h-[150px] divide-y divide-line overflow-auto border-y border-line empty:hidden"
      >
        {children}
      </ul>
    </section>
  );
}

/**
 * Which connections would get another verdict, each kind with an example.
 *
 * @param open why there may be more, if there may
 */
export function Verdicts({
  verdicts,
  open,
}: {
  verdicts: EditionEffect['verdicts'];
  open: string | null;
}) {
  return (
    <Block
      title={`${many(verdicts.length, 'kind')} of connections ${verdicts.length === 1 ? 'gets' : 'get'} another verdict`}
    >
      {verdicts.map((verdict) => (
        <li key={verdict.witness} className="py-1">
          <b>
            {verdict.before} becomes {verdict.after}
          </b>{' '}
          <span className="text-dim">{verdict.what.join(' · ')}</span>
          <span className="block font-mono text-[12px]">{verdict.witness}</span>
        </li>
      ))}
      {open && <li className="py-1 text-drop">{open}</li>}
    </Block>
  );
}

/**
 * The checks with another result.
 *
 * @param of the number of all checks; left out where only the changed ones count
 */
export function Flips({ flips, of }: { flips: EditionEffect['checks']; of?: number }) {
  if (of === 0 || (of === undefined && flips.length === 0)) return null;
  const counted =
    of === undefined ? many(flips.length, 'check') : `${flips.length} of ${many(of, 'check')}`;
  return (
    <Block
      title={`${counted} ${flips.length === 1 ? 'changes its result' : 'change their results'}`}
    >
      {flips.map((check) => (
        <li key={check.name} className="py-1">
          <b className={check.holds ? '' : 'text-drop'}>
            {check.name} {check.holds ? 'would pass' : 'would fail'}
          </b>{' '}
          <span className="text-dim">
            {check.before ?? 'cannot be tried'} becomes {check.after ?? 'cannot be tried'}
          </span>
          <span className="block font-mono text-[12px]">{check.connection}</span>
        </li>
      ))}
    </Block>
  );
}

export const MAY_BE_MORE = 'Analysis limit reached; the list may be incomplete.';
