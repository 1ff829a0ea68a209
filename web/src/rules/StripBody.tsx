import { Lock, StickyNote } from 'lucide-react';
import { memo, useState } from 'react';
import type { Logging, Rule } from '../api/types';
import { PARTS } from '../draft/criteria';
import { gravest, shortFinding } from '../draft/findings';
import { focusRules } from '../ui/focus';
import { holdWords } from '../ui/verdicts';
import { NameEditor } from './NameEditor';
import { PartCell } from './PartCell';
import type { StripProps } from './strip';

export const LOG_WORDS: Record<Logging, string> = {
  off: 'log off',
  start: 'log at start',
  end: 'log at end',
  both: 'log start and end',
};

/** What the words of a strip depend on. */
type BodyProps = Omit<
  StripProps,
  'hits' | 'fall' | 'selected' | 'focused' | 'dragging' | 'dropLine' | 'placeMark'
>;

/** The name of a rule, what is to be said of it, and its sentence of chips. */
export const StripBody = memo(function StripBody(props: BodyProps) {
  const { rule, number, standing, editing, mayEdit, actions } = props;
  const [unfolded, setUnfolded] = useState(false);
  const off = rule.enabled === false;
  const finding = gravest(standing);
  const unfinished = rule.unfinished && !off && !editing;
  return (
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
  );
});

/** The days on which a rule decides, as short as they can be said. */
function daysOf(rule: Rule): string {
  if (!rule.start) return `until ${rule.end}`;
  return rule.end ? `${rule.start} to ${rule.end}` : `from ${rule.start}`;
}
