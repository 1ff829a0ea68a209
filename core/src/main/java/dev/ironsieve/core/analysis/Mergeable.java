package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * Mergeable: two rules, one directly below the other, that do the same and differ in one criterion
 * only. Their union is one rule whose criterion has the items of both, provided that both have the
 * same exceptions and that one criterion can list so many items; nothing stands between them that
 * could tell the difference.
 */
public final class Mergeable {
  private Mergeable() {}

  /** The finding about a rule in force and the next one in force below it, if there is one. */
  static Optional<Finding> of(int handle, RuleIndex index) {
    int next = nextInForce(handle, index);
    if (next == RuleIndex.NONE || merged(index.rule(handle), index.rule(next)).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        Finding.of(
            Finding.Kind.MERGEABLE,
            index.rule(handle).id(),
            List.of(index.rule(next).id()),
            Minimality.SMALLEST,
            null,
            null));
  }

  private static int nextInForce(int handle, RuleIndex index) {
    if (!index.rule(handle).isInForce()) {
      return RuleIndex.NONE;
    }
    int position = index.position(handle) + 1;
    while (position < index.size() && !index.rule(index.handleAt(position)).isInForce()) {
      position++;
    }
    return position < index.size() ? index.handleAt(position) : RuleIndex.NONE;
  }

  /** The one rule that can stand for both, with the identity of the upper; O(size of the rules). */
  public static Optional<Rule> merged(Rule upper, Rule lower) {
    if (upper.verdict() != lower.verdict()
        || upper.opening() != lower.opening()
        || upper.logging() != lower.logging()
        || !Objects.equals(upper.ratePlan(), lower.ratePlan())
        || !Objects.equals(upper.notice(), lower.notice())
        || !Objects.equals(upper.hold(), lower.hold())
        || !upper.validity().equals(lower.validity())
        || upper.unfinished()
        || lower.unfinished()
        || upper.observeOnly()
        || lower.observeOnly()) {
      return Optional.empty();
    }
    int differing = 0;
    differing += upper.fromZones().equals(lower.fromZones()) ? 0 : 1;
    differing += upper.toZones().equals(lower.toZones()) ? 0 : 1;
    differing += upper.fromAddresses().equals(lower.fromAddresses()) ? 0 : 1;
    if (differing > 1) {
      return Optional.empty();
    }
    differing += upper.toAddresses().equals(lower.toAddresses()) ? 0 : 1;
    differing += upper.services().equals(lower.services()) ? 0 : 1;
    if (!upper.terms().equals(lower.terms())) {
      for (Coordinate coordinate : Coordinate.values()) {
        differing += upper.term(coordinate).equals(lower.term(coordinate)) ? 0 : 1;
      }
    }
    if (differing != 1) {
      return Optional.empty();
    }
    boolean exceptionsAgree =
        upper.fromZones().except().equals(lower.fromZones().except())
            && upper.fromAddresses().except().equals(lower.fromAddresses().except())
            && upper.toZones().except().equals(lower.toZones().except())
            && upper.toAddresses().except().equals(lower.toAddresses().except())
            && upper.services().except().equals(lower.services().except());
    boolean fits =
        fits(upper.fromZones(), lower.fromZones())
            && fits(upper.fromAddresses(), lower.fromAddresses())
            && fits(upper.toZones(), lower.toZones())
            && fits(upper.toAddresses(), lower.toAddresses())
            && fits(upper.services(), lower.services());
    for (Coordinate coordinate : Coordinate.values()) {
      Criterion<String> above = upper.term(coordinate);
      Criterion<String> below = lower.term(coordinate);
      exceptionsAgree &= above.except().equals(below.except());
      fits &= fits(above, below);
    }
    if (!exceptionsAgree || !fits) {
      return Optional.empty();
    }
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    for (Coordinate coordinate : Coordinate.values()) {
      terms.put(coordinate, union(upper.term(coordinate), lower.term(coordinate)));
    }
    return Optional.of(
        upper
            .matching(
                union(upper.fromZones(), lower.fromZones()),
                union(upper.fromAddresses(), lower.fromAddresses()),
                union(upper.toZones(), lower.toZones()),
                union(upper.toAddresses(), lower.toAddresses()),
                union(upper.services(), lower.services()))
            .asking(terms)
            .enabled(true));
  }

  /** Whether one criterion can list the items of both. */
  private static <T> boolean fits(Criterion<T> upper, Criterion<T> lower) {
    if (upper.items().size() + lower.items().size() <= Criterion.MAX_ITEMS
        || upper.items().isEmpty()
        || lower.items().isEmpty()) {
      return true;
    }
    Set<T> both = new HashSet<>(upper.items());
    both.addAll(lower.items());
    return both.size() <= Criterion.MAX_ITEMS;
  }

  /** Without items a criterion stands for everything, and so does its union with any other. */
  private static <T> Criterion<T> union(Criterion<T> upper, Criterion<T> lower) {
    if (upper.equals(lower)) {
      return upper;
    }
    List<T> items = new ArrayList<>();
    if (!upper.items().isEmpty() && !lower.items().isEmpty()) {
      items.addAll(upper.items());
      items.addAll(lower.items());
    }
    return new Criterion<>(items, upper.except());
  }
}
