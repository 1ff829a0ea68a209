package dev.ironsieve.core.text;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.vocabulary.DerivedVocabularies;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A reach question in one line:
 *
 * <pre>
 *   who can reach datacentre from offices
 *   who but finance can reach Ledger
 *   what can finance reach service tcp/443
 *   what decides between guest-wifi and internet
 *   which features of Saltbox from guest-wifi
 *   from offices, not Printers in offices to datacentre person not finance
 * </pre>
 *
 * After the opening words stand clauses as in {@link RuleText}: {@code from}, {@code to}, {@code
 * service} and the words of the other coordinates, each with items between commas, {@code not}
 * before an exception. At an end an item may be a zone, an address, an address object, a person or
 * a group, and at the destination an application or a site. A known name needs no quotes.
 */
public final class ReachLine {
  private static final String WHO = "who can reach";
  private static final String WHO_BUT = "who but";
  private static final String WHAT = "what can";
  private static final String BETWEEN = "what decides between";
  private static final String FEATURES = "which features of";

  /** Coordinates that an item at the source may belong to, where it is no zone and no address. */
  private static final Set<Coordinate> AT_SOURCE = EnumSet.of(Coordinate.PERSON, Coordinate.DEVICE);

  private static final Set<Coordinate> AT_DESTINATION =
      EnumSet.of(Coordinate.APPLICATION, Coordinate.SITE);

  private static final Map<Coordinate, Vocabulary> ALWAYS = DerivedVocabularies.unused();

  private final Rulebase rulebase;
  private final String line;
  private final Items<String> fromZones = new Items<>();
  private final Items<AddressItem> from = new Items<>();
  private final Items<String> toZones = new Items<>();
  private final Items<AddressItem> to = new Items<>();
  private final Items<ServiceItem> services = new Items<>();
  private final Map<Coordinate, Items<String>> terms = new EnumMap<>(Coordinate.class);
  private int at;

  private ReachLine(String line, Rulebase rulebase) {
    this.line = line;
    this.rulebase = rulebase;
  }

  /** The items of one criterion, as they are read. */
  private static final class Items<T> {
    final List<T> items = new ArrayList<>();
    final List<T> except = new ArrayList<>();

    void add(T item, boolean exception) {
      List<T> list = exception ? except : items;
      if (!list.contains(item)) {
        list.add(item);
      }
    }

    Criterion<T> criterion() {
      return new Criterion<>(items, except);
    }
  }

  /**
   * Reads a question.
   *
   * @return a rule whose match is the question; nothing else of it counts
   * @throws InvalidText with the place of the first fault
   */
  public static Rule parse(String line, Rulebase rulebase) {
    if (line.length() > ConnectionLine.MAX_LENGTH) {
      throw new InvalidText(
          ConnectionLine.MAX_LENGTH,
          "at most " + ConnectionLine.MAX_LENGTH + " characters",
          line.length() + " characters");
    }
    return new ReachLine(line, rulebase).read();
  }

  /** The clauses of a question; {@link #parse} reads them back. */
  public static String format(Rule question) {
    return RuleText.formatMatch(question);
  }

  private Rule read() {
    if (takeWords(WHO)) {
      items(false);
    } else if (takeWords(WHO_BUT)) {
      list(exception -> item(true, !exception));
      expect("can reach");
      items(false);
    } else if (takeWords(BETWEEN)) {
      items(true);
      expect("and");
      items(false);
    } else if (takeWords(WHAT)) {
      items(true);
      expect("reach");
    } else if (takeWords(FEATURES)) {
      terms(Coordinate.APPLICATION);
    }
    for (skipSpace(); at < line.length(); skipSpace()) {
      clause();
    }
    Map<Coordinate, Criterion<String>> asked = new EnumMap<>(Coordinate.class);
    terms.forEach((coordinate, items) -> asked.put(coordinate, items.criterion()));
    try {
      return Rule.matchingAll("question", "question", Verdict.ALLOW)
          .matching(
              fromZones.criterion(),
              from.criterion(),
              toZones.criterion(),
              to.criterion(),
              services.criterion())
          .asking(asked);
    } catch (InvalidModel e) {
      throw new InvalidText(line.length(), e.expected(), e.found());
    }
  }

  private void clause() {
    if (takeWords("from")) {
      end(true);
    } else if (takeWords("to")) {
      end(false);
    } else if (takeWords("service")) {
      list(this::service);
    } else {
      for (Coordinate coordinate : Coordinate.values()) {
        if (takeWords(coordinate.word())) {
          terms(coordinate);
          return;
        }
      }
      throw new InvalidText(
          at,
          "\"from\", \"to\", \"service\", \"person\", \"application\" or another clause",
          line.substring(at));
    }
  }

  private void end(boolean source) {
    skipSpace();
    if (!isNext("in")) {
      items(source);
    }
    if (takeWords("in")) {
      Items<String> zones = source ? fromZones : toZones;
      list(exception -> zones.add(zone(), exception));
    }
  }

  private void items(boolean source) {
    list(exception -> item(source, exception));
  }

  private void terms(Coordinate coordinate) {
    list(
        exception -> {
          int start = at;
          String name = takeTerm(coordinate).orElseThrow(() -> unknown(start, coordinate));
          terms(coordinate, name, exception);
        });
  }

  private void terms(Coordinate coordinate, String name, boolean exception) {
    terms.computeIfAbsent(coordinate, fresh -> new Items<>()).add(name, exception);
  }

  private interface ItemReader {
    void read(boolean exception);
  }

  private void list(ItemReader reader) {
    do {
      skipSpace();
      boolean exception = takeWords("not");
      skipSpace();
      reader.read(exception);
      skipSpace();
    } while (takeComma());
  }

  private boolean takeComma() {
    boolean comma = at < line.length() && line.charAt(at) == ',';
    at += comma ? 1 : 0;
    return comma;
  }

  /** One item at an end: a zone, an address, or a value of another coordinate. */
  private void item(boolean source, boolean exception) {
    int start = at;
    Optional<String> zone = takeName(zoneNames());
    if (zone.isPresent()) {
      (source ? fromZones : toZones).add(zone.get(), exception);
      return;
    }
    Items<AddressItem> addresses = source ? from : to;
    Optional<String> object = takeName(addressNames());
    if (object.isPresent()) {
      addresses.add(new AddressItem.Named(object.get()), exception);
      return;
    }
    for (Coordinate coordinate : source ? AT_SOURCE : AT_DESTINATION) {
      Optional<String> term = takeTerm(coordinate);
      if (term.isPresent()) {
        terms(coordinate, term.get(), exception);
        return;
      }
    }
    String token = takeToken();
    Optional<AddressItem> address = literal(token);
    if (address.isEmpty()) {
      throw new InvalidText(
          start,
          source
              ? "a zone, an address, an address object, a person or a group"
              : "a zone, an address, an address object, an application or a site",
          token);
    }
    addresses.add(address.get(), exception);
  }

  private static Optional<AddressItem> literal(String token) {
    try {
      AddressItem item = AddressItem.parse(token);
      return item instanceof AddressItem.Named ? Optional.empty() : Optional.of(item);
    } catch (InvalidText | InvalidModel e) {
      return Optional.empty();
    }
  }

  private String zone() {
    int start = at;
    return takeName(zoneNames())
        .orElseThrow(() -> new InvalidText(start, "the name of a zone", line.substring(start)));
  }

  /** The address objects, and the sets of addresses of feeds. */
  private List<String> addressNames() {
    List<String> names = new ArrayList<>();
    rulebase.addresses().forEach(object -> names.add(object.name()));
    rulebase.feeds().stream()
        .flatMap(feed -> feed.sets().stream())
        .filter(FeedSet.Addresses.class::isInstance)
        .forEach(set -> names.add(set.name()));
    return names;
  }

  private List<String> zoneNames() {
    return rulebase.zones().stream().map(Zone::name).toList();
  }

  private void service(boolean exception) {
    int start = at;
    Optional<String> name = takeName(rulebase.services().stream().map(o -> o.name()).toList());
    if (name.isPresent()) {
      services.add(new ServiceItem.Named(name.get()), exception);
      return;
    }
    String token = takeToken();
    try {
      ServiceItem item = ServiceItem.parse(token);
      if (!(item instanceof ServiceItem.Named)) {
        services.add(item, exception);
        return;
      }
    } catch (InvalidText | InvalidModel e) {
      // named below, with the place in this line
    }
    throw new InvalidText(start, "a service such as tcp/443, or a service object", token);
  }

  private Optional<String> takeTerm(Coordinate coordinate) {
    Vocabulary vocabulary = rulebase.vocabulary(coordinate).orElse(ALWAYS.get(coordinate));
    if (vocabulary == null) {
      return Optional.empty();
    }
    List<String> names = new ArrayList<>(vocabulary.values());
    vocabulary.terms().forEach(term -> names.add(term.name()));
    return takeName(names);
  }

  private InvalidText unknown(int start, Coordinate coordinate) {
    return new InvalidText(
        start, "a known value of the coordinate " + coordinate.word(), line.substring(start));
  }

  /** The longest of some names that stands here, in quotes or not. */
  private Optional<String> takeName(List<String> names) {
    String quoted = quotedHere();
    if (quoted != null) {
      Optional<String> found =
          names.stream().filter(name -> Names.key(name).equals(Names.key(quoted))).findFirst();
      at = found.isPresent() ? afterQuoted() : at;
      return found;
    }
    String best = null;
    for (String name : names) {
      if ((best == null || name.length() > best.length())
          && line.regionMatches(true, at, name, 0, name.length())
          && isEnd(at + name.length())) {
        best = name;
      }
    }
    at += best == null ? 0 : best.length();
    return Optional.ofNullable(best);
  }

  private boolean isEnd(int place) {
    return place == line.length()
        || Character.isWhitespace(line.charAt(place))
        || line.charAt(place) == ',';
  }

  private boolean isNext(String word) {
    return line.regionMatches(true, at, word, 0, word.length()) && isEnd(at + word.length());
  }

  private boolean takeWords(String words) {
    skipSpace();
    boolean there = isNext(words);
    at += there ? words.length() : 0;
    return there;
  }

  private void expect(String word) {
    skipSpace();
    if (!takeWords(word)) {
      throw new InvalidText(at, '"' + word + '"', line.substring(at));
    }
  }

  /** The text in quotes that begins here, or null. */
  private String quotedHere() {
    int end = afterQuoted();
    return end < 0 ? null : TextTokens.unquoted(line.substring(at + 1, end - 1));
  }

  /** The place after the text in quotes that begins here; -1 if none does. */
  private int afterQuoted() {
    if (at == line.length() || line.charAt(at) != '"') {
      return -1;
    }
    int close = at + 1;
    while (close < line.length() && line.charAt(close) != '"') {
      close += line.charAt(close) == '\\' ? 2 : 1;
    }
    return close < line.length() ? close + 1 : -1;
  }

  /** A literal: up to the next blank or comma, or in quotes. */
  private String takeToken() {
    String quoted = quotedHere();
    if (quoted != null) {
      at = afterQuoted();
      return quoted;
    }
    int start = at;
    while (at < line.length() && !isEnd(at)) {
      at++;
    }
    return line.substring(start, at);
  }

  private void skipSpace() {
    while (at < line.length() && Character.isWhitespace(line.charAt(at))) {
      at++;
    }
  }
}
