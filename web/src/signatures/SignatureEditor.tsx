import { Plus, X } from 'lucide-react';
import { Button } from '../ui/Button';
import { freeKind, KINDS, type Member, type Typed } from '../catalogue/conditions';

/** A signature as it is being written. */
export interface Writing {
  application: string;
  feature: string;
  conditions: Typed[];
}

/** The application and the conditions of a signature, each changed in place. */
export function SignatureEditor({
  writing,
  names,
  firstBytes,
  onChange,
}: {
  writing: Writing;
  names: string[];
  /** Of the chosen connection's client, hexadecimal; empty if it sent nothing. */
  firstBytes: string;
  onChange(next: Writing): void;
}) {
  const { conditions } = writing;
  const put = (at: number, next: Partial<Typed>) =>
    onChange({
      ...writing,
      conditions: conditions.map((c, i) => (i === at ? { ...c, ...next } : c)),
    });
  const add = (member: Member, text = '') =>
    onChange({ ...writing, conditions: [...conditions, { member, text }] });
  const free = freeKind(conditions);
  const start = firstBytes.split(' ').slice(0, 4).join(' ');
  return (
    <div>
      <div className="flex gap-2">
        <label className="min-w-0 flex-1 text-[12px] text-dim">
          Application
          <input
            value={writing.application}
            list="signature-applications"
            onChange={(e) => onChange({ ...writing, application: e.target.value })}
            className="block w-full rounded border border-dim px-2 py-1 text-[13px] text-ink"
          />
        </label>
        <datalist id="signature-applications">
          {names.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        <label className="w-[130px] text-[12px] text-dim">
          Feature (optional)
          <input
            value={writing.feature}
            onChange={(e) => onChange({ ...writing, feature: e.target.value })}
            className="block w-full rounded border border-dim px-2 py-1 text-[13px] text-ink"
          />
        </label>
      </div>
      <ul className="mt-2 space-y-1">
        {conditions.map((condition, at) => (
          <li key={condition.member} className="flex items-center gap-1">
            <select
              aria-label={`Condition ${at + 1}`}
              value={condition.member}
              onChange={(e) => put(at, { member: e.target.value as Member })}
              className="w-[160px] shrink-0 rounded border border-line bg-sheet px-1 py-1"
            >
              {KINDS.filter(
                (kind) =>
                  kind.member === condition.member ||
                  !conditions.some((other) => other.member === kind.member),
              ).map((kind) => (
                <option key={kind.member} value={kind.member}>
                  {kind.word}
                </option>
              ))}
            </select>
            <input
              aria-label={`Value of condition ${at + 1}`}
              value={condition.text}
              placeholder={KINDS.find((kind) => kind.member === condition.member)?.hint}
              onChange={(e) => put(at, { text: e.target.value })}
              className="min-w-0 flex-1 rounded border border-dim px-2 py-1 font-mono text-[12px]"
            />
            <Button
              small
              aria-label={`Delete condition ${at + 1}`}
              onClick={() =>
                onChange({ ...writing, conditions: conditions.filter((_, i) => i !== at) })
              }
            >
              <X size={13} aria-hidden className="my-[3px]" />
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        {free && (
          <Button small onClick={() => add(free)}>
            <Plus size={13} aria-hidden className="mr-1 inline" />
            Condition
          </Button>
        )}
        {start && !conditions.some((c) => c.member === 'client') && (
          <Button small onClick={() => add('client', start)}>
            Begin with {start}
          </Button>
        )}
      </div>
    </div>
  );
}
