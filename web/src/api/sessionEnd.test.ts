import { describe, expect, it, vi } from 'vitest';
import {
  canWaitForSession,
  hasEnded,
  onSessionEnd,
  sessionOpened,
  untilSignedIn,
} from './sessionEnd';

describe('the end of a session', () => {
  it('is waited for until the person signs in again', async () => {
    expect(canWaitForSession()).toBe(false);
    sessionOpened();
    expect(canWaitForSession()).toBe(true);
    const told = vi.fn();
    const stop = onSessionEnd(told);
    const first = untilSignedIn();
    const second = untilSignedIn();
    expect(hasEnded()).toBe(true);
    expect(told).toHaveBeenCalledTimes(1);
    sessionOpened();
    await Promise.all([first, second]);
    expect(hasEnded()).toBe(false);
    expect(told).toHaveBeenCalledTimes(2);
    stop();
  });

  it('is no longer waited for by a request that is given up', async () => {
    const control = new AbortController();
    const waits = untilSignedIn(control.signal);
    control.abort(new Error('left'));
    await expect(waits).rejects.toThrow('left');
    sessionOpened();
    expect(hasEnded()).toBe(false);
  });
});
