import { useQuery } from '@tanstack/react-query';
import { ChevronDown, Moon, UserRound } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link, useNavigate } from 'react-router';
import { api } from '../api/client';
import type { Draft, RulebaseKind } from '../api/types';
import { Menu, MenuItem, MenuLine } from '../ui/Menu';
import { mayEdit, useSession } from '../shell/session';
import { flipTheme } from './theme';
import type { Opened } from '../shell/opened';
import { FilterLine } from './FilterLine';

/** What a rulebase is for, where it is not traffic. */
const KINDS: Partial<Record<RulebaseKind, string>> = {
  common: 'common rules',
  services: 'gateway services',
};

const TOP = 'cursor-pointer rounded px-2 py-1 hover:bg-sheen';

export function Header({
  draft,
  filter,
  filterable,
  onFilter,
  onOpen,
  onLeaveFilter,
}: {
  draft: Draft;
  filter: string;
  filterable: boolean;
  onFilter(text: string): void;
  onOpen(what: Opened): void;
  onLeaveFilter(): void;
}) {
  const { person, signOut } = useSession();
  const navigate = useNavigate();
  const list = useQuery({ queryKey: ['rulebases'], queryFn: api.rulebases });
  return (
    <header className="flex h-[44px] shrink-0 items-center gap-2 bg-iron px-3 text-on-iron">
      <Link to="/?all" title="What needs attention" className={`${TOP} font-semibold`}>
        Iron Sieve
      </Link>
      <span className="text-on-iron-dim">/</span>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={`${TOP} flex items-center gap-1 font-semibold`}>
          {draft.name}
          <ChevronDown size={14} aria-hidden />
        </DropdownMenu.Trigger>
        <Menu wide>
          {list.data?.map((rulebase) => (
            <MenuItem
              key={rulebase.id}
              checked={rulebase.id === draft.id}
              onSelect={() => void navigate(`/rulebases/${rulebase.id}/rules`)}
            >
              {rulebase.name}
              {KINDS[rulebase.kind] && (
                <span className="pl-2 text-[12px] text-dim">{KINDS[rulebase.kind]}</span>
              )}
            </MenuItem>
          ))}
          <MenuLine />
          {mayEdit(person) && <MenuItem onSelect={() => onOpen('common')}>Common rules…</MenuItem>}
          {mayEdit(person) && <MenuItem onSelect={() => onOpen('import')}>Import…</MenuItem>}
          <MenuItem onSelect={() => onOpen('export')}>Export…</MenuItem>
        </Menu>
      </DropdownMenu.Root>
      <span className="text-on-iron-dim">
        draft on revision {draft.revision}, {draft.changes}{' '}
        {draft.changes === 1 ? 'change' : 'changes'}
      </span>
      <div className="ml-auto flex items-center gap-1">
        {filterable && (
          <FilterLine draft={draft} filter={filter} onFilter={onFilter} onLeave={onLeaveFilter} />
        )}
        <button
          type="button"
          className={`${TOP} text-on-iron-dim`}
          onClick={() => onOpen('palette')}
        >
          Ctrl K
        </button>
        <button
          type="button"
          aria-label="Switch theme"
          className={`${TOP} text-on-iron-dim`}
          onClick={flipTheme}
        >
          <Moon size={15} />
        </button>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={`${TOP} flex items-center gap-1`}>
            <UserRound size={15} aria-hidden />
            {person.displayName}
          </DropdownMenu.Trigger>
          <Menu>
            <div className="px-3 py-1 text-[12px] text-dim">
              {person.name}, {person.role}
            </div>
            <MenuLine />
            <MenuItem onSelect={() => void signOut()}>Sign out</MenuItem>
          </Menu>
        </DropdownMenu.Root>
      </div>
    </header>
  );
}
