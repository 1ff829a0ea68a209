package dev.ironsieve.core.analysis;

/**
 * The share of a rule's match that no earlier rule takes; each class of each axis counts the same.
 *
 * @param share 0 to 1
 * @param uncertainty half the width of the 95 % interval around the share; 0 where it is exact
 */
public record Reach(double share, double uncertainty) {
  public static final Reach NONE = new Reach(0, 0);
  public static final Reach ALL = new Reach(1, 0);

  /** From a sample: the Agresti-Coull interval (The American Statistician 52(2), 1998). */
  static Reach sampled(int hits, int samples) {
    double z = 1.96;
    double n = samples + z * z;
    double p = (hits + z * z / 2) / n;
    return new Reach((double) hits / samples, z * Math.sqrt(p * (1 - p) / n));
  }
}
