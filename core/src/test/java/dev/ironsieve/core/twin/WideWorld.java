package dev.ironsieve.core.twin;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RuleBuilder;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Transport;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Random rulebases that ask for hosts, devices, kinds of files, times and days, unknown values
 * among them, in an open zone and one with networks, over SCTP and ICMPv6 too. The rules of each
 * use two of these coordinates; {@link #points} are concrete connections that stand for all.
 */
public final class WideWorld {
  private static final List<Coordinate> COORDINATES =
      List.of(Coordinate.DEVICE, Coordinate.SITE, Coordinate.FILE_KIND, Coordinate.TIME);

  private static final List<TermObject> OBJECTS =
      List.of(
          new TermObject(
              ObjectKind.HOST_LIST, "Booking", List.of("*.book.example", "book.example"), ""),
          new TermObject(
              ObjectKind.DEVICE_STATE, "Kiosk", List.of("platform kelpos", "has disk-lock"), ""),
          new TermObject(
              ObjectKind.SCHEDULE,
              "Early",
              List.of("mon-fri 08:00-09:00", "2026-12-01 to 2026-12-03"),
              ""));

  private static final Map<Coordinate, List<String>> ITEMS =
      Map.of(
          Coordinate.DEVICE,
          List.of(
              "managed",
              "unmanaged",
              "managed, platform kelpos",
              "lacks disk-lock",
              "kiosk",
              "unknown device"),
          Coordinate.SITE,
          List.of(
              "*.quay.example",
              "WWW.quay.example",
              "www.quay.example/Forms",
              "www.quay.example/forms/b",
              "BOOKING",
              "x.book.example",
              "no host"),
          Coordinate.FILE_KIND,
          List.of("PDF", "documents", "archives", "any file", "no file"),
          Coordinate.TIME,
          List.of(
              "mon-fri 06:00-18:00",
              "SAT",
              "sun 22:00-02:00",
              "mon-tue 07:00-08:00 in Europe/Oslo",
              "early",
              "2026-12-24",
              "2026-12-22 to 2026-12-24"));

  private static final List<LocalDate> VALID =
      List.of(LocalDate.of(2026, 12, 1), LocalDate.of(2026, 12, 3), LocalDate.of(2026, 12, 24));

  // Summer, when clocks differ, before and after those days; and the days themselves.
  private static final List<LocalDate> BEGINNINGS =
      List.of(LocalDate.of(2026, 7, 6), LocalDate.of(2026, 11, 20), LocalDate.of(2027, 7, 5));

  private static final Map<Coordinate, List<String>> VALUES =
      Map.of(
          Coordinate.DEVICE,
          List.of(
              "managed, platform kelpos, has disk-lock",
              "managed, platform kelpos",
              "managed, platform dune, has disk-lock",
              "managed",
              "unmanaged, platform kelpos, has disk-lock",
              "unmanaged, platform kelpos",
              "unmanaged, platform dune, has disk-lock",
              "unmanaged",
              "unknown device"),
          Coordinate.SITE,
          List.of(
              "no host",
              "www.quay.example",
              "www.quay.example/forms/a",
              "www.quay.example/forms/b",
              "a.b.quay.example",
              "quay.example",
              "book.example",
              "x.book.example",
              "y.book.example",
              "other.example"),
          Coordinate.FILE_KIND,
          List.of("no file", "PDF", "plain text", "gzip archive", "ELF program", "other file"),
          Coordinate.TIME,
          moments());

  private static final List<String> SERVICES =
      List.of("sctp/1", "sctp", "icmp6/128", "icmp6", "tcp/443", "Outer");
  private static final int[][] POSITIONS = {
    {132, 1}, {132, 3}, {132, 9}, {17, 5}, {58, 128 << 8}, {58, 1 << 8}, {6, 443}, {1, 8 << 8}
  };

  private final Random random;
  private final Picks picks;
  private final List<Coordinate> used;

  public WideWorld(long seed) {
    random = new Random(seed);
    picks = new Picks(random);
    List<Coordinate> left = new ArrayList<>(COORDINATES);
    used = List.of(left.remove(random.nextInt(4)), left.remove(random.nextInt(3)));
  }

  /** One moment for each combination of items and days that hold. */
  private static List<String> moments() {
    SlowTerms terms = new SlowTerms(OBJECTS);
    Map<BitSet, String> out = new HashMap<>();
    for (LocalDate first : BEGINNINGS) {
      for (int hour = 0; hour < 24 * 60; hour++) {
        LocalDateTime at = first.atStartOfDay().plusHours(hour);
        BitSet holds = new BitSet();
        int place = 0;
        for (String item : ITEMS.get(Coordinate.TIME)) {
          holds.set(place++, terms.holds(Coordinate.TIME, item, at.toString()));
        }
        for (LocalDate day : VALID) {
          holds.set(place++, at.toLocalDate().isBefore(day));
          holds.set(place++, at.toLocalDate().isAfter(day));
        }
        out.putIfAbsent(holds, at.toString());
      }
    }
    return List.copyOf(out.values());
  }

  /** A rulebase with one to {@code maxRules} rules. */
  public Rulebase rulebase(int maxRules) {
    List<Rule> rules = new ArrayList<>();
    for (int i = random.nextInt(maxRules); i >= 0; i--) {
      rules.add(rule("r" + rules.size()));
    }
    return new Rulebase(
        "wide",
        List.of(
            new Zone("North", List.of(), ""),
            new Zone("south", List.of(AddressRange.parse("10.0.0.0/31")), "")),
        List.of(),
        List.of(new ServiceObject("inner", services("icmp/8", "sctp/9"), ""), outer()),
        OBJECTS,
        List.of(),
        List.of(),
        GatewaySettings.NONE,
        List.of(new Section("s", "S", rules)));
  }

  /** A group that holds a group. */
  private static ServiceObject outer() {
    return new ServiceObject("outer", services("inner", "tcp/443"), "");
  }

  private static List<ServiceItem> services(String... texts) {
    return List.of(texts).stream().map(ServiceItem::parse).toList();
  }

  private Rule rule(String id) {
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    for (Coordinate coordinate : used) {
      terms.put(coordinate, picks.criterion(ITEMS.get(coordinate), 2));
    }
    Criterion<String> from = picks.criterion(List.of("10.0.0.1", "192.0.2.0/24", "fd00::/64"), 4);
    Criterion<String> services = picks.criterion(SERVICES, 3);
    RuleBuilder out =
        Rule.matchingAll(id, "rule " + id, picks.one(List.of(Verdict.values())))
            .edit()
            .enabled(random.nextInt(10) > 0)
            .observeOnly(random.nextInt(8) == 0)
            .opening(random.nextBoolean() ? Opening.OPENED : Opening.SEALED)
            .from(
                picks.criterion(List.of("NORTH", "South"), 4),
                new Criterion<>(addresses(from.items()), addresses(from.except())))
            .services(
                new Criterion<>(
                    services(services.items().toArray(String[]::new)),
                    services(services.except().toArray(String[]::new))))
            .terms(terms);
    if (used.contains(Coordinate.TIME) && random.nextInt(3) == 0) {
      int start = random.nextInt(4);
      int end = Math.max(start, random.nextInt(4));
      out.validity(new Validity(dayOrNone(start - 1), dayOrNone(end == 3 ? -1 : end)));
    }
    return out.build();
  }

  private static LocalDate dayOrNone(int place) {
    return place < 0 ? null : VALID.get(place);
  }

  private static List<AddressItem> addresses(List<String> texts) {
    return texts.stream().map(AddressItem::parse).toList();
  }

  /** Concrete connections, at least one of every kind that the rules of this world tell apart. */
  public List<Connection> points() {
    List<Connection> out = new ArrayList<>();
    for (String end :
        List.of(
            "North 10.0.0.1",
            "North 192.0.2.9",
            "North 203.0.113.1",
            "North fd00::1",
            "North 2001:db8::1",
            "south 10.0.0.0",
            "south 10.0.0.1")) {
      Endpoint from = endpoint(end);
      Endpoint to = endpoint(end.contains("::") ? "North fd00::9" : "North 198.51.100.1");
      for (int[] position : POSITIONS) {
        int sourcePort = Transport.hasPorts(position[0]) ? 7 : Connection.UNKNOWN;
        for (String one : VALUES.get(used.get(0))) {
          for (String other : VALUES.get(used.get(1))) {
            Map<Coordinate, String> terms = Map.of(used.get(0), one, used.get(1), other);
            out.add(new Connection(from, to, position[0], position[1], sourcePort, terms));
          }
        }
      }
    }
    return out;
  }

  private static Endpoint endpoint(String text) {
    String[] parts = text.split(" ");
    return new Endpoint(parts[0], Address.parse(parts[1]));
  }
}
