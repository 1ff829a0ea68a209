package dev.ironsieve.gateway;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Transport;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Makes connections by patterns, as a company would over a day; the same for the same seed. */
final class TrafficGenerator {
  private static final int FIRST_SOURCE_PORT = 49_152;
  private static final int MOST_PEOPLE = 200; // addresses per pattern that people sit at

  private final List<TrafficPattern> patterns;
  private final Random random;
  private Map<String, ApplicationFact> applications = Map.of(); // by name
  private List<String> people = List.of();
  private ZoneId zone = ZoneId.of("UTC");

  TrafficGenerator(List<TrafficPattern> patterns, long seed) {
    this.patterns = List.copyOf(patterns);
    random = new Random(seed);
  }

  /** The patterns of the demo's company: "demo", "demo-terminals" or "demo-services". */
  static List<TrafficPattern> demo(String name) {
    String file = name + "-traffic.json";
    try (InputStream in = TrafficGenerator.class.getResourceAsStream(file)) {
      if (in == null) {
        throw new IllegalArgumentException("no traffic is called " + name);
      }
      return read(in.readAllBytes());
    } catch (IOException e) {
      throw new IllegalStateException(file, e);
    }
  }

  /**
   * Reads patterns: a JSON list of {@link TrafficPattern}.
   *
   * @throws IOException if it is none, with the place
   */
  static List<TrafficPattern> read(byte[] json) throws IOException {
    return new ObjectMapper().readValue(json, new TypeReference<>() {});
  }

  /** Takes people, applications and the clock from the rulebase in force. */
  void use(Rulebase rulebase) {
    Map<String, ApplicationFact> facts = new HashMap<>();
    for (Vocabulary vocabulary : rulebase.vocabularies()) {
      vocabulary.applications().forEach(fact -> facts.put(fact.name(), fact));
    }
    applications = facts;
    people =
        rulebase.vocabulary(Coordinate.PERSON).map(Vocabulary::values).orElse(List.of()).stream()
            .filter(person -> !Defaults.isNamed(Coordinate.PERSON, person))
            .limit(MOST_PEOPLE)
            .toList();
    zone = rulebase.gatewaySettings().timeZone();
  }

  /** How much goes on at a time, from 0 to 1. */
  double load(Instant at) {
    int hour = at.atZone(zone).getHour();
    double all = 0;
    double now = 0;
    for (TrafficPattern pattern : patterns) {
      all += pattern.weight();
      now += pattern.weight() * pattern.frequency(hour);
    }
    return now / all;
  }

  /** The next connection, at a time. */
  Attempt next(Instant at) {
    TrafficPattern pattern = pattern(at.atZone(zone).getHour());
    String[] from = pattern.from().split(" ", 2);
    String[] to = pattern.to().split(" ", 2);
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    AddressRange sources = AddressRange.parse(from[1]);
    int place = random.nextInt(MOST_PEOPLE);
    if (pattern.people() && !people.isEmpty()) {
      terms.put(Coordinate.PERSON, people.get(place % people.size()));
    }
    if (!pattern.persons().isEmpty()) {
      terms.put(Coordinate.PERSON, one(pattern.persons()));
    }
    put(terms, Coordinate.DEVICE, pattern.device());
    ServiceLiteral service = service(pattern, terms);
    if (!pattern.sites().isEmpty()) {
      terms.put(Coordinate.SITE, one(pattern.sites()));
    }
    int sourcePort =
        Transport.hasPorts(service.protocol())
            ? FIRST_SOURCE_PORT + random.nextInt(Transport.MAX_DETAIL - FIRST_SOURCE_PORT)
            : Connection.UNKNOWN;
    int detail =
        service.firstDetail() + random.nextInt(service.lastDetail() - service.firstDetail() + 1);
    Connection connection =
        new Connection(
            new Endpoint(from[0], address(sources, place)),
            new Endpoint(to[0], address(AddressRange.parse(to[1]), random.nextInt(64))),
            service.protocol(),
            detail,
            sourcePort,
            terms);
    double size = Math.exp(random.nextGaussian() * 0.8);
    return new Attempt(
        connection,
        at,
        Duration.ofMillis(
            (long) (pattern.seconds() * 1000 * Math.exp(random.nextGaussian() * 0.5))),
        (long) (pattern.kilobytes() * 1024 * size));
  }

  private static void put(Map<Coordinate, String> terms, Coordinate coordinate, String value) {
    if (value != null) {
      terms.put(coordinate, value);
    }
  }

  private TrafficPattern pattern(int hour) {
    double all = patterns.stream().mapToDouble(p -> p.weight() * p.frequency(hour)).sum();
    double left = random.nextDouble() * all;
    for (TrafficPattern pattern : patterns) {
      left -= pattern.weight() * pattern.frequency(hour);
      if (left < 0) {
        return pattern;
      }
    }
    return patterns.getLast();
  }

  /** A service of the pattern; with an application also its name and one of its hosts. */
  private ServiceLiteral service(TrafficPattern pattern, Map<Coordinate, String> terms) {
    if (pattern.applications().isEmpty()) {
      return ServiceLiteral.parse(one(pattern.services()));
    }
    String use = one(pattern.applications());
    int colon = use.indexOf(':');
    ApplicationFact fact = applications.get(colon < 0 ? use : use.substring(0, colon));
    if (fact == null) {
      return ServiceLiteral.parse("tcp/443"); // a catalogue without it: unidentified
    }
    terms.put(Coordinate.APPLICATION, use);
    if (!fact.hosts().isEmpty()) {
      terms.put(Coordinate.SITE, one(fact.hosts()).replace("*", "www"));
    }
    return fact.ports().getFirst();
  }

  private <T> T one(List<T> from) {
    return from.get(random.nextInt(from.size()));
  }

  /** The address at a place of a range, from its second on; around from its end. */
  private static Address address(AddressRange range, int place) {
    long size = range.size().longValueExact();
    return new Address(
        range.family(),
        range.first().high(),
        range.first().low() + (size < 3 ? 0 : (1 + place) % size));
  }
}
