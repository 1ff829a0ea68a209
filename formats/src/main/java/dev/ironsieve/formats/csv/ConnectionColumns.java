package dev.ironsieve.formats.csv;

import de.siegmar.fastcsv.reader.CsvRecord;
import dev.ironsieve.formats.InvalidDocument;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** The positions of the columns in a CSV file of connections. */
final class ConnectionColumns {
  /** The columns, by the names in the header. */
  enum Column {
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

    final String title = name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  private static final Column[] COLUMNS = Column.values();

  private final int[] at = new int[COLUMNS.length]; // place in a line by column, -1 if missing
  private final int width;

  private ConnectionColumns(int width) {
    this.width = width;
    Arrays.fill(at, -1);
  }

  /**
   * @param titles the fields of the first line
   * @throws InvalidDocument if one names no column, or one that was named before
   */
  static ConnectionColumns of(String file, List<String> titles) {
    ConnectionColumns columns = new ConnectionColumns(titles.size());
    for (int i = 0; i < titles.size(); i++) {
      String title = titles.get(i);
      String place = file + ": line 1, field " + (i + 1);
      Column column =
          Arrays.stream(COLUMNS)
              .filter(c -> c.title.equals(title.strip().toLowerCase(Locale.ROOT)))
              .findFirst()
              .orElseThrow(
                  () ->
                      new InvalidDocument(
                          place,
                          Arrays.stream(COLUMNS)
                              .map(c -> c.title)
                              .collect(Collectors.joining(", ", "one of ", "")),
                          '"' + title + '"'));
      if (columns.at[column.ordinal()] >= 0) {
        throw new InvalidDocument(place, "each column once", '"' + column.title + "\" twice");
      }
      columns.at[column.ordinal()] = i;
    }
    return columns;
  }

  /**
   * @throws InvalidDocument if a line has not as many fields as the first
   */
  void checkWidth(String file, CsvRecord line) {
    if (line.getFieldCount() != width) {
      throw new InvalidDocument(
          file + ": line " + line.getStartingLineNumber(),
          width + " fields",
          line.getFieldCount() + "");
    }
  }

  /** The field of a column, or null if it is unknown. */
  String field(Column column, CsvRecord line) {
    int place = at[column.ordinal()];
    String field = place < 0 ? "" : line.getField(place);
    return field.isEmpty() ? null : field;
  }
}
