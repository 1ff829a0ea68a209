import { GripVertical } from 'lucide-react';
import { memo } from 'react';
import { meshWords, openHoles } from '../draft/findings';
import { DragHandle, DropTarget } from './dragParts';
import { Hits } from './Hits';
import { Mesh } from './Mesh';
import { stateOf, type Fall, type StripProps } from './strip';
import { StripBody } from './StripBody';
import { StripVerdict } from './StripVerdict';

/**
 * One rule as a sentence of chips, with its number and mesh before it and the wall behind it.
 */
export const RuleStrip = memo(function RuleStrip(props: StripProps) {
  const { rule, number, standing, hits, fall, selected, focused, editing, actions } = props;
  return (
    <div
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
      {props.dragging && <DropTarget id={rule.id} />}
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
      <DragHandle
        id={rule.id}
        enabled={props.mayEdit}
        role="gridcell"
        className="flex w-[98px] shrink-0 items-start gap-2 pt-[3px]"
      >
        <StripMargin
          rule={rule}
          number={number}
          standing={standing}
          hits={hits}
          mayEdit={props.mayEdit}
        />
      </DragHandle>
      <StripBody
        rule={rule}
        number={number}
        standing={standing}
        numbers={props.numbers}
        turnedAway={props.turnedAway}
        editing={editing}
        mayEdit={props.mayEdit}
        origin={props.origin}
        below={props.below}
        actions={actions}
      />
      <StripVerdict
        rule={rule}
        number={number}
        decides={standing?.kind === 'decides'}
        mayEdit={props.mayEdit}
        actions={actions}
      />
    </div>
  );
});

/** The number of a rule, how much of its match gets to it, and its hits. */
const StripMargin = memo(function StripMargin({
  rule,
  number,
  standing,
  hits,
  mayEdit,
}: Pick<StripProps, 'rule' | 'number' | 'standing' | 'hits' | 'mayEdit'>) {
  const holes = openHoles(standing);
  return (
    <>
      <GripVertical
        size={13}
        aria-hidden
        className={`absolute top-[7px] left-[15px] text-dim opacity-0 ${mayEdit ? 'group-hover:opacity-100' : ''}`}
      />
      <span className="w-[43px] shrink-0 text-right text-dim">{number}</span>
      <span className="mt-[5px]">
        <Mesh open={holes} says={meshWords(holes, standing, stateOf(rule))} />
      </span>
      <Hits hits={hits} observing={rule.observeOnly ?? false} />
    </>
  );
});

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
