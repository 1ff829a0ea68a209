package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import java.math.BigInteger;

/**
 * Too broad: a rule that allows and narrows none of the parts that count. A rule that lists every
 * value of a coordinate narrows it all the same.
 */
final class Breadths {
  private Breadths() {}

  static boolean isTooBroad(int slot, Order order, Breadth breadth) {
    Rule rule = order.rule(slot);
    if (!rule.isInForce() || rule.verdict() != Verdict.ALLOW) {
      return false;
    }
    Match match = order.match(slot);
    Resolution resolution = order.resolution();
    for (Breadth.Part part : breadth.counting()) {
      if (narrows(match, part, resolution)) {
        return false;
      }
    }
    BigInteger fewest = BigInteger.valueOf(breadth.addresses());
    return breadth.addresses() == 1
        || hasAtLeast(fewest, match.fromZones(), match.from(), resolution)
            && hasAtLeast(fewest, match.toZones(), match.to(), resolution);
  }

  private static boolean narrows(Match match, Breadth.Part part, Resolution resolution) {
    if (part.coordinate() == null) {
      return !match.services().equals(Match.Traffic.ALL);
    }
    for (int i = 0; i < resolution.vocabularies().size(); i++) {
      if (resolution.vocabularies().get(i).coordinate() == part.coordinate()) {
        return match.terms().get(i) != resolution.anyTerms().get(i);
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
