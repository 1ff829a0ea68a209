const MOST = 5;

/** The newest revisions, as steps of a line, oldest first. */
export const steps = (newest: number) =>
  Array.from({ length: Math.min(MOST, newest) }, (_, i) => newest - Math.min(MOST, newest) + i + 1);
