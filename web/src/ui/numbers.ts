const COMPACT = new Intl.NumberFormat('en', { notation: 'compact', maximumFractionDigits: 1 });
const WHOLE = new Intl.NumberFormat('en');
const PERCENT = new Intl.NumberFormat('en', { style: 'percent', maximumFractionDigits: 1 });
const BYTES = ['bytes', 'kB', 'MB', 'GB', 'TB'];

/** A count in a few characters: 1.2K. */
export const compact = (count: number) => COMPACT.format(count);

/** A count in full, with separators. */
export const whole = (count: number) => WHOLE.format(count);

/** A share from 0 to 1 as a percentage. */
export const percent = (share: number) => PERCENT.format(share);

/** A size in the largest unit of which there is at least one. */
export function size(bytes: number): string {
  let unit = 0;
  let left = bytes;
  while (left >= 1000 && unit < BYTES.length - 1) {
    left /= 1000;
    unit++;
  }
  return `${left < 10 && unit > 0 ? left.toFixed(1) : Math.round(left)} ${BYTES[unit]}`;
}
