package dev.ironsieve.formats.csv;

import de.siegmar.fastcsv.reader.CsvRecord;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.vocabulary.ValueFinder;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.csv.ConnectionColumns.Column;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Reads the lines of a file of connections; several threads may read lines at once. */
final class ConnectionRows {
  private static final Map<String, Integer> PROTOCOLS =
      Map.of("tcp", 6, "udp", 17, "sctp", 132, "icmp", 1, "icmp6", 58);

  private final String file;
  private final ConnectionColumns columns;
  private final Resolution resolution;
  private final Map<String, String> zones = new HashMap<>(); // the name, by itself and its key
  private final Map<String, String> otherUses = new ConcurrentHashMap<>(); // by application
  private final ValueFinder times; // null if there is none

  ConnectionRows(String file, ConnectionColumns columns, Rulebase rulebase) {
    this.file = file;
    this.columns = columns;
    resolution = new Resolution(rulebase);
    for (Zone zone : rulebase.zones()) {
      zones.put(Names.key(zone.name()), zone.name());
      zones.put(zone.name(), zone.name());
    }
    times = resolution.finder(Coordinate.TIME).orElse(null);
  }

  /**
   * @throws InvalidDocument with line and column of the first fault
   */
  Connection connection(CsvRecord line) {
    columns.checkWidth(file, line);
    return new Row(line).connection();
  }

  private final class Row {
    private final CsvRecord line;

    Row(CsvRecord line) {
      this.line = line;
    }

    private String field(Column column) {
      return columns.field(column, line);
    }

    private InvalidDocument invalid(Column column, String expected) {
      return new InvalidDocument(
          file + ": line " + line.getStartingLineNumber() + ", " + column.title,
          expected,
          '"' + field(column) + '"');
    }

    private Connection connection() {
      Endpoint from = endpoint(Column.FROM_ZONE, Column.FROM_ADDRESS);
      Endpoint to = endpoint(Column.TO_ZONE, Column.TO_ADDRESS);
      if (from.address() != null
          && to.address() != null
          && from.address().family() != to.address().family()) {
        throw invalid(Column.TO_ADDRESS, "an address of the same family as " + from.address());
      }
      int protocol = protocol();
      int detail = protocol < 0 ? Connection.UNKNOWN : detail(protocol);
      int sourcePort =
          protocol >= 0 && !Transport.hasPorts(protocol)
              ? Connection.UNKNOWN
              : number(Column.FROM_PORT, Transport.MAX_DETAIL);
      return new Connection(from, to, protocol, detail, sourcePort, terms());
    }

    private Endpoint endpoint(Column zoneColumn, Column addressColumn) {
      String text = field(addressColumn);
      String zoneText = field(zoneColumn);
      if (text == null && zoneText == null) {
        return Endpoint.NOT_KNOWN;
      }
      Address address = null;
      if (text != null) {
        try {
          address = Address.parse(text);
        } catch (InvalidText e) {
          throw invalid(addressColumn, e.expected() + " at character " + (e.offset() + 1));
        }
      }
      String zone;
      if (zoneText == null) {
        zone = resolution.zoneOf(address);
      } else {
        String asWritten = zones.get(zoneText);
        zone = asWritten != null ? asWritten : zones.get(Names.key(zoneText));
        if (zone == null) {
          throw invalid(zoneColumn, "the name of a zone");
        }
      }
      return new Endpoint(zone, address);
    }

    private int protocol() {
      String text = field(Column.PROTOCOL);
      if (text == null) {
        return Connection.UNKNOWN;
      }
      Integer known = PROTOCOLS.get(text);
      if (known == null) {
        known = PROTOCOLS.get(text.toLowerCase(Locale.ROOT));
      }
      return known != null ? known : number(Column.PROTOCOL, Transport.MAX_PROTOCOL);
    }

    private int detail(int protocol) {
      String text = field(Column.TO_PORT);
      if (Transport.hasPorts(protocol)) {
        return number(Column.TO_PORT, Transport.MAX_DETAIL);
      }
      if (!Transport.hasTypes(protocol)) {
        return 0;
      }
      if (text == null) {
        return Connection.UNKNOWN;
      }
      int slash = text.indexOf('/');
      int type = number(Column.TO_PORT, slash < 0 ? text : text.substring(0, slash), 255);
      int code = slash < 0 ? 0 : number(Column.TO_PORT, text.substring(slash + 1), 255);
      return type << 8 | code;
    }

    private int number(Column column, int most) {
      String text = field(column);
      return text == null ? Connection.UNKNOWN : number(column, text, most);
    }

    private int number(Column column, String text, int most) {
      int value = 0;
      boolean fits = !text.isEmpty() && text.length() <= 5;
      for (int i = 0; i < text.length() && fits; i++) {
        int digit = text.charAt(i) - '0';
        fits = digit >= 0 && digit <= 9;
        value = value * 10 + digit;
      }
      if (!fits || value > most) {
        throw invalid(column, "a number from 0 to " + most);
      }
      return value;
    }

    private Map<Coordinate, String> terms() {
      Map<Coordinate, String> out = new EnumMap<>(Coordinate.class);
      put(out, Coordinate.PERSON, field(Column.PERSON));
      put(out, Coordinate.DEVICE, field(Column.DEVICE));
      put(out, Coordinate.SITE, field(Column.HOST));
      String application = field(Column.APPLICATION);
      if (application != null) {
        String feature = field(Column.FEATURE);
        put(
            out,
            Coordinate.APPLICATION,
            feature != null
                ? application + ": " + feature
                : otherUses.computeIfAbsent(application, this::otherUse));
      }
      put(out, Coordinate.TIME, time());
      return out;
    }

    /** The value of an application without a feature: itself, or its other use. */
    private String otherUse(String application) {
      return resolution.hasValue(Coordinate.APPLICATION, application)
          ? application
          : application + ": other use";
    }

    private static void put(Map<Coordinate, String> out, Coordinate coordinate, String value) {
      if (value != null) {
        out.put(coordinate, value);
      }
    }

    private String time() {
      String text = field(Column.TIME);
      if (text == null || times == null || resolution.hasValue(Coordinate.TIME, text)) {
        return text;
      }
      try {
        LocalDateTime minute = LocalDateTime.parse(text).truncatedTo(ChronoUnit.MINUTES);
        return times.value(minute.toString()).orElse(null);
      } catch (DateTimeException e) {
        throw invalid(Column.TIME, "a local date and time such as 2026-11-23T10:00");
      }
    }
  }
}
