import { useContext } from 'react';
import { chipsOf, fitting, type CriterionName, type Part } from '../draft/criteria';
import { ChipEditor } from './ChipEditor';
import { ChipView } from './ChipView';
import { MembersContext } from './members';
import type { StripProps } from './strip';
import { useChipRoom } from './useChipRoom';

/** One part of a rule's sentence: its chips, as many as there is room for, or their editor. */
export function PartCell({
  rule,
  number,
  part,
  editing,
  mayEdit,
  turnedAway,
  actions,
  unfolded,
  onFold,
}: Pick<StripProps, 'rule' | 'number' | 'editing' | 'mayEdit' | 'turnedAway' | 'actions'> & {
  part: Part;
  unfolded: boolean;
  onFold: () => void;
}) {
  const members = useContext(MembersContext);
  const chips = chipsOf(rule, part);
  const room = useChipRoom(part);
  if (editing === part) {
    return <ChipEditor rule={rule} number={number} part={part} actions={actions} />;
  }
  const fit = fitting(chips, room, (chip) => {
    const { count } = members(chip);
    return count === undefined ? 0 : `${count}`.length + 1;
  });
  const shown = unfolded ? chips.length : fit;
  const blocked = (criterion: CriterionName) => turnedAway?.includes(criterion) ?? false;
  return (
    <div
      data-part={part}
      className={`relative flex min-w-0 items-center gap-1 ${unfolded ? 'flex-wrap' : 'overflow-hidden'} ${
        rule.enabled === false ? 'opacity-75' : ''
      }`}
      onDoubleClick={() => mayEdit && actions.startEdit(rule.id, part)}
    >
      <span
        className={`shrink-0 text-[12px] text-dim ${chips.length ? '' : 'opacity-0 group-hover:opacity-100'}`}
      >
        {part}
      </span>
      {chips.slice(0, shown).map((chip, i) => (
        <ChipView key={i} chip={chip} blocked={blocked(chip.criterion)} />
      ))}
      {shown < chips.length && (
        <button
          type="button"
          aria-label={`Show ${chips.length - shown} more`}
          onClick={onFold}
          className="cursor-pointer rounded px-1 text-[12px] text-dim hover:bg-chip"
        >
          +{chips.length - shown}
        </button>
      )}
      {unfolded && chips.length > fit && (
        <button
          type="button"
          aria-label="Show fewer"
          onClick={onFold}
          className="cursor-pointer rounded px-1 text-[12px] text-dim hover:bg-chip"
        >
          fewer
        </button>
      )}
      {mayEdit && shown === chips.length && (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`Edit "${part}" of rule ${number}`}
          onClick={(e) => {
            e.stopPropagation();
            actions.focus(rule.id);
            actions.startEdit(rule.id, part);
          }}
          className={`cursor-pointer rounded border border-dashed border-dim bg-sheet px-1 text-[12px] leading-4 text-dim opacity-0 group-hover:opacity-100 focus:opacity-100 ${
            chips.length ? 'absolute top-[2px] right-0' : ''
          }`}
        >
          {chips.length
            ? '+'
            : part === 'for'
              ? 'anything'
              : part === 'from'
                ? 'anyone'
                : 'anywhere'}
        </button>
      )}
    </div>
  );
}
