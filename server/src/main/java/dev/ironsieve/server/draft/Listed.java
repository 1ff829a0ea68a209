package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.SitePattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/** What the feeds of a rulebase say of a connection: countries, block lists, categories. */
final class Listed {
  private Listed() {}

  /** In sentences, one for each set; O(log ranges) for each set of addresses. */
  static List<String> of(Connection connection, Rulebase rulebase) {
    List<String> out = new ArrayList<>();
    String site = connection.terms().get(Coordinate.SITE);
    Set<String> wider =
        site != null && SitePattern.isOne(site)
            ? Set.copyOf(SitePattern.parse(site).wider())
            : Set.of();
    for (Feed feed : rulebase.feeds()) {
      for (FeedSet set : feed.sets()) {
        switch (set) {
          case FeedSet.Addresses addresses ->
              Stream.of(connection.from(), connection.to())
                  .filter(end -> end.address() != null)
                  .filter(end -> addresses.addresses().contains(end.address()))
                  .forEach(end -> out.add(sentence(end.address().toString(), set, feed)));
          case FeedSet.Hosts hosts -> {
            if (hosts.hosts().stream().anyMatch(host -> wider.contains(host.toString()))) {
              out.add(sentence(site, set, feed));
            }
          }
        }
      }
    }
    return out;
  }

  private static String sentence(String what, FeedSet set, Feed feed) {
    String through = set.name().equals(feed.name()) ? "" : " by " + feed.name();
    return what + " is in " + set.name() + through + ", edition " + feed.edition() + ".";
  }
}
