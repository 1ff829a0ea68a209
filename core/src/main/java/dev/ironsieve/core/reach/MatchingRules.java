package dev.ironsieve.core.reach;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.List;

/**
 * Finds the rules that match some connections, whether or not a rule above takes these, and whether
 * or not the rule is enabled.
 */
public final class MatchingRules {
  private static final Rule ANY = Rule.matchingAll("pattern", "pattern", Verdict.ALLOW);

  private MatchingRules() {}

  /**
   * The rules that match connections from or to some address.
   *
   * @return their ids, in the order of the rules
   * @throws InvalidModel if it is the name of no object
   * @throws IllegalStateException as {@link #of}
   */
  public static List<String> withAddress(RuleIndex index, AddressItem address) {
    if (address instanceof AddressItem.Named named
        && !index.resolution().hasAddress(named.name())) {
      throw new InvalidModel("filter", "a known address", Names.quoted(named.name()));
    }
    Criterion<AddressItem> one = Criterion.of(address);
    Rule from =
        ANY.matching(ANY.fromZones(), one, ANY.toZones(), ANY.toAddresses(), ANY.services());
    Rule to =
        ANY.matching(ANY.fromZones(), ANY.fromAddresses(), ANY.toZones(), one, ANY.services());
    return of(index, List.of(from, to));
  }

  /**
   * The rules that match connections of some service.
   *
   * @return their ids, in the order of the rules
   * @throws InvalidModel if it is the name of no object
   * @throws IllegalStateException as {@link #of}
   */
  public static List<String> withService(RuleIndex index, ServiceItem service) {
    if (service instanceof ServiceItem.Named named
        && !index.resolution().hasService(named.name())) {
      throw new InvalidModel("filter", "a known service", Names.quoted(named.name()));
    }
    return of(
        index,
        List.of(
            ANY.matching(
                ANY.fromZones(),
                ANY.fromAddresses(),
                ANY.toZones(),
                ANY.toAddresses(),
                Criterion.of(service))));
  }

  /**
   * The rules that match connections of one of some patterns. O(boxes of the rules).
   *
   * @throws IllegalStateException if the order has no room left to tell a pattern apart, and has to
   *     be made anew first
   */
  private static List<String> of(RuleIndex index, List<Rule> patterns) {
    List<Box> wanted = new ArrayList<>();
    for (Rule pattern : patterns) {
      wanted.addAll(
          index
              .space()
              .region(index.resolution().match(pattern))
              .orElseThrow(() -> new IllegalStateException("no room to tell the pattern apart")));
    }
    List<String> out = new ArrayList<>();
    for (int position = 0; position < index.size(); position++) {
      int handle = index.handleAt(position);
      if (index.region(handle).stream()
          .anyMatch(box -> wanted.stream().anyMatch(box::intersects))) {
        out.add(index.rule(handle).id());
      }
    }
    return out;
  }
}
