import { useMutation } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { AcceptedFinding, Edit, Rule } from '../api/types';
import { FINDING_KINDS, FINDING_WORDS, type FindingKind } from '../draft/findings';
import type { DraftHandle } from '../draft/useDraft';
import AddChecks, { type NewChecks } from '../checks/AddChecks';
import { DraftContext } from '../rules/DraftContext';
import { MembersContext, useMembersOf } from '../rules/members';
import { useUrlState } from '../shell/useUrlState';
import { Faults } from '../ui/Faults';
import { usePrinting } from '../ui/usePrinting';
import { AcceptDialog } from './AcceptDialog';
import { AcceptedList } from './AcceptedList';
import { CauseBlock } from './CauseBlock';
import { causesOf, countKinds, type Cause } from './causes';
import { checksOf, ordered, ORDERS, rowsOf, toggled, type Order } from './causeRows';
import { RepairsDialog } from './RepairsDialog';
import { useMarkedRepairs } from './useMarkedRepairs';
import { Button } from '../ui/Button';
import type { Way } from './useRepairs';

/** Kinds that are usual in good rules, so they are listed on demand only. */
const NOTES: FindingKind[] = ['correlated', 'generalised', 'undecided'];

/** What is wrong with the rules, grouped by what causes it, with the ways out. */
export default function FindingsPage({
  handle,
  accepted,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  accepted: AcceptedFinding[];
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const members = useMembersOf(draft);
  const { values, set } = useUrlState('findings', ['kinds', 'by', 'at', 'accepted']);
  const [chosen, setChosen] = useState<number | null>(null);
  const [accepting, setAccepting] = useState<Cause | null>(null);
  const [together, setTogether] = useState(false);
  const [checking, setChecking] = useState<NewChecks | null>(null);
  const showAccepted = values.accepted !== '' && accepted.length > 0;
  const counts = useMemo(() => countKinds(draft), [draft]);
  const kinds = useMemo(() => {
    const wanted = values.kinds.split(',').filter(Boolean) as FindingKind[];
    return new Set(wanted.length ? wanted : FINDING_KINDS.filter((kind) => !NOTES.includes(kind)));
  }, [values.kinds]);
  const by: Order = ORDERS.find((order) => order === values.by) ?? 'cause';
  const causes = useMemo(
    () => ordered(causesOf(draft, numbers, byId, kinds), by),
    [draft, numbers, byId, kinds, by],
  );
  const rows = useMemo(() => rowsOf(causes, by), [causes, by]);
  const at = Math.max(
    0,
    causes.findIndex((cause) => cause.key === values.at),
  );
  const focused = causes[at];
  const found = causes.reduce((all, cause) => all + cause.found.length, 0);

  /** The repairs that are shown, by the key of their cause. */
  const ways = useRef(new Map<string, Way[]>());
  const scroller = useRef<HTMLDivElement>(null);
  const printing = usePrinting();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('heading' in rows[i]! ? 34 : 180),
    getItemKey: (i) => {
      const row = rows[i]!;
      return 'heading' in row ? `heading ${row.heading}` : row.cause.key;
    },
    overscan: printing ? rows.length : 2,
  });
  useEffect(() => scroller.current?.focus({ preventScroll: true }), []);

  const apply = useMutation({
    mutationFn: async (edit: Edit) => {
      const problem = await handle.edit(edit, draft.version);
      if (problem) throw problem;
    },
    onSettled: () => setChosen(null),
  });
  const focus = (to: number) => {
    const next = causes[Math.max(0, Math.min(causes.length - 1, to))];
    if (!next) return;
    setChosen(null);
    set({ at: next.key });
    virtual.scrollToIndex(
      rows.findIndex((row) => 'cause' in row && row.cause === next),
      { align: 'auto' },
    );
  };
  const choose = (way: number | null) => {
    setChosen(way);
    requestAnimationFrame(() =>
      virtual.scrollToIndex(
        rows.findIndex((row) => 'cause' in row && row.cause === focused),
        { align: 'auto' },
      ),
    );
  };
  const { marked, mark, said, unmark } = useMarkedRepairs(
    causes,
    (cause) => ways.current.get(cause.key)?.[chosen ?? 0],
  );
  const keys: Record<string, (cause: Cause) => void> = {
    ArrowDown: () => focus(at + 1),
    j: () => focus(at + 1),
    ArrowUp: () => focus(at - 1),
    k: () => focus(at - 1),
    Home: () => focus(0),
    End: () => focus(causes.length - 1),
    Enter(cause) {
      const way = chosen === null ? undefined : ways.current.get(cause.key)?.[chosen];
      if (chosen === null) onRule(cause.found[0]!.rule.id);
      else if (way && !apply.isPending) apply.mutate(way.edit);
    },
    Escape: () => setChosen(null),
    ' ': (cause) => mayEdit && mark(cause),
    A: () => mayEdit && marked.size > 0 && setTogether(true),
    a: (cause) => mayEdit && setAccepting(cause),
    c: (cause) => mayEdit && setChecking(checksOf(cause)),
    w(cause) {
      const { witness } = cause.found[0]!.finding;
      if (witness) onProbe(witness);
    },
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    if (!focused || e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === 'Enter' && (e.target as Element).closest('button')) return;
    const digit = /^[1-9]$/.test(e.key) ? Number(e.key) - 1 : null;
    if (digit !== null) {
      if (ways.current.get(focused.key)?.[digit]) choose(digit);
      return;
    }
    const run = keys[e.key];
    if (!run) return;
    e.preventDefault();
    e.stopPropagation();
    run(focused);
  };

  return (
    <DraftContext.Provider value={draft}>
      <MembersContext.Provider value={members}>
        <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
          <h1 className="text-[17px] font-semibold">Findings</h1>
          <span className="text-dim">
            {found} {found === 1 ? 'finding has' : 'findings have'} {causes.length}{' '}
            {causes.length === 1 ? 'cause' : 'causes'}
          </span>
          <label className="flex items-center gap-1 text-[12px] text-dim">
            by
            <select
              value={by}
              onChange={(e) => set({ by: e.target.value, at: '' })}
              className="rounded border border-dim bg-sheet px-1 text-ink"
            >
              {ORDERS.map((order) => (
                <option key={order}>{order}</option>
              ))}
            </select>
          </label>
          <div role="group" aria-label="Kinds" className="ml-auto flex flex-wrap gap-1">
            {counts.map(([kind, count]) => (
              <button
                key={kind}
                type="button"
                aria-pressed={kinds.has(kind)}
                onClick={() => set({ kinds: toggled(kinds, kind).join(','), at: '' })}
                className={`cursor-pointer rounded px-2 text-[12px] leading-[20px] ${
                  kinds.has(kind) ? 'bg-chip font-semibold' : 'text-dim hover:bg-band'
                }`}
              >
                {FINDING_WORDS[kind]} {count}
              </button>
            ))}
            {accepted.length > 0 && (
              <button
                type="button"
                aria-pressed={showAccepted}
                onClick={() => set({ accepted: showAccepted ? '' : 'shown' })}
                className={`cursor-pointer rounded px-2 text-[12px] leading-[20px] ${
                  showAccepted ? 'bg-chip font-semibold' : 'text-dim hover:bg-band'
                }`}
              >
                accepted {accepted.length}
              </button>
            )}
          </div>
        </div>
        <Faults error={apply.error} />
        {showAccepted && (
          <AcceptedList
            accepted={accepted}
            draft={draft}
            numbers={numbers}
            byId={byId}
            mayEdit={mayEdit}
            onRule={onRule}
          />
        )}
        {!showAccepted && causes.length === 0 && (
          <p className="p-6 text-dim">
            {counts.length === 0
              ? 'Nothing is found: every rule decides something, and no rule takes from another what it should not.'
              : 'Nothing of the chosen kinds is found.'}
          </p>
        )}
        <div
          ref={scroller}
          tabIndex={0}
          role="group"
          aria-label="Causes"
          data-print
          onKeyDown={onKeyDown}
          hidden={showAccepted}
          className="group relative min-h-0 flex-1 overflow-y-auto bg-paper focus-visible:outline-none"
        >
          <div data-print style={{ height: virtual.getTotalSize() }} className="relative">
            {virtual.getVirtualItems().map((item) => {
              const row = rows[item.index]!;
              return (
                <div
                  key={item.key}
                  ref={virtual.measureElement}
                  data-index={item.index}
                  className="absolute inset-x-0 top-0"
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  {'heading' in row ? (
                    <h2 className="border-b border-line bg-band px-4 py-1 text-[12px] font-semibold">
                      {row.heading}
                    </h2>
                  ) : (
                    <CauseBlock
                      cause={row.cause}
                      draft={draft}
                      numbers={numbers}
                      byId={byId}
                      focused={row.cause === focused}
                      chosen={row.cause === focused ? chosen : null}
                      mayEdit={mayEdit}
                      marked={marked.get(row.cause.key)?.summary}
                      onFocus={() => {
                        if (row.cause !== focused) {
                          setChosen(null);
                          set({ at: row.cause.key });
                        }
                      }}
                      onRule={onRule}
                      onProbe={onProbe}
                      onWays={(known) => ways.current.set(row.cause.key, known)}
                      onChoose={choose}
                      onApply={(edit) => apply.mutate(edit)}
                      onAccept={() => setAccepting(row.cause)}
                    />
                  )}
                </div>
              );
            })}
          </div>
        </div>
        {(marked.size > 0 || said !== '') && (
          <p className="flex items-center gap-3 border-t border-line px-4 py-1 text-[12px]">
            <span role="status">
              {marked.size > 0 &&
                `${marked.size} ${marked.size === 1 ? 'repair is' : 'repairs are'} marked. `}
              {said}
            </span>
            {marked.size > 0 && (
              <Button small onClick={() => setTogether(true)}>
                Apply at once… <kbd className="font-sans">Shift+A</kbd>
              </Button>
            )}
          </p>
        )}
        <p className="border-t border-line px-4 py-1 text-[12px] text-dim">
          <b>↓ ↑</b> next, previous · <b>1–9</b> preview a repair · <b>Enter</b> apply it, or go to
          the rule · <b>w</b> probe the witness · <b>a</b> accept · <b>c</b> add checks ·{' '}
          <b>Space</b> mark a repair
        </p>
        {together && (
          <RepairsDialog
            marked={marked}
            handle={handle}
            onApplied={() => {
              unmark();
              setTogether(false);
              scroller.current?.focus({ preventScroll: true });
            }}
            onClose={() => {
              setTogether(false);
              scroller.current?.focus({ preventScroll: true });
            }}
          />
        )}
        {checking && (
          <AddChecks
            from={checking}
            handle={handle}
            numbers={numbers}
            onClose={() => {
              setChecking(null);
              scroller.current?.focus({ preventScroll: true });
            }}
          />
        )}
        {accepting && (
          <AcceptDialog
            cause={accepting}
            draft={draft}
            onClose={() => {
              setAccepting(null);
              scroller.current?.focus({ preventScroll: true });
            }}
          />
        )}
      </MembersContext.Provider>
    </DraftContext.Provider>
  );
}
