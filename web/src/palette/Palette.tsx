import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { Draft, Rule } from '../api/types';
import type { Place } from '../shell/places';
import type { Opened } from '../shell/opened';
import { allRules } from '../draft/applyEdit';
import type { RuleActions } from '../rules/actions';

interface Entry {
  words: string;
  keys?: string;
  run(): void;
}

const MOST_RULES = 12;

/** Reaches everything by typing: commands, places, and rules by number or name. */
export default function Palette({
  draft,
  numbers,
  focused,
  actions,
  editable,
  admin,
  onClose,
  onRule,
  onGo,
  onOpen,
  onUndo,
  onProbe,
  onTheme,
}: {
  draft: Draft;
  numbers: Map<string, number>;
  focused: Rule | undefined;
  actions: RuleActions | undefined;
  editable: boolean;
  admin: boolean;
  onClose(): void;
  onRule(id: string): void;
  onGo(place: Place): void;
  onOpen(what: Opened): void;
  onUndo(back: boolean): void;
  onProbe(): void;
  onTheme(): void;
}) {
  const [query, setQuery] = useState('');
  const onRuleEntries: Entry[] =
    focused && actions && editable
      ? [
          {
            words: 'Insert a rule above',
            keys: 'Ctrl+Shift+Enter',
            run: () => actions.insert('above', focused.id),
          },
          {
            words: 'Insert a rule below',
            keys: 'Ctrl+Enter',
            run: () => actions.insert('below', focused.id),
          },
          { words: 'Clone the rule', keys: 'Alt+Shift+↓', run: () => actions.clone(focused.id) },
          {
            words: focused.enabled === false ? 'Enable the rule' : 'Disable the rule',
            keys: 'Ctrl+/',
            run: () => actions.toggle(focused.id),
          },
          {
            words: 'Edit source',
            keys: 'f',
            run: () => actions.startEdit(focused.id, 'from'),
          },
          {
            words: 'Edit destination',
            keys: 't',
            run: () => actions.startEdit(focused.id, 'to'),
          },
          {
            words: 'Edit service and application',
            keys: 's',
            run: () => actions.startEdit(focused.id, 'for'),
          },
          { words: 'Move the rule up', keys: 'Alt+↑', run: () => actions.step(focused.id, -1) },
          { words: 'Move the rule down', keys: 'Alt+↓', run: () => actions.step(focused.id, 1) },
          {
            words: 'Move the rule to the top',
            keys: 'Alt+Home',
            run: () => actions.moveToEdge(focused.id, 'top'),
          },
          {
            words: 'Move the rule to the bottom',
            keys: 'Alt+End',
            run: () => actions.moveToEdge(focused.id, 'bottom'),
          },
          { words: 'Delete the rule', keys: 'Delete', run: () => actions.remove(focused.id) },
        ]
      : [];
  const edits: Entry[] = editable
    ? [
        { words: 'Undo my last change', keys: 'Ctrl+Z', run: () => onUndo(true) },
        { words: 'Redo', keys: 'Ctrl+Shift+Z', run: () => onUndo(false) },
        { words: 'Settings of “too broad”…', run: () => onOpen('breadth') },
        { words: 'Import…', run: () => onOpen('import') },
      ]
    : [];
  const general: Entry[] = [
    { words: 'Go to the rules', run: () => onGo('rules') },
    { words: 'Go to the checks', run: () => onGo('checks') },
    { words: 'Go to the library', run: () => onGo('library') },
    { words: 'Go to the feeds', run: () => onGo('feeds') },
    { words: 'Go to the people', run: () => onGo('people') },
    { words: 'Go to the applications', run: () => onGo('applications') },
    { words: 'Go to the signatures', run: () => onGo('signatures') },
    { words: 'Go to the history', run: () => onGo('history') },
    ...(admin ? [{ words: 'Go to the accounts', run: () => onGo('accounts') }] : []),
    { words: 'Probe a connection', keys: 'p', run: onProbe },
    { words: 'Export…', run: () => onOpen('export') },
    { words: 'Switch theme', run: onTheme },
    { words: 'List of keys', keys: '?', run: () => onOpen('keys') },
  ];
  const q = query.trim().toLowerCase();
  const fits = (entry: Entry) => entry.words.toLowerCase().includes(q);
  const rules = q
    ? allRules(draft)
        .filter((r) => String(numbers.get(r.id)) === q || r.name.toLowerCase().includes(q))
        .slice(0, MOST_RULES)
    : [];
  const groups: [string, Entry[]][] = [
    [
      'Rules',
      rules.map((r) => ({ words: `${numbers.get(r.id)}  ${r.name}`, run: () => onRule(r.id) })),
    ],
    [focused ? `Rule ${numbers.get(focused.id)}` : 'Rule', onRuleEntries.filter(fits)],
    ['Draft', edits.filter(fits)],
    ['Bench', general.filter(fits)],
  ];
  const run = (entry: Entry) => {
    onClose();
    // The dialog gives the focus back first, or it would take it from what the command opens.
    setTimeout(() => entry.run(), 0);
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-shade" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[10vh] left-1/2 z-50 w-[560px] max-w-[94vw] -translate-x-1/2 rounded-md border border-line bg-sheet shadow-xl"
        >
          <Dialog.Title className="sr-only">Commands</Dialog.Title>
          <Command shouldFilter={false} label="Commands">
            <Command.Input
              autoFocus
              value={query}
              onValueChange={setQuery}
              placeholder="A command, or a rule by number or name"
              className="w-full rounded-t-md border-b border-line px-4 py-3 outline-none"
            />
            <Command.List className="max-h-[52vh] overflow-auto p-1">
              <Command.Empty className="px-3 py-2 text-dim">Nothing found.</Command.Empty>
              {groups.map(
                ([title, entries]) =>
                  entries.length > 0 && (
                    <Command.Group
                      key={title}
                      heading={title}
                      className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-dim"
                    >
                      {entries.map((entry) => (
                        <Command.Item
                          key={entry.words}
                          value={`${title} ${entry.words}`}
                          onSelect={() => run(entry)}
                          className="flex cursor-pointer rounded px-3 py-1 data-[selected=true]:bg-accent-soft"
                        >
                          <span className="truncate">{entry.words}</span>
                          {entry.keys && (
                            <kbd className="ml-auto shrink-0 pl-4 font-sans text-[12px] text-dim">
                              {entry.keys}
                            </kbd>
                          )}
                        </Command.Item>
                      ))}
                    </Command.Group>
                  ),
              )}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
