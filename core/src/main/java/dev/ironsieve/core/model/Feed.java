package dev.ironsieve.core.model;

import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * A list from outside, in one pinned edition.
 *
 * @param name what it is called, here and in every edition
 * @param edition which one this is, for people
 * @param sets of addresses or of hosts, by its kind
 */
public record Feed(String name, FeedKind kind, String edition, List<FeedSet> sets) {
  /** Most ranges or hosts in one edition. */
  public static final int MAX_ENTRIES = 500_000;

  public Feed {
    checkName(name);
    edition = Names.checkTitle("edition", edition);
    sets = List.copyOf(sets);
    String place = "feed \"" + name + "\"";
    Set<String> names = new HashSet<>();
    for (FeedSet set : sets) {
      boolean ofAddresses = set instanceof FeedSet.Addresses;
      if (ofAddresses != (kind.objects() == ObjectKind.ADDRESS)) {
        throw new InvalidModel(
            place,
            "sets of " + (ofAddresses ? "hosts, not of addresses" : "addresses, not of hosts"),
            Names.quoted(set.name()));
      }
      if (!names.add(Names.key(set.name()))) {
        throw new InvalidModel(place, "each set once", Names.quoted(set.name()) + " twice");
      }
    }
    if (kind == FeedKind.ADDRESSES && (sets.size() != 1 || !sets.getFirst().name().equals(name))) {
      throw new InvalidModel(
          place, "one set, called as the feed is", names.isEmpty() ? "none" : names.toString());
    }
    long entries = sets.stream().mapToLong(FeedSet::size).sum();
    if (entries > MAX_ENTRIES) {
      throw new InvalidModel(place, "at most " + MAX_ENTRIES + " entries", entries + "");
    }
  }

  /**
   * Checks what a feed is to be called.
   *
   * @throws InvalidModel if it cannot be
   */
  public static void checkName(String name) {
    Names.checkObject("feed", name);
  }

  /** The set of that name, or null. */
  public FeedSet set(String name) {
    String key = Names.key(name);
    return sets.stream().filter(s -> Names.key(s.name()).equals(key)).findFirst().orElse(null);
  }
}
