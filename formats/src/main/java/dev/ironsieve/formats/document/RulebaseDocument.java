package dev.ironsieve.formats.document;

import java.util.List;

/**
 * A whole rulebase.
 *
 * @param ironSieve version of the format, 1
 */
public record RulebaseDocument(
    Integer ironSieve,
    String name,
    List<ObjectDocument> zones,
    List<ObjectDocument> addresses,
    List<ObjectDocument> services,
    List<SectionDocument> sections) {
  /** The version of the format that this reads and writes. */
  public static final int VERSION = 1;
}
