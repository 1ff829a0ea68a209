import { useState } from 'react';
import type { FloorSum } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';

/** What all floors add up to, against what the line carries. */
export function Capacity({
  sum,
  handle,
  mayEdit,
}: {
  sum: FloorSum;
  handle: DraftHandle;
  mayEdit: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const save = async () => {
    const problem = await handle.edit({
      kind: 'setLineCapacity',
      capacity: text?.trim() || undefined,
    });
    setRefused(problem ? problem.message : null);
    if (!problem) setText(null);
  };
  const over = sum.share !== undefined && sum.share > 1;
  return (
    <span className="flex flex-wrap items-baseline gap-2 text-[12px]">
      <span className={over ? 'text-drop' : 'text-dim'}>
        {sum.total} kept by floors
        {sum.lineCapacity && sum.share !== undefined
          ? ` of the ${sum.lineCapacity} of the line: ${Math.round(sum.share * 100)} %${
              over ? ', more than there is' : ''
            }`
          : '; nobody said what the line carries'}
      </span>
      {mayEdit &&
        (text === null ? (
          <Button small onClick={() => setText(sum.lineCapacity ?? '')}>
            {sum.lineCapacity ? 'Change the line' : 'Say it'}
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
              aria-label="What the line carries"
              placeholder="1 Gbit/s"
              autoFocus
              value={text}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Escape') setText(null);
              }}
              className="w-[100px] rounded border border-line px-2"
            />
            <Button small type="submit">
              Save
            </Button>
          </form>
        ))}
      {refused && (
        <span role="alert" className="text-drop">
          {refused}
        </span>
      )}
    </span>
  );
}
