import { isPressed, type KeyPress } from '../ui/shortcut';
import type { Opened } from './opened';
import { ADMIN, PLACES, type Place } from './places';

/** One command of the workbench, for its keys, the palette, the header and the list of keys. */
export interface Command {
  id: string;
  words: string;
  keys?: string[];
  run(): void;
}

/** The effects of commands. */
export interface Workbench {
  open(what: Opened): void;
  go(place: Place): void;
  undo(): void;
  redo(): void;
  probe(): void;
  filter(): void;
  switchTheme(): void;
  home(): void;
}

/** The commands on the draft, for people who may edit. */
export const draftCommands = (bench: Workbench): Command[] => [
  { id: 'undo', words: 'Undo my last change', keys: ['Ctrl+Z'], run: () => bench.undo() },
  { id: 'redo', words: 'Redo', keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], run: () => bench.redo() },
  { id: 'breadth', words: 'Settings of “too broad”…', run: () => bench.open('breadth') },
  { id: 'common', words: 'Common rules…', run: () => bench.open('common') },
  { id: 'import', words: 'Import…', run: () => bench.open('import') },
];

/** The commands for everybody, and for admins. */
export const benchCommands = (bench: Workbench, admin: boolean): Command[] => [
  ...PLACES.filter((place) => admin || !ADMIN.includes(place)).map((place) => ({
    id: `go ${place}`,
    words: `Go to the ${place}`,
    run: () => bench.go(place),
  })),
  { id: 'home', words: 'Home: what needs attention', run: () => bench.home() },
  { id: 'palette', words: 'Commands', keys: ['Ctrl+K'], run: () => bench.open('palette') },
  { id: 'probe', words: 'Probe a connection', keys: ['p'], run: () => bench.probe() },
  { id: 'filter', words: 'Filter the rules', keys: ['/'], run: () => bench.filter() },
  { id: 'export', words: 'Export…', run: () => bench.open('export') },
  { id: 'print', words: 'Print this view', run: () => window.print() },
  { id: 'theme', words: 'Switch theme', run: () => bench.switchTheme() },
  { id: 'keys', words: 'List of keys', keys: ['?'], run: () => bench.open('keys') },
];

/** The command of a key press. */
export const pressedCommand = (commands: Command[], press: KeyPress) =>
  commands.find((command) => command.keys?.some((keys) => isPressed(press, keys)));
