package dev.ironsieve.core.edit;

/** An edit speaks of something that is not, or no longer, in the rulebase. */
public final class MissingTarget extends RuntimeException {
  private final String kind;
  private final String name;

  public MissingTarget(String kind, String name) {
    super("no " + kind + " \"" + name + "\" in the rulebase");
    this.kind = kind;
    this.name = name;
  }

  /** What sort of thing is missing: rule, section, zone, address or service. */
  public String kind() {
    return kind;
  }

  /** Its id or name. */
  public String name() {
    return name;
  }
}
