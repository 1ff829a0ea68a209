package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import java.math.BigInteger;
import java.util.Optional;

/**
 * Too broad: a rule that allows and narrows none of the coordinates that count. A criterion that
 * lists every value narrows nothing.
 */
final class TooBroad {
  private TooBroad() {}

  /** The finding about a rule in force, if there is one. */
  static Optional<Finding> of(int handle, RuleIndex index, Breadth breadth) {
    return isTooBroad(handle, index, breadth)
        ? Optional.of(Finding.of(Finding.Kind.TOO_BROAD, index.rule(handle).id(), ""))
        : Optional.empty();
  }

  private static boolean isTooBroad(int handle, RuleIndex index, Breadth breadth) {
    Rule rule = index.rule(handle);
    if (!rule.isInForce() || rule.verdict() != Verdict.ALLOW) {
      return false;
    }
    ResolvedMatch match = index.match(handle);
    Resolution resolution = index.resolution();
    for (Breadth.Dimension part : breadth.counting()) {
      if (narrows(match, part, resolution)) {
        return false;
      }
    }
    BigInteger fewest = BigInteger.valueOf(breadth.addresses());
    return breadth.addresses() == 1
        || hasAtLeast(fewest, match.fromZones(), match.from(), resolution)
            && hasAtLeast(fewest, match.toZones(), match.to(), resolution);
  }

  private static boolean narrows(
      ResolvedMatch match, Breadth.Dimension part, Resolution resolution) {
    if (part.coordinate() == null) {
      return !match.services().equals(ResolvedMatch.ServiceConjunct.ALL);
    }
    for (int i = 0; i < resolution.vocabularies().size(); i++) {
      if (resolution.vocabularies().get(i).coordinate() == part.coordinate()) {
        return !match.terms().get(i).equals(resolution.anyTerms().get(i));
      }
    }
    return false;
  }

  /** Whether an end can have at least so many addresses, all its zones together. */
  private static boolean hasAtLeast(
      BigInteger fewest, IntSet zones, AddressSet addresses, Resolution resolution) {
    BigInteger sum = BigInteger.ZERO;
    for (int i = 0; i < zones.intervals(); i++) {
      for (int zone = zones.first(i); zone <= zones.last(i); zone++) {
        for (AddressRange range : resolution.networks(zone).intersect(addresses).ranges()) {
          sum = sum.add(range.size());
          if (sum.compareTo(fewest) >= 0) {
            return true;
          }
        }
      }
    }
    return false;
  }
}
