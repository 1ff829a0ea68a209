import type { Draft, Rule } from '../api/types';
import type { EditOf } from '../draft/useDraft';
import type { MissingObject } from './missingObjects';

/** What the actions on rules work with; every part tells how things are when it is asked. */
export interface ActionBench {
  draft(): Draft;
  /** Ids of the rules that are shown, in order. */
  shown(): string[];
  /** Sends an edit; resolves to an explanation if it was refused. */
  send(edit: EditOf, seen?: number): Promise<string | null>;
  /** The selection in order, if the rule is part of it; else the rule alone. */
  selected(id: string): string[];
  /** The same without common rules, which are locked. */
  group(id: string): string[];
  /** Asks what objects stand for that pasted rules name and the draft lacks. */
  createMissing(missing: MissingObject[], rules: Rule[], below: string): void;
  say(text: string): void;
  scrollTo(id: string): void;
  /** A rule that is new is shown whatever the filter says. */
  show(id: string): void;
  /** Selects these rules, the first one in focus. */
  selectAlone(ids: string[]): void;
}

export const manyRules = (ids: string[]) => (ids.length > 1 ? `${ids.length} rules` : 'Rule');
