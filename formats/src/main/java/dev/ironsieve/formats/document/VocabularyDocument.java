package dev.ironsieve.formats.document;

import java.util.List;

/**
 * The values and named sets of one coordinate, in one pinned edition.
 *
 * @param coordinate {@code person}, {@code device}, {@code site}, {@code application}, {@code file
 *     kind} or {@code time}
 * @param edition which edition of its source this is
 * @param values every value that a connection can have, by name
 * @param sets named sets of values
 * @param applications facts of each application; only for the coordinate of applications
 */
public record VocabularyDocument(
    String coordinate,
    String edition,
    List<String> values,
    List<SetDocument> sets,
    List<FactDocument> applications) {

  /** Its name and kind, without its contents. */
  public VocabularyDocument(String coordinate, String edition) {
    this(coordinate, edition, List.of(), List.of(), List.of());
  }

  /**
   * A named set.
   *
   * @param members names of values
   */
  public record SetDocument(String name, List<String> members) {}

  /**
   * The facts about one application.
   *
   * @param uses names of the values that are its uses
   * @param ports the usual ports of its servers
   * @param hosts names of its servers, exact or with a leading {@code *.}
   * @param needs names of applications that separate rules must allow
   * @param carries names of applications that are let through only inside its own connections
   * @param openedOnly those of its uses that can be told from each other only in opened connections
   */
  public record FactDocument(
      String name,
      List<String> uses,
      List<String> ports,
      List<String> hosts,
      List<String> needs,
      List<String> carries,
      List<String> openedOnly) {}
}
