import { api, Problem } from '../api/client';
import type { Rule } from '../api/types';
import { manyRules, type ActionBench } from './actionBench';
import type { RuleActions } from './actions';

/** Shows rules that were pasted. */
export function pasted(bench: ActionBench, rules: Rule[]) {
  const ids = rules.map((rule) => rule.id);
  ids.forEach((id) => bench.show(id));
  bench.selectAlone(ids);
  bench.scrollTo(ids[0]!);
  bench.say(`${manyRules(ids)} pasted.`);
}

/** Copying and pasting rules as text. */
export function clipboardActions(
  bench: ActionBench,
): Pick<RuleActions, 'copy' | 'paste' | 'pasted'> {
  return {
    pasted: (rules) => pasted(bench, rules),
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
        .then(async ({ rules, missing }) => {
          if (missing.length > 0) {
            bench.createMissing(missing, rules, id);
            return;
          }
          const refused = await bench.send({ kind: 'insertRules', rules, place: { below: id } });
          if (!refused) pasted(bench, rules);
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
