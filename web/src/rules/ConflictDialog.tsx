import { rulesIn, type Rule } from '../api/types';
import { ChipView } from './ChipView';
import { chipsOf, PARTS } from '../draft/criteria';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import type { DraftHandle } from '../draft/useDraft';

/** Shows what stands in the way of an edit and leaves the choice to the person. */
export function ConflictDialog({
  handle,
  numbers,
  byId,
}: {
  handle: DraftHandle;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
}) {
  const { problem, edit } = handle.conflict!;
  const conflict = problem.body.conflict!;
  const mine = rulesIn(edit).find((rule) => rule.id === conflict.key);
  const theirs = byId.get(conflict.key);
  const gone = conflict.what === 'rule' && !theirs;
  return (
    <Modal title="Edit conflict" onClose={() => handle.settleConflict(false)} wide>
      <p>{problem.body.detail} Choose which one to keep.</p>
      <div className="my-3 grid grid-cols-2 gap-3">
        <Version
          title={`${conflict.by}, ${time(conflict.at)}`}
          rule={theirs}
          number={numbers.get(conflict.key)}
        />
        <Version title="You" rule={mine} number={numbers.get(conflict.key)} />
      </div>
      <div className="flex justify-end gap-2">
        <Button autoFocus onClick={() => handle.settleConflict(false)}>
          Keep theirs
        </Button>
        <Button main disabled={gone} onClick={() => handle.settleConflict(true)}>
          Overwrite with mine
        </Button>
      </div>
    </Modal>
  );
}

const time = (at: string) =>
  new Date(at).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit', hour12: false });

function Version({
  title,
  rule,
  number,
}: {
  title: string;
  rule: Rule | undefined;
  number: number | undefined;
}) {
  return (
    <div className="rounded border border-line p-2">
      <p className="text-[12px] text-dim">{title}</p>
      {rule ? (
        <>
          <p className="font-semibold">
            {number} {rule.name}
          </p>
          {PARTS.map((part) => (
            <p key={part} className="mt-1 flex flex-wrap gap-1">
              <span className="text-[12px] text-dim">{part}</span>
              {chipsOf(rule, part).map((chip) => (
                <ChipView key={chip.criterion + chip.text + chip.except} chip={chip} />
              ))}
              {chipsOf(rule, part).length === 0 && (
                <span className="text-[12px] text-dim">any</span>
              )}
            </p>
          ))}
          <p className="mt-1">{rule.enabled === false ? 'disabled' : rule.verdict}</p>
        </>
      ) : (
        <p>the change to the order or to other things</p>
      )}
    </div>
  );
}
