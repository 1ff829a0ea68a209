import type { useCompletion } from './useCompletion';

/** The completions below a text box, each with a detail. */
export function CompletionList<Option extends { text: string; detail: string }>({
  box,
  options,
  label,
}: {
  box: ReturnType<typeof useCompletion<Option>>;
  options: Option[];
  label: string;
}) {
  return (
    <div className="relative">
      <ul
        {...box.menu({ 'aria-label': label })}
        hidden={options.length === 0}
        className="absolute z-20 max-h-[260px] w-full overflow-auto rounded border border-line bg-sheet py-1 shadow-lg"
      >
        {options.map((option, i) => (
          <li
            key={`${option.detail} ${option.text}`}
            {...box.option(i)}
            className={`flex cursor-pointer gap-2 px-2 text-[12px] ${i === box.at ? 'bg-accent-soft' : ''}`}
          >
            <span className="shrink-0">{option.text}</span>
            <span className="ml-auto truncate text-dim">{option.detail}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
