package dev.ironsieve.core.text;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RuleBuilder;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.InvalidText;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * One rule on one line:
 *
 * <pre>
 *   allow "Kiosks sell tickets" from Kiosks in terminals to in booking
 *     service "Secure web", tcp/8443 person staff, not contractors log end note "Since May"
 * </pre>
 *
 * A verdict and a name, then clauses in any order, each at most once ({@code tag} as often as
 * wanted). Items stand between commas; {@code not} begins an exception. A name with other
 * characters than letters, digits and {@code . _ - / : * +}, and one that is a word of this
 * language, stands in quotes; in quotes, {@code \"}, {@code \\}, {@code \n} and {@code \t} stand
 * for what they do in JSON. The id of a rule is not part of its text.
 */
public final class RuleText {
  /** Most characters of the text of one rule. */
  public static final int MAX_LENGTH = 1_000_000;

  /** Words that begin a clause or belong to one; a name that is one of them stands in quotes. */
  private static final Set<String> WORDS = new HashSet<>();

  static {
    for (Coordinate coordinate : Coordinate.values()) {
      WORDS.addAll(List.of(coordinate.word().split(" ")));
    }
    WORDS.addAll(
        List.of(
            "from",
            "to",
            "in",
            "not",
            "service",
            "begins",
            "ends",
            "opened",
            "log",
            "plan",
            "notice",
            "hold",
            "min",
            "disabled",
            "unfinished",
            "observe",
            "only",
            "owner",
            "ticket",
            "tag",
            "note"));
  }

  private final TextTokens tokens;
  private final Set<String> clauses = new HashSet<>();
  private final Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
  private final List<String> tags = new ArrayList<>();
  private String owner = "";
  private String ticket = "";
  private LocalDate start;
  private LocalDate end;

  private RuleText(String text) {
    tokens = new TextTokens(text);
  }

  /** The text of a rule; {@link #parse} reads it back. */
  public static String format(Rule rule) {
    StringBuilder line = new StringBuilder();
    line.append(rule.verdict().word()).append(' ').append(TextTokens.quoted(rule.name()));
    match(line, rule);
    append(line, "begins", rule.validity().start());
    append(line, "ends", rule.validity().end());
    line.append(rule.opening() == Opening.OPENED ? " opened" : "");
    append(line, "log", rule.logging() == Logging.OFF ? null : rule.logging().word());
    append(line, "plan", rule.ratePlan() == null ? null : name(rule.ratePlan()));
    append(line, "notice", rule.notice() == null ? null : name(rule.notice()));
    append(line, "hold", rule.hold() == null ? null : rule.hold() + " min");
    line.append(rule.enabled() ? "" : " disabled");
    line.append(rule.unfinished() ? " unfinished" : "");
    line.append(rule.observeOnly() ? " observe only" : "");
    append(line, "owner", quotedOrNull(rule.ownership().owner()));
    append(line, "ticket", quotedOrNull(rule.ownership().ticket()));
    rule.ownership().tags().forEach(tag -> append(line, "tag", name(tag)));
    append(line, "note", quotedOrNull(rule.note()));
    return line.toString();
  }

  /** The clauses of a rule's match alone, such as {@code from in terminals service tcp/443}. */
  public static String formatMatch(Rule rule) {
    StringBuilder line = new StringBuilder();
    match(line, rule);
    return line.toString().strip();
  }

  private static void match(StringBuilder line, Rule rule) {
    end(line, "from", rule.fromAddresses(), rule.fromZones());
    end(line, "to", rule.toAddresses(), rule.toZones());
    criterion(line, "service", rule.services());
    for (Coordinate coordinate : Coordinate.values()) {
      criterion(line, coordinate.word(), rule.term(coordinate));
    }
  }

  private static void end(
      StringBuilder line, String word, Criterion<?> addresses, Criterion<String> zones) {
    if (addresses.isAny() && zones.isAny()) {
      return;
    }
    line.append(' ').append(word);
    items(line, addresses);
    if (!zones.isAny()) {
      line.append(" in");
      items(line, zones);
    }
  }

  private static void criterion(StringBuilder line, String word, Criterion<?> criterion) {
    if (!criterion.isAny()) {
      line.append(' ').append(word);
      items(line, criterion);
    }
  }

  private static void items(StringBuilder line, Criterion<?> criterion) {
    String separator = " ";
    for (Object item : criterion.items()) {
      line.append(separator).append(name(item.toString()));
      separator = ", ";
    }
    for (Object item : criterion.except()) {
      line.append(separator).append("not ").append(name(item.toString()));
      separator = ", ";
    }
  }

  private static void append(StringBuilder line, String word, Object value) {
    if (value != null) {
      line.append(' ').append(word).append(' ').append(value);
    }
  }

  private static String quotedOrNull(String text) {
    return text.isEmpty() ? null : TextTokens.quoted(text);
  }

  private static String name(String name) {
    return WORDS.contains(name.toLowerCase(Locale.ROOT))
        ? TextTokens.quoted(name)
        : TextTokens.nameOf(name);
  }

  /**
   * Reads the text of one rule.
   *
   * @param id of the rule
   * @throws InvalidText with the place of the first fault, if it is none
   */
  public static Rule parse(String text, String id) {
    if (text.length() > MAX_LENGTH) {
      throw new InvalidText(
          MAX_LENGTH, "at most " + MAX_LENGTH + " characters", text.length() + " characters");
    }
    return new RuleText(text).read(id);
  }

  private Rule read(String id) {
    Verdict verdict = verdict(tokens.word("a verdict"));
    String title = tokens.text("the name of the rule in quotes");
    RuleBuilder rule = valid(() -> Rule.matchingAll(id, title, verdict)).edit();
    while (!tokens.atEnd()) {
      clause(rule);
    }
    return valid(
        () ->
            rule.terms(terms)
                .validity(new Validity(start, end))
                .ownership(new Ownership(owner, ticket, tags))
                .build());
  }

  private void clause(RuleBuilder rule) {
    String word = tokens.word("a clause, such as from, to or service");
    if (!word.equals("tag") && !clauses.add(word)) {
      throw tokens.invalid("each clause once", word + " twice");
    }
    switch (word) {
      case "from" -> {
        Criterion<AddressItem> addresses = addresses();
        rule.from(zones(), addresses);
      }
      case "to" -> {
        Criterion<AddressItem> addresses = addresses();
        rule.to(zones(), addresses);
      }
      case "service" -> rule.services(items(ServiceItem::parse));
      case "begins" -> start = day();
      case "ends" -> end = day();
      case "opened" -> rule.opening(Opening.OPENED);
      case "log" -> rule.logging(logging(tokens.word("start, end or both")));
      case "plan" -> rule.ratePlan(tokens.name("the name of a rate plan"));
      case "notice" -> rule.notice(tokens.name("the name of a notice"));
      case "hold" -> {
        rule.hold(tokens.number("minutes"));
        tokens.expect("min");
      }
      case "disabled" -> rule.enabled(false);
      case "unfinished" -> rule.unfinished(true);
      case "observe" -> {
        tokens.expect("only");
        rule.observeOnly(true);
      }
      case "owner" -> owner = tokens.text("an owner in quotes");
      case "ticket" -> ticket = tokens.text("a ticket in quotes");
      case "tag" -> tags.add(tokens.name("a tag"));
      case "note" -> rule.note(tokens.text("a note in quotes"));
      default -> term(word);
    }
  }

  private void term(String word) {
    String whole = word;
    for (Coordinate coordinate : Coordinate.values()) {
      String[] parts = coordinate.word().split(" ");
      if (parts[0].equals(word)) {
        if (parts.length > 1) {
          tokens.expect(parts[1]);
        }
        terms.put(coordinate, items(Function.identity()));
        return;
      }
    }
    throw tokens.invalid("a clause, such as from, to, service or log", '"' + whole + '"');
  }

  private Criterion<AddressItem> addresses() {
    return tokens.isNext("in") ? Criterion.any() : items(AddressItem::parse);
  }

  private Criterion<String> zones() {
    if (!tokens.isNext("in")) {
      return Criterion.any();
    }
    tokens.expect("in");
    return items(Function.identity());
  }

  private <T> Criterion<T> items(Function<String, T> parse) {
    List<T> items = new ArrayList<>();
    List<T> except = new ArrayList<>();
    do {
      boolean exception = tokens.isNext("not");
      if (exception) {
        tokens.expect("not");
      }
      String item = tokens.name("an item");
      (exception ? except : items).add(valid(() -> parse.apply(item)));
    } while (tokens.takeComma());
    return valid(() -> new Criterion<>(items, except));
  }

  private LocalDate day() {
    String text = tokens.name("a day");
    try {
      return LocalDate.parse(text);
    } catch (DateTimeException e) {
      throw tokens.invalid("a day such as 2026-12-24", '"' + text + '"');
    }
  }

  private Verdict verdict(String word) {
    for (Verdict verdict : Verdict.values()) {
      if (verdict.word().equals(word)) {
        return verdict;
      }
    }
    throw tokens.invalid("allow, drop, reject or caution", '"' + word + '"');
  }

  private Logging logging(String word) {
    for (Logging logging : Logging.values()) {
      if (logging != Logging.OFF && logging.word().equals(word)) {
        return logging;
      }
    }
    throw tokens.invalid("start, end or both", '"' + word + '"');
  }

  private interface Made<T> {
    T make();
  }

  /** What is made, with the place of the last token where it is not valid. */
  private <T> T valid(Made<T> made) {
    try {
      return made.make();
    } catch (InvalidModel e) {
      throw tokens.invalid(e.expected() + " (" + e.place() + ")", e.found());
    } catch (InvalidText e) {
      throw tokens.invalid(e.expected(), e.found());
    }
  }
}
