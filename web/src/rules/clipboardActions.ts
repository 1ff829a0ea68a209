import { api, Problem } from '../api/client';
import { manyRules, type ActionBench } from './actionBench';
import type { RuleActions } from './actions';

/** Copying and pasting rules as text. */
export function clipboardActions(bench: ActionBench): Pick<RuleActions, 'copy' | 'paste'> {
  return {
    copy(id) {
      const ids = bench.selected(id);
      if (!navigator.clipboard) {
        bench.say('The browser lets pages copy over HTTPS and on this machine only.');
        return;
      }
      void api
        .rulesText(bench.draft().id, ids)
        .then((text) => navigator.clipboard.writeText(text))
        .then(() => bench.say(`${manyRules(ids)} copied as text.`))
        .catch((e: Error) => bench.say(e.message));
    },
    paste(id, text) {
      void api
        .readRules(bench.draft().id, text)
        .then(async ({ rules }) => {
          const refused = await bench.send({ kind: 'insertRules', rules, place: { below: id } });
          if (refused) return;
          rules.forEach((rule) => bench.show(rule.id));
          bench.selectAlone(rules.map((rule) => rule.id));
          bench.scrollTo(rules[0]!.id);
          bench.say(`${manyRules(rules.map((rule) => rule.id))} pasted.`);
        })
        .catch((e: Error) => {
          const fault = e instanceof Problem ? e.body.faults?.[0] : undefined;
          bench.say(
            fault
              ? `Not pasted: ${fault.path}: expected ${fault.expected}, found ${fault.found}.`
              : e.message,
          );
        });
    },
  };
}
