import { useId, useState } from 'react';
import { Button } from './Button';

/** A short text that is edited in place, with its error beside it. */
export function InlineEdit({
  label,
  button,
  value,
  placeholder,
  choices,
  onSave,
}: {
  label: string;
  button: string;
  value: string;
  placeholder: string;
  /** What the text may be, if that is known. */
  choices?: string[];
  onSave(text: string): Promise<{ message: string } | null>;
}) {
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const list = useId();
  const save = async () => {
    const problem = await onSave(text!.trim());
    setRefused(problem ? problem.message : null);
    if (!problem) setText(null);
  };
  return (
    <>
      {text === null ? (
        <Button small onClick={() => setText(value)}>
          {button}
        </Button>
      ) : (
        <form
          className="flex items-baseline gap-1"
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          <input
            aria-label={label}
            placeholder={placeholder}
            autoFocus
            list={choices && list}
            value={text}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Escape') setText(null);
            }}
            className="w-[150px] rounded border border-line px-2"
          />
          {choices && (
            <datalist id={list}>
              {choices.map((choice) => (
                <option key={choice} value={choice} />
              ))}
            </datalist>
          )}
          <Button small type="submit">
            Save
          </Button>
        </form>
      )}
      {refused && (
        <span role="alert" className="text-drop">
          {refused}
        </span>
      )}
    </>
  );
}
