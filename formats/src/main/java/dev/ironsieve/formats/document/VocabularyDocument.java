package dev.ironsieve.formats.document;

import java.util.List;

/**
 * Everything that rules can say of one coordinate, in one pinned edition.
 *
 * @param coordinate {@code person}, {@code device}, {@code site}, {@code application}, {@code file
 *     kind} or {@code time}
 * @param edition which edition of its source this is
 * @param values every value that a connection can have, by name
 * @param sets named sets of values
 */
public record VocabularyDocument(
    String coordinate, String edition, List<String> values, List<SetDocument> sets) {

  /**
   * A named set.
   *
   * @param members names of values
   */
  public record SetDocument(String name, List<String> members) {}
}
