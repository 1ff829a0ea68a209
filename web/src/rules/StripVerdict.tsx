import { MoreHorizontal } from 'lucide-react';
import { memo } from 'react';
import type { Logging, Opening, Rule, Verdict } from '../api/types';
import { MenuItem, MenuLine } from '../ui/Menu';
import { VERDICT_CLASS } from '../ui/verdicts';
import type { RuleActions } from './actions';
import { menuCommands, type MenuGroup } from './commands';
import { LazyMenu } from '../ui/LazyMenu';
import { stateOf, type StripProps } from './strip';
import { LOG_WORDS } from './StripBody';
import { Wall } from './Wall';

const VERDICTS: Verdict[] = ['allow', 'drop', 'reject', 'caution'];
const LOGS = Object.entries(LOG_WORDS) as [Logging, string][];

const OPENINGS: [Opening, string][] = [
  ['sealed', 'Leave encrypted connections sealed'],
  ['opened', 'Open encrypted connections'],
];

const VERDICT_SAYS: Record<Verdict, string> = {
  allow: 'let it through',
  drop: 'refuse silently',
  reject: 'refuse and tell the sender',
  caution: 'show a notice first',
};

/** The wall behind a rule, its verdict, and the menu of everything that can be done to it. */
export const StripVerdict = memo(function StripVerdict({
  rule,
  number,
  decides,
  mayEdit,
  actions,
}: Pick<StripProps, 'rule' | 'number' | 'mayEdit' | 'actions'> & {
  /** Whether some connection gets to it. */
  decides: boolean;
}) {
  const state = stateOf(rule);
  const off = rule.enabled === false;
  const gate = state ? (rule.observeOnly && !off ? 'ghost' : 'gone') : decides ? 'real' : 'ghost';
  return (
    <div role="gridcell" className="flex w-[150px] shrink-0 self-stretch">
      <Wall verdict={rule.verdict} gate={gate} />
      <div className="flex min-w-0 flex-1 items-center pl-1">
        {mayEdit ? (
          <LazyMenu
            attributes={{
              'data-verdict': rule.id,
              'aria-label': `Verdict of rule ${number}: ${rule.verdict}`,
              className: `cursor-pointer rounded px-1 font-semibold hover:bg-chip ${
                state ? 'text-dim' : VERDICT_CLASS[rule.verdict]
              }`,
            }}
            label={state ?? rule.verdict}
          >
            {() =>
              VERDICTS.map((verdict) => (
                <MenuItem key={verdict} onSelect={() => actions.setVerdict(rule, verdict)}>
                  <span className={`font-semibold ${VERDICT_CLASS[verdict]}`}>{verdict}</span>
                  <span className="text-dim">{VERDICT_SAYS[verdict]}</span>
                </MenuItem>
              ))
            }
          </LazyMenu>
        ) : (
          <span
            className={`px-1 font-semibold ${state ? 'text-dim' : VERDICT_CLASS[rule.verdict]}`}
          >
            {state ?? rule.verdict}
          </span>
        )}
        {mayEdit && <StripMenu rule={rule} number={number} actions={actions} />}
      </div>
    </div>
  );
});

function StripMenu({ rule, number, actions }: Pick<StripProps, 'rule' | 'number' | 'actions'>) {
  return (
    <LazyMenu
      attributes={{
        'data-menu': rule.id,
        'aria-label': `Actions on rule ${number}`,
        className:
          'ml-auto mr-2 cursor-pointer rounded p-1 text-dim opacity-0 group-hover:opacity-100 hover:bg-chip focus:opacity-100 data-[state=open]:opacity-100',
      }}
      label={<MoreHorizontal size={15} />}
    >
      {() => (
        <>
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
        </>
      )}
    </LazyMenu>
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
