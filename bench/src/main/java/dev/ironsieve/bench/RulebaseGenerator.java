package dev.ironsieve.bench;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;

/**
 * Seeded rulebases over every dimension, in three shapes. The same seed, shape and size give the
 * same rulebase.
 */
public final class RulebaseGenerator {
  private static final int ZONES = 12;
  private static final int[] PORTS = {
    22, 25, 53, 80, 123, 389, 443, 445, 514, 587, 636, 993, 3389, 5060, 5432, 8080, 8443, 8883, 9100
  };

  /** In an adversarial base, how many rules stand between two wide ones. */
  private static final int RUN = 60;

  /** In an adversarial base, rules of a knot with the wide one below them; see {@link Shape}. */
  private static final int KNOT = 180;

  /** In an adversarial base, one knot stands in so many rules. */
  private static final int RULES_PER_KNOT = 1200;

  private static final int TERMS_OF_A_KNOT = 3; // that each of its rules asks for

  /** One rule in so many is taken over by an earlier one. */
  private static final int TAKEN_OVER = 40;

  private final SplittableRandom random;
  private final Shape shape;
  private final List<Vocabulary> vocabularies;
  private final List<Vocabulary> ordinary; // without the terms that only knots use

  public RulebaseGenerator(long seed, Shape shape) {
    random = new SplittableRandom(seed);
    this.shape = shape;
    ordinary = Words.vocabularies(random.split(), shape != Shape.EASY);
    vocabularies =
        shape == Shape.ADVERSARIAL ? ordinary.stream().map(Words::withBits).toList() : ordinary;
  }

  /**
   * @param own what its rules can say of one coordinate, instead of made-up words
   */
  RulebaseGenerator(long seed, Shape shape, Vocabulary own) {
    random = new SplittableRandom(seed);
    this.shape = shape;
    vocabularies =
        Words.vocabularies(random.split(), shape != Shape.EASY).stream()
            .map(words -> words.coordinate() == own.coordinate() ? own : words)
            .toList();
    ordinary = vocabularies;
  }

  /** A rulebase with this many rules, whose ids are r0, r1 and so on. */
  public Rulebase rulebase(int rules) {
    List<Zone> zones = new ArrayList<>();
    for (int i = 0; i < ZONES && shape != Shape.ADVERSARIAL; i++) {
      List<AddressRange> networks = i == 0 ? List.of() : List.of(network(i, 0, 12), v6(i, 0, 44));
      zones.add(new Zone(zone(i), networks, ""));
    }
    List<Rule> all = new ArrayList<>();
    for (int i = 0; i < rules; i++) {
      Rule fresh = rule("r" + i, i);
      all.add(i > 10 && oneIn(TAKEN_OVER) ? like(all.get(random.nextInt(i)), fresh) : fresh);
    }
    return new Rulebase(
        shape.name().toLowerCase(Locale.ROOT) + " " + rules,
        zones,
        List.of(),
        List.of(),
        vocabularies,
        List.of(new Section("s", "All", all)));
  }

  /** A rule that asks for what an earlier one asks for, and for less of one thing: a mistake. */
  private static Rule like(Rule earlier, Rule fresh) {
    return new Rule(
        fresh.id(),
        fresh.name(),
        fresh.enabled(),
        earlier.fromZones(),
        earlier.fromAddresses(),
        earlier.toZones(),
        earlier.toAddresses(),
        earlier.services().isAny() ? fresh.services() : earlier.services(),
        earlier.terms(),
        fresh.verdict(),
        Opening.SEALED,
        Logging.OFF,
        "");
  }

  /** Another rule for the place of the one with this id. */
  public Rule rule(String id) {
    return rule(id, random.nextInt(1_000_000));
  }

  private Rule rule(String id, int place) {
    int from = random.nextInt(ZONES);
    int to = random.nextInt(ZONES);
    boolean wide = oneIn(shape == Shape.EASY ? 200 : 40);
    boolean adversarial = shape == Shape.ADVERSARIAL;
    int rest = RULES_PER_KNOT - 1 - place % RULES_PER_KNOT; // rules until the end of the next knot
    boolean knot = adversarial && rest < KNOT;
    boolean last = knot ? rest == 0 : adversarial && place % RUN == RUN - 1;
    int port = knot ? 900 + place / RULES_PER_KNOT : 1000 + place / RUN;
    return new Rule(
        id,
        "rule " + id,
        !oneIn(50),
        adversarial || wide || oneIn(15) ? Criterion.any() : Criterion.of(zone(from)),
        adversarial || wide ? Criterion.any() : addresses(from),
        adversarial || wide || oneIn(15) ? Criterion.any() : Criterion.of(zone(to)),
        adversarial || (wide && oneIn(2)) ? Criterion.any() : addresses(to),
        adversarial
            ? Criterion.of(ServiceLiteral.ports(6, port, port))
            : wide ? Criterion.any() : services(),
        last ? Map.of() : knot ? bits() : terms(wide),
        oneIn(3) ? Verdict.DROP : oneIn(12) ? Verdict.REJECT : Verdict.ALLOW,
        Opening.SEALED,
        Logging.OFF,
        "");
  }

  private boolean oneIn(int n) {
    return random.nextInt(n) == 0;
  }

  private static String zone(int number) {
    return "zone " + (char) ('a' + number);
  }

  /**
   * @param wide whether the rule asks for little else, so that it would take everything without
   */
  private Map<Coordinate, Criterion<String>> terms(boolean wide) {
    Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
    Coordinate always = wide ? (oneIn(2) ? Coordinate.PERSON : Coordinate.APPLICATION) : null;
    for (Vocabulary vocabulary : ordinary) {
      boolean narrow =
          vocabulary.coordinate() == always
              || switch (shape) {
                case EASY -> oneIn(4);
                case HARD -> oneIn(3);
                case ADVERSARIAL -> vocabulary.coordinate() != Coordinate.FILE_KIND;
              };
      if (!narrow) {
        continue;
      }
      List<String> items = new ArrayList<>();
      for (int i = random.nextInt(shape == Shape.EASY ? 2 : 3); i >= 0; i--) {
        items.add(vocabulary.terms().get(random.nextInt(vocabulary.terms().size())).name());
      }
      if (oneIn(4)) {
        items.add(vocabulary.values().get(random.nextInt(vocabulary.values().size())));
      }
      out.put(vocabulary.coordinate(), new Criterion<>(items, List.of()));
    }
    return out;
  }

  /** On a few coordinates, that the number of the value has some bit, or has it not. */
  private Map<Coordinate, Criterion<String>> bits() {
    Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
    while (out.size() < TERMS_OF_A_KNOT) {
      int number = random.nextInt(vocabularies.size());
      List<Vocabulary.Term> terms = vocabularies.get(number).terms();
      int own = ordinary.get(number).terms().size();
      List<String> bit = List.of(terms.get(own + random.nextInt(terms.size() - own)).name());
      out.put(
          vocabularies.get(number).coordinate(),
          random.nextBoolean() ? new Criterion<>(bit, List.of()) : new Criterion<>(List.of(), bit));
    }
    return out;
  }

  private Criterion<AddressItem> addresses(int zone) {
    if (oneIn(shape == Shape.EASY ? 8 : 5)) {
      return Criterion.any();
    }
    List<AddressItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int length = shape == Shape.EASY ? 22 + random.nextInt(11) : 16 + random.nextInt(17);
      AddressRange range =
          oneIn(5)
              ? v6(zone, random.nextInt(4000), 64)
              : network(zone, random.nextInt(1 << 20), length);
      items.add(new AddressItem.Literal(range));
    }
    return new Criterion<>(items, List.of());
  }

  private static AddressRange network(int zone, int host, int length) {
    long base = (10L << 24) | ((long) zone << 20) | host;
    return AddressRange.prefix(new Address(Family.IPV4, 0, base), length);
  }

  private static AddressRange v6(int zone, int subnet, int length) {
    long high = 0x2001_0db8_0000_0000L | (long) zone << 20 | subnet;
    return AddressRange.prefix(new Address(Family.IPV6, high, 0), length);
  }

  private Criterion<ServiceItem> services() {
    if (oneIn(8)) {
      return Criterion.any();
    }
    List<ServiceItem> items = new ArrayList<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int port = PORTS[random.nextInt(PORTS.length)];
      int last = oneIn(8) ? port + random.nextInt(500) : port;
      int protocol = oneIn(4) ? 17 : 6;
      items.add(
          oneIn(40)
              ? new ServiceLiteral(protocol, port, last, 1024, 65535)
              : ServiceLiteral.ports(protocol, port, last));
    }
    return new Criterion<>(items, List.of());
  }

  /** A connection between two zones to one of the common ports; everything of it is known. */
  public Connection connection() {
    int from = 1 + random.nextInt(ZONES - 1);
    int to = 1 + random.nextInt(ZONES - 1);
    boolean zones = shape != Shape.ADVERSARIAL;
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    for (Vocabulary vocabulary : vocabularies) {
      terms.put(
          vocabulary.coordinate(),
          vocabulary.values().get(random.nextInt(vocabulary.values().size())));
    }
    return new Connection(
        new Connection.Endpoint(
            zones ? zone(from) : null, network(from, random.nextInt(1 << 20), 32).first()),
        new Connection.Endpoint(
            zones ? zone(to) : null, network(to, random.nextInt(1 << 20), 32).first()),
        6,
        PORTS[random.nextInt(PORTS.length)],
        1024 + random.nextInt(60_000),
        terms);
  }
}
