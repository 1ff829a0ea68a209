import { useMemo } from 'react';
import type { CheckState, Draft } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { FINDING_KINDS, FINDING_WORDS, listed, type FindingKind } from '../draft/findings';
import { useOldSources } from './useOldSources';
import type { Place } from '../shell/places';
import type { DraftHandle } from '../draft/useDraft';
import { QuestionProgress } from '../ui/QuestionProgress';

/** The state line: findings, checks, saving, the time of the analysis, and who else is here. */
export function StateLine({
  draft,
  handle,
  me,
  message,
  checks,
  onFinding,
  onChecks,
  onGo,
  onKeys,
}: {
  draft: Draft;
  handle: DraftHandle;
  me: string;
  message: string | null;
  /** What becomes of the checks; undefined as long as that is not known. */
  checks: CheckState[] | undefined;
  onFinding(kind: FindingKind): void;
  onChecks(): void;
  onGo(place: Place): void;
  onKeys(): void;
}) {
  const counts = useMemo(() => {
    const out = new Map<string, number>();
    for (const standing of Object.values(draft.standings)) {
      for (const { kind } of standing.findings) out.set(kind, (out.get(kind) ?? 0) + 1);
    }
    return out;
  }, [draft.standings]);
  const rules = allRules(draft).length;
  const failing = checks?.filter((check) => !check.holds).length;
  const old = useOldSources(draft);
  const others = handle.people.filter((name) => name !== me);
  const found = FINDING_KINDS.filter((kind) => counts.get(kind));
  return (
    <footer className="flex h-[26px] shrink-0 items-center gap-3 border-t border-line bg-rail px-3 text-[12px] whitespace-nowrap">
      {found.length === 0 && <span>no findings</span>}
      <span className="flex h-full min-w-0 flex-wrap gap-x-3 overflow-hidden leading-[25px] empty:hidden">
        {found.map((kind) => (
          <button
            key={kind}
            type="button"
            data-count={kind}
            title="Go to the next one"
            onClick={() => onFinding(kind)}
            className="cursor-pointer hover:underline"
          >
            <b>{counts.get(kind)}</b> {FINDING_WORDS[kind]}
          </button>
        ))}
      </span>
      {checks && checks.length > 0 && (
        <button
          type="button"
          data-checks
          onClick={onChecks}
          className="shrink-0 cursor-pointer hover:underline"
        >
          {failing === 0 ? (
            <>
              <b>{checks.length}</b> {checks.length === 1 ? 'check passes' : 'checks pass'}
            </>
          ) : (
            <span className="text-drop">
              <b>{failing}</b> of {checks.length} checks {failing === 1 ? 'fails' : 'fail'}
            </span>
          )}
        </button>
      )}
      {old.length > 0 && (
        <button
          type="button"
          title={`Out of date: ${old.map((one) => one.source).join('; ')}`}
          onClick={() => onGo(old[0]!.place)}
          className="shrink-0 cursor-pointer text-caution hover:underline"
        >
          <b>{old.length}</b> {old.length === 1 ? 'source is' : 'sources are'} out of date
        </button>
      )}
      <span className="text-dim">
        {rules} {rules === 1 ? 'rule' : 'rules'}, analysed in{' '}
        {draft.analysisMillis < 1 ? '<1' : Math.round(draft.analysisMillis)} ms
      </span>
      {handle.waiting > 0 ? (
        <span role="alert" className="font-semibold text-drop">
          The server does not answer: {handle.unsaved}{' '}
          {handle.unsaved === 1 ? 'change waits' : 'changes wait'} and will be sent.
        </span>
      ) : (
        <span className="text-dim">{handle.unsaved > 0 ? 'saving…' : 'all saved'}</span>
      )}
      <QuestionProgress />
      {message && (
        <span role="alert" className="truncate text-caution">
          {message}
        </span>
      )}
      <span className="ml-auto truncate text-dim" data-presence>
        {others.length > 0 && `${listed(others)} ${others.length > 1 ? 'are' : 'is'} here too`}
      </span>
      <button type="button" onClick={onKeys} className="shrink-0 cursor-pointer hover:underline">
        ? keys
      </button>
    </footer>
  );
}
