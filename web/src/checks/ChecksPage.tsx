import { useState } from 'react';
import { useUrlState } from '../shell/useUrlState';
import type { CheckState, Rule, SavedCheck } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { letsThrough } from '../ui/verdicts';
import { outcomeOf } from './outcome';

/** Connections with an expected verdict, which run again after every change. */
export default function ChecksPage({
  handle,
  states,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  states: CheckState[] | undefined;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  /** Shows a connection in the probe. */
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const { values, set, step } = useUrlState('checks', ['q', 'failing']);
  const query = values.q;
  const onlyFailing = values.failing !== '';
  const [error, setError] = useState<unknown>(null);
  const byName = new Map(states?.map((state) => [state.name, state]));
  const checks = draft.checks;
  const failing = states?.filter((state) => !state.holds).length ?? 0;
  const shown = checks.filter(
    (check) =>
      `${check.name}\n${check.connection}\n${check.verdict}`
        .toLowerCase()
        .includes(query.trim().toLowerCase()) &&
      (!onlyFailing || byName.get(check.name)?.holds === false),
  );
  const change = async (check: SavedCheck) => {
    setError(await handle.edit({ kind: 'putCheck', check, replaces: check.name }));
  };
  const remove = async (name: string) => {
    setError(await handle.edit({ kind: 'deleteCheck', name }));
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-6">
      <div className="mb-4 flex items-baseline gap-4">
        <h1 className="text-[17px] font-semibold">Checks</h1>
        <input
          type="search"
          aria-label="Search checks"
          placeholder="name, connection, verdict"
          value={query}
          onChange={(e) => set({ q: e.target.value })}
          className="w-[280px] rounded border border-line px-2 py-1"
        />
        <label className="flex items-baseline gap-1 text-[12px]">
          <input
            type="checkbox"
            checked={onlyFailing}
            onChange={(e) => step({ failing: e.target.checked ? 'only' : '' })}
          />
          failing only
        </label>
        <span role="status" className={failing ? 'text-drop' : 'text-dim'}>
          {states === undefined
            ? 'Running…'
            : `${states.length - failing} of ${states.length} pass`}
        </span>
      </div>
      <Faults error={error} />
      {checks.length === 0 && (
        <p className="text-dim">
          There are none yet. Try a connection in the probe beside the rules, then press “Save as
          check”: it will be tried again after every change.
        </p>
      )}
      {checks.length > 0 && shown.length === 0 && <p className="text-dim">No check fits.</p>}
      <ul className="divide-y divide-line border-y border-line empty:hidden">
        {shown.map((check) => {
          const state = byName.get(check.name);
          const outcome = outcomeOf(check, state, numbers);
          const decides = state?.rule && byId.get(state.rule);
          return (
            <li key={check.name} className="flex items-baseline gap-3 py-1">
              <span
                className={`w-[52px] shrink-0 font-semibold ${outcome.fails ? 'text-drop' : 'text-dim'}`}
              >
                {outcome.word}
              </span>
              <span className="min-w-0 flex-1">
                <b className="block truncate" title={check.name}>
                  {check.name}
                </b>
                <button
                  type="button"
                  title="Show it in the probe"
                  onClick={() => onProbe(check.connection)}
                  className="block cursor-pointer text-left font-mono text-[12px] break-words hover:underline"
                >
                  {check.connection}
                </button>
              </span>
              <label className="flex w-[86px] shrink-0 items-baseline gap-1 text-[12px]">
                {letsThrough(check.verdict) && (
                  <>
                    <input
                      type="checkbox"
                      aria-label={`${check.name} is protected`}
                      title="A protected connection must be let through also while the directory is away"
                      checked={check.protected ?? false}
                      disabled={!mayEdit}
                      onChange={(e) =>
                        void change({ ...check, protected: e.target.checked || undefined })
                      }
                    />
                    protected
                  </>
                )}
              </label>
              <span className="w-[330px] shrink-0 text-[12px]">
                {outcome.text}
                {decides && (
                  <>
                    {' '}
                    <button
                      type="button"
                      onClick={() => onRule(decides.id)}
                      className="min-h-[24px] cursor-pointer text-left text-accent underline underline-offset-2"
                    >
                      {decides.name}
                    </button>
                  </>
                )}
              </span>
              {mayEdit && (
                <Button
                  small
                  aria-label={`Delete ${check.name}`}
                  onClick={() => void remove(check.name)}
                >
                  Delete
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
