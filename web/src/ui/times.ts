const formats = new Map<string, Intl.DateTimeFormat>();

function format(zone: string, long: boolean): Intl.DateTimeFormat {
  const key = `${zone} ${long}`;
  let known = formats.get(key);
  if (!known) {
    known = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
      ...(long && { day: 'numeric', month: 'short' }),
    });
    formats.set(key, known);
  }
  return known;
}

/** A time of the last 20 hours as hour, minute and second; an older one with its day. */
export function timeIn(zone: string, at: string, now: Date): string {
  const time = new Date(at);
  const old = now.getTime() - time.getTime() > 20 * 60 * 60 * 1000;
  return format(zone, old).format(time);
}
