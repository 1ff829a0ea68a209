package dev.ironsieve.core.model;

import java.util.Arrays;
import java.util.List;

/** The connections that a rulebase is for. */
public enum RulebaseKind {
  /** Connections through a gateway. */
  TRAFFIC("traffic"),
  /** Rules for the rulebases below it; no gateway follows it. */
  COMMON("common"),
  /** Connections to a gateway itself, such as sign-in, SNMP and DNS. */
  SERVICES("services");

  private final String word;

  RulebaseKind(String word) {
    this.word = word;
  }

  /** The word in documents. */
  public String word() {
    return word;
  }

  /**
   * @throws InvalidModel for an unknown word
   */
  public static RulebaseKind of(String word) {
    return Arrays.stream(values())
        .filter(kind -> kind.word.equals(word))
        .findFirst()
        .orElseThrow(
            () -> new InvalidModel("kind", "one of " + words(), word == null ? "nothing" : word));
  }

  private static List<String> words() {
    return Arrays.stream(values()).map(RulebaseKind::word).toList();
  }
}
