import type { Rule, RuleHits, Standing } from '../api/types';
import type { EditedPart, RuleActions } from './actions';

/** What a falling probe did at a rule. */
export type Fall = 'none' | 'passed' | 'caught';

export interface StripProps {
  rule: Rule;
  number: number;
  standing: Standing | undefined;
  hits: RuleHits | undefined;
  numbers: Map<string, number>;
  fall: Fall;
  turnedAway: string[] | undefined;
  selected: boolean;
  focused: boolean;
  editing: EditedPart | null;
  mayEdit: boolean;
  /** Name of the common rulebase that it is from. */
  origin: string | undefined;
  /** That it decides nothing in some rulebases below. */
  below: string | null;
  /** Whether something is dragged. */
  dragging: boolean;
  dropLine: 'above' | 'below' | null;
  /** During a drag: what would change if the rule were dropped above this one. */
  placeMark: string | null;
  actions: RuleActions;
}

/** What keeps a rule from deciding; null if it may decide. */
export function stateOf(rule: Rule): string | null {
  if (rule.enabled === false) return 'disabled';
  if (rule.unfinished) return 'unfinished';
  return rule.observeOnly ? 'observe only' : null;
}
