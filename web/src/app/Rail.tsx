import {
  Activity,
  Blocks,
  Grid3x3,
  History,
  ListChecks,
  ListOrdered,
  ScrollText,
  SearchAlert,
  Send,
  Users,
} from 'lucide-react';
import { ADMIN, LIBRARY, type Place } from '../shell/places';
import { useSession } from '../shell/session';

const PLACES = [
  { place: 'rules', word: 'Rules', Icon: ListOrdered },
  { place: 'findings', word: 'Findings', Icon: SearchAlert },
  { place: 'checks', word: 'Checks', Icon: ListChecks },
  { place: 'reach', word: 'Reach', Icon: Grid3x3 },
  { place: 'publish', word: 'Publish', Icon: Send },
  { place: 'traffic', word: 'Traffic', Icon: Activity },
  { place: 'library', word: 'Library', Icon: Blocks },
  { place: 'history', word: 'History', Icon: History },
  { place: 'accounts', word: 'Accounts', Icon: Users },
  { place: 'audit', word: 'Audit', Icon: ScrollText },
] as const;

export function Rail({ place, onGo }: { place: Place; onGo(place: Place): void }) {
  const { person } = useSession();
  const shown = LIBRARY.includes(place) ? 'library' : place;
  return (
    <nav aria-label="Main navigation" className="w-[56px] shrink-0 bg-rail pt-2">
      {PLACES.filter((p) => !ADMIN.includes(p.place) || person.role === 'admin').map(
        ({ place: to, word, Icon }) => (
          <button
            key={to}
            type="button"
            aria-current={shown === to ? 'page' : undefined}
            onClick={() => onGo(to)}
            className={`flex w-full cursor-pointer flex-col items-center gap-1 border-l-[3px] py-[9px] text-[11px] ${
              shown === to
                ? 'border-iron bg-sheet font-semibold'
                : 'border-transparent text-dim hover:text-ink'
            }`}
          >
            <Icon size={17} aria-hidden />
            {word}
          </button>
        ),
      )}
    </nav>
  );
}
