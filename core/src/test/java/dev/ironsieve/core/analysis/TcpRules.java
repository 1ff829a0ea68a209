package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;

/** Rules that ask for nothing but ports of TCP. */
final class TcpRules {
  private static final int TCP = 6;

  private TcpRules() {}

  static Rule rule(String id, Verdict verdict, int firstPort, int lastPort) {
    Rule all = Rule.matchingAll(id, "rule " + id, verdict);
    return all.matching(
        all.fromZones(),
        all.fromAddresses(),
        all.toZones(),
        all.toAddresses(),
        Criterion.<ServiceItem>of(ServiceLiteral.ports(TCP, firstPort, lastPort)));
  }
}
