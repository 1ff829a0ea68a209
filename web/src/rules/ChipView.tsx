import { Laptop, UserRound } from 'lucide-react';
import { useContext, useEffect, useState } from 'react';
import { DraftContext } from './DraftContext';
import { MembersContext, useWords } from './members';
import type { Chip, CriterionName } from '../draft/criteria';
import { literalOf } from './completion';

const KIND_WORDS: Partial<Record<CriterionName, string>> = {
  fromZones: 'source zone',
  toZones: 'destination zone',
  fromAddresses: 'source address',
  toAddresses: 'destination address',
  services: 'service',
  person: 'person or group',
};

const literal = (chip: Chip) =>
  (['from', 'to', 'for'] as const).some((part) => literalOf(part, chip.text) === chip.criterion);

/**
 * One thing that a criterion names. Literals are monospaced, zones are set apart by their shape;
 * a set shows its present number of members, and lists them under the pointer.
 */
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
  const { count, words } = useContext(MembersContext)(chip);
  const [pointed, setPointed] = useState(false);
  const [asked, setAsked] = useState<string>();
  const members = words ?? asked;
  const zone = chip.criterion === 'fromZones' || chip.criterion === 'toZones';
  return (
    <span
      title={`${KIND_WORDS[chip.criterion] ?? chip.criterion}: ${chip.text}${members ? `\n${members}` : ''}`}
      onPointerEnter={() => setPointed(true)}
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
      {chip.criterion === 'person' && (
        <UserRound
          size={11}
          role="img"
          aria-label="person or group"
          className="shrink-0 text-dim"
        />
      )}
      {chip.criterion === 'device' && (
        <Laptop size={11} role="img" aria-label="device" className="shrink-0 text-dim" />
      )}
      <span className={`truncate ${literal(chip) ? 'font-mono text-[11.5px]' : ''}`}>
        {chip.text}
      </span>
      {count !== undefined && (
        <span className="shrink-0 text-[11px] text-dim tabular-nums">{count}</span>
      )}
      {pointed && count !== undefined && members === undefined && (
        <AskWords chip={chip} onWords={setAsked} />
      )}
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

/** Asks for the members of a chip that is pointed at; a query in every chip would slow the list. */
function AskWords({ chip, onWords }: { chip: Chip; onWords(words: string): void }) {
  const words = useWords(useContext(DraftContext), chip);
  useEffect(() => {
    if (words !== undefined) onWords(words);
  }, [words, onWords]);
  return null;
}
