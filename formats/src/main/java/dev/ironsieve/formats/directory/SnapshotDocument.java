package dev.ironsieve.formats.directory;

import java.util.List;
import java.util.Map;

/**
 * The people and groups of a directory at one time.
 *
 * @param ironSieveDirectory version of the format, 1
 * @param edition such as {@code 2026-11-23 07:00}
 * @param remarks oddities of the directory, in sentences
 */
public record SnapshotDocument(
    Integer ironSieveDirectory,
    String edition,
    List<PersonDocument> people,
    List<GroupDocument> groups,
    List<String> remarks) {
  /** The version of the format that this reads and writes. */
  public static final int VERSION = 1;

  /**
   * One person.
   *
   * @param attributes values by attribute
   */
  public record PersonDocument(String id, String name, Map<String, List<String>> attributes) {}

  /**
   * One group.
   *
   * @param people ids of people
   * @param groups ids of groups inside it
   */
  public record GroupDocument(String id, String name, List<String> people, List<String> groups) {}
}
