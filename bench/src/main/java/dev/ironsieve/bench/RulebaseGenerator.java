package dev.ironsieve.bench;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * Seeded rulebases that look like a company's: twelve zones, networks that nest, a few services
 * that many rules share, refusals that overlap allowances, and some rules that others take over.
 */
final class RulebaseGenerator {
  private static final int ZONES = 12;
  private static final int[] PORTS = {
    22, 25, 53, 80, 123, 389, 443, 445, 514, 587, 636, 993, 3389, 5060, 5432, 8080, 8443, 8883, 9100
  };

  private final Random random;

  RulebaseGenerator(long seed) {
    random = new Random(seed);
  }

  Rulebase rulebase(int rules) {
    List<Zone> zones = new ArrayList<>();
    for (int i = 0; i < ZONES; i++) {
      List<AddressRange> networks = i == 0 ? List.of() : List.of(network(i, 0, 16), v6(i, 0, 48));
      zones.add(new Zone("zone " + (char) ('a' + i), networks, ""));
    }
    List<Rule> all = new ArrayList<>();
    for (int i = 0; i < rules; i++) {
      all.add(rule("r" + i));
    }
    return new Rulebase(
        "generated", zones, List.of(), List.of(), List.of(new Section("s", "All", all)));
  }

  Rule rule(String id) {
    int from = random.nextInt(ZONES);
    int to = random.nextInt(ZONES);
    return new Rule(
        id,
        "rule " + id,
        random.nextInt(50) > 0,
        random.nextInt(12) == 0 ? Criterion.any() : Criterion.of(zone(from)),
        addresses(from),
        random.nextInt(12) == 0 ? Criterion.any() : Criterion.of(zone(to)),
        addresses(to),
        services(),
        random.nextInt(3) == 0 ? Verdict.DROP : Verdict.ALLOW,
        Logging.OFF,
        "");
  }

  private static String zone(int number) {
    return "zone " + (char) ('a' + number);
  }

  private Criterion<AddressItem> addresses(int zone) {
    if (random.nextInt(5) == 0) {
      return Criterion.any();
    }
    List<AddressItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int length = 20 + random.nextInt(13);
      AddressRange range =
          random.nextInt(5) == 0
              ? v6(zone, random.nextInt(200), 64)
              : network(zone, random.nextInt(1 << 16), length);
      items.add(new AddressItem.Literal(range));
    }
    return new Criterion<>(items, List.of());
  }

  private static AddressRange network(int zone, int host, int length) {
    long base = (10L << 24) | ((long) zone * 16 << 16) | host;
    return AddressRange.prefix(new Address(Family.IPV4, 0, base), length);
  }

  private static AddressRange v6(int zone, int subnet, int length) {
    long high = 0x2001_0db8_0000_0000L | (long) zone << 16 | subnet;
    return AddressRange.prefix(new Address(Family.IPV6, high, 0), length);
  }

  private Criterion<ServiceItem> services() {
    if (random.nextInt(12) == 0) {
      return Criterion.any();
    }
    List<ServiceItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int port = PORTS[random.nextInt(PORTS.length)];
      int last = random.nextInt(8) == 0 ? port + random.nextInt(500) : port;
      items.add(ServiceLiteral.ports(random.nextInt(4) == 0 ? 17 : 6, port, last));
    }
    return new Criterion<>(items, List.of());
  }

  /** A connection between two zones to one of the common ports. */
  Connection connection() {
    int from = 1 + random.nextInt(ZONES - 1);
    int to = 1 + random.nextInt(ZONES - 1);
    return new Connection(
        new Connection.Endpoint(zone(from), network(from, random.nextInt(1 << 16), 32).first()),
        new Connection.Endpoint(zone(to), network(to, random.nextInt(1 << 16), 32).first()),
        6,
        PORTS[random.nextInt(PORTS.length)],
        50_000);
  }
}
