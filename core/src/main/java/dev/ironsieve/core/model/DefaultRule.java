package dev.ironsieve.core.model;

/**
 * The built-in last rule: it drops and logs every connection that no rule above it decides, leaves
 * it sealed, and cannot be changed. It has no id and no position; where a result names the rule
 * that decides, null stands for it.
 */
public final class DefaultRule {
  /** Its name for people. */
  public static final String NAME = "default rule";

  private static final Rule RULE =
      Rule.matchingAll("default", NAME, Verdict.DROP).edit().logging(Logging.START).build();

  private DefaultRule() {}

  /** The rule that decides: the given one, or the default rule for null. */
  public static Rule unless(Rule decidedBy) {
    return decidedBy == null ? RULE : decidedBy;
  }

  /** The verdict of the rule that decides, or of the default rule for null. */
  public static Verdict verdict(Rule decidedBy) {
    return unless(decidedBy).verdict();
  }
}
