import { menuCommands, type MenuGroup } from './commands';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { DropdownMenu } from 'radix-ui';
import { GripVertical, Lock, MoreHorizontal, StickyNote } from 'lucide-react';
import { memo, useContext, useState } from 'react';
import type { Logging, Opening, Rule, RuleHits, Standing, Verdict } from '../api/types';
import { gravest, meshWords, openHoles, shortFinding } from '../draft/findings';
import { Menu, MenuItem, MenuLine } from '../ui/Menu';
import type { EditedPart, RuleActions } from './actions';
import { ChipEditor } from './ChipEditor';
import { ChipView } from './ChipView';
import { MembersContext } from './members';
import { chipsOf, fitting, PARTS, type CriterionName, type Part } from '../draft/criteria';
import { Hits } from './Hits';
import { Mesh } from './Mesh';
import { NameEditor } from './NameEditor';
import { useChipRoom } from './useChipRoom';
import { Wall } from './Wall';
import { focusRules } from '../ui/focus';
import { holdWords } from '../ui/verdicts';

/** What a falling probe did here. */
export type Fall = 'none' | 'passed' | 'caught';

export interface StripProps {
  rule: Rule;
  number: number;
  standing: Standing | undefined;
  hits: RuleHits | undefined;
  numbers: Map<string, number>;
  fall: Fall;
  turnedAway: string[] | undefined;
  selected: boolean;
  focused: boolean;
  editing: EditedPart | null;
  mayEdit: boolean;
  /** Name of the common rulebase that it is from. */
  origin: string | undefined;
  /** That it decides nothing in some rulebases below. */
  below: string | null;
  dropLine: 'above' | 'below' | null;
  /** During a drag: what would change if the rule were dropped above this one. */
  placeMark: string | null;
  actions: RuleActions;
}

const VERDICTS: Verdict[] = ['allow', 'drop', 'reject', 'caution'];
const VERDICT_CLASS: Record<Verdict, string> = {
  allow: 'text-allow',
  drop: 'text-drop',
  reject: 'text-reject',
  caution: 'text-caution',
};
const LOG_WORDS: Record<Logging, string> = {
  off: 'log off',
  start: 'log at start',
  end: 'log at end',
  both: 'log start and end',
};
const LOGS = Object.entries(LOG_WORDS) as [Logging, string][];

const OPENINGS: [Opening, string][] = [
  ['sealed', 'Leave encrypted connections sealed'],
  ['opened', 'Open encrypted connections'],
];

/** One rule as a sentence of chips, with its number and mesh before it and the wall behind it. */
export const RuleStrip = memo(function RuleStrip(props: StripProps) {
  const { rule, number, standing, fall, selected, focused, editing, mayEdit, actions } = props;
  const [unfolded, setUnfolded] = useState(false);
  const { setNodeRef: dragRef, listeners } = useDraggable({ id: rule.id, disabled: !mayEdit });
  const { setNodeRef: dropRef } = useDroppable({ id: rule.id });
  const off = rule.enabled === false;
  const finding = gravest(standing);
  const state = off
    ? 'disabled'
    : rule.unfinished
      ? 'unfinished'
      : rule.observeOnly
        ? 'observe only'
        : null;
  const gate = state
    ? rule.observeOnly && !off
      ? 'ghost'
      : 'gone'
    : standing?.kind === 'decides'
      ? 'real'
      : 'ghost';
  const holes = openHoles(standing);
  const unfinished = rule.unfinished && !off && !editing;
  return (
    <div
      ref={dropRef}
      role="row"
      aria-rowindex={number}
      aria-selected={selected}
      id={`rule-${rule.id}`}
      data-focused={focused || undefined}
      data-rule={rule.id}
      onClick={(e) =>
        actions.focus(rule.id, e.shiftKey ? 'range' : e.ctrlKey || e.metaKey ? 'toggle' : 'alone')
      }
      className={`group relative flex min-h-[50px] border-b border-line pl-4 ${
        selected ? 'bg-accent-soft' : fall === 'caught' ? 'bg-accent-soft' : 'bg-sheet'
      }`}
    >
      <FallLine fall={fall} />
      {props.placeMark && (
        <span
          className={`absolute -top-[9px] left-[4px] z-10 rounded border px-1 text-[11px] leading-[16px] ${
            props.placeMark === 'quiet'
              ? 'border-line bg-sheet text-dim'
              : 'border-caution bg-sheet font-semibold text-caution'
          }`}
        >
          {props.placeMark}
        </span>
      )}
      {props.dropLine && (
        <div
          className={`absolute inset-x-0 z-10 h-[3px] bg-accent ${
            props.dropLine === 'above' ? '-top-[2px]' : '-bottom-[2px]'
          }`}
        />
      )}
      <div
        role="gridcell"
        ref={dragRef}
        {...listeners}
        className={`flex w-[98px] shrink-0 items-start gap-2 pt-[3px] ${mayEdit ? 'cursor-grab' : ''}`}
      >
        <GripVertical
          size={13}
          aria-hidden
          className={`absolute top-[7px] left-[15px] text-dim opacity-0 ${mayEdit ? 'group-hover:opacity-100' : ''}`}
        />
        <span className="w-[43px] shrink-0 text-right text-dim">{number}</span>
        <span className="mt-[5px]">
          <Mesh open={holes} says={meshWords(holes, standing, state)} />
        </span>
        <Hits hits={props.hits} observing={rule.observeOnly ?? false} />
      </div>
      <div role="gridcell" className="min-w-0 flex-1 pt-[4px] pb-[3px]">
        <div className="flex min-h-[18px] items-center gap-2 leading-[18px]">
          {editing === 'name' ? (
            <NameEditor
              label={`Name of rule ${number}`}
              name={rule.name}
              onDone={(name) => void actions.rename(rule, name)}
              onEnd={actions.endEdit}
            />
          ) : (
            <span
              onDoubleClick={() => mayEdit && actions.startEdit(rule.id, 'name')}
              className={`min-w-0 truncate font-semibold ${off ? 'text-dim line-through' : ''}`}
              title={rule.name}
            >
              {rule.name}
            </span>
          )}
          {unfinished && (
            <span className="shrink-0 text-[12px] text-caution">
              decides nothing until it has a criterion
            </span>
          )}
          {finding && (
            <span
              className={`shrink-0 text-[12px] font-semibold ${
                finding.severity === 'error' ? 'text-drop' : 'text-caution'
              }`}
            >
              {shortFinding(finding, props.numbers)}
            </span>
          )}
          {props.below && (
            <span className="shrink-0 text-[12px] font-semibold text-caution">{props.below}</span>
          )}
          <span className="ml-auto flex shrink-0 items-center gap-2 pl-2 text-[12px] leading-[18px] text-dim">
            {props.origin && (
              <Lock size={12} aria-label={`from ${props.origin}`} className="self-center" />
            )}
            {rule.note && <StickyNote size={12} aria-label="has a note" className="self-center" />}
            {(rule.tags ?? []).slice(0, 2).map((tag) => (
              <span key={tag} className="max-w-[80px] truncate">
                #{tag}
              </span>
            ))}
            {(rule.start || rule.end) && <span>{daysOf(rule)}</span>}
            {rule.ratePlan && <span className="max-w-[120px] truncate">plan {rule.ratePlan}</span>}
            {rule.hold && <span>hold {holdWords(rule.hold)}</span>}
            {rule.opening === 'opened' && <span>opened</span>}
            {rule.log && rule.log !== 'off' && <span>{LOG_WORDS[rule.log]}</span>}
          </span>
        </div>
        <div className="mt-[2px] grid grid-cols-[minmax(0,11fr)_minmax(0,10fr)_minmax(0,11fr)] items-start gap-x-2">
          {PARTS.map((part) => (
            <PartCell
              key={part}
              {...props}
              part={part}
              unfolded={unfolded}
              onFold={() => {
                setUnfolded(!unfolded);
                focusRules(); // since the button goes
              }}
            />
          ))}
        </div>
      </div>
      <div role="gridcell" className="flex w-[150px] shrink-0 self-stretch">
        <Wall verdict={rule.verdict} gate={gate} />
        <div className="flex min-w-0 flex-1 items-center pl-1">
          {mayEdit ? (
            <DropdownMenu.Root>
              <DropdownMenu.Trigger
                data-verdict={rule.id}
                aria-label={`Verdict of rule ${number}: ${rule.verdict}`}
                className={`cursor-pointer rounded px-1 font-semibold hover:bg-chip ${
                  state ? 'text-dim' : VERDICT_CLASS[rule.verdict]
                }`}
              >
                {state ?? rule.verdict}
              </DropdownMenu.Trigger>
              <Menu inList>
                {VERDICTS.map((verdict) => (
                  <MenuItem key={verdict} onSelect={() => actions.setVerdict(rule, verdict)}>
                    <span className={`font-semibold ${VERDICT_CLASS[verdict]}`}>{verdict}</span>
                    <span className="text-dim">{VERDICT_SAYS[verdict]}</span>
                  </MenuItem>
                ))}
              </Menu>
            </DropdownMenu.Root>
          ) : (
            <span
              className={`px-1 font-semibold ${state ? 'text-dim' : VERDICT_CLASS[rule.verdict]}`}
            >
              {state ?? rule.verdict}
            </span>
          )}
          {mayEdit && <StripMenu {...props} />}
        </div>
      </div>
    </div>
  );
});

/** The days on which a rule decides, as short as they can be said. */
function daysOf(rule: Rule): string {
  if (!rule.start) return `until ${rule.end}`;
  return rule.end ? `${rule.start} to ${rule.end}` : `from ${rule.start}`;
}

const VERDICT_SAYS: Record<Verdict, string> = {
  allow: 'let it through',
  drop: 'refuse silently',
  reject: 'refuse and tell the sender',
  caution: 'show a notice first',
};

/** The probe's way down the left edge. */
export function FallLine({ fall }: { fall: Fall }) {
  if (fall === 'none') return null;
  return (
    <div aria-hidden className="absolute inset-y-0 left-[10px] w-[2px]">
      <div className={`w-full bg-accent ${fall === 'caught' ? 'h-1/2' : 'h-full'}`} />
      {fall === 'caught' && (
        <div className="absolute top-1/2 left-1/2 size-[10px] -translate-1/2 rounded-full bg-accent" />
      )}
    </div>
  );
}

function PartCell({
  rule,
  number,
  part,
  editing,
  mayEdit,
  turnedAway,
  actions,
  unfolded,
  onFold,
}: StripProps & { part: Part; unfolded: boolean; onFold: () => void }) {
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

function StripMenu({ rule, number, actions }: StripProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        data-menu={rule.id}
        aria-label={`Actions on rule ${number}`}
        className="ml-auto mr-2 cursor-pointer rounded p-1 text-dim opacity-0 group-hover:opacity-100 hover:bg-chip focus:opacity-100 data-[state=open]:opacity-100"
      >
        <MoreHorizontal size={15} />
      </DropdownMenu.Trigger>
      <Menu inList>
        <RuleCommands group="rule" rule={rule} actions={actions} />
        <MenuLine />
        <RuleCommands group="move" rule={rule} actions={actions} />
        <MenuLine />
        {LOGS.map(([logging, words]) => (
          <MenuItem
            key={logging}
            checked={(rule.log ?? 'off') === logging}
            onSelect={() => actions.setLogging(rule, logging)}
          >
            {words[0]!.toUpperCase() + words.slice(1)}
          </MenuItem>
        ))}
        <MenuLine />
        {OPENINGS.map(([opening, words]) => (
          <MenuItem
            key={opening}
            checked={(rule.opening ?? 'sealed') === opening}
            onSelect={() => actions.setOpening(rule, opening)}
          >
            {words}
          </MenuItem>
        ))}
        <MenuLine />
        <RuleCommands group="delete" rule={rule} actions={actions} />
      </Menu>
    </DropdownMenu.Root>
  );
}

/** A group of commands in the menu of a rule. */
function RuleCommands({
  group,
  rule,
  actions,
}: {
  group: MenuGroup;
  rule: Rule;
  actions: RuleActions;
}) {
  return menuCommands(rule, group).map((command) => (
    <MenuItem
      key={command.words()}
      keys={command.keys[0]}
      onSelect={() => command.run(rule, actions)}
    >
      {command.words(rule)}
    </MenuItem>
  ));
}
