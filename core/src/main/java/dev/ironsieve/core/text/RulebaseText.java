package dev.ironsieve.core.text;

import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.List;
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
 * Rules are as {@link RuleText} writes them.
 */
public final class RulebaseText {
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
      section.rules().forEach(rule -> text.out.add("  " + RuleText.format(rule)));
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
        "check %s: %s expects %s%s%s%s%s"
            .formatted(
                quoted(check.name()),
                check.connection(),
                check.expected().word(),
                rule,
                guarded,
                check.group().isEmpty() ? "" : " group " + quoted(check.group()),
                check.tags().isEmpty() ? "" : " tags " + String.join(", ", check.tags())));
  }

  private static void append(StringBuilder line, String word, Object value) {
    if (value != null) {
      line.append(' ').append(word).append(' ').append(value);
    }
  }

  private static String note(String note) {
    return note.isEmpty() ? "" : " note " + quoted(note);
  }

  private static String name(String name) {
    return TextTokens.nameOf(name);
  }

  private static String quoted(String text) {
    return TextTokens.quoted(text);
  }
}
