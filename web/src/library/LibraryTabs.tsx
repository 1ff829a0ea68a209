import type { Place } from '../shell/places';

const TABS: { place: Place; word: string }[] = [
  { place: 'library', word: 'Objects' },
  { place: 'feeds', word: 'Feeds' },
  { place: 'people', word: 'People' },
  { place: 'applications', word: 'Applications' },
  { place: 'signatures', word: 'Signatures' },
];

/** The heading of the library, which leads from one of its lists to the other. */
export function LibraryTabs({ place, onGo }: { place: Place; onGo(place: Place): void }) {
  return (
    <div className="flex items-baseline gap-4">
      <h1 className="text-[17px] font-semibold">Library</h1>
      <nav aria-label="Lists of the library" className="flex gap-1">
        {TABS.map((tab) => (
          <button
            key={tab.place}
            type="button"
            aria-current={tab.place === place ? 'page' : undefined}
            onClick={() => onGo(tab.place)}
            className={`cursor-pointer border-b-2 px-2 py-[2px] ${
              tab.place === place
                ? 'border-iron font-semibold'
                : 'border-transparent text-dim hover:text-ink'
            }`}
          >
            {tab.word}
          </button>
        ))}
      </nav>
    </div>
  );
}
