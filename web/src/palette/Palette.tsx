import { Command as Cmdk } from 'cmdk';
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { Draft, Rule } from '../api/types';
import type { Command } from '../shell/commands';
import { api } from '../api/client';
import { allRules } from '../draft/applyEdit';
import { describeEdit } from '../draft/describeEdit';
import { nextUndone } from '../draft/undoable';
import { useSession } from '../shell/session';
import { RULE_COMMANDS, type RuleCommand } from '../rules/commands';

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
  editable,
  draftCommands,
  benchCommands,
  onClose,
  onGoTo,
  onRuleCommand,
}: {
  draft: Draft;
  numbers: Map<string, number>;
  focused: Rule | undefined;
  editable: boolean;
  draftCommands: Command[];
  benchCommands: Command[];
  onClose(): void;
  onGoTo(rule: string): void;
  onRuleCommand(command: RuleCommand): void;
}) {
  const [query, setQuery] = useState('');
  const onRule: Entry[] = focused
    ? RULE_COMMANDS.filter(
        (command) => (editable || command.viewing) && !command.hidden?.(focused),
      ).map((command) => ({
        words: command.words(focused),
        keys: command.keys[0],
        run: () => onRuleCommand(command),
      }))
    : [];
  const { person } = useSession();
  const { data: changes } = useQuery({
    queryKey: ['newest changes', draft.id, draft.version],
    queryFn: () => api.changes(draft.id),
    enabled: draftCommands.length > 0,
  });
  const undone = nextUndone(changes ?? [], person.name);
  const names = new Map(allRules(draft).map((rule) => [rule.id, rule.name]));
  const wordsOf = (command: Command) =>
    command.id === 'undo' && undone
      ? `${command.words}: ${describeEdit(undone.edit, (rule) => names.get(rule), undone.inverse)}`
      : command.words;
  const entry = (command: Command): Entry => ({
    ...command,
    words: wordsOf(command),
    keys: command.keys?.[0],
  });
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
      rules.map((r) => ({ words: `${numbers.get(r.id)}  ${r.name}`, run: () => onGoTo(r.id) })),
    ],
    [focused ? `Rule ${numbers.get(focused.id)}` : 'Rule', onRule.filter(fits)],
    ['Draft', draftCommands.map(entry).filter(fits)],
    ['Bench', benchCommands.map(entry).filter(fits)],
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
          <Cmdk shouldFilter={false} label="Commands">
            <Cmdk.Input
              autoFocus
              value={query}
              onValueChange={setQuery}
              placeholder="A command, or a rule by number or name"
              className="w-full rounded-t-md border-b border-line px-4 py-3 outline-none"
            />
            <Cmdk.List className="max-h-[52vh] overflow-auto p-1">
              <Cmdk.Empty className="px-3 py-2 text-dim">Nothing found.</Cmdk.Empty>
              {groups.map(
                ([title, entries]) =>
                  entries.length > 0 && (
                    <Cmdk.Group
                      key={title}
                      heading={title}
                      className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-dim"
                    >
                      {entries.map((entry) => (
                        <Cmdk.Item
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
                        </Cmdk.Item>
                      ))}
                    </Cmdk.Group>
                  ),
              )}
            </Cmdk.List>
          </Cmdk>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
