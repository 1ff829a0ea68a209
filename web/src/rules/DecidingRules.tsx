import type { DecidingRules as Found, Rule } from '../api/types';
import { Faults } from '../ui/Faults';
import { Working } from '../ui/QuestionProgress';

/** Rules that can ever decide some connections, in order, each with its ends and an example. */
export function DecidingRules({
  found,
  error,
  byId,
  numbers,
  said,
  onRule,
}: {
  found: Found | undefined;
  error: unknown;
  byId: Map<string, Rule>;
  numbers: Map<string, number>;
  /** The items of a rule that mention the subject. */
  said(rule: Rule): string[];
  onRule(id: string): void;
}) {
  return (
    <>
      <Faults error={error} />
      {!found && !error && <Working on="Deciding rules" />}
      {found && (
        <ol className="divide-y divide-line border-y border-line">
          {found.rules.map((decider) => {
            const rule = decider.id ? byId.get(decider.id) : undefined;
            const words = [...(rule ? said(rule) : []), decider.verdict];
            return (
              <li key={decider.id ?? 'default'} className="py-1">
                <div className="flex items-baseline gap-3">
                  {rule ? (
                    <button
                      type="button"
                      onClick={() => onRule(rule.id)}
                      className="min-h-[24px] min-w-0 cursor-pointer truncate text-left text-accent underline underline-offset-2"
                    >
                      {numbers.get(rule.id)} {rule.name}
                    </button>
                  ) : (
                    <span>the default rule</span>
                  )}
                  <span className="ml-auto max-w-[60%] shrink-0 text-right text-[12px] text-dim">
                    {words.join(' · ')}
                  </span>
                </div>
                <p className="text-[12px] text-dim">{decider.ends}</p>
                <p className="font-mono text-[12px] break-words">{decider.witness}</p>
              </li>
            );
          })}
          {!found.complete && (
            <li className="py-1 text-drop">Analysis limit reached; the list may be incomplete.</li>
          )}
        </ol>
      )}
    </>
  );
}
