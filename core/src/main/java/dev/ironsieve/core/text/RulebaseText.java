package dev.ironsieve.core.text;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A rulebase as text, for people who compare two of them: a line for each zone, object, rule and
 * check.
 *
 * <pre>
 *   address Kiosks: 10.4.0.0/20
 *   section "Ticket sales"
 *     allow "Kiosks sell tickets" from Kiosks in terminals to in booking service "Secure web" log end
 * </pre>
 *
 * Names with other characters than letters, digits and {@code . _ - / : *} stand in quotes. {@code
 * not} begins an exception.
 */
public final class RulebaseText {
  private static final Pattern PLAIN = Pattern.compile("[\\p{L}\\p{N}._/:*+-]+");

  private final List<String> out = new ArrayList<>();

  private RulebaseText() {}

  /** The lines of a rulebase: objects, then sections with their rules, then checks. */
  public static List<String> lines(Rulebase rulebase) {
    RulebaseText text = new RulebaseText();
    rulebase.zones().forEach(o -> text.object("zone", o.name(), o.networks(), o.note()));
    rulebase.addresses().forEach(o -> text.object("address", o.name(), o.members(), o.note()));
    rulebase.services().forEach(o -> text.object("service", o.name(), o.members(), o.note()));
    rulebase
        .termObjects()
        .forEach(o -> text.object(o.kind().word(), o.name(), o.members(), o.note()));
    rulebase.gatewaySettings().ratePlans().forEach(text::ratePlan);
    rulebase
        .gatewaySettings()
        .notices()
        .forEach(
            notice ->
                text.out.add(
                    "notice %s: %s %s"
                        .formatted(
                            name(notice.name()), quoted(notice.heading()), quoted(notice.text()))));
    text.out.add("time zone " + rulebase.gatewaySettings().timeZone().getId());
    if (rulebase.gatewaySettings().lineCapacity() != null) {
      text.out.add("line capacity " + rulebase.gatewaySettings().lineCapacity());
    }
    for (Section section : rulebase.sections()) {
      String from = rulebase.originOf(section).map(name -> " from " + quoted(name)).orElse("");
      String tail = section.tail() ? " tail" : "";
      text.out.add("section " + quoted(section.name()) + tail + from);
      section.rules().forEach(rule -> text.out.add("  " + rule(rule)));
    }
    rulebase.checks().forEach(text::check);
    return List.copyOf(text.out);
  }

  private void object(String kind, String name, List<?> members, String note) {
    String of = members.stream().map(Object::toString).collect(Collectors.joining(", "));
    out.add("%s %s: %s%s".formatted(kind, name(name), of, note(note)));
  }

  private void ratePlan(RatePlan plan) {
    StringBuilder line = new StringBuilder("rate plan ").append(name(plan.name())).append(':');
    append(line, "at most", plan.ceiling());
    append(line, "at least", plan.floor());
    append(line, "for", plan.counted().word());
    append(line, "sources", plan.mostAtOnce());
    out.add(line + note(plan.note()));
  }

  private void check(SavedCheck check) {
    String rule = check.rule() == null ? "" : " by " + check.rule();
    String guarded = check.protectedConnection() ? " protected" : "";
    out.add(
        "check %s: %s expects %s%s%s"
            .formatted(
                quoted(check.name()), check.connection(), check.expected().word(), rule, guarded));
  }

  /** One rule on one line. */
  public static String rule(Rule rule) {
    StringBuilder line = new StringBuilder();
    line.append(rule.verdict().word()).append(' ').append(quoted(rule.name()));
    end(line, "from", rule.fromAddresses(), rule.fromZones());
    end(line, "to", rule.toAddresses(), rule.toZones());
    criterion(line, "service", rule.services());
    for (Coordinate coordinate : Coordinate.values()) {
      criterion(line, coordinate.word(), rule.term(coordinate));
    }
    append(line, "begins", rule.validity().start());
    append(line, "ends", rule.validity().end());
    if (rule.opening() == Opening.OPENED) {
      line.append(" opened");
    }
    if (rule.logging() != Logging.OFF) {
      append(line, "log", rule.logging().word());
    }
    append(line, "plan", rule.ratePlan() == null ? null : name(rule.ratePlan()));
    append(line, "notice", rule.notice() == null ? null : name(rule.notice()));
    append(line, "hold", rule.hold() == null ? null : rule.hold() + " min");
    line.append(rule.enabled() ? "" : " disabled");
    line.append(rule.unfinished() ? " unfinished" : "");
    line.append(rule.observeOnly() ? " observe only" : "");
    append(line, "owner", quotedOrNull(rule.ownership().owner()));
    append(line, "ticket", quotedOrNull(rule.ownership().ticket()));
    rule.ownership().tags().forEach(tag -> append(line, "tag", name(tag)));
    return line + note(rule.note());
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

  private static String note(String note) {
    return note.isEmpty() ? "" : " note " + quoted(note);
  }

  private static String quotedOrNull(String text) {
    return text.isEmpty() ? null : quoted(text);
  }

  private static String name(String name) {
    return PLAIN.matcher(name).matches() ? name : quoted(name);
  }

  private static String quoted(String text) {
    return '"'
        + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n").replace("\t", "\\t")
        + '"';
  }
}
