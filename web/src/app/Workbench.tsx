import { Cancelled } from '../api/client';
import { focusFilter, focusProbe, focusRules } from '../ui/focus';
import { benchCommands, draftCommands, pressedCommand } from '../shell/commands';
import type { Opened } from '../shell/opened';
import { lazy, useCallback, useEffect, useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Rule } from '../api/types';
import { useChecks } from '../checks/useChecks';
import { allRules, originsOf } from '../draft/applyEdit';
import { ConflictDialog } from '../rules/ConflictDialog';
import { numbersOf, type FindingKind } from '../draft/findings';
import { useAccepted, withoutAccepted } from '../findings/accepted';
import { useDraft } from '../draft/useDraft';
import { ProbePanel } from '../probe/ProbePanel';
import { useProbe } from '../probe/useProbe';
import { RulePanel } from '../rules/RulePanel';
import { RulesPage, type RulesHandle } from '../rules/RulesPage';
import { Header } from './Header';
import { Rail } from './Rail';
import type { Place } from '../shell/places';
import { queryOf, useUrlState } from '../shell/useUrlState';
import { mayEdit, mayPublish, useSession } from '../shell/session';
import { StateLine } from './StateLine';
import { PartBoundary } from '../ui/PartBoundary';
import { flipTheme } from './theme';

const Checks = lazy(() => import('../checks/ChecksPage'));
const FindingsPage = lazy(() => import('../findings/FindingsPage'));
const ReachPage = lazy(() => import('../reach/ReachPage'));
const Library = lazy(() => import('../library/LibraryPage'));
const Applications = lazy(() => import('../catalogue/CataloguePage'));
const SignatureBench = lazy(() => import('../signatures/SignatureBench'));
const FeedsPage = lazy(() => import('../feeds/FeedsPage'));
const People = lazy(() => import('../people/PeoplePage'));
const PublishPage = lazy(() => import('../publish/PublishPage'));
const Traffic = lazy(() => import('../traffic/TrafficPage'));
const History = lazy(() => import('../history/HistoryPage'));
const Audit = lazy(() => import('../audit/AuditPage'));
const Accounts = lazy(() => import('../accounts/AccountsPage'));
const loadPalette = () => import('../palette/Palette');
const Palette = lazy(loadPalette);
const CommonDialog = lazy(() =>
  import('../common/CommonDialog').then((all) => ({ default: all.CommonDialog })),
);
const BreadthDialog = lazy(() => import('../draft/BreadthDialog'));
const KeyList = lazy(() => import('../palette/KeyList'));
const RepairDialog = lazy(() => import('../rules/RepairDialog'));
const ImportDialog = lazy(() =>
  import('./ImportDialog').then((m) => ({ default: m.ImportDialog })),
);
const ExportDialog = lazy(() =>
  import('./ExportDialog').then((m) => ({ default: m.ExportDialog })),
);

/** What the URL of the rules holds: the focused rule, the probed connection and the filter. */
const RULES_PARAMETERS = ['rule', 'probe', 'q'] as const;
type RulesParameters = Record<(typeof RULES_PARAMETERS)[number], string>;

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.matches('input, textarea, select, [contenteditable]');

/** The bench: header, rail, the place that is open, the docked probe and the state line. */
export default function Workbench() {
  const params = useParams();
  const id = Number(params.id);
  const place = (params.place ?? 'rules') as Place;
  const navigate = useNavigate();
  const { person } = useSession();
  const stored = useDraft(id);
  const accepted = useAccepted(stored.draft);
  const draft = useMemo(
    () => stored.draft && withoutAccepted(stored.draft, accepted),
    [stored.draft, accepted],
  );
  const handle = useMemo(() => ({ ...stored, draft }), [stored, draft]);
  const [opened, setOpened] = useState<Opened>(null);
  const [repairing, setRepairing] = useState<FindingKind | null>(null);
  const [rules, setRules] = useState<RulesHandle | null>(null);
  const url = useUrlState('rules', RULES_PARAMETERS, (shown) => {
    if (shown.rule) rules?.goTo(shown.rule);
  });
  const { set: setUrl, step } = url;
  const { rule: focus, probe: line, q: filter } = url.values;
  const setFocus = useCallback((rule: string | null) => setUrl({ rule: rule ?? '' }), [setUrl]);
  const setLine = useCallback((probe: string) => setUrl({ probe }), [setUrl]);
  const setFilter = useCallback((q: string) => setUrl({ q }), [setUrl]);
  const [message, setMessage] = useState<string | null>(null);
  const editable = mayEdit(person);
  const { answer, error } = useProbe(id, draft?.version, line);

  const checks = useChecks(draft);
  const numbers = useMemo(() => (draft ? numbersOf(draft) : new Map<string, number>()), [draft]);
  const origins = useMemo(() => (draft ? originsOf(draft) : new Map<string, string>()), [draft]);
  const byId = useMemo(
    () => new Map<string, Rule>(draft ? allRules(draft).map((rule) => [rule.id, rule]) : []),
    [draft],
  );

  const go = useCallback(
    (to: Place, change: Partial<RulesParameters> = {}) => {
      const query = to === 'rules' ? queryOf({ ...url.values, ...change }) : '';
      setUrl(change);
      void navigate(`/rulebases/${id}/${to}${query}`);
    },
    [navigate, id, url.values, setUrl],
  );
  const showLog = useCallback(
    (rule: string) =>
      void navigate(`/rulebases/${id}/traffic${queryOf({ q: `rule ${numbers.get(rule)}` })}`),
    [navigate, id, numbers],
  );
  const undo = useCallback(
    (back: boolean) =>
      void (back ? handle.undo() : handle.redo()).then((problem) =>
        setMessage(problem ? problem.message : null),
      ),
    [handle],
  );

  const commands = useMemo(() => {
    const bench = {
      open: setOpened,
      go,
      undo: () => undo(true),
      redo: () => undo(false),
      probe: focusProbe,
      filter: focusFilter,
      switchTheme: flipTheme,
      home: () => void navigate('/?all'),
    };
    return {
      draft: editable ? draftCommands(bench) : [],
      bench: benchCommands(bench, person.role === 'admin'),
    };
  }, [go, undo, editable, person.role, navigate]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const command = pressedCommand([...commands.draft, ...commands.bench], e);
      if (!command) return;
      const busy =
        typing(e.target) || opened || document.querySelector('[role=dialog][data-state=open]');
      if (busy && command.id !== 'palette') return;
      e.preventDefault();
      command.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [opened, commands]);

  // Not needed for the first look, but at once when it is asked for.
  useEffect(() => {
    const timer = setTimeout(() => void loadPalette(), 300);
    return () => clearTimeout(timer);
  }, []);

  useEffect(() => {
    document.title = draft ? `${draft.name} · Iron Sieve` : 'Iron Sieve';
  }, [draft]);

  // A reload that was cancelled leaves the rules as they are.
  if (handle.error && !(draft && handle.error instanceof Cancelled)) {
    return (
      <main className="p-10">
        <p role="alert">{handle.error.message}</p>
        <a href="/?all" className="text-accent underline">
          All rulebases
        </a>
      </main>
    );
  }
  if (!draft) {
    return (
      <p role="status" className="p-10 text-dim">
        Reading the rules…
      </p>
    );
  }
  const focused = focus ? byId.get(focus) : undefined;
  const showRule = (rule: string) => {
    if (place !== 'rules') {
      go('rules', { rule, q: '' }); // a filter might hide it
      return;
    }
    if (!byId.has(rule)) return;
    step({ rule, q: '' });
    rules?.goTo(rule);
  };
  return (
    <div className="flex h-full flex-col">
      <Header
        draft={draft}
        filter={filter}
        filterable={place === 'rules'}
        onFilter={setFilter}
        onOpen={setOpened}
        onLeaveFilter={focusRules}
      />
      <div className="flex min-h-0 flex-1">
        <Rail place={place} onGo={go} />
        <main className="flex min-w-0 flex-1 flex-col">
          <PartBoundary part={place}>
            {place === 'checks' ? (
              <Checks
                handle={handle}
                states={checks}
                numbers={numbers}
                byId={byId}
                mayEdit={editable}
                onRule={showRule}
                onProbe={(probe) => go('rules', { probe })}
              />
            ) : place === 'findings' ? (
              <FindingsPage
                handle={handle}
                accepted={accepted}
                numbers={numbers}
                byId={byId}
                mayEdit={editable}
                onRule={showRule}
                onProbe={(probe) => go('rules', { probe })}
              />
            ) : place === 'reach' ? (
              <ReachPage
                handle={handle}
                checks={checks}
                numbers={numbers}
                byId={byId}
                mayEdit={editable}
                onRule={showRule}
                onProbe={(probe) => go('rules', { probe })}
              />
            ) : place === 'library' ? (
              <Library handle={handle} mayEdit={editable} onRule={showRule} onGo={go} />
            ) : place === 'feeds' ? (
              <FeedsPage draft={draft} mayEdit={editable} onRule={showRule} onGo={go} />
            ) : place === 'people' ? (
              <People
                draft={draft}
                mayEdit={editable}
                numbers={numbers}
                byId={byId}
                onRule={showRule}
                onGo={go}
              />
            ) : place === 'applications' ? (
              <Applications
                draft={draft}
                mayEdit={editable}
                numbers={numbers}
                onRule={showRule}
                onGo={go}
              />
            ) : place === 'signatures' ? (
              <SignatureBench draft={draft} mayEdit={editable} onRule={showRule} onGo={go} />
            ) : place === 'publish' ? (
              <PublishPage
                draft={draft}
                mayPublish={mayPublish(person)}
                mayEdit={editable}
                admin={person.role === 'admin'}
                numbers={numbers}
                onRule={showRule}
                onProbe={(probe) => go('rules', { probe })}
              />
            ) : place === 'traffic' ? (
              <Traffic
                handle={handle}
                numbers={numbers}
                byId={byId}
                mayEdit={editable}
                onRule={showRule}
                onProbe={(probe) => go('rules', { probe })}
              />
            ) : place === 'history' ? (
              <History draft={draft} mayEdit={editable} />
            ) : place === 'accounts' ? (
              <Accounts />
            ) : place === 'audit' ? (
              <Audit />
            ) : (
              <RulesPage
                key={id}
                handle={handle}
                filter={filter}
                mayEdit={editable}
                answer={answer}
                initialRule={focus}
                onProbe={setLine}
                onFocus={setFocus}
                onReady={setRules}
                onLog={showLog}
                onFilter={setFilter}
              />
            )}
          </PartBoundary>
        </main>
        {place === 'rules' && (
          <aside
            aria-label="Probe and rule"
            className="w-[300px] shrink-0 overflow-y-auto border-l border-line bg-panel"
          >
            <ProbePanel
              draft={draft}
              line={line}
              answer={answer}
              error={error}
              numbers={numbers}
              byId={byId}
              onLine={setLine}
              onRule={showRule}
              onCheck={editable ? (edit) => handle.edit(edit) : undefined}
            />
            {focused && rules && (
              <RulePanel
                draft={draft}
                rule={focused}
                standing={draft.standings[focused.id]}
                numbers={numbers}
                byId={byId}
                mayEdit={editable && !origins.has(focused.id)}
                origin={origins.get(focused.id)}
                selected={rules.selected}
                actions={rules.actions}
                onMend={setRepairing}
                onLog={showLog}
              />
            )}
          </aside>
        )}
      </div>
      <StateLine
        draft={draft}
        handle={handle}
        me={person.displayName}
        message={message}
        checks={checks}
        onFinding={(kind) => {
          const next = rules?.nextFinding(kind);
          if (next) {
            step({ rule: next });
            rules?.goTo(next);
          }
        }}
        onChecks={() => go('checks')}
        onGo={go}
        onKeys={() => setOpened('keys')}
      />
      <PartBoundary part={`${opened}`}>
        {opened === 'palette' && (
          <Palette
            draft={draft}
            numbers={numbers}
            focused={place === 'rules' ? focused : undefined}
            editable={editable && !(focused && origins.has(focused.id))}
            draftCommands={commands.draft}
            benchCommands={commands.bench}
            onClose={() => setOpened(null)}
            onGoTo={showRule}
            onRuleCommand={(command) => rules?.run(command)}
          />
        )}
        {opened === 'keys' && (
          <KeyList
            commands={[...commands.draft, ...commands.bench]}
            onClose={() => setOpened(null)}
          />
        )}
        {opened === 'breadth' && <BreadthDialog handle={handle} onClose={() => setOpened(null)} />}
        {opened === 'common' && <CommonDialog draft={draft} onClose={() => setOpened(null)} />}
        {opened === 'import' && <ImportDialog onClose={() => setOpened(null)} />}
        {opened === 'export' && (
          <ExportDialog
            id={id}
            version={draft.version}
            name={draft.name}
            onClose={() => setOpened(null)}
          />
        )}
      </PartBoundary>
      <PartBoundary part={`${opened}`}>
        {repairing && focused && (
          <RepairDialog
            rule={focused}
            finding={repairing}
            handle={handle}
            onClose={() => setRepairing(null)}
          />
        )}
      </PartBoundary>
      {handle.conflict && <ConflictDialog handle={handle} numbers={numbers} byId={byId} />}
    </div>
  );
}
