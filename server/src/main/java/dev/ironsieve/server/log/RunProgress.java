package dev.ironsieve.server.log;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.TreeSet;

/**
 * How far the records of one run of a gateway are stored. The numbers of the records show which are
 * new, and which are missing; over UDP, one that is missing may come late.
 */
final class RunProgress {
  /** Most numbers that are remembered as missing; those before them are lost for good. */
  static final int MOST_MISSING = 1_000;

  private final TreeSet<Long> missing;
  private long next;
  private long lost;
  private long repeated;
  private Duration ahead = Duration.ZERO;

  /**
   * @param next the number after the highest that is stored
   * @param missing numbers before it that are not
   */
  RunProgress(long next, List<Long> missing) {
    this.next = next;
    this.missing = new TreeSet<>(missing);
  }

  /** Whether a record is new. Numbers that it leaves out are lost until they come. */
  boolean take(long number) {
    if (number < next) {
      boolean late = missing.remove(number);
      lost -= late ? 1 : 0;
      repeated += late ? 0 : 1;
      return late;
    }
    for (long one = Math.max(next, number - MOST_MISSING); one < number; one++) {
      missing.add(one);
    }
    while (missing.size() > MOST_MISSING) {
      missing.removeFirst();
    }
    lost += number - next;
    next = number + 1;
    return true;
  }

  void clock(Instant receivedAt, Instant sentAt) {
    ahead = Duration.between(receivedAt, sentAt);
  }

  long next() {
    return next;
  }

  Long[] missing() {
    return missing.toArray(Long[]::new);
  }

  /** How many more records are lost than before; fewer than 0 if some came late. */
  long lost() {
    return lost;
  }

  /** How many came again. */
  long repeated() {
    return repeated;
  }

  /** By how much the sender's clock is ahead of this one's. */
  Duration ahead() {
    return ahead;
  }
}
