import { RULE_KEYS } from '../rules/keys';
import { Modal } from '../ui/Modal';

const GENERAL: [string, string][] = [
  ['Ctrl+K', 'commands'],
  ['Ctrl+Z', 'undo my last change'],
  ['Ctrl+Shift+Z', 'redo'],
  ['p', 'probe'],
  ['/', 'filter'],
  ['Esc', 'leave what is being typed'],
  ['?', 'this list'],
];

export default function KeyList({ onClose }: { onClose(): void }) {
  return (
    <Modal title="Keys" onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-6">
        <Keys title="Everywhere" keys={GENERAL} />
        <Keys title="On a rule" keys={RULE_KEYS} />
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
