package dev.ironsieve.server.question;

import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.function.Supplier;

/**
 * Work that can be cancelled before and while it runs. Its thread is interrupted then, which every
 * exact search of the core notices.
 */
final class Cancellable<T> implements Callable<T> {
  private final Supplier<T> work;
  private final long asked = System.nanoTime();
  private Thread thread; // while it runs
  private boolean started;
  private boolean cancelled;

  Cancellable(Supplier<T> work) {
    this.work = work;
  }

  @Override
  public T call() {
    synchronized (this) {
      if (cancelled) {
        throw new CancellationException();
      }
      thread = Thread.currentThread();
      started = true;
    }
    try {
      return work.get();
    } finally {
      synchronized (this) {
        thread = null;
        Thread.interrupted(); // not for whoever has this thread next
      }
    }
  }

  /** Whether a thread has begun with it. */
  synchronized boolean started() {
    return started;
  }

  /** Nanoseconds since it was asked. */
  long age() {
    return System.nanoTime() - asked;
  }

  /** Gives up; does nothing once the work is done. */
  synchronized void cancel() {
    cancelled = true;
    if (thread != null) {
      thread.interrupt();
    }
  }
}
