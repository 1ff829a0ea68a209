import type { FloorSum } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { InlineEdit } from '../ui/InlineEdit';

/** The sum of all floors against the capacity of the line, in words, and whether it is too much. */
export function sumWords(sum: FloorSum): { text: string; over: boolean } {
  if (!sum.lineCapacity || sum.share === undefined) {
    return { text: `Floors reserve ${sum.total}; the line capacity is unknown`, over: false };
  }
  const over = sum.share > 1;
  const share = `${Math.round(sum.share * 100)} %`;
  return {
    text: `Floors reserve ${sum.total} of ${sum.lineCapacity} (${share})${over ? ': over capacity' : ''}`,
    over,
  };
}

/** The sum of all floors, and the capacity of the line. */
export function Capacity({
  sum,
  handle,
  mayEdit,
}: {
  sum: FloorSum;
  handle: DraftHandle;
  mayEdit: boolean;
}) {
  const { text, over } = sumWords(sum);
  return (
    <span className="flex flex-wrap items-baseline gap-2 text-[12px]">
      <span className={over ? 'text-drop' : 'text-dim'}>{text}</span>
      {mayEdit && (
        <InlineEdit
          label="Line capacity"
          button={sum.lineCapacity ? 'Edit line capacity' : 'Add line capacity'}
          value={sum.lineCapacity ?? ''}
          placeholder="1 Gbit/s"
          onSave={(text) => handle.edit({ kind: 'setLineCapacity', capacity: text || undefined })}
        />
      )}
    </span>
  );
}
