import type { Chip } from './criteria';
import { literalOf } from './completion';

const literal = (chip: Chip) =>
  (['from', 'to', 'for'] as const).some((part) => literalOf(part, chip.text) === chip.criterion);

/** One thing that a criterion names. Literals are monospaced, zones are set apart by their shape. */
export function ChipView({
  chip,
  blocked,
  onRemove,
}: {
  chip: Chip;
  /** Whether this criterion turned the probe away. */
  blocked?: boolean;
  onRemove?: () => void;
}) {
  const zone = chip.criterion === 'fromZones' || chip.criterion === 'toZones';
  return (
    <span
      title={chip.text}
      data-blocked={blocked || undefined}
      className={`inline-flex max-w-full items-center gap-1 px-[5px] text-[12px] leading-[18px] ${
        zone
          ? 'rounded-[9px] border border-line bg-sheet'
          : 'rounded-[3px] border border-transparent group-aria-selected:border-line'
      } ${
        blocked
          ? 'bg-accent-soft text-accent shadow-[inset_0_-2px_0_var(--accent)]'
          : zone
            ? ''
            : 'bg-chip'
      }`}
    >
      {chip.except && <span className="text-drop">not</span>}
      <span className={`truncate ${literal(chip) ? 'font-mono text-[11.5px]' : ''}`}>
        {chip.text}
      </span>
      {onRemove && (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`Remove ${chip.text}`}
          onClick={onRemove}
          className="-mr-1 cursor-pointer rounded px-1 text-dim hover:bg-line hover:text-ink"
        >
          ×
        </button>
      )}
    </span>
  );
}
