interface Versioned {
  version: number;
}

/**
 * Fetches until the answer is at least as new as what is known by then: a change can overtake the
 * answer to a fetch, and the older answer must not replace it.
 */
export async function fetchNewest<T extends Versioned>(
  fetch: () => Promise<T>,
  known: () => T | undefined,
): Promise<T> {
  for (;;) {
    const fetched = await fetch();
    const now = known();
    if (!now || fetched.version >= now.version) return fetched;
  }
}
