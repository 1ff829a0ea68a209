package dev.ironsieve.formats.feed;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.InvalidDocument;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Reads the files of feeds: text in UTF-8, one entry a line, as comma-separated values (RFC 4180,
 * within one line) with or without a header.
 *
 * <pre>
 *   addresses    203.0.113.0/28            or a column "address", or "first" and "last"
 *   countries    203.0.113.0/24,Vestmark   or 203.0.113.0,203.0.113.255,Vestmark
 *   categories   *.dice.example,Gambling
 * </pre>
 *
 * Empty lines are skipped, and so are comments behind {@code #}, or {@code ;} in a list of
 * addresses. Bad lines are reported, and the good lines are still returned; the caller decides
 * whether to use them.
 */
public final class FeedReader {
  private static final int MOST_SHOWN = 120;

  private final FeedKind kind;
  private final String name;
  private final List<ReadFeed.Fault> faults = new ArrayList<>();
  private final List<Entry> entries = new ArrayList<>();
  private final Map<String, String> spelled = new LinkedHashMap<>(); // names of sets, by key
  private final Map<String, Set<SitePattern>> hosts = new LinkedHashMap<>(); // by key of the set
  private Columns columns;
  private int good;
  private int bad;

  /**
   * @param set key of its name
   */
  private record Entry(AddressRange range, String set, int line) {}

  private FeedReader(FeedKind kind, String name) {
    this.kind = kind;
    this.name = name;
  }

  /**
   * Reads a file; O(n log n) in its lines.
   *
   * @param name of the feed
   * @throws InvalidDocument if there are no good lines, or too many
   */
  public static ReadFeed read(FeedKind kind, String name, byte[] file) {
    FeedReader reader = new FeedReader(kind, name);
    String text = new String(file, StandardCharsets.UTF_8); // what is no UTF-8 makes a bad line
    int[] number = new int[1];
    text.lines().forEach(line -> reader.line(line, ++number[0]));
    return reader.finish();
  }

  private void line(String line, int number) {
    String said = number == 1 && line.startsWith("\uFEFF") ? line.substring(1) : line;
    int comment = said.indexOf('#');
    if (kind == FeedKind.ADDRESSES) {
      int semicolon = said.indexOf(';');
      comment = comment < 0 || (semicolon >= 0 && semicolon < comment) ? semicolon : comment;
    }
    said = (comment < 0 ? said : said.substring(0, comment)).strip();
    if (said.isEmpty()) {
      return;
    }
    try {
      fields(said, number);
    } catch (InvalidText | InvalidModel | InvalidDocument | CsvParseException e) {
      complain(number, expected(e), said);
    }
    if (good > Feed.MAX_ENTRIES) {
      throw new InvalidDocument(
          "line " + number, "at most " + Feed.MAX_ENTRIES + " entries", "more");
    }
  }

  private static String expected(RuntimeException e) {
    return switch (e) {
      case InvalidText text -> text.expected();
      case InvalidModel model -> model.expected();
      case InvalidDocument document -> document.faults().getFirst().expected();
      default -> "comma-separated values";
    };
  }

  private void complain(int line, String expected, String found) {
    bad++;
    if (faults.size() < ReadFeed.MOST_FAULTS) {
      boolean whole = found.length() <= MOST_SHOWN;
      faults.add(
          new ReadFeed.Fault(line, expected, whole ? found : found.substring(0, MOST_SHOWN) + "…"));
    }
  }

  private void fields(String said, int number) {
    List<String> fields =
        said.indexOf(',') < 0 && said.indexOf('"') < 0 ? List.of(said) : csv(said);
    if (columns == null) {
      columns = Columns.named(kind, fields);
      if (columns != null) {
        return;
      }
      columns = Columns.usual(kind, fields.size());
    }
    if (fields.size() < columns.count()) {
      throw new InvalidDocument("", Columns.expected(kind), said);
    }
    String what = fields.get(columns.what()).strip();
    String set = columns.set() < 0 ? name : fields.get(columns.set()).strip();
    if (kind == FeedKind.CATEGORIES) {
      SitePattern pattern = SitePattern.parse(what);
      String key = named(set);
      hosts.computeIfAbsent(key, k -> new LinkedHashSet<>()).add(pattern);
    } else {
      AddressRange range =
          columns.last() < 0
              ? AddressRange.parse(what)
              : range(what, fields.get(columns.last()).strip());
      entries.add(new Entry(range, named(set), number));
    }
    good++;
  }

  private static List<String> csv(String line) {
    try (CsvReader<CsvRecord> reader = CsvReader.builder().ofCsvRecord(line)) {
      return reader.stream().findFirst().map(CsvRecord::getFields).orElse(List.of());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static AddressRange range(String first, String last) {
    return first.equals(last)
        ? AddressRange.parse(first)
        : AddressRange.parse(Address.parse(first) + "-" + Address.parse(last));
  }

  /** The key of a set, which has to be one that rules can name. */
  private String named(String set) {
    String key = Names.key(set);
    if (!spelled.containsKey(key)) {
      if (kind == FeedKind.CATEGORIES) {
        new FeedSet.Hosts(set, Set.of());
      } else if (!(AddressItem.parse(set) instanceof AddressItem.Named)) {
        throw new InvalidDocument("", "a name, not an address", set);
      }
      spelled.put(key, set);
    }
    return key;
  }

  private ReadFeed finish() {
    if (kind == FeedKind.COUNTRIES) {
      tellContradictions();
    }
    if (good == 0) {
      String first = faults.isEmpty() ? "" : "; line " + faults.getFirst().line() + " is none";
      throw new InvalidDocument(
          "file", "at least one line with " + Columns.expected(kind), bad + " other lines" + first);
    }
    List<FeedSet> sets = new ArrayList<>();
    Map<String, List<AddressRange>> ranges = new LinkedHashMap<>();
    entries.forEach(e -> ranges.computeIfAbsent(e.set, k -> new ArrayList<>()).add(e.range));
    ranges.forEach(
        (key, some) -> sets.add(new FeedSet.Addresses(spelled.get(key), AddressSet.of(some))));
    hosts.forEach((key, some) -> sets.add(new FeedSet.Hosts(spelled.get(key), some)));
    sets.sort(Comparator.comparing(set -> Names.key(set.name())));
    faults.sort(Comparator.comparingInt(ReadFeed.Fault::line));
    return new ReadFeed(List.copyOf(sets), good, bad, List.copyOf(faults));
  }

  /**
   * Removes the lines that give an address to another country than a line that stays: in the order
   * of the first addresses, the range that reaches farthest so far is asked.
   */
  private void tellContradictions() {
    List<Entry> sorted = new ArrayList<>(entries);
    sorted.sort(Comparator.comparing(Entry::range).thenComparing(Entry::line));
    entries.clear();
    Entry farthest = null;
    for (Entry entry : sorted) {
      boolean meets = farthest != null && farthest.range.contains(entry.range.first());
      if (meets && !farthest.set.equals(entry.set)) {
        good--;
        complain(
            entry.line,
            "no address that is in another country; line %d says %s"
                .formatted(farthest.line, spelled.get(farthest.set)),
            entry.range + "," + spelled.get(entry.set));
        continue;
      }
      entries.add(entry);
      if (!meets || entry.range.last().compareTo(farthest.range.last()) > 0) {
        farthest = entry;
      }
    }
  }
}
