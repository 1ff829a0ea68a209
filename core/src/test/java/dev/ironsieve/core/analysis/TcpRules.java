package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import java.util.Arrays;
import java.util.List;

/** Rules that ask for nothing but ports of TCP. */
final class TcpRules {
  private static final int TCP = 6;

  private TcpRules() {}

  static Rule rule(String id, Verdict verdict, int firstPort, int lastPort) {
    return asking(id, verdict, List.of(ServiceLiteral.ports(TCP, firstPort, lastPort)));
  }

  /** For single ports. */
  static Rule rule(String id, Verdict verdict, int[] ports) {
    return asking(
        id,
        verdict,
        Arrays.stream(ports).<ServiceItem>mapToObj(p -> ServiceLiteral.ports(TCP, p, p)).toList());
  }

  private static Rule asking(String id, Verdict verdict, List<ServiceItem> services) {
    Rule all = Rule.matchingAll(id, "rule " + id, verdict);
    return all.matching(
        all.fromZones(),
        all.fromAddresses(),
        all.toZones(),
        all.toAddresses(),
        new Criterion<>(services, List.of()));
  }
}
