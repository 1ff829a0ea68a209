import { useState } from 'react';
import type { Rule, Standing } from '../api/types';
import { longFinding } from '../draft/findings';
import { Button } from '../ui/Button';
import type { RuleActions } from './actions';

/** What is known of the rule in focus: its standing with the proof, and its note. */
export function RulePanel({
  rule,
  standing,
  numbers,
  byId,
  mayEdit,
  actions,
}: {
  rule: Rule;
  standing: Standing | undefined;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  actions: RuleActions;
}) {
  return (
    <section aria-label="Rule in focus" className="p-3">
      <h2 className="text-[12px] font-semibold text-dim">Rule {numbers.get(rule.id)}</h2>
      <p className="font-semibold break-words">{rule.name}</p>
      {standing && (
        <p className="mt-1" data-finding={standing.kind}>
          {longFinding(rule, standing, numbers, byId)}
        </p>
      )}
      {standing?.witness && (
        <>
          <p className="mt-2 text-[12px] text-dim">
            {standing.kind === 'decides'
              ? 'A connection that it decides:'
              : 'A connection that proves it:'}
          </p>
          <p className="font-mono text-[11.5px] leading-4 break-words" data-witness>
            {standing.witness}
          </p>
          <Button className="mt-2" onClick={() => actions.probe(standing.witness!)}>
            Probe it
          </Button>
        </>
      )}
      <Note key={rule.id} rule={rule} mayEdit={mayEdit} actions={actions} />
    </section>
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
        placeholder="Why is this rule here, for whom, until when?"
        value={text ?? said}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') setText(null);
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void save();
        }}
        className="mt-1 w-full rounded border border-line px-2 py-1"
      />
      {error && <p className="text-[12px] text-drop">{error}</p>}
    </div>
  );
}
