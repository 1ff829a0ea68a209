import { ChevronDown, ChevronRight, MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { Edit, Section } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Origin } from '../common/Origin';
import { Menu, MenuItem } from '../ui/Menu';
import type { RuleActions } from './actions';
import { DragHandle, DropTarget } from './dragParts';
import { NameEditor } from './NameEditor';
import { FallLine } from './RuleStrip';
import { deleteWithRules, SECTION_DRAG, stepSection } from './sectionMove';
import { SECTION_DROP } from './useRuleDrag';
import { Wall } from './Wall';
import { focusRules } from '../ui/focus';

/** The heading of a section: it folds, can be renamed, and is dragged whole, and takes rules that are dropped on it. */
export function SectionHead({
  section,
  count,
  open,
  mayEdit,
  origin,
  dragging,
  target,
  falling,
  handle,
  actions,
  onToggle,
}: {
  section: Section;
  count: number;
  open: boolean;
  mayEdit: boolean;
  /** Name of the common rulebase that it is from. */
  origin: string | undefined;
  /** Whether something is dragged. */
  dragging: boolean;
  target: boolean;
  falling: boolean;
  handle: DraftHandle;
  actions: RuleActions;
  onToggle(): void;
}) {
  const [renaming, setRenaming] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const rename = (name: string) =>
    void handle
      .edit({ kind: 'renameSection', id: section.id, name })
      .then((problem) => setError(problem?.message ?? null));
  const send = async (edit: Edit | null) => {
    const problem = edit && (await handle.edit(edit));
    setError(problem?.message ?? null);
  };
  const addSection = (before: string | undefined) =>
    send({
      kind: 'insertSection',
      id: crypto.randomUUID().slice(0, 8),
      name: 'New section',
      before,
      tail: section.tail,
    });
  const draft = handle.draft!;
  const next = draft.sections[draft.sections.findIndex((one) => one.id === section.id) + 1];
  const below = next && (next.tail ?? false) === (section.tail ?? false) ? next.id : undefined;
  return (
    <div
      role="row"
      className={`group relative flex h-[26px] items-center gap-2 border-b border-line bg-band pl-4 ${
        target ? 'shadow-[inset_0_-3px_0_var(--accent)]' : ''
      }`}
    >
      {dragging && <DropTarget id={`${SECTION_DROP}${section.id}`} />}
      {falling && <FallLine fall="passed" />}
      <div role="gridcell" className="flex min-w-0 flex-1 items-center gap-2">
        <button
          type="button"
          aria-expanded={open}
          aria-label={`Section ${section.name}`}
          onClick={onToggle}
          className="cursor-pointer rounded text-dim"
        >
          {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
        </button>
        {renaming ? (
          <NameEditor
            label="Name of the section"
            name={section.name}
            onDone={rename}
            onEnd={() => {
              setRenaming(false);
              focusRules();
            }}
          />
        ) : (
          <DragHandle
            id={`${SECTION_DRAG}${section.id}`}
            enabled={mayEdit}
            className="truncate text-[12px] font-semibold"
            onDoubleClick={() => mayEdit && setRenaming(true)}
          >
            {section.name}
          </DragHandle>
        )}
        <span className="shrink-0 text-[12px] text-dim">
          {count} {count === 1 ? 'rule' : 'rules'}
        </span>
        {section.tail && !origin && (
          <span className="shrink-0 text-[12px] text-dim">tail: below all rules</span>
        )}
        {origin && <Origin name={origin} />}
        {error && (
          <span role="alert" className="truncate text-[12px] text-drop">
            {error}
          </span>
        )}
        {mayEdit && (
          <DropdownMenu.Root onOpenChange={() => setError(null)}>
            <DropdownMenu.Trigger
              aria-label={`Actions on section ${section.name}`}
              className="cursor-pointer rounded p-[2px] text-dim opacity-0 group-hover:opacity-100 hover:bg-chip focus:opacity-100 data-[state=open]:opacity-100"
            >
              <MoreHorizontal size={14} />
            </DropdownMenu.Trigger>
            <Menu>
              <MenuItem onSelect={() => actions.insertInto(section.id)}>Add a rule</MenuItem>
              <MenuItem onSelect={() => setRenaming(true)}>Rename</MenuItem>
              <MenuItem onSelect={() => void addSection(section.id)}>New section above</MenuItem>
              <MenuItem onSelect={() => void addSection(below)}>New section below</MenuItem>
              <MenuItem onSelect={() => void addSection(undefined)}>
                New section at the end
              </MenuItem>
              <MenuItem onSelect={() => void send(stepSection(draft, section.id, -1))}>
                Move up
              </MenuItem>
              <MenuItem onSelect={() => void send(stepSection(draft, section.id, 1))}>
                Move down
              </MenuItem>
              <MenuItem onSelect={() => void send(deleteWithRules(section))}>
                {count === 0
                  ? 'Delete'
                  : `Delete with ${count === 1 ? 'its rule' : `its ${count} rules`}`}
              </MenuItem>
            </Menu>
          </DropdownMenu.Root>
        )}
      </div>
      <div role="gridcell" className="h-full w-[150px] shrink-0">
        <div aria-hidden className="ml-[26px] h-full w-[7px] bg-wall" />
      </div>
    </div>
  );
}

/** The rule behind all rules, which cannot be changed. */
export function ClosingStrip({ caught }: { caught: boolean }) {
  return (
    <div
      role="row"
      className={`relative flex h-[51px] items-center border-b border-line pl-4 ${caught ? 'bg-accent-soft' : 'bg-paper'}`}
    >
      <FallLine fall={caught ? 'caught' : 'none'} />
      <div role="gridcell" className="min-w-0 flex-1 pl-[98px]">
        <div className="font-semibold text-dim">Default rule</div>
        <div className="text-[12px] text-dim">drops and logs everything not decided above</div>
      </div>
      <div role="gridcell" className="flex w-[150px] shrink-0 items-center self-stretch">
        <Wall verdict="drop" gate="real" />
        <span className="pl-2 font-semibold text-drop">drop</span>
      </div>
    </div>
  );
}
