import { DndContext, DragOverlay, MeasuringStrategy } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { ProbeAnswer, Rule } from '../api/types';
import { BelowLine } from '../common/BelowLine';
import { nothingWords, ruleBelow } from '../common/effects';
import { useBelow } from '../common/useBelow';
import { originsOf } from '../draft/applyEdit';
import { gravest, has, type FindingKind } from '../draft/findings';
import type { DraftHandle } from '../draft/useDraft';
import { DraftContext } from './DraftContext';
import { MembersContext, useMembersOf } from './members';
import { useHits } from '../draft/useHits';
import { RuleStrip } from './RuleStrip';
import type { Fall } from './strip';
import { ClosingStrip, SectionHead } from './SectionHead';
import { ruleCommand, type RuleCommand, type RuleView } from './commands';
import { FilterNote } from './FilterNote';
import { FirstRules } from './FirstRules';
import { useRuleDrag } from './useRuleDrag';
import { isPressed } from '../ui/shortcut';
import { usePrinting } from '../ui/usePrinting';
import { useSettled } from '../ui/useSettled';
import { itemsOf, type Item } from './items';
import { navigate } from './keys';
import { RuleDialogs, type RuleDialog } from './RuleDialogs';
import { useFolded } from './useFolded';
import { useDragPlaces } from './useDragPlaces';
import { useRuleActions } from './useRuleActions';
import { useRuleFilter } from './useRuleFilter';

/** What the page around the rules asks of them. */
export interface RulesHandle {
  goTo(id: string): void;
  /** The next rule with a finding of a kind, below the focused one or from the top. */
  nextFinding(kind: FindingKind): string | undefined;
  actions: ReturnType<typeof useRuleActions>['actions'];
  focused: Rule | undefined;
  /** How many rules are selected. */
  selected: number;
  /** Runs a command on the focused rule. */
  run(command: RuleCommand): void;
}

/** How long the rest of the page waits for the focus to stay while a key is held down. */
const FOLLOW_MS = 60;

/** Constant, since all strips are rendered when it changes. */
const MEASURING = { droppable: { strategy: MeasuringStrategy.WhileDragging } };

export function RulesPage({
  handle,
  filter,
  mayEdit,
  answer,
  initialRule,
  onProbe,
  onFocus,
  onReady,
  onLog,
  onFilter,
  past,
}: {
  handle: DraftHandle;
  filter: string;
  mayEdit: boolean;
  answer: ProbeAnswer | undefined;
  initialRule: string | null;
  onProbe(line: string): void;
  onFocus(id: string | null): void;
  onReady(rules: RulesHandle): void;
  /** Shows the log records of a rule. */
  onLog(rule: string): void;
  onFilter(text: string): void;
  /** Whether the rules are those of a revision. */
  past?: boolean;
}) {
  const draft = handle.draft!;
  const members = useMembersOf(draft);
  const hits = useHits(draft.id);
  const [said, announce] = useState('');
  const [dialog, setDialog] = useState<RuleDialog | null>(null);
  const [closed, setClosed] = useFolded(draft.id);
  const [fresh, setFresh] = useState<{ filter: string; ids: Set<string> }>({
    filter,
    ids: new Set(),
  });
  const scroller = useRef<HTMLDivElement>(null);

  // While a filter is typed, the list follows the text.
  const shownFilter = useDeferredValue(filter);
  const used = useRuleFilter(draft, shownFilter, hits, past);
  const { items, order, numbers, byId } = useMemo(() => {
    const shown = fresh.filter === shownFilter ? fresh.ids : new Set<string>();
    return itemsOf(draft, used.shows, closed, shown);
  }, [draft, shownFilter, used.shows, closed, fresh]);
  const below = useBelow(draft);
  const origins = useMemo(() => originsOf(draft), [draft]);

  const printing = usePrinting();
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (items[i]?.type === 'section' ? 26 : 50),
    getItemKey: (i) => {
      const item = items[i]!;
      return item.type === 'rule'
        ? item.rule.id
        : item.type === 'section'
          ? item.section.id
          : item.type;
    },
    overscan: printing ? items.length : 8,
  });

  const itemsRef = useRef(items);
  useLayoutEffect(() => {
    itemsRef.current = items;
  });
  const scrollTo = useCallback(
    (id: string) => {
      // The list is rendered anew before the place of a new or moved rule is known.
      requestAnimationFrame(() => {
        const at = itemsRef.current.findIndex((i) => i.type === 'rule' && i.rule.id === id);
        if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
      });
    },
    [virtual],
  );
  const focusGrid = useCallback(() => {
    // At once, so that no key is lost between an editor and the list.
    scroller.current?.focus({ preventScroll: true });
  }, []);

  const { actions, selection, setSelection, editing, setEditing } = useRuleActions(handle, order, {
    probe: onProbe,
    announce,
    nameLiteral: (rule, chip) => setDialog({ kind: 'name', rule, chip }),
    placeIt: (rule) => setDialog({ kind: 'place', rule }),
    replaceChip: (rules) => setDialog({ kind: 'replace', rules }),
    createMissing: (missing, rules, below) => setDialog({ kind: 'missing', missing, rules, below }),
    addChecks: (rules) => setDialog({ kind: 'checks', rules }),
    sideBySide: (rule, other) => setDialog({ kind: 'pair', pair: [rule, other] }),
    scrollTo,
    focusGrid,
    show: (id) =>
      setFresh((now) => ({
        filter,
        ids: new Set([...(now.filter === filter ? now.ids : []), id]),
      })),
  });

  const alone = selection.ids.size <= 1;
  const drag = useRuleDrag(handle, selection.ids, actions, announce, (id) => {
    setEditing(null);
    if (!selection.ids.has(id)) actions.focus(id);
  });
  const { over, rule: dragged } = drag;
  const dragging = dragged !== null || drag.section !== null;
  const places = useDragPlaces(draft, alone ? dragged : null, over);

  const goTo = useCallback(
    (id: string) => {
      setSelection({ focus: id, ids: new Set([id]) });
      scrollTo(id);
      focusGrid();
    },
    [setSelection, scrollTo, focusGrid],
  );

  const opened = useRef(false);
  useEffect(() => {
    if (!opened.current) {
      opened.current = true;
      const first = initialRule && byId.has(initialRule) ? initialRule : order[0];
      if (first) goTo(first);
    }
  }, [initialRule, order, byId, goTo]);

  // While a key is held down, the rest of the page waits.
  const [held, setHeld] = useState(false);
  const late = useSettled(selection.focus, FOLLOW_MS);
  const settled = held ? late : selection.focus;
  useEffect(() => onFocus(settled), [settled, onFocus]);

  // When a filter is taken away, the rule in focus stays in view.
  const filtered = useRef(filter);
  useEffect(() => {
    if (filtered.current && !shownFilter && selection.focus) scrollTo(selection.focus);
    filtered.current = shownFilter;
  }, [shownFilter, selection.focus, scrollTo]);

  const focused = selection.focus ? byId.get(selection.focus) : undefined;
  const view = useMemo<RuleView>(
    () => ({
      focusVerdict: (id) => document.querySelector<HTMLElement>(`[data-verdict="${id}"]`)?.focus(),
      focusMenu: (id) => document.querySelector<HTMLElement>(`[data-menu="${id}"]`)?.focus(),
      probeWitness: (id) => {
        const standing = draft.standings[id];
        const witness = gravest(standing)?.witness ?? standing?.witness;
        if (witness) onProbe(witness);
      },
      showLog: onLog,
    }),
    [draft.standings, onProbe, onLog],
  );
  const live = useRef({ focused, order, standings: draft.standings, focus: selection.focus });
  useLayoutEffect(() => {
    live.current = { focused, order, standings: draft.standings, focus: selection.focus };
  });
  const shown = settled ? byId.get(settled) : undefined;
  useEffect(() => {
    onReady({
      goTo,
      actions,
      focused: shown,
      selected: selection.ids.size,
      run(command) {
        const rule = live.current.focused;
        if (rule) command.run(rule, actions, view);
      },
      nextFinding(kind) {
        const { order: ids, focus, standings } = live.current;
        const at = ids.indexOf(focus ?? '');
        return [...ids.slice(at + 1), ...ids.slice(0, at + 1)].find((id) =>
          has(standings[id], kind),
        );
      },
    });
  }, [onReady, goTo, actions, shown, view, selection.ids.size]);

  const passed = useMemo(
    () => new Map(answer?.passed.map((p) => [p.rule, p.parts]) ?? []),
    [answer],
  );
  const fallOf = (id: string): Fall =>
    !answer
      ? 'none'
      : answer.rule === id
        ? 'caught'
        : (numbers.get(id) ?? 0) <= answer.passedCount
          ? 'passed'
          : 'none';

  // The browser tells the element of a paste by the text selection, not by the focus.
  useEffect(() => {
    const onPaste = (e: ClipboardEvent) => {
      const at = focused?.id ?? order[order.length - 1];
      if (!mayEdit || !at || document.activeElement !== scroller.current) return;
      e.preventDefault();
      actions.paste(at, e.clipboardData?.getData('text/plain') ?? '');
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [focused, order, mayEdit, actions]);

  /** Where no rule has the focus, a new one goes to the end of the first own section. */
  const insertFirst = () => {
    const section = draft.sections.find((one) => !one.tail);
    if (section) actions.insertInto(section.id);
  };

  const onKeyDown = (e: React.KeyboardEvent) => {
    // A button in a strip keeps its own keys; with Ctrl they are the rules' keys.
    const pressed = (e.key === 'Enter' || e.key === ' ') && !e.ctrlKey && !e.metaKey;
    if (pressed && (e.target as Element).closest('button')) return;
    setHeld(e.repeat);
    const at = order.indexOf(selection.focus ?? '');
    const go = (to: number) => {
      const id = order[Math.max(0, Math.min(order.length - 1, to))];
      if (id) {
        actions.focus(id, e.shiftKey ? 'range' : 'alone');
        scrollTo(id);
      }
    };
    const list = {
      page: Math.max(1, Math.floor((scroller.current?.clientHeight ?? 500) / 51) - 1),
      at,
      last: order.length - 1,
      go,
    };
    if (navigate(e, list)) {
      e.preventDefault();
      return;
    }
    const origin = focused && origins.get(focused.id);
    if (!focused && mayEdit && isPressed(e, 'Ctrl+Enter')) {
      e.preventDefault();
      insertFirst();
      return;
    }
    const command = focused && ruleCommand(e, mayEdit && !origin);
    if (origin && !command && ruleCommand(e, mayEdit)) {
      e.preventDefault();
      announce(`This rule is from ${origin}. Edit it there.`);
    }
    if (command) {
      e.preventDefault();
      command.run(focused, actions, view);
    }
  };

  return (
    <DraftContext.Provider value={draft}>
      <MembersContext.Provider value={members}>
        <DndContext
          sensors={drag.sensors}
          measuring={MEASURING}
          onDragStart={drag.onDragStart}
          onDragMove={drag.onDragMove}
          onDragEnd={drag.onDragEnd}
          onDragCancel={drag.onDragCancel}
        >
          {mayEdit && !past && filter.trim() === '' && (
            <FirstRules handle={handle} onNew={insertFirst} />
          )}
          <FilterNote used={used} none={order.length === 0} onFilter={onFilter} />
          <div
            ref={scroller}
            role="grid"
            aria-label="Rules"
            aria-rowcount={order.length}
            aria-multiselectable
            aria-activedescendant={selection.focus ? `rule-${selection.focus}` : undefined}
            tabIndex={0}
            data-grid
            data-print
            onKeyDown={onKeyDown}
            onKeyUp={() => setHeld(false)}
            className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto bg-paper"
          >
            <div
              role="rowgroup"
              data-print
              style={{ height: virtual.getTotalSize() }}
              className="relative w-full"
            >
              {virtual.getVirtualItems().map((row) => {
                const item = items[row.index]!;
                return (
                  <div
                    key={row.key}
                    ref={virtual.measureElement}
                    data-index={row.index}
                    role="presentation"
                    className="absolute inset-x-0 top-0"
                    style={{ transform: `translateY(${row.start}px)` }}
                  >
                    {item.type === 'rule' ? (
                      <RuleStrip
                        rule={item.rule}
                        number={item.number}
                        standing={draft.standings[item.rule.id]}
                        hits={hits?.get(item.rule.id)}
                        numbers={numbers}
                        fall={fallOf(item.rule.id)}
                        turnedAway={passed.get(item.rule.id)}
                        selected={selection.ids.has(item.rule.id)}
                        focused={selection.focus === item.rule.id}
                        editing={editing?.id === item.rule.id ? editing.part : null}
                        mayEdit={mayEdit && !item.origin}
                        origin={item.origin}
                        below={nothingWords(
                          ruleBelow(item.rule.id, below.rulebases, below.effects),
                        )}
                        dragging={dragging}
                        dropLine={over?.id === item.rule.id ? over.side : null}
                        placeMark={places.markOf(item.rule.id)}
                        actions={actions}
                      />
                    ) : item.type === 'section' ? (
                      <SectionHead
                        section={item.section}
                        count={item.count}
                        open={!closed.has(item.section.id)}
                        mayEdit={mayEdit && !item.origin}
                        origin={item.origin}
                        dragging={dragging}
                        target={over?.id === `section:${item.section.id}`}
                        falling={fallThrough(items, row.index, fallOf)}
                        handle={handle}
                        actions={actions}
                        onToggle={() => {
                          const next = new Set(closed);
                          if (!next.delete(item.section.id)) next.add(item.section.id);
                          setClosed(next);
                        }}
                      />
                    ) : item.type === 'below' ? (
                      <BelowLine below={below} />
                    ) : (
                      <ClosingStrip caught={answer !== undefined && answer.rule === undefined} />
                    )}
                  </div>
                );
              })}
            </div>
          </div>
          <DragOverlay dropAnimation={null}>
            {drag.section !== null && (
              <div className="w-[420px] rounded border border-accent bg-band px-3 py-1 font-semibold shadow-lg">
                {draft.sections.find((one) => one.id === drag.section)?.name}
              </div>
            )}
            {dragged && (
              <div className="w-[420px] rounded border border-accent bg-sheet px-3 py-2 font-semibold shadow-lg">
                {selection.ids.has(dragged) && selection.ids.size > 1
                  ? `${selection.ids.size} rules`
                  : `${numbers.get(dragged)}  ${byId.get(dragged)?.name}`}
                {places.words && (
                  <span className="block text-[12px] font-normal">{places.words}</span>
                )}
              </div>
            )}
          </DragOverlay>
        </DndContext>
        <Said text={said} />
        {dialog && (
          <RuleDialogs
            dialog={dialog}
            handle={handle}
            numbers={numbers}
            byId={byId}
            onProbe={onProbe}
            onPasted={(rules) => actions.pasted(rules)}
            onClose={() => {
              if (dialog.kind === 'name') setEditing(null);
              if (dialog.kind === 'place') scrollTo(dialog.rule.id);
              setDialog(null);
              focusGrid();
            }}
          />
        )}
      </MembersContext.Provider>
    </DraftContext.Provider>
  );
}

const SHOWN_MS = 6000;

/** What was done or refused, spoken and, for a while, shown. */
function Said({ text }: { text: string }) {
  const [gone, setGone] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setGone(text), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return (
    <div
      role="status"
      className={
        text && text !== gone
          ? 'pointer-events-none fixed bottom-9 left-1/2 z-30 max-w-[90%] -translate-x-1/2 rounded border border-line bg-sheet px-3 py-1 text-[12px] shadow-lg'
          : 'sr-only'
      }
    >
      {text}
    </div>
  );
}

/** Whether the probe falls past a section's heading: something below it was reached. */
function fallThrough(items: Item[], index: number, fallOf: (id: string) => Fall): boolean {
  for (let i = index + 1; i < items.length; i++) {
    const item = items[i]!;
    if (item.type === 'rule') return index > 0 && fallOf(item.rule.id) !== 'none';
  }
  return false;
}
