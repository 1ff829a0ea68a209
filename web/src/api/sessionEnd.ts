/**
 * Whether the session ended while a page was open. Requests that the server refused for that wait
 * here until the person has signed in again, and are then sent again.
 */
let open = false;
let ended = false;
let waiting: (() => void)[] = [];
const listeners = new Set<() => void>();

function change(next: boolean) {
  ended = next;
  listeners.forEach((listener) => listener());
}

/** A session is open: from now on a refusal means that it ended. */
export function sessionOpened() {
  open = true;
  const go = waiting;
  waiting = [];
  if (ended) change(false);
  go.forEach((resolve) => resolve());
}

/** Whether a request that was refused for want of a session can wait for one. */
export const canWaitForSession = () => open;

export const hasEnded = () => ended;

export function onSessionEnd(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Resolves when the person has signed in again; rejects when the request is given up. */
export function untilSignedIn(signal?: AbortSignal): Promise<void> {
  if (!ended) change(true);
  return new Promise((resolve, reject) => {
    waiting.push(resolve);
    signal?.addEventListener('abort', () => {
      waiting = waiting.filter((one) => one !== resolve);
      reject(signal.reason as Error);
    });
  });
}
