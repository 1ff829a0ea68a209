package dev.ironsieve.core.text;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.vocabulary.DerivedVocabularies;
import dev.ironsieve.core.vocabulary.ValueFinder;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One connection in one line:
 *
 * <pre>
 *   from 10.4.2.9 in terminals to 192.0.2.10 in booking tcp/443 from port 50000
 * </pre>
 *
 * Other coordinates follow, each with its word and the name of a value: {@code person Maya Lind
 * application Gullwire: post}. Every part may be left out, and is unknown then. An end is an
 * address, or the name of an address object that holds a single one. A zone that is left out is
 * filled in where the address tells it: the zone whose declared networks hold it most narrowly,
 * else the only zone that declares none. The service is a literal with one port or type, or the
 * name of a service object that is one.
 */
public final class ConnectionLine {
  /** Most characters in a line. */
  public static final int MAX_LENGTH = 1000;

  private static final String SOURCE_PORT = "from port";

  /** The vocabularies that a line can use even where no rule does. */
  private static final Map<Coordinate, Vocabulary> ALWAYS = DerivedVocabularies.unused();

  private final Rulebase rulebase;
  private final Resolution resolution;
  private String line;
  private int at;

  private ConnectionLine(Rulebase rulebase, Resolution resolution) {
    this.rulebase = rulebase;
    this.resolution = resolution;
  }

  /**
   * Reads a line.
   *
   * @throws InvalidText with the place of the first fault
   */
  public static Connection parse(String line, Rulebase rulebase) {
    return parse(line, rulebase, new Resolution(rulebase));
  }

  /**
   * The same, for those who read many lines.
   *
   * @param resolution of the rulebase
   */
  public static Connection parse(String line, Rulebase rulebase, Resolution resolution) {
    if (line.length() > MAX_LENGTH) {
      throw new InvalidText(
          MAX_LENGTH, "at most " + MAX_LENGTH + " characters", line.length() + " characters");
    }
    ConnectionLine reader = new ConnectionLine(rulebase, resolution);
    reader.line = line;
    return reader.read();
  }

  private Connection read() {
    Endpoint from = Endpoint.NOT_KNOWN;
    Endpoint to = Endpoint.NOT_KNOWN;
    ServiceLiteral service = null;
    int sourcePort = Connection.UNKNOWN;
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    boolean fromSaid = false;
    boolean toSaid = false;
    for (skipSpace(); at < line.length(); skipSpace()) {
      int start = at;
      if (takeWord(SOURCE_PORT)) {
        refuseTwice(sourcePort >= 0, start, "one source port");
        sourcePort = readPort();
      } else if (takeWord("from")) {
        refuseTwice(fromSaid, start, "one \"from\"");
        fromSaid = true;
        from = readEnd();
      } else if (takeWord("to")) {
        refuseTwice(toSaid, start, "one \"to\"");
        toSaid = true;
        to = readEnd();
      } else if (takeTerm(terms)) {
        continue;
      } else {
        refuseTwice(service != null, start, "one service");
        service = readService();
      }
    }
    if (from.address() != null
        && to.address() != null
        && from.address().family() != to.address().family()) {
      throw new InvalidText(
          line.length(), "both addresses of the same family", from.address() + ", " + to.address());
    }
    if (service == null) {
      return new Connection(from, to, Connection.UNKNOWN, Connection.UNKNOWN, sourcePort, terms);
    }
    boolean whole = service.firstDetail() != service.lastDetail() && service.firstDetail() == 0;
    int detail = whole ? Connection.UNKNOWN : service.firstDetail();
    return new Connection(from, to, service.protocol(), detail, sourcePort, terms);
  }

  /** Parses the word of a coordinate and a value after it. */
  private boolean takeTerm(Map<Coordinate, String> terms) {
    for (Coordinate coordinate : Coordinate.values()) {
      Vocabulary vocabulary = rulebase.vocabulary(coordinate).orElse(ALWAYS.get(coordinate));
      int start = at;
      if (vocabulary != null && takeWord(coordinate.word())) {
        refuseTwice(terms.containsKey(coordinate), start, "one " + coordinate.word());
        skipSpace();
        int value = at;
        String name =
            takeName(vocabulary.values())
                .or(() -> takeInside(vocabulary))
                .orElseThrow(
                    () -> new InvalidText(value, expected(coordinate), line.substring(value)));
        terms.put(coordinate, name);
        return true;
      }
    }
    return false;
  }

  private static String expected(Coordinate coordinate) {
    return switch (coordinate) {
      case SITE -> "a host such as www.quay.example";
      case TIME ->
          "a time such as mon 10:15 or, if rules use dates, 2026-11-23T10:15 or"
              + " 2026-11-23T10:15Z";
      case DEVICE -> "a device such as managed, platform kelpos, has disk-lock";
      default -> "a value of the " + coordinate.word() + " vocabulary";
    };
  }

  /**
   * A site, time or device that lies in a value, such as {@code www.quay.example}, {@code mon
   * 10:15}, {@code managed, has disk-lock}.
   */
  private Optional<String> takeInside(Vocabulary vocabulary) {
    int start = at;
    int device = vocabulary.coordinate() == Coordinate.DEVICE ? DeviceState.lengthAt(line, at) : 0;
    String said = device == 0 ? takeToken() : line.substring(at, at += device);
    ValueFinder values =
        resolution
            .finder(vocabulary.coordinate())
            .orElseGet(() -> new ValueFinder(vocabulary)); // of a coordinate that no rule uses
    if (vocabulary.coordinate() == Coordinate.TIME) {
      said = rulebase.localTime(said);
      if (values.value(said).isEmpty()) {
        skipSpace();
        said += " " + takeToken();
      }
    }
    if (values.value(said).isPresent()) {
      return Optional.of(said);
    }
    at = start;
    return Optional.empty();
  }

  private static void refuseTwice(boolean said, int start, String expected) {
    if (said) {
      throw new InvalidText(start, expected, "another");
    }
  }

  private Endpoint readEnd() {
    skipSpace();
    Address address = null;
    if (!peekWord("in")) {
      address = readAddress();
    }
    skipSpace();
    String zone = null;
    if (takeWord("in")) {
      skipSpace();
      zone = readZone();
    } else if (address != null) {
      zone = resolution.zoneOf(address);
    }
    return new Endpoint(zone, address);
  }

  private Address readAddress() {
    int start = at;
    Optional<String> name = takeName(rulebase.addresses().stream().map(o -> o.name()).toList());
    if (name.isPresent()) {
      AddressSet set = resolution.addresses(Criterion.of(new AddressItem.Named(name.get())));
      AddressRange only = set.ranges().getFirst();
      if (set.ranges().size() != 1 || !only.first().equals(only.last())) {
        throw new InvalidText(start, "an object with a single address", name.get());
      }
      return only.first();
    }
    String token = takeToken();
    if (token.isEmpty()) {
      throw new InvalidText(start, "an address", "");
    }
    boolean literal = token.indexOf(':') >= 0 || Character.isDigit(token.charAt(0));
    if (!literal) {
      throw new InvalidText(start, "an address or the name of an address object", token);
    }
    try {
      return Address.parse(token);
    } catch (InvalidText e) {
      throw e.shifted(start);
    }
  }

  private String readZone() {
    int start = at;
    return takeName(rulebase.zones().stream().map(Zone::name).toList())
        .orElseThrow(() -> new InvalidText(start, "the name of a zone", line.substring(start)));
  }

  private int readPort() {
    skipSpace();
    int start = at;
    String token = takeToken();
    boolean number = token.matches("0|[1-9][0-9]{0,4}");
    if (!number || Integer.parseInt(token) > Transport.MAX_DETAIL) {
      throw new InvalidText(start, "a port from 0 to 65535", token);
    }
    return Integer.parseInt(token);
  }

  private ServiceLiteral readService() {
    int start = at;
    Optional<String> name = takeName(rulebase.services().stream().map(o -> o.name()).toList());
    ServiceItem item;
    if (name.isPresent()) {
      item = single(name.get(), start);
    } else {
      String token = takeToken();
      try {
        item = ServiceItem.parse(token);
      } catch (InvalidText e) {
        throw e.shifted(start);
      } catch (InvalidModel e) {
        item = null;
      }
      if (!(item instanceof ServiceLiteral)) {
        throw new InvalidText(
            start, "\"from\", \"to\", or a service such as tcp/443 or icmp/8", token);
      }
    }
    ServiceLiteral literal = (ServiceLiteral) item;
    int max = Transport.maxDetail(literal.protocol());
    boolean whole = literal.firstDetail() == 0 && literal.lastDetail() == max;
    boolean type =
        Transport.hasTypes(literal.protocol())
            && literal.firstDetail() >> 8 == literal.lastDetail() >> 8;
    if (literal.firstDetail() != literal.lastDetail() && !whole && !type) {
      throw new InvalidText(start, "a service with a single port", literal.toString());
    }
    // A type without a code stands for code 0, which every such message but errors has.
    return type
        ? new ServiceLiteral(
            literal.protocol(),
            literal.firstDetail(),
            literal.firstDetail(),
            0,
            Transport.MAX_DETAIL)
        : literal;
  }

  private ServiceItem single(String name, int start) {
    ServiceItem item = new ServiceItem.Named(name);
    while (item instanceof ServiceItem.Named named) {
      ServiceObject object =
          rulebase.services().stream()
              .filter(o -> o.name().equalsIgnoreCase(named.name()))
              .findFirst()
              .orElseThrow();
      if (object.members().size() != 1) {
        throw new InvalidText(start, "a service with a single port", name);
      }
      item = object.members().getFirst();
    }
    return item;
  }

  private void skipSpace() {
    while (at < line.length() && (line.charAt(at) == ' ' || line.charAt(at) == '\n')) {
      at++;
    }
  }

  private boolean peekWord(String word) {
    int end = at + word.length();
    return line.regionMatches(true, at, word, 0, word.length())
        && (end == line.length() || Character.isWhitespace(line.charAt(end)));
  }

  private boolean takeWord(String word) {
    boolean there = peekWord(word);
    at += there ? word.length() : 0;
    return there;
  }

  private String takeToken() {
    int start = at;
    while (at < line.length() && !Character.isWhitespace(line.charAt(at))) {
      at++;
    }
    return line.substring(start, at);
  }

  /** Parses the longest of {@code names} that is here. */
  private Optional<String> takeName(List<String> names) {
    String longest = "";
    for (String name : names) {
      if (name.length() > longest.length() && peekWord(name)) {
        longest = name;
      }
    }
    at += longest.length();
    return longest.isEmpty() ? Optional.empty() : Optional.of(longest);
  }

  /** The line that reads back as {@code connection}; unknown parts are left out. */
  public static String format(Connection connection) {
    StringBuilder out = new StringBuilder();
    formatEnd(out, "from", connection.from());
    formatEnd(out, "to", connection.to());
    if (connection.protocol() != Connection.UNKNOWN) {
      int protocol = connection.protocol();
      int detail = connection.detail();
      boolean known = detail != Connection.UNKNOWN;
      ServiceLiteral service =
          known
              ? new ServiceLiteral(protocol, detail, detail, 0, Transport.MAX_DETAIL)
              : ServiceLiteral.whole(protocol);
      out.append(' ').append(service);
    }
    if (connection.sourcePort() != Connection.UNKNOWN) {
      out.append(' ').append(SOURCE_PORT).append(' ').append(connection.sourcePort());
    }
    connection
        .terms()
        .forEach(
            (coordinate, value) ->
                out.append(' ').append(coordinate.word()).append(' ').append(value));
    return out.toString().strip();
  }

  private static void formatEnd(StringBuilder out, String word, Endpoint end) {
    if (end.equals(Endpoint.NOT_KNOWN)) {
      return;
    }
    out.append(' ').append(word);
    if (end.address() != null) {
      out.append(' ').append(end.address());
    }
    if (end.zone() != null) {
      out.append(" in ").append(end.zone());
    }
  }
}
