import type { Rule } from '../api/types';

/** The number of rules that use an object; leads to the first. */
export function Users({ rules, onRule }: { rules: Rule[]; onRule(id: string): void }) {
  return rules.length === 0 ? (
    <span className="w-[90px] shrink-0 text-[12px] text-dim">not used</span>
  ) : (
    <button
      type="button"
      title={rules.map((rule) => rule.name).join('\n')}
      onClick={() => onRule(rules[0]!.id)}
      className="w-[90px] shrink-0 cursor-pointer text-left text-[12px] text-accent underline underline-offset-2"
    >
      in {rules.length} {rules.length === 1 ? 'rule' : 'rules'}
    </button>
  );
}
