package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * The vocabulary of sites, derived from the patterns in rules and host lists. Patterns are nested
 * or disjoint, so each has one value: itself less the patterns inside it.
 *
 * <pre>
 *   *.quay.example           values   "*.quay.example, else"   "www.quay.example"   "other host"
 *     www.quay.example       sets     "*.quay.example" = the first two
 * </pre>
 */
final class SiteVocabulary {
  private static final String OTHER = "other host";
  private static final String ELSE = ", else";

  private SiteVocabulary() {}

  /**
   * @param lists host lists, and the sets of feeds
   * @param literals patterns that rules say themselves, as they are written
   */
  static Vocabulary of(List<FeedSet.Hosts> lists, Collection<String> literals) {
    Map<String, SitePattern> patterns = new TreeMap<>(); // by text
    for (FeedSet.Hosts list : lists) {
      list.hosts().forEach(pattern -> patterns.putIfAbsent(pattern.toString(), pattern));
    }
    List<String> hosts =
        literals.stream().filter(literal -> !Defaults.isNamed(Coordinate.SITE, literal)).toList();
    hosts.forEach(literal -> add(patterns, literal));
    Set<String> parents = new LinkedHashSet<>();
    for (SitePattern pattern : patterns.values()) {
      List<String> wider = pattern.wider();
      wider.subList(1, wider.size()).stream().filter(patterns::containsKey).forEach(parents::add);
    }
    List<String> values = new ArrayList<>(List.of(Defaults.NO_SITE, OTHER));
    Map<String, Integer> own = new HashMap<>();
    for (String text : patterns.keySet()) {
      own.put(text, values.size());
      values.add(parents.contains(text) ? text + ELSE : text);
    }
    Map<String, List<Integer>> inside = new HashMap<>(); // values by pattern
    patterns.forEach(
        (text, pattern) ->
            pattern.wider().stream()
                .filter(patterns::containsKey)
                .forEach(
                    wider ->
                        inside.computeIfAbsent(wider, w -> new ArrayList<>()).add(own.get(text))));
    List<Vocabulary.Term> terms = new ArrayList<>();
    parents.forEach(text -> terms.add(new Vocabulary.Term(text, set(inside.get(text)))));
    Set<String> named = new LinkedHashSet<>();
    values.forEach(value -> named.add(Names.key(value)));
    terms.forEach(term -> named.add(Names.key(term.name())));
    for (FeedSet.Hosts list : lists) {
      List<Integer> members = new ArrayList<>();
      list.hosts().forEach(pattern -> members.addAll(inside.get(pattern.toString())));
      terms.add(new Vocabulary.Term(list.name(), set(members)));
    }
    for (String literal : hosts) {
      // As it is written, where that is not as it is read.
      if (named.add(Names.key(literal))) {
        String text = SitePattern.parse(literal).toString();
        terms.add(new Vocabulary.Term(literal, set(inside.get(text))));
      }
    }
    return new Vocabulary(Coordinate.SITE, "as written", values, terms);
  }

  /** The pattern of a value, by its name, without those inside it. */
  static String pattern(String value) {
    return value.endsWith(ELSE) ? value.substring(0, value.length() - ELSE.length()) : value;
  }

  private static void add(Map<String, SitePattern> patterns, String text) {
    SitePattern pattern = SitePattern.parse(text);
    patterns.putIfAbsent(pattern.toString(), pattern);
  }

  private static IntSet set(List<Integer> members) {
    IntSet.Builder out = new IntSet.Builder();
    members.stream().sorted().forEach(member -> out.addInOrder(member, member));
    return out.build();
  }

  /**
   * The name of the value that a site has: that of the narrowest pattern which holds it.
   *
   * @param names what the values are called
   */
  static Optional<String> value(String site, Set<String> names) {
    if (!SitePattern.isOne(site)) {
      return Optional.empty();
    }
    for (String wider : SitePattern.parse(site).wider()) {
      if (names.contains(wider)) {
        return Optional.of(wider);
      }
      if (names.contains(wider + ELSE)) {
        return Optional.of(wider + ELSE);
      }
    }
    return names.contains(OTHER) ? Optional.of(OTHER) : Optional.empty();
  }
}
