import { useEffect, useState } from 'react';
import { ago, isOld } from './age';

/** How old something is, kept true while it is looked at; a warning from `old` days on. */
export function Age({ word, at, old }: { word: string; at: string | undefined; old: number }) {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), 30_000);
    return () => clearInterval(timer);
  }, []);
  if (!at) return null;
  const time = new Date(at);
  return (
    <span title={time.toLocaleString()}>
      , {word} {ago(time, now)}
      {isOld(time, now, old) && <b className="text-caution">: out of date</b>}
    </span>
  );
}
