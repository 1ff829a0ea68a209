package dev.ironsieve.core.edit;

/** Thrown if an edit names something that does not exist in the rulebase, or no longer. */
public final class MissingTarget extends RuntimeException {
  private final String kind;
  private final String name;

  public MissingTarget(String kind, String name) {
    super("no " + kind + " \"" + name + "\" in the rulebase");
    this.kind = kind;
    this.name = name;
  }

  /** The kind of thing that is missing: rule, section, zone, address or service. */
  public String kind() {
    return kind;
  }

  /** Its id or name. */
  public String name() {
    return name;
  }
}
