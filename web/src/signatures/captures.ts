import type { CaptureSummary, RecognisedConnection } from '../api/types';

/** The capture that the address names; else the recent log, unless it is empty. */
export function chosenCapture(
  captures: CaptureSummary[],
  wanted: string | null,
): CaptureSummary | undefined {
  return (
    captures.find((c) => `${c.id}` === wanted) ??
    captures.find((c) => c.connections > 0) ??
    captures[0]
  );
}

/** The connections with every word of a filter in one of their fields. */
export function connectionsThatFit(
  connections: RecognisedConnection[],
  filter: string,
): RecognisedConnection[] {
  const words = filter.trim().toLowerCase().split(/\s+/);
  return connections.filter((c) => {
    const moved = c.files.flatMap((file) => [file.direction, file.kind, file.name ?? '']);
    const told = [c.application ?? 'unidentified', ...c.others, ...moved];
    const text = [c.from, c.to, c.service, ...told].join('\n').toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

/** The time of day of an instant, to the second. */
export function clockOf(instant: string): string {
  return new Date(instant).toLocaleTimeString(undefined, { hour12: false });
}
