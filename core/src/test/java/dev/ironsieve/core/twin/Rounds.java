package dev.ironsieve.core.twin;

/**
 * How many random cases a test tries: all, or the share in percent that the system property {@code
 * rounds} says, as mutation testing does, which runs each test again and again.
 */
public final class Rounds {
  private static final int PERCENT = Integer.getInteger("rounds", 100);

  private Rounds() {}

  /**
   * @param all the default number; at least one remains
   */
  public static int of(int all) {
    return Math.max(1, all * PERCENT / 100);
  }

  /**
   * How often something has to have come up: {@code all} times when every case is tried, half the
   * share when few are, since chance weighs more then.
   */
  public static int least(int all) {
    return PERCENT == 100 ? all : all * PERCENT / 200;
  }
}
