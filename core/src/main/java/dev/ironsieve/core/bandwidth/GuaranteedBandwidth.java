package dev.ironsieve.core.bandwidth;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * The sum of the floors of rate plans. A floor is reserved for the rules in force with the plan
 * whose verdict lets connections through: once for all of them, once for each, or once for each
 * source address that can open a connection by one of them, up to the number in the plan.
 *
 * @param plans those with a floor, in order
 * @param total of all plans, in bits per second, at most {@link Long#MAX_VALUE}
 */
public record GuaranteedBandwidth(List<Reservation> plans, long total) {
  /**
   * The reservation of one plan.
   *
   * @param rules names of the rules with the plan
   * @param times how often its floor is reserved
   * @param total floor · times, in bits per second, at most {@link Long#MAX_VALUE}
   */
  public record Reservation(RatePlan plan, List<String> rules, long times, long total) {}

  /** The reservations of a rulebase; O(size of the rules with a plan). */
  public static GuaranteedBandwidth of(Rulebase rulebase) {
    Resolution resolution = new Resolution(rulebase);
    List<Reservation> plans = new ArrayList<>();
    long total = 0;
    for (RatePlan plan : rulebase.gatewaySettings().ratePlans()) {
      if (plan.floor() == null) {
        continue;
      }
      List<Rule> rules =
          rulebase.rules().stream()
              .filter(rule -> rule.isInForce() && rule.verdict().letsThrough() && has(rule, plan))
              .toList();
      long times =
          switch (plan.counted()) {
            case ALL_RULES -> rules.isEmpty() ? 0 : 1;
            case EACH_RULE -> rules.size();
            case EACH_SOURCE -> Math.min(plan.mostAtOnce(), sources(rules, resolution));
          };
      long kept = plan.floor().bits() * times; // at most 10^15 · 10^6 overflows; see below
      if (times > 0 && kept / times != plan.floor().bits()) {
        kept = Long.MAX_VALUE;
      }
      plans.add(new Reservation(plan, rules.stream().map(Rule::name).toList(), times, kept));
      total = total + kept < total ? Long.MAX_VALUE : total + kept;
    }
    return new GuaranteedBandwidth(plans, total);
  }

  private static boolean has(Rule rule, RatePlan plan) {
    return rule.ratePlan() != null && Names.key(rule.ratePlan()).equals(Names.key(plan.name()));
  }

  /**
   * Number of addresses that can open a connection by some rule, at most the highest number of a
   * plan.
   */
  private static long sources(List<Rule> rules, Resolution resolution) {
    AddressSet all = AddressSet.EMPTY;
    for (Rule rule : rules) {
      ResolvedMatch match = resolution.match(rule);
      Set<Integer> zones = new TreeSet<>();
      match.fromZones().forEach(zones::add);
      for (int zone : zones) {
        all = all.union(match.from().intersect(resolution.networks(zone)));
      }
    }
    double size = 0;
    for (Family family : Family.values()) {
      size += all.size(family);
    }
    return (long) Math.min(size, RatePlan.MOST_SOURCES);
  }
}
