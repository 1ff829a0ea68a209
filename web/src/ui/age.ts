const STEPS: [Intl.RelativeTimeFormatUnit, number][] = [
  ['day', 24 * 60 * 60],
  ['hour', 60 * 60],
  ['minute', 60],
];
const FORMAT = new Intl.RelativeTimeFormat('en', { numeric: 'always' });

/** How long ago something was, in the largest unit that is full. */
export function ago(at: Date, now: Date): string {
  const seconds = Math.max(0, (now.getTime() - at.getTime()) / 1000);
  const step = STEPS.find(([, length]) => seconds >= length);
  return step ? FORMAT.format(-Math.floor(seconds / step[1]), step[0]) : 'just now';
}

/** Whether something is at least so many days old. */
export const isOld = (at: Date, now: Date, days: number) =>
  now.getTime() - at.getTime() >= days * 24 * 60 * 60 * 1000;

/** After how many days an edition of the catalogue in a draft is old. */
export const OLD_CATALOGUE = 90;
/** The same for a snapshot of the directory. */
export const OLD_SNAPSHOT = 7;
