package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Random rulebases over so few zones, addresses and services that every point can be tried. The
 * zones declare exactly the addresses that there are; for services and ports, one value stands for
 * all that no rule mentions.
 */
public final class SmallWorld {
  private static final List<String> ZONES = List.of("north", "south");
  private static final List<String> ADDRESSES =
      List.of(
          "10.0.0.0/31",
          "10.0.0.1",
          "10.0.0.2-10.0.0.3",
          "10.0.0.0/30",
          "0.0.0.0/0",
          "fd00::1",
          "fd00::/127",
          "::/0",
          "pair",
          "nest",
          "far",
          "10.0.0.1-10.0.0.2");
  private static final List<String> SERVICES =
      List.of(
          "tcp/1",
          "tcp/2",
          "tcp/1-2",
          "tcp",
          "udp/1",
          "icmp/8",
          "icmp/3/1",
          "icmp",
          "ip/47",
          "tcp/1 from 5",
          "tcp from 5-6",
          "udp from 6",
          "web",
          "udp");
  private static final List<String> SERVICES_WITH_TERMS =
      List.of("tcp/1", "tcp/2", "tcp", "icmp/8", "ip/47", "usual ports");
  private static final int[][] POSITIONS_WITH_TERMS = {
    {6, 1}, {6, 2}, {6, 9}, {1, 8 << 8}, {1, 7}, {47, 0}, {200, 0}
  };
  private static final int[][] POSITIONS = {
    {6, 1},
    {6, 2},
    {6, 9},
    {17, 1},
    {17, 9},
    {1, 8 << 8},
    {1, 3 << 8 | 1},
    {1, 7},
    {47, 0},
    {200, 0}
  };
  private static final int[] SOURCE_PORTS = {5, 6, 9};

  private static final List<Vocabulary> VOCABULARIES =
      List.of(
          new Vocabulary(
              Coordinate.PERSON,
              "day 1",
              List.of("ann", "ben", "nobody"),
              List.of(
                  new Vocabulary.Term("signed in", IntSet.range(0, 1)),
                  new Vocabulary.Term("not ben", IntSet.of(0).union(IntSet.of(2))))),
          new Vocabulary(
              Coordinate.APPLICATION,
              "day 1",
              List.of("chat: post", "chat: view", "mail"),
              List.of(
                  new Vocabulary.Term("chat", IntSet.range(0, 1)),
                  new Vocabulary.Term("nothing yet", IntSet.EMPTY)),
              List.of(
                  new ApplicationFact(
                      "chat",
                      IntSet.range(0, 1),
                      List.of(ServiceLiteral.parse("tcp/2")),
                      List.of(),
                      List.of("mail"),
                      List.of("mail"),
                      IntSet.range(0, 1)),
                  new ApplicationFact(
                      "mail",
                      IntSet.of(2),
                      List.of(ServiceLiteral.parse("tcp/1"), ServiceLiteral.parse("icmp/8")),
                      List.of(),
                      List.of(),
                      List.of(),
                      IntSet.EMPTY))));

  private final Random random;
  private final boolean withTerms;

  /** A world of zones, addresses and services. */
  public SmallWorld(long seed) {
    this(seed, false);
  }

  /**
   * @param withTerms whether rules have criteria on people and applications too
   */
  public SmallWorld(long seed, boolean withTerms) {
    random = new Random(seed);
    this.withTerms = withTerms;
  }

  private Map<Coordinate, Criterion<String>> terms() {
    Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
    for (Vocabulary vocabulary : withTerms ? VOCABULARIES : List.<Vocabulary>of()) {
      List<String> names = new ArrayList<>(vocabulary.values());
      vocabulary.terms().forEach(term -> names.add(term.name()));
      out.put(vocabulary.coordinate(), criterion(names, 2));
    }
    return out;
  }

  /** A rulebase with up to {@code maxRules} rules in two sections. */
  public Rulebase rulebase(int maxRules) {
    List<Zone> zones =
        List.of(
            new Zone("north", ranges("10.0.0.0/31", "fd00::1"), ""),
            new Zone("south", ranges("10.0.0.0/30", "fd00::/127"), ""));
    List<AddressObject> addresses =
        List.of(
            new AddressObject(
                "pair", List.of(AddressItem.parse("10.0.0.0"), AddressItem.parse("10.0.0.3")), ""),
            new AddressObject(
                "nest", List.of(AddressItem.parse("pair"), AddressItem.parse("fd00::1")), ""));
    List<Feed> feeds =
        List.of(
            new Feed(
                "registry",
                FeedKind.COUNTRIES,
                "day 1",
                List.of(
                    new FeedSet.Addresses(
                        "far", AddressSet.of(ranges("10.0.0.1", "10.0.0.3", "fd00::"))))));
    List<ServiceObject> services =
        List.of(
            new ServiceObject(
                "web", List.of(ServiceItem.parse("tcp/2"), ServiceItem.parse("udp/1")), ""));
    List<Rule> rules = new ArrayList<>();
    int count = 1 + random.nextInt(maxRules);
    for (int i = 0; i < count; i++) {
      rules.add(rule("r" + i));
    }
    int half = random.nextInt(count + 1);
    return new Rulebase(
        "small",
        zones,
        addresses,
        services,
        List.of(),
        withTerms ? VOCABULARIES : List.of(),
        feeds,
        new GatewaySettings(
            List.of(
                new RatePlan(
                    "narrow", Rate.parse("2 Mbit/s"), null, RatePlan.Counted.EACH_RULE, null, "")),
            List.of(new Notice("mind", "Mind the gap", "Ask first.")),
            null),
        List.of(
            new Section("a", "First", rules.subList(0, half)),
            new Section("b", "Second", rules.subList(half, count))));
  }

  public Rule rule(String id) {
    return new Rule(
        id,
        "rule " + id,
        random.nextInt(10) > 0,
        criterion(ZONES, 3),
        addresses(),
        criterion(ZONES, 3),
        addresses(),
        services(),
        terms(),
        Verdict.values()[random.nextInt(Verdict.values().length)],
        random.nextInt(3) == 0 ? Opening.OPENED : Opening.SEALED,
        withTerms ? Logging.values()[random.nextInt(Logging.values().length)] : Logging.OFF,
        withTerms && random.nextInt(4) == 0 ? "narrow" : null,
        withTerms && random.nextInt(4) == 0 ? "MIND" : null,
        "");
  }

  private Criterion<AddressItem> addresses() {
    Criterion<String> texts = criterion(ADDRESSES, 2);
    return new Criterion<>(
        texts.items().stream().map(AddressItem::parse).toList(),
        texts.except().stream().map(AddressItem::parse).toList());
  }

  private Criterion<ServiceItem> services() {
    Criterion<String> texts = criterion(withTerms ? SERVICES_WITH_TERMS : SERVICES, 2);
    return new Criterion<>(
        texts.items().stream().map(ServiceItem::parse).toList(),
        texts.except().stream().map(ServiceItem::parse).toList());
  }

  private Criterion<String> criterion(List<String> from, int oneIn) {
    return new Picks(random).criterion(from, oneIn);
  }

  private static List<AddressRange> ranges(String... texts) {
    return List.of(texts).stream().map(AddressRange::parse).toList();
  }

  /**
   * Every feasible connection of this world; one value stands for all that rules do not tell apart.
   */
  public static List<Connection> connections() {
    List<Endpoint> ends = new ArrayList<>();
    for (String address : List.of("10.0.0.0", "10.0.0.1", "fd00::1")) {
      ends.add(new Endpoint("north", Address.parse(address)));
    }
    for (String address :
        List.of("10.0.0.0", "10.0.0.1", "10.0.0.2", "10.0.0.3", "fd00::", "fd00::1")) {
      ends.add(new Endpoint("south", Address.parse(address)));
    }
    List<Connection> out = new ArrayList<>();
    for (Endpoint from : ends) {
      for (Endpoint to : ends) {
        if (from.address().family() != to.address().family()) {
          continue;
        }
        for (int[] position : POSITIONS) {
          if (!Transport.hasPorts(position[0])) {
            out.add(new Connection(from, to, position[0], position[1], Connection.UNKNOWN));
            continue;
          }
          for (int port : SOURCE_PORTS) {
            out.add(new Connection(from, to, position[0], position[1], port));
          }
        }
      }
    }
    return out;
  }

  /** The same in a world with terms, where rules use fewer services. */
  public static List<Connection> connectionsWithTerms() {
    List<Connection> out = new ArrayList<>();
    for (Connection c : connections()) {
      boolean first = c.sourcePort() <= SOURCE_PORTS[0];
      boolean told =
          Arrays.stream(POSITIONS_WITH_TERMS)
              .anyMatch(p -> p[0] == c.protocol() && p[1] == c.detail());
      if (!first || !told) {
        continue;
      }
      for (String person : VOCABULARIES.get(0).values()) {
        for (String application : VOCABULARIES.get(1).values()) {
          out.add(
              new Connection(
                  c.from(),
                  c.to(),
                  c.protocol(),
                  c.detail(),
                  c.sourcePort(),
                  Map.of(Coordinate.PERSON, person, Coordinate.APPLICATION, application)));
        }
      }
    }
    return out;
  }

  /** Whether a complete connection agrees with an incomplete one. */
  public static boolean agrees(Connection whole, Connection said) {
    return agrees(whole.from(), said.from())
        && agrees(whole.to(), said.to())
        && (said.protocol() < 0 || whole.protocol() == said.protocol())
        && (said.detail() < 0 || whole.detail() == said.detail())
        && (said.sourcePort() < 0 || whole.sourcePort() == said.sourcePort())
        && whole.terms().entrySet().containsAll(said.terms().entrySet());
  }

  private static boolean agrees(Endpoint whole, Endpoint said) {
    return (said.zone() == null || said.zone().equals(whole.zone()))
        && (said.address() == null || said.address().equals(whole.address()));
  }

  /** A connection of which some is left unsaid. */
  public static Connection leavingUnsaid(Connection whole, Random random) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    whole
        .terms()
        .forEach(
            (coordinate, value) -> {
              if (random.nextBoolean()) {
                terms.put(coordinate, value);
              }
            });
    boolean service = random.nextInt(4) > 0;
    boolean detail = service && random.nextInt(4) > 0;
    return new Connection(
        leavingUnsaid(whole.from(), random),
        leavingUnsaid(whole.to(), random),
        service ? whole.protocol() : Connection.UNKNOWN,
        detail ? whole.detail() : Connection.UNKNOWN,
        detail && random.nextBoolean() ? whole.sourcePort() : Connection.UNKNOWN,
        terms);
  }

  private static Endpoint leavingUnsaid(Endpoint whole, Random random) {
    return new Endpoint(
        random.nextInt(3) > 0 ? whole.zone() : null,
        random.nextInt(3) > 0 ? whole.address() : null);
  }
}
