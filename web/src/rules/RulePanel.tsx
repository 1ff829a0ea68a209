import { useState } from 'react';
import type { Draft, Rule, Standing } from '../api/types';
import { Origin } from '../common/Origin';
import { RuleBelowList } from '../common/RuleBelow';
import { useBelow } from '../common/useBelow';
import { holdWords, letsThrough } from '../ui/verdicts';
import {
  FINDING_WORDS,
  longFinding,
  MENDABLE,
  reachWords,
  type FindingKind,
} from '../draft/findings';
import { RuleLog } from './RuleLog';
import { Button } from '../ui/Button';
import type { RuleActions } from './actions';
import { KeptFields } from './KeptFields';

/** What is known of the rule in focus: its standing with the proof, and its note. */
export function RulePanel({
  draft,
  rule,
  standing,
  numbers,
  byId,
  mayEdit,
  origin,
  selected = 1,
  actions,
  onMend,
  onLog,
}: {
  draft: Draft;
  rule: Rule;
  standing: Standing | undefined;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  /** Name of the common rulebase that it is from. */
  origin: string | undefined;
  /** How many rules are selected, with this one. */
  selected?: number;
  actions: RuleActions;
  /** Shows the ways to remove a finding. */
  onMend(kind: FindingKind): void;
  /** Shows the log records of a rule. */
  onLog(rule: string): void;
}) {
  return (
    <section aria-label="Rule in focus" className="p-3">
      <h2 className="text-[12px] font-semibold text-dim">Rule {numbers.get(rule.id)}</h2>
      <p className="font-semibold break-words">{rule.name}</p>
      {selected > 1 && mayEdit && (
        <p className="my-1 rounded bg-accent-soft px-2 py-1 text-[12px]">
          {selected} rules are selected. Verdict, log, opening, rate plan, notice, hold, owner, tags
          and dates change in all of them; <kbd className="font-sans">r</kbd> replaces a chip.
        </p>
      )}
      {origin && (
        <p>
          <Origin name={origin} rule={rule.id} />
        </p>
      )}
      {standing && !rule.unfinished && !rule.observeOnly && reachWords(standing) && (
        <p className="mt-1">{reachWords(standing)}</p>
      )}
      {standing?.witness && standing.findings.length === 0 && (
        <Witness
          heading="A connection that it decides:"
          line={standing.witness}
          probe={actions.probe}
        />
      )}
      {standing?.findings.map((finding, i, all) => (
        <div
          key={`${finding.kind} ${finding.detail ?? ''}`}
          className="mt-2 border-t border-line pt-2"
          data-finding={finding.kind}
        >
          <h3 className={`text-[12px] font-semibold ${SEVERITY_CLASS[finding.severity]}`}>
            {FINDING_WORDS[finding.kind]}
          </h3>
          <p>{longFinding(rule, finding, numbers, byId)}</p>
          {mayEdit && MENDABLE.has(finding.kind) && (
            <Button className="mt-1" onClick={() => onMend(finding.kind)}>
              Repairs…
            </Button>
          )}
          {mayEdit && finding.kind === 'shadowed' && (
            <Button className="mt-1 ml-2" onClick={() => actions.placeIt(rule)}>
              Place it… <kbd className="font-sans">g</kbd>
            </Button>
          )}
          {finding.witness && finding.witness !== all[i - 1]?.witness && (
            <Witness heading="Witness:" line={finding.witness} probe={actions.probe} />
          )}
        </div>
      ))}
      {draft.kind === 'common' && <Below draft={draft} rule={rule.id} />}
      {rule.unfinished && (
        <div className="mt-2 border-t border-line pt-2">
          <h3 className="text-[12px] font-semibold text-caution">unfinished</h3>
          <p>
            It decides nothing until it has a criterion, or you confirm that it is for any
            connection.
          </p>
          {mayEdit && (
            <Button className="mt-1" onClick={() => actions.forAny(rule)}>
              For any connection
            </Button>
          )}
        </div>
      )}
      <RuleLog
        draft={draft.id}
        zone={draft.timeZone}
        rule={rule}
        mayEdit={mayEdit}
        onDecide={() => actions.observe(rule.id)}
        onLog={() => onLog(rule.id)}
      />
      <NoEffect rule={rule} />
      <Named
        label="Rate plan"
        none="No limit"
        names={draft.ratePlans.map((plan) => plan.name!)}
        said={rule.ratePlan}
        mayEdit={mayEdit}
        onChange={(name) => actions.setRatePlan(rule, name)}
      />
      {(rule.notice || rule.verdict === 'caution' || rule.verdict === 'reject') && (
        <Named
          label="Notice"
          none="the gateway's own page"
          names={draft.notices.map((notice) => notice.name!)}
          said={rule.notice}
          mayEdit={mayEdit}
          onChange={(name) => actions.setNotice(rule, name)}
        />
      )}
      <Hold rule={rule} mayEdit={mayEdit} onChange={(minutes) => actions.setHold(rule, minutes)} />
      <KeptFields key={`kept ${rule.id}`} rule={rule} mayEdit={mayEdit} actions={actions} />
      <Note key={rule.id} rule={rule} mayEdit={mayEdit} actions={actions} />
    </section>
  );
}

/** What a rule of a common draft does in the rulebases below. */
function Below({ draft, rule }: { draft: Draft; rule: string }) {
  return <RuleBelowList rule={rule} below={useBelow(draft)} />;
}

/** Settings of the rule that have no effect with its verdict. */
function NoEffect({ rule }: { rule: Rule }) {
  const lets = letsThrough(rule.verdict);
  const without = [
    rule.notice && (rule.verdict === 'drop' || rule.verdict === 'allow') && 'its notice',
    rule.ratePlan && !lets && 'its rate plan',
    rule.opening === 'opened' && !lets && 'opening',
    rule.log === 'end' && !lets && 'logging at the end: a refused connection has none',
  ].filter(Boolean);
  return without.length ? (
    <p className="mt-2 text-[12px] text-caution">
      Without effect, since it is {rule.verdict}: {without.join('; ')}.
    </p>
  ) : null;
}

const SEVERITY_CLASS = { error: 'text-drop', warning: 'text-caution', note: 'text-dim' };

function Witness({
  heading,
  line,
  probe,
}: {
  heading: string;
  line: string;
  probe: (line: string) => void;
}) {
  return (
    <>
      <p className="mt-2 text-[12px] text-dim">{heading}</p>
      <p className="font-mono text-[11.5px] leading-4 break-words" data-witness>
        {line}
      </p>
      <Button className="mt-1" onClick={() => probe(line)}>
        Probe this witness
      </Button>
    </>
  );
}

/** Which rate plan or notice the rule has. */
function Named({
  label,
  none,
  names,
  said,
  mayEdit,
  onChange,
}: {
  label: string;
  none: string;
  names: string[];
  said: string | undefined;
  mayEdit: boolean;
  onChange(name: string): void;
}) {
  const chosen = names.find((name) => name.toLowerCase() === said?.toLowerCase()) ?? '';
  if (!mayEdit || names.length === 0) {
    return said ? (
      <p className="mt-3 text-[12px] text-dim">
        {label}: {said}
      </p>
    ) : null;
  }
  return (
    <label className="mt-3 flex items-center gap-2 text-[12px] text-dim">
      {label}
      <select
        value={chosen}
        onChange={(e) => onChange(e.target.value)}
        className="min-w-0 flex-1 rounded border border-line px-1 py-px text-[13px] text-ink"
      >
        <option value="">{none}</option>
        {names.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}

const HOLDS = [5, 15, 60, 4 * 60, 24 * 60]; // minutes

/** For how long whoever a rule refused is refused everything. */
function Hold({
  rule,
  mayEdit,
  onChange,
}: {
  rule: Rule;
  mayEdit: boolean;
  onChange(minutes: number): void;
}) {
  if (!rule.hold && (!mayEdit || letsThrough(rule.verdict))) return null;
  if (!mayEdit) return <p className="mt-3 text-[12px] text-dim">Hold: {holdWords(rule.hold!)}</p>;
  const choices = rule.hold && !HOLDS.includes(rule.hold) ? [...HOLDS, rule.hold] : HOLDS;
  return (
    <label
      className="mt-3 flex items-center gap-2 text-[12px] text-dim"
      title="Whoever this rule refuses is refused everything for that time: the person, or the address where nobody is signed in."
    >
      Hold
      <select
        value={rule.hold ?? 0}
        onChange={(e) => onChange(Number(e.target.value))}
        className="min-w-0 flex-1 rounded border border-line px-1 py-px text-[13px] text-ink"
      >
        <option value={0}>No hold</option>
        {choices.map((minutes) => (
          <option key={minutes} value={minutes}>
            {holdWords(minutes)}
          </option>
        ))}
      </select>
    </label>
  );
}

function Note({ rule, mayEdit, actions }: { rule: Rule; mayEdit: boolean; actions: RuleActions }) {
  const [text, setText] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const said = rule.note ?? '';
  if (!mayEdit) {
    return said ? <p className="mt-3 whitespace-pre-wrap text-dim">{said}</p> : null;
  }
  const save = async () => {
    if (text === null || text === said) {
      setText(null);
      return;
    }
    const refused = await actions.setNote(rule, text);
    setError(refused);
    if (!refused) setText(null);
  };
  return (
    <div className="mt-3">
      <label className="text-[12px] text-dim" htmlFor="rule-note">
        Note
      </label>
      <textarea
        id="rule-note"
        rows={3}
        maxLength={2000}
        placeholder="Why does this rule exist, who needs it, until when?"
        value={text ?? said}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') setText(null);
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void save();
        }}
        className="mt-1 w-full rounded border border-dim px-2 py-1"
      />
      {error && <p className="text-[12px] text-drop">{error}</p>}
    </div>
  );
}
