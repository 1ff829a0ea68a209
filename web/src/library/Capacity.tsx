import type { FloorSum } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { InlineEdit } from '../ui/InlineEdit';

/** What floors add up to against what the line carries, in words, and whether that is too much. */
export function sumWords(sum: FloorSum): { says: string; over: boolean } {
  const over = sum.share !== undefined && sum.share > 1;
  const share =
    sum.lineCapacity && sum.share !== undefined
      ? ` of the ${sum.lineCapacity} of the line: ${Math.round(sum.share * 100)} %${
          over ? ', more than there is' : ''
        }`
      : '; nobody said what the line carries';
  return { says: `${sum.total} kept by floors${share}`, over };
}

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
  const { says, over } = sumWords(sum);
  return (
    <span className="flex flex-wrap items-baseline gap-2 text-[12px]">
      <span className={over ? 'text-drop' : 'text-dim'}>{says}</span>
      {mayEdit && (
        <InlineEdit
          label="What the line carries"
          button={sum.lineCapacity ? 'Change the line' : 'Say it'}
          value={sum.lineCapacity ?? ''}
          placeholder="1 Gbit/s"
          onSave={(text) => handle.edit({ kind: 'setLineCapacity', capacity: text || undefined })}
        />
      )}
    </span>
  );
}
