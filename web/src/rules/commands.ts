import type { Rule } from '../api/types';
import { isPressed, type KeyPress } from '../ui/shortcut';
import type { RuleActions } from './actions';

/** Effects of commands on the view of a rule, which change nothing in the draft. */
export interface RuleView {
  focusVerdict(id: string): void;
  focusMenu(id: string): void;
  probeWitness(id: string): void;
  showLog(id: string): void;
}

/** A part of the menu of a rule. */
export type MenuGroup = 'rule' | 'move' | 'delete';

/** One command on the focused rule, for its keys, its menu, the palette and the list of keys. */
export interface RuleCommand {
  words(rule?: Rule): string;
  keys: string[];
  run(rule: Rule, actions: RuleActions, view: RuleView): void;
  /** Whether people who only view may run it. */
  viewing?: boolean;
  hidden?(rule: Rule): boolean;
}

/** A command that the menu of a rule has too; it changes the draft only. */
export interface MenuCommand extends RuleCommand {
  run(rule: Rule, actions: RuleActions): void;
  group: MenuGroup;
}

const MENU_COMMANDS: MenuCommand[] = [
  {
    words: () => 'Insert above',
    keys: ['Ctrl+Shift+Enter'],
    run: (rule, actions) => actions.insert('above', rule.id),
    group: 'rule',
  },
  {
    words: () => 'Insert below',
    keys: ['Ctrl+Enter'],
    run: (rule, actions) => actions.insert('below', rule.id),
    group: 'rule',
  },
  {
    words: () => 'Clone',
    keys: ['Alt+Shift+↓'],
    run: (rule, actions) => actions.clone(rule.id),
    group: 'rule',
  },
  {
    words: (rule) => (rule ? (rule.enabled === false ? 'Enable' : 'Disable') : 'Disable, enable'),
    keys: ['Ctrl+/'],
    run: (rule, actions) => actions.toggle(rule.id),
    group: 'rule',
  },
  {
    words: (rule) =>
      rule ? (rule.observeOnly ? 'Let it decide' : 'Observe only') : 'Observe only, decide',
    keys: ['o'],
    run: (rule, actions) => actions.observe(rule.id),
    group: 'rule',
  },
  {
    words: () => 'For any connection',
    keys: [],
    run: (rule, actions) => actions.forAny(rule),
    group: 'rule',
    hidden: (rule) => !rule.unfinished,
  },
  {
    words: () => 'Move up',
    keys: ['Alt+↑'],
    run: (rule, actions) => actions.step(rule.id, -1),
    group: 'move',
  },
  {
    words: () => 'Move down',
    keys: ['Alt+↓'],
    run: (rule, actions) => actions.step(rule.id, 1),
    group: 'move',
  },
  {
    words: () => 'Move to the top',
    keys: ['Alt+Home'],
    run: (rule, actions) => actions.moveToEdge(rule.id, 'top'),
    group: 'move',
  },
  {
    words: () => 'Move to the bottom',
    keys: ['Alt+End'],
    run: (rule, actions) => actions.moveToEdge(rule.id, 'bottom'),
    group: 'move',
  },
  {
    words: () => 'Move up while quiet',
    keys: ['['],
    run: (rule, actions) => actions.moveQuietly(rule.id, -1),
    group: 'move',
  },
  {
    words: () => 'Move down while quiet',
    keys: [']'],
    run: (rule, actions) => actions.moveQuietly(rule.id, 1),
    group: 'move',
  },
  {
    words: () => 'Place it…',
    keys: ['g'],
    run: (rule, actions) => actions.placeIt(rule),
    group: 'move',
  },
  {
    words: () => 'Replace a chip…',
    keys: ['r'],
    run: (rule, actions) => actions.replaceChip(rule),
    group: 'rule',
  },
  {
    words: () => 'Checks for it…',
    keys: ['k'],
    run: (rule, actions) => actions.addChecks(rule),
    group: 'rule',
  },
  {
    words: () => 'Copy as text',
    keys: ['Ctrl+C'],
    run: (rule, actions) => actions.copy(rule.id),
    group: 'rule',
    viewing: true,
  },
  {
    words: () => 'Delete',
    keys: ['Delete'],
    run: (rule, actions) => actions.remove(rule.id),
    group: 'delete',
  },
];

/** Commands that have keys but no place in the menu. */
const KEY_COMMANDS: RuleCommand[] = [
  {
    words: () => 'Edit name',
    keys: ['Enter', 'F2'],
    run: (rule, actions) => actions.startEdit(rule.id, 'name'),
  },
  {
    words: () => 'Edit source',
    keys: ['f'],
    run: (rule, actions) => actions.startEdit(rule.id, 'from'),
  },
  {
    words: () => 'Edit destination',
    keys: ['t'],
    run: (rule, actions) => actions.startEdit(rule.id, 'to'),
  },
  {
    words: () => 'Edit service and application',
    keys: ['s'],
    run: (rule, actions) => actions.startEdit(rule.id, 'for'),
  },
  {
    words: () => 'Two selected rules side by side',
    keys: ['='],
    run: (rule, actions) => actions.sideBySide(rule),
    viewing: true,
  },
  {
    words: () => 'Next rule with a finding',
    keys: ['F8'],
    run: (rule, actions) => actions.goToFinding(rule.id, 1),
    viewing: true,
  },
  {
    words: () => 'Previous rule with a finding',
    keys: ['Shift+F8'],
    run: (rule, actions) => actions.goToFinding(rule.id, -1),
    viewing: true,
  },
  {
    words: () => 'Select all rules shown',
    keys: ['Ctrl+A'],
    run: (_, actions) => actions.selectAll(),
    viewing: true,
  },
  {
    words: () => 'Move its section up',
    keys: ['Alt+PageUp'],
    run: (rule, actions) => actions.stepSection(rule.id, -1),
  },
  {
    words: () => 'Move its section down',
    keys: ['Alt+PageDown'],
    run: (rule, actions) => actions.stepSection(rule.id, 1),
  },
  {
    words: () => 'Verdict',
    keys: ['v'],
    run: (rule, _, view) => view.focusVerdict(rule.id),
  },
  {
    words: () => 'All actions',
    keys: ['m'],
    run: (rule, _, view) => view.focusMenu(rule.id),
  },
  {
    words: () => 'Probe the witness',
    keys: ['w'],
    run: (rule, _, view) => view.probeWitness(rule.id),
    viewing: true,
  },
  {
    words: () => 'Show its log records',
    keys: ['l'],
    run: (rule, _, view) => view.showLog(rule.id),
    viewing: true,
  },
];

/** All commands on a rule. */
export const RULE_COMMANDS: RuleCommand[] = [...MENU_COMMANDS, ...KEY_COMMANDS];

/** The command of a key press that may be run on a rule. */
export function ruleCommand(press: KeyPress, mayEdit: boolean): RuleCommand | undefined {
  return RULE_COMMANDS.find(
    (command) =>
      (mayEdit || command.viewing) && command.keys.some((keys) => isPressed(press, keys)),
  );
}

/** The commands of one group of a rule's menu. */
export const menuCommands = (rule: Rule, group: MenuGroup) =>
  MENU_COMMANDS.filter((command) => command.group === group && !command.hidden?.(rule));
