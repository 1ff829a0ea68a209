import { Button } from '../ui/Button';
import type { UsedFilter } from './useRuleFilter';

/** What is wrong with the filter, or how to widen one that no rule fits. */
export function FilterNote({
  used,
  none,
  onFilter,
}: {
  used: UsedFilter;
  none: boolean;
  onFilter(text: string): void;
}) {
  const { terms } = used.filter;
  if (used.fault) {
    return (
      <p role="status" className="border-b border-line bg-sheet px-4 py-1 text-[12px] text-drop">
        Filter: {used.fault}
      </p>
    );
  }
  if (!none || terms.length === 0) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-2 border-b border-line bg-sheet px-4 py-2"
    >
      <span>No rule fits.</span>
      {terms.length > 1 &&
        terms.map((term, i) => (
          <Button
            key={i}
            small
            onClick={() => onFilter(terms.flatMap((t, j) => (j === i ? [] : [t.text])).join(' '))}
          >
            Without {term.text}
          </Button>
        ))}
      <Button small onClick={() => onFilter('')}>
        Show all rules
      </Button>
    </div>
  );
}
