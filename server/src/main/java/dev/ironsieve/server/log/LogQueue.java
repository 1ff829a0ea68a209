package dev.ironsieve.server.log;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;

/** The received records that wait to be stored. */
@ApplicationScoped
class LogQueue {
  private static final long LOOK = 200; // milliseconds

  private final BlockingQueue<LogEntry> waiting;
  private final int batch;

  LogQueue(LogConfig config) {
    waiting = new ArrayBlockingQueue<>(config.queue());
    batch = config.batch();
  }

  /**
   * Adds a record.
   *
   * @param waits whether to wait for a place
   * @return false if there is no place
   */
  boolean take(LogEntry entry, boolean waits) {
    if (!waits) {
      return waiting.offer(entry);
    }
    try {
      waiting.put(entry);
      return true;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return false;
    }
  }

  /** The next records, in the order in which they came; empty if there are none for a while. */
  List<LogEntry> next() throws InterruptedException {
    List<LogEntry> out = new ArrayList<>();
    LogEntry first = waiting.poll(LOOK, TimeUnit.MILLISECONDS);
    if (first != null) {
      out.add(first);
      waiting.drainTo(out, batch - 1);
    }
    return out;
  }

  int size() {
    return waiting.size();
  }
}
