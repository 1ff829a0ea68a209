import type { Logging, Opening, Place, Rule, Verdict } from '../api/types';
import type { Chip, Part } from '../draft/criteria';

export type EditedPart = 'name' | Part;

/** What people keep about a rule, and the days on which it decides. */
export type Kept = Pick<Rule, 'owner' | 'ticket' | 'tags' | 'start' | 'end'>;

/** What can be done to rules, by key, menu, palette or pointer. */
export interface RuleActions {
  focus(id: string, how?: 'alone' | 'range' | 'toggle'): void;
  startEdit(id: string, part: EditedPart): void;
  /** Ends editing; with a direction, goes on with the next or previous part of the rule. */
  endEdit(go?: 1 | -1): void;
  /** Resolves to an explanation if it was refused. */
  rename(rule: Rule, name: string): Promise<string | null>;
  addChip(rule: Rule, chip: Chip): Promise<string | null>;
  removeChip(rule: Rule, chip: Chip): Promise<string | null>;
  nameLiteral(rule: Rule, chip: Chip): void;
  setVerdict(rule: Rule, verdict: Verdict): void;
  setLogging(rule: Rule, logging: Logging): void;
  setOpening(rule: Rule, opening: Opening): void;
  /** None of them is meant by an empty name. */
  setRatePlan(rule: Rule, name: string): void;
  setNotice(rule: Rule, name: string): void;
  /** Minutes; 0 for no hold. */
  setHold(rule: Rule, minutes: number): void;
  setNote(rule: Rule, note: string): Promise<string | null>;
  /** Changes what people keep about a rule, or the days on which it decides. */
  setKept(rule: Rule, kept: Kept): Promise<string | null>;
  /** Says of an unfinished rule that it is for any connection. */
  forAny(rule: Rule): void;
  insert(where: 'above' | 'below', id: string): void;
  insertInto(sectionId: string): void;
  clone(id: string): void;
  toggle(id: string): void;
  /** Switches between deciding and observing only. */
  observe(id: string): void;
  remove(id: string): void;
  step(id: string, direction: 1 | -1): void;
  moveTo(id: string, place: Place): void;
  moveToEdge(id: string, edge: 'top' | 'bottom'): void;
  /** Moves the section of a rule by one. */
  stepSection(id: string, direction: 1 | -1): void;
  /** Moves one rule as far as it can go without changing a verdict. */
  moveQuietly(id: string, direction: 1 | -1): void;
  /** Opens the dialog that offers places. */
  placeIt(rule: Rule): void;
  /** Opens the dialog that replaces, removes or adds a chip in all selected rules. */
  replaceChip(rule: Rule): void;
  /** Offers the checks that notice every mistake in the selected rules. */
  addChecks(rule: Rule): void;
  /** Shows the two selected rules side by side. */
  sideBySide(rule: Rule): void;
  /** Goes to the next or previous rule that is shown and has a finding that is no note. */
  goToFinding(id: string, direction: 1 | -1): void;
  /** Selects every rule that is shown. */
  selectAll(): void;
  /** Shows rules that were pasted by a dialog. */
  pasted(rules: Rule[]): void;
  /** Copies the selected rules as text. */
  copy(id: string): void;
  /** Inserts the rules of a text below a rule. */
  paste(id: string, text: string): void;
  probe(line: string): void;
}
