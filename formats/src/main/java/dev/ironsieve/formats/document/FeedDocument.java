package dev.ironsieve.formats.document;

import java.util.List;

/**
 * A list from outside, in one pinned edition.
 *
 * @param kind {@code addresses}, {@code countries} or {@code categories}
 * @param edition which edition this is
 * @param sets of addresses or of hosts, by the names that rules mean them by
 */
public record FeedDocument(String name, String kind, String edition, List<SetDocument> sets) {
  /**
   * A named set.
   *
   * @param members addresses, prefixes and ranges; or hosts, exact or with a leading {@code *.}
   */
  public record SetDocument(String name, List<String> members) {}
}
