import { useEffect, useState } from 'react';

const TYPING_MS = 250;

/** A value once it has stayed the same for a moment, so that no half-typed word is asked about. */
export function useSettled<T>(value: T, milliseconds = TYPING_MS): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return settled;
}
