package dev.ironsieve.server.draft;

import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The facts of a rulebase's editions about a connection: the groups of its person, and by feeds the
 * countries, block lists and categories of its ends and host.
 */
final class SetMemberships {
  private static final int MOST_SETS = 8; // of a person, in one sentence

  private SetMemberships() {}

  /** In sentences, one for each set; O(log ranges) for each set of addresses. */
  static List<String> of(Connection connection, Rulebase rulebase) {
    List<String> out = new ArrayList<>();
    String person = connection.terms().get(Coordinate.PERSON);
    if (person != null) {
      rulebase.vocabulary(Coordinate.PERSON).ifPresent(people -> tellSets(person, people, out));
    }
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

  /** The smallest sets with a person: groups and directory attributes. */
  private static void tellSets(String person, Vocabulary people, List<String> out) {
    int number = people.values().indexOf(person);
    List<String> sets =
        people.terms().stream()
            .filter(term -> number >= 0 && term.members().contains(number))
            // What an attribute is says its words too.
            .filter(term -> !term.name().contains(PersonVocabulary.CONTAINS))
            .sorted(Comparator.comparingLong(term -> term.members().size()))
            .map(Vocabulary.Term::name)
            .toList();
    if (!sets.isEmpty()) {
      int more = sets.size() - MOST_SETS;
      out.add(
          person
              + " is in "
              + String.join(", ", sets.subList(0, Math.min(MOST_SETS, sets.size())))
              + (more > 0 ? " and " + more + " more." : "."));
    }
  }

  private static String sentence(String what, FeedSet set, Feed feed) {
    String through = set.name().equals(feed.name()) ? "" : " by " + feed.name();
    return what + " is in " + set.name() + through + ", edition " + feed.edition() + ".";
  }
}
