package dev.ironsieve.formats.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * Reads connections, one a line. The first line names the columns, in any order; a column that is
 * missing, and a field that is empty, mean unknown:
 *
 * <pre>
 *   from-zone, from-address, to-zone, to-address, protocol, from-port, to-port,
 *   person, device, host, application, feature, time
 * </pre>
 *
 * A zone that is not given is filled in where the address tells it. The protocol is a name (tcp,
 * udp, sctp, icmp, icmp6) or a number; for ICMP the port is a type, or type/code. A name that the
 * rulebase's vocabulary does not have is the name of something unknown to it. The time is a local
 * date and time (ISO 8601), or one of the vocabulary's own slices of the week.
 */
public final class ConnectionCsv {
  private static final int MAX_FIELD = 10_000;

  /** The columns, by the names in the header. */
  private enum Column {
    FROM_ZONE,
    FROM_ADDRESS,
    TO_ZONE,
    TO_ADDRESS,
    PROTOCOL,
    FROM_PORT,
    TO_PORT,
    PERSON,
    DEVICE,
    HOST,
    APPLICATION,
    FEATURE,
    TIME;

    private final String title = name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  private static final Column[] COLUMNS = Column.values();
  private static final Map<String, Integer> PROTOCOLS =
      Map.of("tcp", 6, "udp", 17, "sctp", 132, "icmp", 1, "icmp6", 58);

  private final String file;
  private final Resolution resolution;
  private final Map<String, String> zones = new HashMap<>(); // as written, by key
  private final Map<String, String> applications = new HashMap<>(); // the value for other use
  private final TreeMap<Integer, String> week = new TreeMap<>(); // slices by minute of the week
  private final boolean hasTimes;
  private int[] at; // field number by column, -1 if missing
  private String[] fields;
  private long line;

  private ConnectionCsv(String file, Rulebase rulebase) {
    this.file = file;
    resolution = new Resolution(rulebase);
    for (Zone zone : rulebase.zones()) {
      zones.put(Names.key(zone.name()), zone.name());
    }
    boolean times = false;
    for (Vocabulary vocabulary : rulebase.vocabularies()) {
      if (vocabulary.coordinate() == Coordinate.TIME) {
        times = true;
        for (String value : vocabulary.values()) {
          minuteOfWeek(value).ifPresent(minute -> week.put(minute, value));
        }
      }
    }
    hasTimes = times;
  }

  /** {@code mon 06:30}, as minutes from Monday 00:00. */
  private static Optional<Integer> minuteOfWeek(String slice) {
    try {
      DateTimeFormatter format = DateTimeFormatter.ofPattern("EEE HH:mm", Locale.ENGLISH);
      String capital = slice.substring(0, 1).toUpperCase(Locale.ROOT) + slice.substring(1);
      var parsed = format.parse(capital);
      int day = DayOfWeek.from(parsed).getValue() - 1;
      return Optional.of(day * 24 * 60 + LocalTime.from(parsed).toSecondOfDay() / 60);
    } catch (DateTimeException | StringIndexOutOfBoundsException e) {
      return Optional.empty();
    }
  }

  /**
   * Reads all lines, one after the other.
   *
   * @param file what to call the input in complaints
   * @param rulebase gives the zones and vocabularies
   * @throws InvalidDocument with the line and column of the first fault
   */
  public static void read(
      String file, Reader input, Rulebase rulebase, Consumer<Connection> consumer) {
    new ConnectionCsv(file, rulebase).read(input, consumer);
  }

  private void read(Reader input, Consumer<Connection> consumer) {
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder().skipEmptyLines(true).maxBufferSize(MAX_FIELD * 20).ofCsvRecord(input)) {
      Iterator<CsvRecord> records = csv.iterator();
      if (!records.hasNext()) {
        throw new InvalidDocument(file, "a first line with the names of columns", "nothing");
      }
      header(records.next().getFields());
      int width = fields.length;
      while (records.hasNext()) {
        CsvRecord record = records.next();
        line = record.getStartingLineNumber();
        if (record.getFieldCount() != width) {
          throw new InvalidDocument(
              file + ": line " + line, width + " fields", record.getFieldCount() + "");
        }
        for (int i = 0; i < width; i++) {
          fields[i] = record.getField(i);
        }
        consumer.accept(connection());
      }
    } catch (CsvParseException | UncheckedIOException e) {
      throw new InvalidDocument(file, "comma-separated values (RFC 4180)", e.getMessage());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void header(List<String> titles) {
    at = new int[COLUMNS.length];
    Arrays.fill(at, -1);
    fields = new String[titles.size()];
    for (int i = 0; i < titles.size(); i++) {
      String title = titles.get(i).strip().toLowerCase(Locale.ROOT);
      int number = i;
      Column column =
          Arrays.stream(COLUMNS)
              .filter(c -> c.title.equals(title))
              .findFirst()
              .orElseThrow(
                  () ->
                      new InvalidDocument(
                          file + ": line 1, field " + (number + 1),
                          Arrays.stream(COLUMNS)
                              .map(c -> c.title)
                              .collect(Collectors.joining(", ", "one of ", "")),
                          '"' + titles.get(number) + '"'));
      if (at[column.ordinal()] >= 0) {
        throw new InvalidDocument(
            file + ": line 1, field " + (i + 1), "each column once", '"' + title + "\" twice");
      }
      at[column.ordinal()] = i;
    }
  }

  /** The field, or null if it is unknown. */
  private String field(Column column) {
    int number = at[column.ordinal()];
    return number < 0 || fields[number].isEmpty() ? null : fields[number];
  }

  private InvalidDocument invalid(Column column, String expected) {
    return new InvalidDocument(
        file + ": line " + line + ", " + column.title, expected, '"' + field(column) + '"');
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
      zone = resolution.zoneNumber(zoneText) >= 0 ? zoneText : zones.get(Names.key(zoneText));
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
              : applications.computeIfAbsent(application, this::otherUse));
    }
    put(out, Coordinate.TIME, time());
    return out;
  }

  /** An application without a feature is a value of its own, or the rest of its features. */
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
    if (text == null || !hasTimes || resolution.hasValue(Coordinate.TIME, text)) {
      return text;
    }
    try {
      LocalDateTime time = LocalDateTime.parse(text);
      int minute =
          (time.getDayOfWeek().getValue() - 1) * 24 * 60 + time.toLocalTime().toSecondOfDay() / 60;
      Map.Entry<Integer, String> slice = week.floorEntry(minute);
      return slice == null ? null : slice.getValue();
    } catch (DateTimeException e) {
      throw invalid(Column.TIME, "a local date and time such as 2026-11-23T10:00");
    }
  }
}
