import { RULE_COMMANDS } from '../rules/commands';
import { NAVIGATION_KEYS } from '../rules/keys';
import type { Command } from '../shell/commands';
import { Modal } from '../ui/Modal';

/** All keys, from the tables of commands. */
export default function KeyList({ commands, onClose }: { commands: Command[]; onClose(): void }) {
  const general = commands.flatMap(({ keys, words }): [string, string][] =>
    keys ? [[keys.join(' or '), words]] : [],
  );
  const onRule = RULE_COMMANDS.filter(({ keys }) => keys.length > 0).map(
    ({ keys, words }): [string, string] => [keys.join(' or '), words()],
  );
  return (
    <Modal title="Keys" onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-6">
        <Keys title="Everywhere" keys={[...general, ['Esc', 'Cancel typing']]} />
        <Keys title="On a rule" keys={[...NAVIGATION_KEYS, ...onRule]} />
      </div>
    </Modal>
  );
}

function Keys({ title, keys }: { title: string; keys: [string, string][] }) {
  return (
    <section>
      <h3 className="mb-1 text-[12px] font-semibold text-dim">{title}</h3>
      <dl>
        {keys.map(([key, does]) => (
          <div key={key} className="flex gap-3 border-t border-line py-[3px]">
            <dt className="w-[130px] shrink-0">
              <kbd className="font-sans">{key}</kbd>
            </dt>
            <dd className="text-dim">{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
