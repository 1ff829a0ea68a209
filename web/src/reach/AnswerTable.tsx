import type { ReachAnswer, Rule } from '../api/types';
import { Wall } from '../rules/Wall';
import { Button } from '../ui/Button';
import { VERDICT_CLASS } from '../ui/verdicts';
import { columnsOf, groupsOf, type ReachLine } from './answer';

/** The parts of a question, each with the rule that decides it. */
export function AnswerTable({
  answer,
  numbers,
  byId,
  onRule,
  onProbe,
}: {
  answer: ReachAnswer;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  return (
    <table className="w-full table-fixed border-collapse text-[12px]">
      <colgroup>
        <col />
        <col />
        <col className="w-[27%]" />
        <col className="w-[112px]" />
      </colgroup>
      <thead>
        <tr className="text-left text-dim">
          <th className="py-1 pr-2 font-normal">who</th>
          <th className="py-1 pr-2 font-normal">to what</th>
          <th className="py-1 pr-2 font-normal">by</th>
          <th className="py-1 font-normal">verdict</th>
        </tr>
      </thead>
      {groupsOf(answer).map((group) => (
        <tbody key={group.name}>
          <tr>
            <th
              colSpan={4}
              scope="rowgroup"
              className="border-y border-line bg-band px-1 py-[2px] text-left font-semibold"
            >
              {group.name}
            </th>
          </tr>
          {group.lines.map((line, i) => (
            <Line
              key={`${line.rule ?? ''} ${i}`}
              line={line}
              numbers={numbers}
              byId={byId}
              onRule={onRule}
              onProbe={onProbe}
            />
          ))}
        </tbody>
      ))}
    </table>
  );
}

function Line({
  line,
  numbers,
  byId,
  onRule,
  onProbe,
}: {
  line: ReachLine;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const { who, to, what } = columnsOf(line);
  const rule = line.rule ? byId.get(line.rule) : undefined;
  const reached = [...to.map((value) => `to ${value}`), ...what];
  return (
    <tr className="group border-b border-line align-top">
      <td className="py-1 pr-2 break-words">{who.join(' · ') || 'everyone'}</td>
      <td className="py-1 pr-2 break-words">
        {reached.join(' · ') || 'everything'}
        {line.except.length > 0 && (
          <span className="block text-dim">
            but what {line.except.length === 1 ? 'rule' : `${line.except.length} rules above:`}{' '}
            {line.except
              .slice(0, 8)
              .map((id) => numbers.get(id) ?? '?')
              .join(', ')}
            {line.except.length > 8 && ' …'} {line.except.length === 1 ? 'decides' : 'decide'}
          </span>
        )}
      </td>
      <td className="py-1 pr-2">
        {line.rule ? (
          <button
            type="button"
            onClick={() => onRule(line.rule!)}
            className="min-h-[24px] cursor-pointer text-left break-words text-accent underline underline-offset-2"
          >
            {numbers.get(line.rule) ?? '?'} {rule?.name ?? ''}
          </button>
        ) : (
          <span className="text-dim">Default rule</span>
        )}
      </td>
      <td className="relative p-0">
        <span className="flex min-h-[30px] items-stretch gap-1">
          <span className="w-[52px] self-stretch">
            <Wall verdict={line.verdict} gate="real" />
          </span>
          <span className={`self-center font-semibold ${VERDICT_CLASS[line.verdict]}`}>
            {line.verdict}
          </span>
          <Button
            small
            title={line.witness}
            aria-label={`Probe ${line.witness}`}
            onClick={() => onProbe(line.witness)}
            className="absolute right-0 bottom-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
          >
            Probe
          </Button>
        </span>
      </td>
    </tr>
  );
}
